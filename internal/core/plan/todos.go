package plan

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// WorkOf is Tree.Work for one to-do alone.
func WorkOf(b *book.Desk, t *book.Todo, assumed int) Work {
	return NewTree(b, day.Clock{}, assumed).Work(t)
}

// CupOf is Tree.Cup for one to-do alone.
func CupOf(b *book.Desk, c day.Clock, t *book.Todo) day.Horizon { return NewTree(b, c, 0).Cup(t) }

// DueOf is Tree.Due for one to-do alone.
func DueOf(b *book.Desk, c day.Clock, t *book.Todo) day.Moment { return NewTree(b, c, 0).Due(t) }

// Gathered is the work on a desk as jobs.
type Gathered struct {
	Jobs []Job
	// Todos are the to-dos of the jobs, each at the index of its job.
	Todos []*book.Todo
	// Busy is the time of slots from now on, whichever hours their work takes.
	Busy []Stretch
}

// Gather makes a job of each open to-do that takes hours of a kind and has work and a due or a
// plan, its own or one above it; with a day, of those alone that have a due up to it. A
// to-do planned for a time of day is done then: it takes its time, and is no job. Subtasks done one
// after another wait for each other.
func Gather(b *book.Desk, c day.Clock, kind term.Hours, assumed int, dueBy day.Date) Gathered {
	return gather(b, c, kind, assumed, dueBy, day.MaxDate)
}

// GatherUntil is Gather for the days up to one: what is planned for one of them, or for a week
// that ends by then, and what is due by then and planned for no later time. Slots after it
// take no time of these days, and are no matter.
func GatherUntil(b *book.Desk, c day.Clock, kind term.Hours, assumed int, last day.Date) Gathered {
	return gather(b, c, kind, assumed, day.Date{}, last)
}

// until tells whether work belongs to the days up to one.
func until(c day.Clock, cup day.Horizon, due day.Moment, last day.Date) bool {
	switch {
	case cup.IsZero() || cup.Precision() == day.Parked:
		return !due.IsZero() && !c.DayOfMoment(due).After(last)
	case cup.Precision() == day.Week: // a shown week may begin on Sunday: its Monday says which it is
		return !cup.First().After(last)
	}
	return !cup.Last().After(last)
}

func gather(b *book.Desk, c day.Clock, kind term.Hours, assumed int, dueBy, last day.Date) Gathered {
	var g Gathered
	later := func(t *book.Todo, due day.Moment) bool {
		return (due.IsZero() || due.Date.Sub(last) > 1) && (t.Plan.IsZero() || t.Plan.First().After(last))
	}
	at, tree := map[book.ID]int{}, NewTree(b, c, assumed)
	for _, t := range b.Open() {
		if s, has := SlotOf(c, t); has && s.To > MinuteOf(c.Now) && tree.Work(t).Minutes > 0 {
			if !c.DayOf(s.From.Time()).After(last) {
				g.Busy = append(g.Busy, s)
			}
			continue
		}
		if b.HoursOf(t) != kind {
			continue
		}
		due := tree.Due(t)
		if t.Parent.IsZero() && (due.IsZero() && (t.Plan.IsZero() || !dueBy.IsZero()) || !dueBy.IsZero() && due.Date.After(dueBy.AddDays(1))) {
			continue // most end here
		}
		if t.Parent.IsZero() && later(t, due) {
			continue
		}
		if !dueBy.IsZero() && (due.IsZero() || c.DayOfMoment(due).After(dueBy)) {
			continue
		}
		cup := tree.Cup(t)
		if last != day.MaxDate && !until(c, cup, due, last) {
			continue
		}
		work := tree.Work(t)
		if work.Minutes == 0 || cup.IsZero() && due.IsZero() || cup.Precision() == day.Parked && due.IsZero() {
			continue
		}
		j := Job{ID: t.ID.String(), Minutes: work.Minutes, Release: day.Moment{Date: t.Start}, Due: due, Weight: WeightOf(t.Priority), Deep: t.Concentration == term.Deep}
		if cup.Precision() == day.Day && (!t.Plan.IsZero() || t.Due.IsZero()) {
			j.Day = cup.First()
		}
		at[t.ID] = len(g.Jobs)
		g.Jobs, g.Todos = append(g.Jobs, j), append(g.Todos, t)
	}
	g.chain(b, at)
	return g
}

// chain lets the jobs of each to-do that is done one after another wait for those of the
// subtask before them.
func (g *Gathered) chain(b *book.Desk, at map[book.ID]int) {
	done := map[book.ID]bool{}
	for _, t := range g.Todos {
		parent, err := b.Todo(t.Parent)
		if err != nil || !parent.InOrder || done[parent.ID] {
			continue
		}
		done[parent.ID] = true
		var before []int
		for _, sub := range b.Subtasks(parent.ID) {
			if !b.IsOpen(sub) {
				continue
			}
			jobs := jobsUnder(b, sub, at)
			for _, job := range jobs {
				g.Jobs[job].After = append(g.Jobs[job].After, before...)
			}
			if len(jobs) > 0 {
				before = jobs
			}
		}
	}
}

// jobsUnder are the jobs of a to-do and of all that stands under it.
func jobsUnder(b *book.Desk, t *book.Todo, at map[book.ID]int) (jobs []int) {
	if job, is := at[t.ID]; is {
		jobs = append(jobs, job)
	}
	for _, sub := range b.Subtasks(t.ID) {
		jobs = append(jobs, jobsUnder(b, sub, at)...)
	}
	return jobs
}
