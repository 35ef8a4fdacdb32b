package settings

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"tincup/internal/core/day"
)

// Hours by default.
const (
	workday      = "09:00-12:30, 13:30-17:30"
	saturday     = "10:00-12:00"
	sunday       = "10:00-11:00"
	peak         = "10:00-12:00"
	assumed      = 30
	mostAssumed  = 480
	mostDates    = 100
	wantsHours   = "stretches such as 09:00-12:30, 13:30-17:30, or none"
	wantsHoursOn = "dates with their hours and semicolons between, such as 2026-12-24 09:00-12:00; 2026-12-25 none, or none"
)

// hourFields are the settings that planning reckons with.
var hourFields = func() []Field {
	var fields []Field
	for i := range 7 {
		weekday := time.Weekday((i + 1) % 7) // Monday first
		byDefault := workday
		switch weekday {
		case time.Saturday:
			byDefault = saturday
		case time.Sunday:
			byDefault = sunday
		}
		fields = append(fields, hours("hours"+weekday.String(), "hours on "+weekday.String()+"s", byDefault, func(s *Settings) *string { return &s.Hours[weekday] }))
	}
	return append(fields,
		Field{Name: "hoursOn", Says: "hours on single dates", Default: "none", Wants: wantsHoursOn,
			get: func(s *Settings) string { return orWord(s.HoursOn, "none") },
			set: func(s *Settings, v string) bool {
				dates, ok := parseHoursOn(v)
				if ok {
					s.HoursOn = writeHoursOn(dates)
				}
				return ok
			}},
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
	)
}()

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

// WorkingHours are those of a weekday.
func (s *Settings) WorkingHours(weekday time.Weekday) day.Hours {
	return readHours(hourFields[(int(weekday)+6)%7].get(s))
}

// PeakHours is when deep work goes best.
func (s *Settings) PeakHours() day.Hours { return readHours(orWord(s.Peak, peak)) }

// HoursOfDates are those of single dates in the place of their weekday's.
func (s *Settings) HoursOfDates() map[day.Date]day.Hours {
	dates, _ := parseHoursOn(s.HoursOn) // it was read when it was set
	return dates
}

// WithHoursOn returns the setting hoursOn with other hours of a date, or, where they are nil,
// with those of its weekday. Dates before a day are let go of.
func (s *Settings) WithHoursOn(on day.Date, hours *day.Hours, since day.Date) string {
	dates := s.HoursOfDates()
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
