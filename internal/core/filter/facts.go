package filter

import (
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// facts is what a filter may ask of a to-do, with every date as the day it
// counts to.
type facts struct {
	text                   string // title and notes, folded
	place                  string // folded
	list, shelf, section   book.ID
	tags                   []book.ID         // with those above each
	choices                [maxChoices]uint8 // each the place of a word in its choice
	status                 book.Status
	note                   bool // it has no status then
	due, start             day.Date
	dueTime, planTime      day.TimeOfDay
	passed                 bool // the due is
	plan                   day.Horizon
	planSeen               day.Date // the today from which the plan is seen, if not the one that is asked about
	created, completed     day.Date
	estimate               int
	person                 book.ID
	role                   book.Role
	repeating, paused      bool
	hasSubtasks, isSubtask bool
	next                   bool
	attachment, handful    bool
}

// eval answers a test; whatever is absent answers no.
func (t *Test) eval(f *facts, today day.Date) bool {
	return t.spec.holds(t, f, today)
}

func (f *facts) planToday(today day.Date) day.Date {
	if f.planSeen.IsZero() {
		return today
	}
	return f.planSeen
}

func toInt(b bool) int {
	if b {
		return 1
	}
	return 0
}

// fold lets texts compare without their case.
func fold(s string) string { return strings.ToLower(s) }

func (t *Test) oneOf(id book.ID) bool {
	if t.Op == None {
		return id.IsZero()
	}
	return !id.IsZero() && slices.Contains(t.IDs, id)
}

func (t *Test) tagged(f *facts) bool {
	has := func(id book.ID) bool { return slices.Contains(f.tags, id) }
	switch t.Op {
	case AnyOf:
		return slices.ContainsFunc(t.IDs, has)
	case NoneOf:
		return !slices.ContainsFunc(t.IDs, has)
	case AllOf:
		return !slices.ContainsFunc(t.IDs, func(id book.ID) bool { return !has(id) })
	}
	return len(f.tags) == 0
}

// onDay answers a test on a day, a week or a month. Parked is on no day and
// yet not none.
func (t *Test) onDay(h day.Horizon, at day.TimeOfDay, today day.Date) bool {
	if t.Op == None {
		return h.IsZero()
	}
	if t.Op == Parked {
		return h.Precision() == day.Parked
	}
	first, last := h.First(), h.Last()
	if first.IsZero() {
		return false
	}
	switch t.Op {
	case Before:
		return last.Before(t.Date.At(today))
	case After:
		return first.After(t.Date.At(today))
	case TimeBetween:
		return t.timeOf(at)
	}
	from, to := t.span(today)
	return !first.After(to) && !last.Before(from)
}

// timeOf answers a test on a time of the day.
func (t *Test) timeOf(at day.TimeOfDay) bool {
	return !at.IsZero() && at.Compare(t.From) >= 0 && at.Compare(t.Until) <= 0
}

// span returns the days that the test asks for, both counted in; from lies after
// to where there are none.
func (t *Test) span(today day.Date) (from, to day.Date) {
	switch d := t.Date.At(today); t.Op {
	case Before:
		if d == day.MinDate {
			return day.MaxDate, day.MinDate
		}
		return day.MinDate, d.AddDays(-1)
	case After:
		if d == day.MaxDate {
			return day.MaxDate, day.MinDate
		}
		return d.AddDays(1), day.MaxDate
	case On:
		return d, d
	case WithinNext:
		return today, today.AddDays(t.Days)
	case WithinPast:
		return today.AddDays(-t.Days), today
	}
	return t.Date.At(today), t.To.At(today)
}
