package plan

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// Slack is the room that a to-do has until its due.
type Slack struct {
	// Work is the minutes of work in it, Spare the work time until its due less all open
	// work due by then, its own included; less than nothing proves that something of it
	// will be late.
	Work, Spare int
}

// Words says the slack: "2 h of work, 4 h to spare".
func (s Slack) Words() string {
	switch {
	case s.Spare > 0:
		return Hours(s.Work) + " of work, " + Hours(s.Spare) + " to spare"
	case s.Spare == 0:
		return Hours(s.Work) + " of work, nothing to spare"
	}
	return Hours(s.Work) + " of work; by then " + Hours(-s.Spare) + " more is due than can be done"
}

// SlackOf is the slack that an open to-do would have with a due and an estimate in minutes,
// which for 0 is its own. ok is false without a due, with one that is past, and with one
// beyond the days that capacity is reckoned for.
func SlackOf(k *Capacity, b *book.Desk, t *book.Todo, due day.Moment, estimate, assumed int) (s Slack, ok bool) {
	c := k.Clock
	if due.IsZero() || !b.IsOpen(t) || k.passed(due) {
		return s, false
	}
	above := k.deadlines(b)
	deadline := min(k.Deadline(due), above(t))
	if deadline > k.End() {
		return s, false
	}
	tree := NewTree(b, c, assumed)
	below := tree.under(t)
	if estimate == 0 {
		estimate = int(t.Estimate)
	}
	switch {
	case below.has:
		s.Work = max(estimate, below.minutes)
	case estimate == 0:
		s.Work = assumed
	default:
		s.Work = estimate
	}
	s.Spare = k.Until(deadline) - s.Work
	within := map[book.ID]bool{t.ID: true} // what s.Work holds
	for sub := range b.OfList(t.ID) {
		within[sub.ID] = true
	}
	last := due.Date.AddDays(1)
	for _, o := range b.Open() {
		if o.Parent.IsZero() && (o.Due.IsZero() || o.Due.Date.After(last)) || within[o.ID] {
			continue
		}
		if d := tree.Due(o); !d.IsZero() && (k.passed(d) || min(k.Deadline(d), above(o)) <= deadline) {
			s.Spare -= tree.Work(o).Minutes
		}
	}
	return s, true
}

// deadlines returns a function that tells the earliest deadline of the to-dos above one;
// noDeadline for none. That deadline may come before the one of the earliest due: a date ends
// with the hours of its day, and a time may lie behind these. The function remembers what it
// told, and is good for as long as the desk does not change.
func (k *Capacity) deadlines(b *book.Desk) func(*book.Todo) Minute {
	known := map[book.ID]Minute{}
	var above func(*book.Todo) Minute
	above = func(t *book.Todo) Minute {
		if t.Parent.IsZero() {
			return noDeadline
		}
		deadline, is := known[t.Parent]
		if is {
			return deadline
		}
		deadline = noDeadline
		if parent, err := b.Todo(t.Parent); err == nil {
			if deadline = above(parent); !parent.Due.IsZero() {
				deadline = min(deadline, k.Deadline(parent.Due))
			}
		}
		known[t.Parent] = deadline
		return deadline
	}
	return above
}
