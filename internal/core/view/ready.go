package view

import (
	"cmp"
	"fmt"

	"tincup/internal/core/book"
	"tincup/internal/core/plan"
)

// byUrgency is the order of Ready: overdue first, then the least slack, then priority, then
// the oldest. Of what is overdue the earliest due comes first; what is due further ahead than
// slack is reckoned stands with what has no due.
func (n moment) byUrgency(b *book.Desk) order {
	rank := func(t *book.Todo) int64 {
		if n.overdue(t) {
			return t.Due.Ordinal()
		}
		if spare, known := b.Spare(t); known {
			return 2<<40 + int64(spare)
		}
		return 3 << 40
	}
	return order{rank: rank, compare: func(a, b *book.Todo) int {
		switch {
		case a.Priority != b.Priority:
			return cmp.Compare(b.Priority, a.Priority)
		case a.Created != b.Created:
			return cmp.Compare(a.Created, b.Created)
		}
		return book.ComparePositions(a, b)
	}}
}

// remaining is the minutes of work left in a to-do: its estimate, or that of its
// open subtasks where these take longer.
func remaining(b *book.Desk, t *book.Todo) int {
	below := 0
	for _, sub := range b.Subtasks(t.ID) {
		if sub.Open() {
			below += remaining(b, sub)
		}
	}
	return max(int(t.Estimate), below)
}

// why says why a row stands where it does in Ready.
func (n moment) why(b *book.Desk, t *book.Todo) string {
	due := plan.DueOf(b, n.Clock, t)
	switch {
	case n.overdue(t):
		return withWork("late, so before all that is not", b, t)
	case !due.IsZero() && !n.Passed(due):
		left := "due today"
		switch d := n.DayOfMoment(due).Sub(n.today); {
		case d == 1:
			left = "1 day left"
		case d > 1:
			left = fmt.Sprintf("%d days left", d)
		}
		if due != t.Due {
			left += " for what it is part of"
		}
		return withWork(left, b, t) + withSlack(b, t)
	case t.Priority > book.NoPriority:
		return fmt.Sprintf("no due, %s priority", t.Priority)
	}
	switch d := n.today.Sub(n.DayOf(t.Created.Time())); {
	case d <= 0:
		return "no due, put in today"
	case d == 1:
		return "no due, put in yesterday"
	default:
		return fmt.Sprintf("no due, put in %d days ago", d)
	}
}

// withSlack says the slack, where it is known.
func withSlack(b *book.Desk, t *book.Todo) string {
	switch spare, known := b.Spare(t); {
	case !known:
		return ""
	case spare < 0:
		return ", " + plan.Hours(-spare) + " more is due by then than can be done"
	default:
		return ", " + plan.Hours(spare) + " to spare"
	}
}

// withWork adds the work that remains, where it is estimated.
func withWork(why string, b *book.Desk, t *book.Todo) string {
	if work := remaining(b, t); work > 0 {
		why += ", " + plan.Hours(work) + " of work"
	}
	return why
}
