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

// Hours by default.
const (
	peak         = "10:00-12:00"
	assumed      = 30
	mostAssumed  = 480
	mostDates    = 100
	wantsHours   = "stretches such as 09:00-12:30, 13:30-17:30, or none"
	wantsHoursOn = "dates with their hours and semicolons between, such as 2026-12-24 09:00-12:00; 2026-12-25 none, or none"
)

// The hours of weekdays by default, Sunday first.
var (
	workingDefaults = weekOf("10:00-11:00", "09:00-12:30, 13:30-17:30", "10:00-12:00")
	ownDefaults     = weekOf("10:00-18:00", "18:00-21:00", "10:00-18:00")
)

// weekOf is a week of hours, Sunday first, of which Monday to Friday are alike.
func weekOf(sunday, workday, saturday string) [7]string {
	return [7]string{sunday, workday, workday, workday, workday, workday, saturday}
}

// hourFields are the settings that planning reckons with.
var hourFields = slices.Concat(
	eachWeekday(func(d time.Weekday) Field {
		return hours("hours"+d.String(), "hours on "+d.String()+"s", workingDefaults[d], func(s *Settings) *string { return &s.Hours[d] })
	}),
	eachWeekday(func(d time.Weekday) Field {
		return hours("ownHours"+d.String(), "own hours on "+d.String()+"s", ownDefaults[d], func(s *Settings) *string { return &s.OwnHours[d] })
	}),
	[]Field{
		hoursOn("hoursOn", "hours on single dates", func(s *Settings) *string { return &s.HoursOn }),
		hoursOn("ownHoursOn", "own hours on single dates", func(s *Settings) *string { return &s.OwnHoursOn }),
		hours("peak", "peak hours", peak, func(s *Settings) *string { return &s.Peak }),
		Field{Name: "assumed", Says: "assumed estimate in minutes", Default: strconv.Itoa(assumed), Wants: fmt.Sprintf("a whole number of minutes from 1 to %d", mostAssumed),
			get: func(s *Settings) string { return strconv.Itoa(s.AssumedMinutes()) },
			set: func(s *Settings, v string) bool {
				n, err := strconv.Atoi(v)
				if err != nil || n < 1 || n > mostAssumed {
					return false
				}
				if s.Assumed = n; n == assumed {
					s.Assumed = 0
				}
				return true
			}},
	},
)

// eachWeekday is a setting of each weekday, Monday first.
func eachWeekday(of func(time.Weekday) Field) (fields []Field) {
	for i := range 7 {
		fields = append(fields, of(time.Weekday((i+1)%7)))
	}
	return fields
}

// hoursOn is a setting that is hours of single dates.
func hoursOn(name, says string, of func(*Settings) *string) Field {
	return Field{Name: name, Says: says, Default: "none", Wants: wantsHoursOn,
		get: func(s *Settings) string { return orWord(*of(s), "none") },
		set: func(s *Settings, v string) bool {
			dates, ok := parseHoursOn(v)
			if ok {
				*of(s) = writeHoursOn(dates)
			}
			return ok
		}}
}

// hours is a setting that is hours of a day.
func hours(name, says, byDefault string, of func(*Settings) *string) Field {
	return Field{Name: name, Says: says, Default: byDefault, Wants: wantsHours,
		get: func(s *Settings) string { return orWord(*of(s), byDefault) },
		set: func(s *Settings, v string) bool {
			h, err := day.ParseHours(v)
			if err != nil {
				return false
			}
			if *of(s) = h.String(); *of(s) == byDefault {
				*of(s) = ""
			}
			return true
		}}
}

// AssumedMinutes is how long a to-do without an estimate is taken to be.
func (s *Settings) AssumedMinutes() int {
	if s.Assumed == 0 {
		return assumed
	}
	return s.Assumed
}

// HoursOf are those of a weekday, of one kind. Of no hours there are none.
func (s *Settings) HoursOf(kind term.Hours, weekday time.Weekday) day.Hours {
	switch kind {
	case term.WorkingHours:
		return readHours(orWord(s.Hours[weekday], workingDefaults[weekday]))
	case term.OwnHours:
		return readHours(orWord(s.OwnHours[weekday], ownDefaults[weekday]))
	}
	return nil
}

// PeakHours is when deep work goes best.
func (s *Settings) PeakHours() day.Hours { return readHours(orWord(s.Peak, peak)) }

// HoursOfDates are those of single dates in the place of their weekday's, of one kind.
func (s *Settings) HoursOfDates(kind term.Hours) map[day.Date]day.Hours {
	text := ""
	switch kind {
	case term.WorkingHours:
		text = s.HoursOn
	case term.OwnHours:
		text = s.OwnHoursOn
	}
	dates, _ := parseHoursOn(text) // it was read when it was set
	return dates
}

// WithHoursOn returns the setting hoursOn with other working hours of a date, or, where they are nil,
// with those of its weekday. Dates before a day are let go of.
func (s *Settings) WithHoursOn(on day.Date, hours *day.Hours, since day.Date) string {
	dates := s.HoursOfDates(term.WorkingHours)
	for d := range dates {
		if d.Before(since) {
			delete(dates, d)
		}
	}
	if delete(dates, on); hours != nil {
		dates[on] = *hours
	}
	return orWord(writeHoursOn(dates), "none")
}

func readHours(text string) day.Hours {
	h, _ := day.ParseHours(text) // it was read when it was set
	return h
}

func parseHoursOn(text string) (map[day.Date]day.Hours, bool) {
	dates := map[day.Date]day.Hours{}
	if text == "" || text == "none" {
		return dates, true
	}
	for part := range strings.SplitSeq(text, ";") {
		word, rest, _ := strings.Cut(strings.TrimSpace(part), " ")
		d, err := day.ParseDate(word)
		if err != nil || rest == "" {
			return nil, false
		}
		h, err := day.ParseHours(rest)
		if err != nil {
			return nil, false
		}
		dates[d] = h
	}
	return dates, len(dates) <= mostDates
}

func writeHoursOn(dates map[day.Date]day.Hours) string {
	var parts []string
	for d, h := range dates {
		parts = append(parts, d.String()+" "+h.String())
	}
	slices.Sort(parts)
	return strings.Join(parts, "; ")
}
