package plan

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// Tree reckons the work, the day and the due of the to-dos of a desk. A to-do takes part of
// these from the to-dos above it and below it; the Tree remembers both, so that reckoning all
// to-dos costs one step for each, however deep they stand. A Tree is good for as long as the
// desk does not change, and for one goroutine.
type Tree struct {
	desk    *book.Desk
	clock   day.Clock
	assumed int
	below   map[book.ID]below
	above   map[book.ID]above
}

// below is the work of the open subtasks of a to-do.
type below struct {
	minutes int
	assumed int  // how many of them are assumed
	has     bool // there are such subtasks
}

// above is what the subtasks of a to-do take from it and from the to-dos above it.
type above struct {
	// plan is the nearest plan.
	plan day.Horizon
	// hour is the to-do that has the nearest plan, where that is for a time of a day.
	hour book.ID
	// due is the earliest due.
	due day.Moment
}

// NewTree returns a Tree of a desk; assumed is the minutes of a to-do without an estimate.
func NewTree(b *book.Desk, c day.Clock, assumed int) *Tree {
	return &Tree{desk: b, clock: c, assumed: assumed, below: map[book.ID]below{}, above: map[book.ID]above{}}
}

// listDue is the due of the list in which a to-do is; none in the Cup.
func listDue(b *book.Desk, t *book.Todo) day.Moment {
	if t.List.IsZero() {
		return day.Moment{}
	}
	l, err := b.List(t.List)
	if err != nil {
		return day.Moment{}
	}
	return day.Moment{Date: l.Due}
}

// Work is the minutes that a to-do adds by itself.
type Work struct {
	Minutes int
	// Assumed: it has no estimate, and is taken to be as long as one without is.
	Assumed bool
}

// Work is what an open to-do adds by itself: one without open subtasks its estimate, or
// the assumed one; any other what its own estimate is above the work of these. Who waits
// for someone has no work with it, and what lies within the time of the event it was made of
// takes no more than that.
func (r *Tree) Work(t *book.Todo) Work { return r.work(t, r.under(t)) }

// idle reports whether a to-do takes no time of the person's by itself, whatever its estimate.
func idle(t *book.Todo) bool { return t.Person.Role == term.WaitingOn || t.WithinEvent() }

func (r *Tree) work(t *book.Todo, below below) Work {
	switch {
	case idle(t):
		return Work{}
	case below.has:
		return Work{Minutes: max(int(t.Estimate)-below.minutes, 0)}
	case t.Estimate == 0:
		return Work{r.assumed, true}
	}
	return Work{Minutes: int(t.Estimate)}
}

// under reckons the open subtasks of a to-do.
func (r *Tree) under(t *book.Todo) below {
	if !r.desk.HasSubtasks(t.ID) {
		return below{}
	}
	sum, known := r.below[t.ID]
	if known {
		return sum
	}
	for _, sub := range r.desk.Subtasks(t.ID) {
		open := r.desk.IsOpen(sub)
		if !open && !sub.Paused() { // subtasks of a paused to-do are still to be done
			continue
		}
		further := r.under(sub)
		sum.minutes += further.minutes
		sum.assumed += further.assumed
		sum.has = sum.has || open || further.has
		if !open {
			continue
		}
		work := r.work(sub, further)
		if sum.minutes += work.Minutes; work.Assumed {
			sum.assumed += work.Minutes
		}
	}
	r.below[t.ID] = sum
	return sum
}

// over reckons what a to-do takes from those above it, and from its list.
func (r *Tree) over(t *book.Todo) above {
	if t.Parent.IsZero() {
		return above{due: listDue(r.desk, t)}
	}
	from, known := r.above[t.Parent]
	if known {
		return from
	}
	if parent, err := r.desk.Todo(t.Parent); err == nil {
		from = r.over(parent)
		if !parent.Plan.IsZero() {
			from.plan, from.hour = parent.Plan, book.ID{}
			if _, slot := parent.Plan.Slot(); slot > 0 {
				from.hour = parent.ID
			}
		}
		from.due = r.earlier(parent.Due, from.due)
	}
	r.above[t.Parent] = from
	return from
}

// earlier is the earlier of two dues, the first of equal ones; either may be none.
func (r *Tree) earlier(a, b day.Moment) day.Moment {
	if a.IsZero() || !b.IsZero() && r.clock.Instant(b).Before(r.clock.Instant(a)) {
		return b
	}
	return a
}

// Cup is the day, week or month, or parked, on which an open to-do lies: its own plan,
// else that of the nearest to-do above it that has one, else the day of its due; none where
// it has none of these. A plan that is past lies on today.
func (r *Tree) Cup(t *book.Todo) day.Horizon {
	c, h := r.clock, t.Plan
	if h.IsZero() {
		h = r.over(t).plan
	}
	if h.IsZero() && !t.Due.IsZero() {
		h = day.OnDay(c.DayOfMoment(t.Due))
	}
	if h = h.DayIn(c); h.Precision() == day.Day {
		h = day.OnDay(h.First())
	}
	if today := c.Today(); h.Past(today) {
		return day.OnDay(today)
	}
	return h
}

// HourAbove is the to-do above another in whose time of the day that is done: the nearest one
// that has a plan, where that is for a time of a day and the other has no plan of its own.
func (r *Tree) HourAbove(t *book.Todo) book.ID {
	if !t.Plan.IsZero() {
		return book.ID{}
	}
	return r.over(t).hour
}

// Due is the earliest due of a to-do, of those above it and of its list.
func (r *Tree) Due(t *book.Todo) day.Moment {
	return r.earlier(t.Due, r.over(t).due)
}
