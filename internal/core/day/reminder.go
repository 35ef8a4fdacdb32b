package day

import (
	"fmt"
	"strings"
	"time"
)

// Reminder is a wall time, a time before what it reminds of (RemindedOf), or an edge of a
// place. The zero Reminder is none.
type Reminder struct {
	At Moment
	// Before is minutes, counted where At is none, from -MaxAfter to MaxBefore: 0 is at that very
	// time, and less than 0 after it.
	Before int
	// Edge is at which edge of a place it comes; NoEdge for one that comes at a time.
	Edge Edge
	// Place is the name of the place.
	Place string
	// Sound names what is heard when it comes, in small letters and hyphens; "" is the account's.
	Sound string
	set   bool
}

// MaxBefore is the longest a reminder comes ahead, in minutes.
const MaxBefore = 366 * 24 * 60

// MaxAfter is the longest a reminder comes after what it reminds of, in minutes: one of a date
// without time counts from an hour of that day, and others may want it later on the day.
const MaxAfter = 24 * 60

// ReminderAt reminds at a wall time.
func ReminderAt(m Moment) Reminder { return Reminder{At: m, set: true} }

// ReminderBefore reminds a number of minutes ahead, -MaxAfter to MaxBefore.
func ReminderBefore(minutes int) Reminder { return Reminder{Before: minutes, set: true} }

// IsZero reports whether r is none.
func (r Reminder) IsZero() bool { return !r.set }

// ParseReminder reads a date with time (2026-11-27T15:00), or a duration before
// in the form of RFC 5545 TRIGGER (section 3.8.6.3): -PT30M, -PT2H, -P1D, -P1W, or after, PT1H. The name of
// its sound may follow a semicolon: -PT30M;drip. An edge is written with the words of RFC 9074
// PROXIMITY (section 8.1) and the name of its place: ARRIVE:The museum, DEPART;drip:The museum.
func ParseReminder(s string) (Reminder, error) {
	if r, ok, err := parseEdgeReminder(s); ok {
		return r, err
	}
	bad := &ParseError{Input: s, Want: "a reminder such as 2026-11-27T15:00 or -PT30M"}
	when, sound, sounds := strings.Cut(s, ";")
	if !sounds {
		return parseReminder(when, bad)
	}
	r, err := parseReminder(when, bad)
	if err != nil || !isSound(sound) {
		return Reminder{}, bad
	}
	r.Sound = sound
	return r, nil
}

// maxSound is how long the name of a sound may be, in bytes.
const maxSound = 20

func isSound(s string) bool {
	return s != "" && len(s) <= maxSound && strings.Trim(s, "abcdefghijklmnopqrstuvwxyz-") == ""
}

func parseReminder(s string, bad *ParseError) (Reminder, error) {
	if rest, before := strings.CutPrefix(s, "-P"); before {
		minutes, ok := parseDuration(rest)
		if !ok || minutes > MaxBefore {
			return Reminder{}, bad
		}
		return ReminderBefore(minutes), nil
	}
	if rest, after := strings.CutPrefix(s, "P"); after {
		minutes, ok := parseDuration(rest)
		if !ok || minutes < 1 || minutes > MaxAfter {
			return Reminder{}, bad
		}
		return ReminderBefore(-minutes), nil
	}
	m, err := ParseMoment(s)
	if err != nil {
		return Reminder{}, err
	}
	if !m.HasTime() {
		return Reminder{}, bad
	}
	return ReminderAt(m), nil
}

// parseDuration reads what follows the P: weeks, days, or hours and minutes.
func parseDuration(s string) (int, bool) {
	if rest, ok := strings.CutPrefix(s, "T"); ok {
		return parseMinutes("PT" + rest)
	}
	for unit, minutes := range map[string]int{"W": 7 * 24 * 60, "D": 24 * 60} {
		if count, ok := strings.CutSuffix(s, unit); ok && len(count) <= 4 {
			n, ok := digits(count)
			return n * minutes, ok
		}
	}
	return 0, false
}

// Silent is the reminder without a sound of its own.
func (r Reminder) Silent() Reminder {
	r.Sound = ""
	return r
}

// String returns the form ParseReminder reads, or "" for none.
func (r Reminder) String() string {
	if r.Edge != NoEdge {
		return r.edgeText()
	}
	if r.Sound != "" {
		return r.Silent().String() + ";" + r.Sound
	}
	const days = 24 * 60
	switch {
	case !r.set:
		return ""
	case !r.At.IsZero():
		return r.At.String()
	case r.Before < 0:
		return ReminderBefore(-r.Before).String()[1:]
	case r.Before > 0 && r.Before%days == 0:
		return fmt.Sprintf("-P%dD", r.Before/days)
	case r.Before > 0 && r.Before%60 == 0:
		return fmt.Sprintf("-PT%dH", r.Before/60)
	}
	return fmt.Sprintf("-PT%dM", r.Before)
}

// Words says it: "1 hour before", "Fri 27 Nov 2026, 15:00", "on arriving at The museum"; "" for
// none.
func (r Reminder) Words() string {
	if !r.set {
		return ""
	}
	if r.Edge != NoEdge {
		return r.edgeWords()
	}
	if !r.At.IsZero() {
		return r.At.Date.Words() + ", " + r.At.Time.String()
	}
	if r.Before == 0 {
		return "at the time"
	}
	if r.Before < 0 {
		return LengthWords(-r.Before) + " after"
	}
	return LengthWords(r.Before) + " before"
}

// LengthWords says a length of minutes in its largest whole unit: "90 min", "2 hours",
// "1 day".
func LengthWords(minutes int) string {
	for _, u := range []struct {
		minutes int
		name    string
	}{{7 * 24 * 60, "week"}, {24 * 60, "day"}, {60, "hour"}} {
		if n := minutes / u.minutes; minutes%u.minutes == 0 && n > 0 {
			if n == 1 {
				return "1 " + u.name
			}
			return fmt.Sprintf("%d %ss", n, u.name)
		}
	}
	return fmt.Sprintf("%d min", minutes)
}

// RemindedOf is what reminders ahead come before: the due, else the slot of the plan, else
// the start; none where there is none of the three.
func RemindedOf(due Moment, plan Horizon, start Date) Moment {
	if !due.IsZero() {
		return due
	}
	if at, minutes := plan.Slot(); minutes > 0 {
		return Moment{plan.First(), at}
	}
	return Moment{Date: start}
}

// Rings returns the instant at which a reminder of a moment comes, in the clock's zone. A
// date without time is taken at the wall time morning. Whole days ahead are counted on the
// calendar and keep the wall time, what is left of hours and minutes is exact (RFC 5545
// section 3.3.6); a wall time is met as Instant says. It is the zero time where there is no
// reminder, or nothing that it could be before, and for an edge, which no clock knows.
func (c Clock) Rings(r Reminder, of Moment, morning TimeOfDay) time.Time {
	const days = 24 * 60
	switch {
	case !r.set || r.Edge != NoEdge || r.At.IsZero() && of.IsZero():
		return time.Time{}
	case !r.At.IsZero():
		return c.Instant(r.At)
	case !of.HasTime():
		of.Time = morning
	}
	of.Date = of.Date.AddDays(-(r.Before / days))
	return c.Instant(of).Add(-time.Duration(r.Before%days) * time.Minute)
}

// WallOf is an instant as a civil moment in the clock's zone, to the minute.
func (c Clock) WallOf(instant time.Time) Moment {
	c.Now = instant
	return c.Wall()
}

// Shift moves a wall time by days; a time before stays as it is.
func (r Reminder) Shift(days int) Reminder {
	if !r.At.IsZero() {
		r.At.Date = r.At.Date.AddDays(days)
	}
	return r
}

// MarshalText implements encoding.TextMarshaler.
func (r Reminder) MarshalText() ([]byte, error) { return []byte(r.String()), nil }

// UnmarshalText implements encoding.TextUnmarshaler; "" is none.
func (r *Reminder) UnmarshalText(text []byte) (err error) {
	*r = Reminder{}
	if len(text) > 0 {
		*r, err = ParseReminder(string(text))
	}
	return err
}
