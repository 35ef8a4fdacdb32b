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

// standings tells how projects stand. It remembers what it found of the to-dos below them, so
// that asking it of all projects costs one step for each to-do, however deep they stand.
type standings struct {
	moment
	desk *book.Desk
	next func(*book.Todo) *book.Todo
	last map[book.ID]day.Timestamp
}

func newStandings(b *book.Desk, now moment) *standings {
	return &standings{moment: now, desk: b, next: b.Nexts(now.canDo), last: map[book.ID]day.Timestamp{}}
}

func (s *standings) of(t *book.Todo) *Standing {
	is := &Standing{Next: s.next(t), Moved: s.DayOf(s.lastChange(t).Time())}
	if days := s.today.Sub(is.Moved); days >= QuietDays {
		is.Quiet = days
	}
	return is
}

// lastChange is when a to-do, or anything under it, last changed.
func (s *standings) lastChange(t *book.Todo) day.Timestamp {
	last, known := s.last[t.ID]
	if known {
		return last
	}
	last = t.Changed
	for _, sub := range s.desk.Subtasks(t.ID) {
		last = max(last, s.lastChange(sub))
	}
	s.last[t.ID] = last
	return last
}
