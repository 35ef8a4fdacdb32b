package view

import (
	"cmp"
	"fmt"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// readyNow is what could be done right now: as far as each alone tells, and of
// a project's subtasks only its next action.
func (n moment) readyNow(b *book.Book) func(*book.Todo) (groupKey, bool) {
	next := n.nextActions(b)
	return func(t *book.Todo) (groupKey, bool) {
		return groupKey{kind: All}, n.readyIfOpen(t) && (t.Parent.IsZero() || next[t.ID])
	}
}

// nextActions finds that of each open project that stands under no other.
func (n moment) nextActions(b *book.Book) map[book.ID]bool {
	next := map[book.ID]bool{}
	seen := map[book.ID]bool{}
	for _, t := range b.Open() {
		if t.Parent.IsZero() || seen[t.Parent] {
			continue
		}
		seen[t.Parent] = true
		top, err := b.Todo(t.Parent)
		for err == nil && !top.Parent.IsZero() {
			top, err = b.Todo(top.Parent)
		}
		if err != nil || top.ID != t.Parent && seen[top.ID] || !top.Open() || top.Paused() {
			continue
		}
		seen[top.ID] = true
		if action := b.Next(top, n.ready); action != nil {
			next[action.ID] = true
		}
	}
	return next
}

// byUrgency is the order of Ready: overdue first, then the least time left for
// the work that remains, then priority, then the oldest.
func (n moment) byUrgency(a, b *book.Todo) int {
	if lateA, lateB := n.overdue(a), n.overdue(b); lateA != lateB {
		if lateA {
			return -1
		}
		return 1
	}
	if a.Due.IsZero() != b.Due.IsZero() {
		return a.Due.Compare(b.Due) // none last
	}
	return cmp.Or(cmp.Compare(leave(a), leave(b)), cmp.Compare(b.Priority, a.Priority), cmp.Compare(a.Created, b.Created), book.ComparePlaces(a, b))
}

// leave is the last minute, on the wall, at which work that takes the estimate
// can begin and be done by the due.
func leave(t *book.Todo) int {
	if t.Due.IsZero() {
		return 0
	}
	minutes := 24 * 60 // a due without a time ends with its day
	if t.Due.HasTime() {
		minutes = t.Due.Time.Minutes()
	}
	return t.Due.Date.Sub(day.Date{})*24*60 + minutes - int(t.Estimate)
}

// why says why a row stands where it does in Ready.
func (n moment) why(t *book.Todo) string {
	switch {
	case n.overdue(t):
		return "first, because it is late"
	case !t.Due.IsZero():
		left := "due today"
		switch d := n.DayOfMoment(t.Due).Sub(n.today); {
		case d == 1:
			left = "1 day left"
		case d > 1:
			left = fmt.Sprintf("%d days left", d)
		}
		if t.Estimate > 0 {
			left += fmt.Sprintf(" for %d min of work", t.Estimate)
		}
		return left
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
