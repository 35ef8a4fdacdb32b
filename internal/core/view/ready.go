package view

import (
	"cmp"
	"fmt"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
)

// openParents returns the to-dos that have open subtasks, each once.
func openParents(b *book.Desk) []*book.Todo {
	var parents []*book.Todo
	seen := map[book.ID]bool{}
	for _, t := range b.Open() {
		if t.Parent.IsZero() || seen[t.Parent] {
			continue
		}
		seen[t.Parent] = true
		if parent, err := b.Todo(t.Parent); err == nil {
			parents = append(parents, parent)
		}
	}
	return parents
}

// byUrgency is the order of Ready: overdue first, then the least time left for
// the work that remains, then priority, then the oldest.
func (n moment) byUrgency(b *book.Desk) order {
	parents := openParents(b)
	work := make(map[*book.Todo]int, len(parents)) // of projects
	for _, t := range parents {
		if !t.Due.IsZero() {
			work[t] = remaining(b, t)
		}
	}
	rank := func(t *book.Todo) int64 {
		switch {
		case t.Due.IsZero():
			return 2 << 40
		case n.overdue(t):
			return int64(leave(work, t))
		}
		return 1<<40 + int64(leave(work, t))
	}
	return order{rank: rank, compare: func(a, b *book.Todo) int {
		switch {
		case a.Priority != b.Priority:
			return cmp.Compare(b.Priority, a.Priority)
		case a.Created != b.Created:
			return cmp.Compare(a.Created, b.Created)
		}
		return book.ComparePlaces(a, b)
	}}
}

// leave is the last minute, on the wall, at which work that takes the estimate
// can begin and be done by the due.
func leave(work map[*book.Todo]int, t *book.Todo) int {
	minutes := 24 * 60 // a due without a time ends with its day
	if t.Due.HasTime() {
		minutes = t.Due.Time.Minutes()
	}
	return t.Due.Date.Sub(day.Date{})*24*60 + minutes - max(int(t.Estimate), work[t])
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
	switch {
	case n.overdue(t):
		return withWork("late, so before all that is not", b, t)
	case !t.Due.IsZero():
		left := "due today"
		switch d := n.DayOfMoment(t.Due).Sub(n.today); {
		case d == 1:
			left = "1 day left"
		case d > 1:
			left = fmt.Sprintf("%d days left", d)
		}
		return withWork(left, b, t)
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

// withWork adds the work that remains, where it is estimated.
func withWork(why string, b *book.Desk, t *book.Todo) string {
	if work := remaining(b, t); work > 0 {
		why += ", " + plan.Hours(work) + " of work"
	}
	return why
}
