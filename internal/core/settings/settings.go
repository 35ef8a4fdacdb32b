// Package settings holds what an account may choose: each with a default, a range, and
// the words that the history uses.
package settings

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// Settings are an account's. The zero Settings are the defaults; in JSON, as the history
// keeps them, what is as by default is left out.
type Settings struct {
	// Zone is the name of a time zone (IANA); "" is the machine's.
	Zone string `json:"Zone,omitzero"`
	// DayStart is when a day begins, in minutes of wall time after midnight, to 360.
	DayStart int `json:"DayStart,omitzero"`
	// SundayFirst lets the shown week begin on Sunday, and “end of week” be Saturday.
	SundayFirst bool `json:"SundayFirst,omitzero"`
	// MonthFirst reads 11/30 as 30 November.
	MonthFirst bool `json:"MonthFirst,omitzero"`
	// Look is "", as the system has it, light or dark.
	Look string `json:"Look,omitzero"`
	// UrgentDays is how near is urgent in a two-by-two, 1 to 60; 0 stands for 3.
	UrgentDays int `json:"UrgentDays,omitzero"`
	// KeysOff sets single keys off.
	KeysOff bool `json:"KeysOff,omitzero"`
	// Reasons shows why rows of Ready stand where they do.
	Reasons bool `json:"Reasons,omitzero"`
}

// Field is one setting. Its values are text, as the API and the file have them.
type Field struct {
	// Name is the field's in the API and the file, Says the history's.
	Name, Says string
	// Default is the value of the zero Settings.
	Default string
	// Wants says which values there are.
	Wants string
	get   func(*Settings) string
	set   func(*Settings, string) bool
}

// Fields are all settings, in the order in which they are shown.
var Fields = []Field{
	{"zone", "time zone", "machine", "a time zone such as Europe/Lisbon, or machine",
		func(s *Settings) string { return orWord(s.Zone, "machine") },
		func(s *Settings, v string) bool {
			if v == "machine" {
				s.Zone = ""
				return true
			}
			// LoadLocation takes "" for UTC, and Local for the machine's.
			if _, err := time.LoadLocation(v); err != nil || v == "" || strings.EqualFold(v, "local") {
				return false
			}
			s.Zone = v
			return true
		}},
	{"dayStart", "start of the day", "00:00", "a time from 00:00 to 06:00",
		func(s *Settings) string { return fmt.Sprintf("%02d:%02d", s.DayStart/60, s.DayStart%60) },
		func(s *Settings, v string) bool {
			t, err := day.ParseTimeOfDay(v)
			if err != nil || time.Duration(t.Minutes())*time.Minute > day.MaxDayStart {
				return false
			}
			s.DayStart = t.Minutes()
			return true
		}},
	choice("weekStart", "first day of the week", func(s *Settings) *bool { return &s.SundayFirst }, "monday", "sunday"),
	choice("dateOrder", "order of day and month", func(s *Settings) *bool { return &s.MonthFirst }, "day-first", "month-first"),
	{"look", "look", "system", "system, light or dark",
		func(s *Settings) string { return orWord(s.Look, "system") },
		func(s *Settings, v string) bool {
			if !slices.Contains([]string{"system", "light", "dark"}, v) {
				return false
			}
			s.Look = strings.TrimPrefix(v, "system")
			return true
		}},
	{"urgentDays", "days that count as urgent", "3", "a whole number of days from 1 to 60",
		func(s *Settings) string { return strconv.Itoa(s.Urgent()) },
		func(s *Settings, v string) bool {
			n, err := strconv.Atoi(v)
			if err != nil || n < 1 || n > 60 {
				return false
			}
			if s.UrgentDays = n; n == defaultUrgent {
				s.UrgentDays = 0
			}
			return true
		}},
	choice("singleKeys", "single keys", func(s *Settings) *bool { return &s.KeysOff }, "on", "off"),
	choice("reasons", "reasons in Ready", func(s *Settings) *bool { return &s.Reasons }, "hidden", "shown"),
}

const defaultUrgent = 3

// Urgent is how near is urgent in a two-by-two, in days.
func (s *Settings) Urgent() int {
	if s.UrgentDays == 0 {
		return defaultUrgent
	}
	return s.UrgentDays
}

// choice is a field of two words; the first is the default.
func choice(name, says string, of func(*Settings) *bool, no, yes string) Field {
	return Field{name, says, no, no + " or " + yes,
		func(s *Settings) string {
			if *of(s) {
				return yes
			}
			return no
		},
		func(s *Settings, v string) bool {
			*of(s) = v == yes
			return v == yes || v == no
		}}
}

func orWord(value, word string) string {
	if value == "" {
		return word
	}
	return value
}

// Named finds a setting by its name.
func Named(name string) (*Field, bool) {
	for i := range Fields {
		if Fields[i].Name == name {
			return &Fields[i], true
		}
	}
	return nil, false
}

// Get returns the value as text.
func (f *Field) Get(s Settings) string { return f.get(&s) }

// ErrRange marks a value that a setting does not take.
var ErrRange = term.Fail(term.Refused, "not a value of the setting")

// Set returns the Settings with a value; the error wraps ErrRange and says what is wanted.
func (f *Field) Set(s Settings, value string) (Settings, error) {
	if !f.set(&s, value) {
		return s, fmt.Errorf("%w: “%.60s” is not a value of “%s”: %s is wanted", ErrRange, value, f.Says, f.Wants)
	}
	return s, nil
}
