package plan

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// Slack is the room that a to-do has until its due.
type Slack struct {
	// Kind is which hours it takes.
	Kind term.Hours
	// Work is the minutes of work in it, Assumed how many of them stand for estimates that it
	// has not. Spare is the hours until its due less all open work due by then, its own
	// included; less than nothing proves that something of it will not fit into the hours.
	Work, Assumed, Spare int
	// Clock is the minutes until its due as the clock goes. It is late where they are fewer
	// than its work takes.
	Clock int
}

// Late reports whether the clock itself leaves less time than the work takes.
func (s Slack) Late() bool { return s.Clock < s.Work }

// Words says the slack: "2 h of work, 4 h to spare".
func (s Slack) Words() string {
	work := workWords(s.Work, s.Assumed)
	switch {
	case s.Late():
		return work + "; only " + Hours(s.Clock) + " left until it is due"
	case s.Spare > 0:
		return work + ", " + Hours(s.Spare) + " to spare"
	case s.Spare == 0:
		return work + ", nothing to spare"
	}
	return work + "; " + outsideWords(min(s.Work, -s.Spare), s.Kind)
}

// SlackOf is the slack that an open to-do would have with a due and an estimate in minutes,
// which for 0 is its own. ok is false without a due, with one that is past, and with one
// beyond the days that capacity is reckoned for.
func SlackOf(k *Capacity, b *book.Desk, t *book.Todo, due day.Moment, estimate, assumed int) (s Slack, ok bool) {
	c := k.Clock
	if due.IsZero() || !b.IsOpen(t) || b.HoursOf(t) != k.Kind || k.passed(due) {
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
	case below.has && below.minutes > estimate:
		s.Work, s.Assumed = below.minutes, below.assumed
	case !below.has && estimate == 0:
		s.Work, s.Assumed = assumed, assumed
	default:
		s.Work = estimate
	}
	s.Kind = k.Kind
	s.Clock = k.clockUntil(tree.earlier(due, tree.over(t).due))
	s.Spare = k.Until(deadline) - s.Work
	within := map[book.ID]bool{t.ID: true} // what s.Work holds
	for sub := range b.OfList(t.ID) {
		within[sub.ID] = true
	}
	last := due.Date.AddDays(1)
	for _, o := range b.Open() {
		d := tree.Due(o)
		if d.IsZero() || o.Parent.IsZero() && d.Date.After(last) || within[o.ID] || b.HoursOf(o) != k.Kind {
			continue
		}
		if k.passed(d) || min(k.Deadline(d), above(o)) <= deadline {
			s.Spare -= tree.Work(o).Minutes
		}
	}
	return s, true
}

// deadlines returns a function that tells the earliest deadline of the to-dos above one and of
// its list; noDeadline for none. That deadline may come before the one of the earliest due: a date ends
// with the hours of its day, and a time may lie behind these. The function remembers what it
// told, and is good for as long as the desk does not change.
func (k *Capacity) deadlines(b *book.Desk) func(*book.Todo) Minute {
	known := map[book.ID]Minute{}
	var above func(*book.Todo) Minute
	above = func(t *book.Todo) Minute {
		if t.Parent.IsZero() {
			if due := listDue(b, t); !due.IsZero() {
				return k.Deadline(due)
			}
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

// clockUntil is the minutes from now until a due is over, as the clock goes: at its time, or at
// the end of its day.
func (k *Capacity) clockUntil(due day.Moment) int {
	end := k.Clock.StartOf(due.Date.AddDays(1))
	if due.HasTime() {
		end = k.Clock.Instant(due)
	}
	return max(int(MinuteOf(end)-k.now), 0)
}
