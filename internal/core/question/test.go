package question

import (
	"fmt"

	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// Test asks one thing about one field. Which parts are set depends on Op.
type Test struct {
	Field Field
	Op    Op
	// Text is what a text, or a place, contains.
	Text string
	// IDs are lists, shelves, sections, tags or people; Words are values of a closed set.
	IDs   []term.ID
	Words []string
	// Date and To are days; Days is a number of days.
	Date, To When
	Days     int
	// From and Until are times of the day, both counted in.
	From, Until day.TimeOfDay
	Minutes     int
}

// Op is what a test asks.
type Op string

// The operators. None is true of an absent value: in the Cup, untagged, unassigned,
// without a due.
const (
	Contains    Op = "contains"
	AnyOf       Op = "any-of"
	AllOf       Op = "all-of"
	NoneOf      Op = "none-of"
	None        Op = "none"
	Before      Op = "before"
	After       Op = "after"
	On          Op = "on"
	WithinNext  Op = "within-next"
	WithinPast  Op = "within-past"
	Between     Op = "between"
	TimeBetween Op = "time-between"
	AtMost      Op = "at-most"
	AtLeast     Op = "at-least"
	Parked      Op = "parked" // a plan for some time, maybe
	Yes         Op = "yes"
	No          Op = "no"
)

// Span returns the days that a test on a day asks for, both counted in, as of a today;
// from lies after to where there are none.
func (t *Test) Span(today day.Date) (from, to day.Date) {
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

// Meets answers a test on a day, a week or a month, as of a today, at being the time of
// day where there is one. Parked is on no day and yet not none.
func (t *Test) Meets(h day.Horizon, at day.TimeOfDay, today day.Date) bool {
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
		return t.MeetsTime(at)
	}
	from, to := t.Span(today)
	return !first.After(to) && !last.Before(from)
}

// MeetsTime answers a test on a time of the day.
func (t *Test) MeetsTime(at day.TimeOfDay) bool {
	return !at.IsZero() && at.Compare(t.From) >= 0 && at.Compare(t.Until) <= 0
}

// When is a day, fixed or counted from today. The zero When is none.
type When struct {
	date     day.Date
	days     int
	relative bool
}

// Fixed is a day of the calendar.
func Fixed(d day.Date) When { return When{date: d} }

// FromToday is so many days after today, or before.
func FromToday(days int) When { return When{days: days, relative: true} }

// IsZero reports whether there is no day.
func (w When) IsZero() bool { return !w.relative && w.date.IsZero() }

// Days is how many days after today it is; ok is false for a fixed day and for none.
func (w When) Days() (days int, ok bool) { return w.days, w.relative }

// At returns the day as of a today.
func (w When) At(today day.Date) day.Date {
	if w.relative {
		return today.AddDays(w.days)
	}
	return w.date
}

// String returns the form that the JSON has.
func (w When) String() string {
	switch {
	case !w.relative:
		return w.date.String()
	case w.days < 0:
		return fmt.Sprintf("-P%dD", -w.days)
	}
	return fmt.Sprintf("P%dD", w.days)
}

// Words says a day: "today", "3 days from today", "1 Dec 2026".
func (w When) Words() string {
	switch {
	case !w.relative:
		return w.date.Words()
	case w.days == 0:
		return "today"
	case w.days == 1:
		return "tomorrow"
	case w.days == -1:
		return "yesterday"
	case w.days < 0:
		return fmt.Sprintf("%d days ago", -w.days)
	}
	return fmt.Sprintf("%d days from today", w.days)
}
