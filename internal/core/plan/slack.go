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
	deadline := min(k.Deadline(due), k.deadlineAbove(b, t))
	if deadline > k.End() {
		return s, false
	}
	below, has := workBelow(b, t, assumed)
	if estimate == 0 {
		estimate = int(t.Estimate)
	}
	switch {
	case has:
		s.Work = max(estimate, below)
	case estimate == 0:
		s.Work = assumed
	default:
		s.Work = estimate
	}
	s.Spare = k.Until(deadline) - s.Work
	last := due.Date.AddDays(1)
	for _, o := range b.Open() {
		if o.Parent.IsZero() && (o.Due.IsZero() || o.Due.Date.After(last)) || under(b, o, t) {
			continue
		}
		if d := DueOf(b, c, o); !d.IsZero() && (k.passed(d) || min(k.Deadline(d), k.deadlineAbove(b, o)) <= deadline) {
			s.Spare -= WorkOf(b, o, assumed).Minutes
		}
	}
	return s, true
}

// deadlineAbove is the earliest deadline of the to-dos above one; noDeadline for none. It may come
// before that of the earliest due: a date ends with the hours of its day, and a time may lie
// behind these.
func (k *Capacity) deadlineAbove(b *book.Desk, t *book.Todo) Minute {
	deadline := noDeadline
	for up := t; !up.Parent.IsZero(); {
		parent, err := b.Todo(up.Parent)
		if err != nil {
			break
		}
		if up = parent; !up.Due.IsZero() {
			deadline = min(deadline, k.Deadline(up.Due))
		}
	}
	return deadline
}

// under tells whether a to-do is another one, or stands under it.
func under(b *book.Desk, t, top *book.Todo) bool {
	for t.ID != top.ID {
		parent, err := b.Todo(t.Parent)
		if err != nil {
			return false
		}
		t = parent
	}
	return true
}
