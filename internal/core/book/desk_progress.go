package book

import "fmt"

// Progress counts the leaves of a project.
type Progress struct {
	// Done of Total leaves are completed; cancelled ones, notes and the bin are
	// left out.
	Done, Total int
}

// Percent is rounded down, and 100 only when all are done; 0 without leaves.
func (p Progress) Percent() int {
	if p.Total == 0 {
		return 0
	}
	return 100 * p.Done / p.Total
}

// String is "1 of 3 done, 33 %, 2 left", or "nothing to do" without leaves.
func (p Progress) String() string {
	if p.Total == 0 {
		return "nothing to do"
	}
	return fmt.Sprintf("%d of %d done, %d %%, %d left", p.Done, p.Total, p.Percent(), p.Total-p.Done)
}

// Progress counts the leaves under a to-do; Total is 0 where it has none.
func (b *Desk) Progress(t *Todo) Progress {
	return progress(func(id ID) []*Todo { return b.siblings[id] }, t.ID)
}

// ListProgress counts the leaves of a list, what was cleared from its sight with them; records
// of repeats, which came and went, are left out.
func (b *Desk) ListProgress(list ID) Progress {
	return progress(func(id ID) []*Todo { return b.siblings[id] }, list)
}

func progress(subtasks func(ID) []*Todo, id ID) Progress {
	var p Progress
	for _, sub := range subtasks(id) {
		if sub.Status == Cancelled || sub.IsNote || !sub.Deleted.IsZero() || !sub.Record.IsZero() && sub.Parent.IsZero() {
			continue
		}
		if below := progress(subtasks, sub.ID); below.Total > 0 {
			p.Done += below.Done
			p.Total += below.Total
			continue
		}
		p.Total++
		if sub.Status == Completed {
			p.Done++
		}
	}
	return p
}

// Next returns the next action of a project: its first open leaf in order that
// the caller can do now, as ready tells; nil where there is none. Where its
// subtasks are done one after another, only the first open one counts.
func (b *Desk) Next(t *Todo, ready func(*Todo) bool) *Todo { return b.Nexts(ready)(t) }

// Nexts returns a function that tells what Next does, and remembers what it found of the to-dos
// below: asking it of all projects costs one step for each to-do, however deep they stand. The
// function is good for as long as the desk does not change, and for one goroutine.
func (b *Desk) Nexts(ready func(*Todo) bool) func(*Todo) *Todo {
	n := nexts{desk: b, ready: ready, known: map[ID]nextOf{}}
	return func(t *Todo) *Todo { return n.of(t).action }
}

// nexts finds next actions, each project's once.
type nexts struct {
	desk  *Desk
	ready func(*Todo) bool
	known map[ID]nextOf
}

// nextOf is the next action under a to-do, nil for none, and whether an open leaf stands there.
type nextOf struct {
	action *Todo
	open   bool
}

func (n *nexts) of(t *Todo) nextOf {
	if len(n.desk.siblings[t.ID]) == 0 {
		return nextOf{}
	}
	found, known := n.known[t.ID]
	if !known {
		found = n.under(t)
		n.known[t.ID] = found
	}
	return found
}

func (n *nexts) under(t *Todo) nextOf {
	order := ByPriority
	if l, ok := n.desk.lists[t.List]; ok {
		order = l.Order
	}
	open := false
	for _, sub := range n.desk.subtasksBy(t.ID, order) {
		if !sub.Open() || sub.Paused() {
			continue
		}
		below := n.of(sub)
		switch {
		case !below.open && n.ready(sub):
			return nextOf{sub, true}
		case below.action != nil:
			return nextOf{below.action, true}
		}
		if open = true; t.InOrder {
			break
		}
	}
	return nextOf{open: open}
}

// Project is the reply to a tick within a project.
type Project struct {
	ID    ID
	Title string
	Progress
	// Finished: nothing under it is open any more, and it can be finished.
	Finished bool
}

// Project tells how the project above the change's first to-do stands after
// it; nil where there is none, or where that is closed.
func (b *Desk) Project(c *Change) *Project {
	t := c.Todo()
	if t == nil || t.Parent.IsZero() {
		return nil
	}
	d := newDraft(b, Env{})
	for i := range c.Todos {
		if after := c.Todos[i].After; after != nil {
			d.write(d.diff(after.ID), after)
		} else {
			d.takeOut(c.Todos[i].Before.ID)
		}
	}
	parent, err := d.todo(t.Parent)
	if err != nil || !parent.Status.Open() {
		return nil
	}
	p := &Project{ID: parent.ID, Title: parent.Title, Progress: progress(d.in, parent.ID)}
	p.Finished = p.Total > 0 && p.Done == p.Total
	return p
}

// progressAbove says how the project that a closed subtask belongs to stands.
func (d *draft) progressAbove(t *Todo) string {
	parent, err := d.todo(t.Parent)
	if t.Parent.IsZero() || err != nil || !t.Record.IsZero() {
		return ""
	}
	return ". " + parent.Title + ": " + progress(d.in, parent.ID).String()
}
