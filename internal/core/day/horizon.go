package day

import (
	"fmt"
	"strings"
	"time"
)

// Precision is how finely a Horizon is set.
type Precision uint8

// The precisions of a Horizon, finest first.
const (
	None Precision = iota
	Day
	Week
	Month
	Parked
)

// Horizon is a plan at ISO 8601 precision: a day (2026-11-24), a day with a
// slot (2026-11-27T14:00/PT30M), an ISO week (2026-W48), a month (2026-11) or
// the word "parked". The zero Horizon is none.
type Horizon struct {
	precision Precision
	first     Date
	slot      TimeOfDay
	minutes   int16
}

// MaxSlot is the longest slot, in minutes.
const MaxSlot = 24 * 60

// OnDay plans on a day; none gives the zero Horizon.
func OnDay(d Date) Horizon {
	if d.IsZero() {
		return Horizon{}
	}
	return Horizon{precision: Day, first: d}
}

// InWeek plans in the ISO week that holds d.
func InWeek(d Date) Horizon { return Horizon{precision: Week, first: d.Monday()} }

// InMonth plans in the month that holds d.
func InMonth(d Date) Horizon { return Horizon{precision: Month, first: d.MonthStart()} }

// SomeTime is parked: some time, maybe.
func SomeTime() Horizon { return Horizon{precision: Parked} }

// WithSlot puts a start time and a length of 1 to MaxSlot minutes on a day.
func (h Horizon) WithSlot(at TimeOfDay, minutes int) (Horizon, error) {
	if h.precision != Day || at.IsZero() || minutes < 1 || minutes > MaxSlot {
		return Horizon{}, &ParseError{Input: fmt.Sprintf("%s for %d minutes", at, minutes),
			Want: "a slot of 1 to 1440 minutes on a day"}
	}
	h.slot, h.minutes = at, int16(minutes)
	return h, nil
}

// ParseHorizon reads what String writes.
func ParseHorizon(s string) (Horizon, error) {
	bad := func() (Horizon, error) {
		return Horizon{}, &ParseError{Input: s,
			Want: "a day (2026-11-27), a slot (2026-11-27T14:00/PT30M), a week (2026-W48), a month (2026-11) or parked"}
	}
	switch {
	case s == "parked":
		return SomeTime(), nil
	case strings.Contains(s, "T"):
		at, length, found := strings.Cut(s, "/")
		minutes, ok := parseMinutes(length)
		m, err := ParseMoment(at)
		if !found || !ok || err == nil && !m.HasTime() {
			return bad()
		}
		if err != nil {
			return Horizon{}, err
		}
		return OnDay(m.Date).WithSlot(m.Time, minutes)
	case len(s) == 10:
		d, err := ParseDate(s)
		if err != nil {
			return Horizon{}, err
		}
		return OnDay(d), nil
	case len(s) == 8 && s[4:6] == "-W":
		year, ok1 := digits(s[:4])
		week, ok2 := digits(s[6:])
		if !ok1 || !ok2 {
			return bad()
		}
		monday, err := WeekStart(year, week)
		if err != nil {
			return Horizon{}, err
		}
		return InWeek(monday), nil
	case len(s) == 7 && s[4] == '-':
		d, err := ParseDate(s + "-01")
		if err != nil {
			return Horizon{}, retitleHorizon(err, s)
		}
		return InMonth(d), nil
	}
	return bad()
}

func retitleHorizon(err error, whole string) error {
	if pe, ok := err.(*ParseError); ok {
		return &ParseError{Input: whole, Want: "a month such as 2026-11", Err: pe.Err}
	}
	return err
}

// parseMinutes reads an ISO 8601 duration of whole hours and minutes.
func parseMinutes(s string) (int, bool) {
	rest, ok := strings.CutPrefix(s, "PT")
	if !ok || rest == "" {
		return 0, false
	}
	total := 0
	if hours, after, found := strings.Cut(rest, "H"); found {
		n, ok := digits(hours)
		if !ok || len(hours) > 4 {
			return 0, false
		}
		total, rest = n*60, after
	}
	if rest != "" {
		minutes, found := strings.CutSuffix(rest, "M")
		n, ok := digits(minutes)
		if !found || !ok || len(minutes) > 5 {
			return 0, false
		}
		total += n
	}
	return total, true
}

// MustHorizon is ParseHorizon for constants.
func MustHorizon(s string) Horizon {
	h, err := ParseHorizon(s)
	if err != nil {
		panic(err)
	}
	return h
}

// IsZero reports whether h is none.
func (h Horizon) IsZero() bool { return h.precision == None }

// Precision tells a day from a week, a month and parked.
func (h Horizon) Precision() Precision { return h.precision }

// First returns the first day covered; none and parked have no days.
func (h Horizon) First() Date { return h.first }

// Last returns the last day covered.
func (h Horizon) Last() Date {
	switch h.precision {
	case Week:
		return h.first.AddDays(6)
	case Month:
		year, month, _ := h.first.Civil()
		return h.first.AddDays(DaysIn(year, month) - 1)
	}
	return h.first
}

// Slot returns the start and length in minutes of a slot, or none and 0.
func (h Horizon) Slot() (TimeOfDay, int) { return h.slot, int(h.minutes) }

// Later reports whether h begins after day t. Parked and none never do.
func (h Horizon) Later(t Date) bool { return h.first.After(t) }

// Past reports whether h ended before day t. Parked and none never do.
func (h Horizon) Past(t Date) bool { return !h.first.IsZero() && h.Last().Before(t) }

// Current reports whether h covers day t.
func (h Horizon) Current(t Date) bool {
	return !h.first.IsZero() && !h.Later(t) && !h.Past(t)
}

// DayIn returns the day of a plan under c: a slot before DayStart belongs to
// the day before. Weeks, months, parked and none return h unchanged.
func (h Horizon) DayIn(c Clock) Horizon {
	if h.slot.IsZero() || h.slot.Minutes() >= int(c.DayStart/time.Minute) {
		return h
	}
	h.first = c.DayOfMoment(Moment{h.first, h.slot})
	return h
}

// String returns the form ParseHorizon reads, or "" for none.
func (h Horizon) String() string {
	switch h.precision {
	case Day:
		if !h.slot.IsZero() {
			return fmt.Sprintf("%sT%s/PT%dM", h.first, h.slot, h.minutes)
		}
		return h.first.String()
	case Week:
		year, week := h.first.ISOWeek()
		return fmt.Sprintf("%04d-W%02d", year, week)
	case Month:
		return h.first.String()[:7]
	case Parked:
		return "parked"
	}
	return ""
}

// MarshalText implements encoding.TextMarshaler.
func (h Horizon) MarshalText() ([]byte, error) { return []byte(h.String()), nil }

// UnmarshalText implements encoding.TextUnmarshaler; "" is none.
func (h *Horizon) UnmarshalText(text []byte) (err error) {
	if len(text) == 0 {
		*h = Horizon{}
		return nil
	}
	*h, err = ParseHorizon(string(text))
	return err
}
