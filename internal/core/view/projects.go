package view

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// QuietDays is after how many days without any change a project is flagged.
const QuietDays = 14

// Standing is how a project stands, in Projects.
type Standing struct {
	// Next is its next action; nil is flagged.
	Next *book.Todo
	// Moved is the day on which it or anything under it last changed, and Quiet
	// the days since where these are QuietDays or more, else 0.
	Moved day.Date
	Quiet int
}

func (n moment) standing(b *book.Desk, t *book.Todo) *Standing {
	s := &Standing{Next: b.Next(t, n.canDo), Moved: n.DayOf(lastChange(b, t).Time())}
	if days := n.today.Sub(s.Moved); days >= QuietDays {
		s.Quiet = days
	}
	return s
}

func lastChange(b *book.Desk, t *book.Todo) day.Timestamp {
	last := t.Changed
	for _, sub := range b.Subtasks(t.ID) {
		last = max(last, lastChange(b, sub))
	}
	return last
}
