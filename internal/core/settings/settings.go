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
	// CloseRows makes rows lower.
	CloseRows bool `json:"CloseRows,omitzero"`
	// Views names the shipped views that stand in the index, each once, in their order,
	// with commas between; "" is all of them, and - none.
	Views string `json:"Views,omitzero"`
	// PartsOfDay are when the parts of the day are, in minutes of wall time after midnight; 0 is
	// as by default.
	PartsOfDay [partsOfDay]int `json:"PartsOfDay,omitzero"`
	// Reviewed is when each walk was last gone through, as a date; "" is never.
	Reviewed [Walks]string `json:"Reviewed,omitzero"`
	// Marks says by what slips of the week are marked: "" by tag, or list, or priority.
	Marks string `json:"Marks,omitzero"`
	// Hours are the working hours of each weekday, Sunday first, as day.Hours writes them; ""
	// is as by default.
	Hours [7]string `json:"Hours,omitzero"`
	// HoursOn are those of single dates in the place of these, as HoursOn writes them.
	HoursOn string `json:"HoursOn,omitzero"`
	// OwnHours and OwnHoursOn are the same of own hours, which are for one's own life.
	OwnHours   [7]string `json:"OwnHours,omitzero"`
	OwnHoursOn string    `json:"OwnHoursOn,omitzero"`
	// Peak is when deep work goes best; "" is as by default.
	Peak string `json:"Peak,omitzero"`
	// Assumed is how long a to-do without an estimate is taken to be, in minutes, 1 to 480;
	// 0 stands for 30.
	Assumed int `json:"Assumed,omitzero"`
	// Copies is how many daily copies are kept; 0 stands for 14, -1 for none.
	Copies int `json:"Copies,omitzero"`
	// Columns says what columns of CSV files are that were named by hand, as a query; "" for none.
	Columns string `json:"Columns,omitzero"`
	// Reminders is how they reach the account.
	Reminders Reminders `json:"Reminders,omitzero"`
}

// shippedViews are those that stand in the index, and the week, in the order in which they
// come.
var shippedViews = []string{"cup", "today", "overdue", "ready", "waiting", "week", "upcoming", "within-a-week", "comes-round", "projects", "open", "review", "done", "bin"}

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
	// tell, if set, says what became of one value in another.
	tell func(before, after string) string
}

// Fields are all settings, in the order in which they are shown.
var Fields = slices.Concat([]Field{
	{Name: "zone", Says: "time zone", Default: "machine", Wants: "a time zone such as Europe/Lisbon, or machine",
		get: func(s *Settings) string { return orWord(s.Zone, "machine") },
		set: func(s *Settings, v string) bool {
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
	{Name: "dayStart", Says: "start of the day", Default: "00:00", Wants: "a time from 00:00 to 06:00",
		get: func(s *Settings) string { return fmt.Sprintf("%02d:%02d", s.DayStart/60, s.DayStart%60) },
		set: func(s *Settings, v string) bool {
			t, err := day.ParseTimeOfDay(v)
			if err != nil || time.Duration(t.Minutes())*time.Minute > day.MaxDayStart {
				return false
			}
			s.DayStart = t.Minutes()
			return true
		}},
	choice("weekStart", "first day of the week", func(s *Settings) *bool { return &s.SundayFirst }, "monday", "sunday"),
	choice("dateOrder", "order of day and month", func(s *Settings) *bool { return &s.MonthFirst }, "day-first", "month-first"),
	words("look", "look", func(s *Settings) *string { return &s.Look }, "system", "light", "dark"),
	words("marks", "marks in the week", func(s *Settings) *string { return &s.Marks }, "tag", "list", "priority"),
	{Name: "urgentDays", Says: "days that count as urgent", Default: "3", Wants: "a whole number of days from 1 to 60",
		get: func(s *Settings) string { return strconv.Itoa(s.Urgent()) },
		set: func(s *Settings, v string) bool {
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
	choice("rows", "height of rows", func(s *Settings) *bool { return &s.CloseRows }, "roomy", "close"),
	{Name: "views", Says: "views in the index", Default: strings.Join(shippedViews, ","), tell: viewsTold,
		Wants: "names of " + strings.Join(shippedViews, ", ") + ", each once, with commas between, or -",
		get:   func(s *Settings) string { return orWord(s.Views, strings.Join(shippedViews, ",")) },
		set: func(s *Settings, v string) bool {
			seen := map[string]bool{}
			for name := range strings.SplitSeq(v, ",") {
				if v != "-" && (seen[name] || !slices.Contains(shippedViews, name)) {
					return false
				}
				seen[name] = true
			}
			if s.Views = v; v == strings.Join(shippedViews, ",") {
				s.Views = ""
			}
			return true
		}},
}, partFields, hourFields, reviewedFields, reminderFields, copyFields, columnFields)

const defaultUrgent = 3

// Urgent is how near is urgent in a two-by-two, in days.
func (s *Settings) Urgent() int {
	if s.UrgentDays == 0 {
		return defaultUrgent
	}
	return s.UrgentDays
}

// words is a field of several words; the first is the default.
func words(name, says string, of func(*Settings) *string, all ...string) Field {
	last := len(all) - 1
	return Field{Name: name, Says: says, Default: all[0], Wants: strings.Join(all[:last], ", ") + " or " + all[last],
		get: func(s *Settings) string { return orWord(*of(s), all[0]) },
		set: func(s *Settings, v string) bool {
			if !slices.Contains(all, v) {
				return false
			}
			if *of(s) = v; v == all[0] {
				*of(s) = ""
			}
			return true
		}}
}

// choice is a field of two words; the first is the default.
func choice(name, says string, of func(*Settings) *bool, no, yes string) Field {
	return Field{Name: name, Says: says, Default: no, Wants: no + " or " + yes,
		get: func(s *Settings) string {
			if *of(s) {
				return yes
			}
			return no
		},
		set: func(s *Settings, v string) bool {
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

// Told says what became of the setting.
func (f *Field) Told(before, after string) string {
	if f.tell != nil {
		return f.Says + " " + f.tell(before, after)
	}
	return f.Says + ": " + before + " → " + after
}

// viewsTold names the views that came and went.
func viewsTold(before, after string) string {
	was, is := strings.Split(before, ","), strings.Split(after, ",")
	var told []string
	for _, change := range []struct {
		verb     string
		all, but []string
	}{{"with", is, was}, {"without", was, is}} {
		names := slices.DeleteFunc(slices.Clone(change.all), func(v string) bool { return v == "-" || slices.Contains(change.but, v) })
		if len(names) > 0 {
			told = append(told, change.verb+" "+strings.ReplaceAll(strings.Join(names, ", "), "-", " "))
		}
	}
	if told == nil {
		return "in another order"
	}
	return strings.Join(told, ", ")
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
