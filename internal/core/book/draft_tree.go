package book

import "fmt"

// MaxDepth is how many levels of subtasks stand under a to-do at most.
const MaxDepth = 100

// below calls f for each to-do under one, parents before their subtasks; those
// in the bin only where binned is set.
func (d *draft) below(id ID, binned bool, f func(*Todo) error) error {
	for _, sub := range d.in(id) {
		if !binned && !sub.Deleted.IsZero() {
			continue
		}
		if err := f(sub); err != nil {
			return err
		}
		if err := d.below(sub.ID, binned, f); err != nil {
			return err
		}
	}
	return nil
}

// checkParent returns the to-do that a subtask of some levels is to be put
// under.
func (d *draft) checkParent(id ID, levels int) (Todo, error) {
	parent, err := d.todo(id)
	switch {
	case err != nil:
		return parent, refuse("parent", "There is no to-do with the id %s to put a subtask under.", id)
	case !parent.Deleted.IsZero():
		return parent, refuse("parent", "“%s” is in the bin. Restore it first.", parent.Title)
	case !parent.Record.IsZero():
		return parent, refuse("parent", "“%s” is a record of what was done; it takes no subtasks.", parent.Title)
	case parent.IsNote:
		return parent, refuse("parent", "“%s” is a note; it takes no subtasks. Make it a to-do first.", parent.Title)
	}
	for above := parent.Parent; !above.IsZero(); levels++ {
		t, err := d.todo(above)
		if err != nil {
			break
		}
		above = t.Parent
	}
	if levels > MaxDepth {
		return parent, refuse("parent", "Under “%s” it would stand more than %d levels deep. Put it under one further up.", parent.Title, MaxDepth)
	}
	return parent, nil
}

// height is how many levels of subtasks stand under a to-do.
func (d *draft) height(id ID) int {
	most := 0
	for _, sub := range d.in(id) {
		most = max(most, 1+d.height(sub.ID))
	}
	return most
}

// reopenAbove opens the closed to-dos above an open one, and says which.
func (d *draft) reopenAbove(id ID) {
	for !id.IsZero() {
		t, err := d.todo(id)
		if err != nil {
			return
		}
		if !t.Status.Open() {
			t.Status, t.Completed = NeedsAction, 0
			d.put(t)
			if was := d.todos[id].Before; was == nil || !was.Status.Open() {
				d.also = append(d.also, t.Title)
			}
		}
		id = t.Parent
	}
}

// endUnderClosed ends the repeats of a to-do, and of those below it, that comes to
// stand under a closed one and is closed itself: nothing of it comes round again.
func (d *draft) endUnderClosed(t *Todo) error {
	parent, err := d.todo(t.Parent)
	if t.Parent.IsZero() || err != nil || parent.Status.Open() || t.Open() || t.IsNote || !t.Record.IsZero() {
		return nil
	}
	t.Repeat = nil
	return d.below(t.ID, true, func(sub *Todo) error {
		next := *sub
		if next.Record.IsZero() {
			next.Repeat = nil
			d.put(next)
		}
		return nil
	})
}

// alsoOpen says which parents were opened again.
func (d *draft) alsoOpen() string {
	s := ""
	for _, title := range d.also[:min(len(d.also), mostNamed)] {
		s += ". " + quote(title) + " is open again too"
	}
	if more := len(d.also) - mostNamed; more == 1 {
		s += ". 1 more is open again too"
	} else if more > 0 {
		s += fmt.Sprintf(". %d more are open again too", more)
	}
	return s
}

// checkTree refuses a change that would leave a to-do without its parent, under
// one in the bin or in another list, or open under one that is closed.
func (d *draft) checkTree() error {
	for _, id := range d.order {
		diff := d.todos[id]
		if diff.After == nil {
			if len(d.in(id)) > 0 {
				return &ConflictError{diff.Before.Title, []string{"subtasks"}}
			}
			continue
		}
		if err := d.checkUnder(diff.After); err != nil {
			return err
		}
		for _, child := range d.in(id) {
			if err := d.checkUnder(child); err != nil {
				return err
			}
		}
	}
	return nil
}

func (d *draft) checkUnder(t *Todo) error {
	clash := &ConflictError{t.Title, []string{"parent"}}
	if t.Parent.IsZero() {
		return nil
	}
	parent, err := d.todo(t.Parent)
	if err != nil {
		return clash
	}
	if why := clashUnder(t, &parent); why != "" {
		return refuse("parent", "“%s” would be where it cannot be: it %s.", t.Title, why)
	}
	// A circle may lie above it, without it.
	for above, n := parent, 0; !above.Parent.IsZero(); n++ {
		if above.Parent == t.ID || n > MaxDepth {
			return clash
		}
		if above, err = d.todo(above.Parent); err != nil {
			return clash
		}
	}
	return nil
}
