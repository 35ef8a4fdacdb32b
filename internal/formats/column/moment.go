package column

import (
	"errors"
	"fmt"
	"regexp"
	"strconv"
	"strings"
	"time"

	"tincup/internal/core/day"
)

const (
	timePart    = `(?:[T ]+(?:at )?(\d{1,2}(?:[:.h]\d\d)?(?::\d\d(?:[.,]\d+)?)?\s*(?:[ap]\.?m\.?)?)\s*(Z|UTC|GMT|[+-]\d\d:?\d\d)?)?$`
	weekdayPart = `^(?:(?:mon|tues?|wed(?:nes)?|thu(?:rs)?|fri|sat(?:ur)?|sun)(?:day)?\.?,? )?`
	monthPart   = `(jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*\.?`
)

var (
	// numericDate is three numbers; which is which is told by their lengths and by the Form.
	numericDate = regexp.MustCompile(`(?i)` + weekdayPart + `(\d{1,4})[-/. ](\d{1,2})[-/. ](\d{1,4})\.?` + timePart)
	compactDate = regexp.MustCompile(`^(\d{4})(\d\d)(\d\d)(?:T?(\d{4}|\d{6})(Z?))?$`)
	dayMonth    = regexp.MustCompile(`(?i)` + weekdayPart + `(\d{1,2})(?:st|nd|rd|th|\.)?[- ](?:of )?` + monthPart + `[-, ]*(\d{4}|\d\d)` + timePart)
	monthDay    = regexp.MustCompile(`(?i)` + weekdayPart + monthPart + `[- ](\d{1,2})(?:st|nd|rd|th)?,? (\d{4}|\d\d)` + timePart)
	yearMonth   = regexp.MustCompile(`(?i)^(\d{4})[- ]` + monthPart + `[- ](\d{1,2})` + timePart)
	clockTime   = regexp.MustCompile(`(?i)^(\d{1,2})(?:[:.h](\d\d))?(?::(\d\d)(?:[.,]\d+)?)?\s*(?:([ap])\.?m\.?)?$`)
)

var errNoDate = errors.New("a date such as 2026-11-30, 30 Nov 2026 or 30/11/2026 is wanted, with a time or without")

// readMoment reads a date, with a time or without, as the standard (ISO 8601) and as people write
// one. A time that names a zone, or an offset, is told in the Form's zone. Midnight that is written
// with its seconds stands for no time (common practice, no source).
func readMoment(s string, f Form) (day.Moment, error) {
	if m, err := day.ParseMoment(s); err == nil {
		return m, nil
	}
	s = strings.Join(strings.Fields(s), " ")
	var year, month, dayOf int
	var clock, offset string
	number := func(s string) int { n, _ := strconv.Atoi(s); return n }
	switch {
	case numericDate.MatchString(s):
		m := numericDate.FindStringSubmatch(s)
		clock, offset = m[4], m[5]
		a, b, c := number(m[1]), number(m[2]), number(m[3])
		switch {
		case len(m[1]) == 4 && len(m[3]) <= 2:
			year, month, dayOf = a, b, c
		case len(m[1]) <= 2 && (len(m[3]) == 2 || len(m[3]) == 4):
			year, month, dayOf = c, b, a
			if b > 12 || f.MonthFirst && a <= 12 {
				month, dayOf = a, b
			}
			if len(m[3]) == 2 {
				year += 2000
			}
		default:
			return day.Moment{}, errNoDate
		}
	case compactDate.MatchString(s):
		m := compactDate.FindStringSubmatch(s)
		year, month, dayOf, offset = number(m[1]), number(m[2]), number(m[3]), m[5]
		if t := m[4]; t != "" {
			clock = t[:2] + ":" + t[2:4]
			if len(t) == 6 {
				clock += ":" + t[4:]
			}
		}
	case dayMonth.MatchString(s):
		m := dayMonth.FindStringSubmatch(s)
		year, month, dayOf, clock, offset = number(m[3]), monthOf(m[2]), number(m[1]), m[4], m[5]
		if len(m[3]) == 2 {
			year += 2000
		}
	case monthDay.MatchString(s):
		m := monthDay.FindStringSubmatch(s)
		year, month, dayOf, clock, offset = number(m[3]), monthOf(m[1]), number(m[2]), m[4], m[5]
		if len(m[3]) == 2 {
			year += 2000
		}
	case yearMonth.MatchString(s):
		m := yearMonth.FindStringSubmatch(s)
		year, month, dayOf, clock, offset = number(m[1]), monthOf(m[2]), number(m[3]), m[4], m[5]
	default:
		return day.Moment{}, errNoDate
	}
	date, err := day.NewDate(year, time.Month(month), dayOf)
	if err != nil {
		return day.Moment{}, fmt.Errorf("there is no such date: %w", err)
	}
	m := day.Moment{Date: date}
	if clock == "" {
		return m, nil
	}
	hours, minutes, nothing, err := readClock(clock)
	switch {
	case err != nil:
		return day.Moment{}, err
	case nothing:
		return m, nil
	}
	if offset != "" {
		return inZone(m.Date, hours, minutes, offset, f)
	}
	if m.Time, err = day.NewTimeOfDay(hours, minutes); err != nil {
		return day.Moment{}, err
	}
	return m, nil
}

func monthOf(name string) int {
	return strings.Index("jan feb mar apr may jun jul aug sep oct nov dec", strings.ToLower(name[:3]))/4 + 1
}

// readClock reads a time of day; nothing is true of midnight with seconds.
func readClock(s string) (hours, minutes int, nothing bool, err error) {
	m := clockTime.FindStringSubmatch(strings.TrimSpace(s))
	if m == nil {
		return 0, 0, false, errNoDate
	}
	hours, _ = strconv.Atoi(m[1])
	minutes, _ = strconv.Atoi(m[2])
	if half := strings.ToLower(m[4]); half != "" {
		if hours < 1 || hours > 12 {
			return 0, 0, false, fmt.Errorf("there is no %d o'clock with am or pm", hours)
		}
		if hours %= 12; half == "p" {
			hours += 12
		}
	} else if m[2] == "" {
		return 0, 0, false, errNoDate // a bare number is no time
	}
	return hours, minutes, hours == 0 && minutes == 0 && m[3] == "00" && m[4] == "", nil
}

// inZone is a time at an offset as the Form's zone has it.
func inZone(date day.Date, hours, minutes int, offset string, f Form) (day.Moment, error) {
	zone := time.UTC
	if sign := offset[0]; sign == '+' || sign == '-' {
		digits := strings.ReplaceAll(offset[1:], ":", "")
		h, _ := strconv.Atoi(digits[:2])
		m, _ := strconv.Atoi(digits[2:])
		seconds := h*3600 + m*60
		if sign == '-' {
			seconds = -seconds
		}
		zone = time.FixedZone(offset, seconds)
	}
	year, month, dayOf := date.Civil()
	at := time.Date(year, month, dayOf, hours, minutes, 0, 0, zone).In(f.zone())
	return day.ParseMoment(at.Format("2006-01-02T15:04"))
}

// Order tells what numbers of a date show of their order: first or second is true where the day
// stands first or second for certain; both are false of a date that may be read either way, for
// which ambiguous is true.
func Order(s string) (first, second, ambiguous bool) {
	m := numericDate.FindStringSubmatch(strings.Join(strings.Fields(s), " "))
	if m == nil || len(m[1]) > 2 || len(m[3]) != 2 && len(m[3]) != 4 {
		return false, false, false
	}
	a, _ := strconv.Atoi(m[1])
	b, _ := strconv.Atoi(m[2])
	switch {
	case a > 12 && b <= 12:
		return true, false, false
	case b > 12 && a <= 12:
		return false, true, false
	}
	return false, false, a <= 12 && b <= 12 && a != b
}

// Moment reads a date as a column of dates is read, for one who shows how it is read.
func Moment(s string, f Form) (day.Moment, error) { return readMoment(strings.TrimSpace(s), f) }
