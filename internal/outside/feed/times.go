package feed

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"
	"time"

	"github.com/emersion/go-ical"
)

const (
	layoutDate  = "20060102"
	layoutLocal = "20060102T150405"
)

// value is a DATE or DATE-TIME as it is written (RFC 5545 sections 3.3.4 and 3.3.5).
type value struct {
	// wall is what is written, in UTC.
	wall time.Time
	// date: there is no time of day. utc: it is in UTC, whatever zone is named.
	date, utc bool
	tzid      string
}

func readValue(text, tzid string) (v value, err error) {
	text = strings.TrimSpace(text)
	v.tzid = tzid
	if len(text) == len(layoutDate) {
		v.date = true
		v.wall, err = time.Parse(layoutDate, text)
	} else {
		text, v.utc = strings.CutSuffix(text, "Z")
		v.wall, err = time.Parse(layoutLocal, text)
	}
	if err != nil || v.wall.Year() < 1 || v.wall.Year() > 9999 {
		return v, fmt.Errorf("“%.40s” is no date or time", text)
	}
	return v, nil
}

func readTime(p *ical.Prop) (value, error) {
	if p == nil {
		return value{}, fmt.Errorf("there is no time")
	}
	return readValue(p.Value, p.Params.Get(ical.ParamTimezoneID))
}

// readTimes reads a property that may hold several; periods give their starts.
func readTimes(props []ical.Prop) (values []value) {
	for _, p := range props {
		for _, text := range strings.Split(p.Value, ",") {
			text, _, _ = strings.Cut(text, "/")
			if v, err := readValue(text, p.Params.Get(ical.ParamTimezoneID)); err == nil {
				values = append(values, v)
			}
		}
	}
	return values
}

// period is a start with a length of its own (RFC 5545 section 3.3.9).
type period struct {
	start value
	end   value // none where the length says it
	span  span
}

// readPeriods reads those values of a property that are periods.
func readPeriods(props []ical.Prop) (periods []period) {
	for _, p := range props {
		for _, text := range strings.Split(p.Value, ",") {
			from, to, is := strings.Cut(text, "/")
			start, err := readValue(from, p.Params.Get(ical.ParamTimezoneID))
			if !is || err != nil {
				continue
			}
			one := period{start: start}
			if strings.HasPrefix(to, "P") || strings.HasPrefix(to, "+P") {
				one.span, err = readSpan(to)
			} else {
				one.end, err = readValue(to, p.Params.Get(ical.ParamTimezoneID))
			}
			if err == nil {
				periods = append(periods, one)
			}
		}
	}
	return periods
}

// span is how long an event is: days on the wall, and then exactly so long (RFC 5545
// section 3.3.6).
type span struct {
	days  int
	exact time.Duration
}

var durations = regexp.MustCompile(`^\+?P(?:(\d{1,4})W)?(?:(\d{1,5})D)?(?:T(?:(\d{1,6})H)?(?:(\d{1,7})M)?(?:(\d{1,9})S)?)?$`)

func readSpan(text string) (span, error) {
	m := durations.FindStringSubmatch(strings.ToUpper(strings.TrimSpace(text)))
	if m == nil {
		return span{}, fmt.Errorf("“%.40s” is no duration that ends after it begins", text)
	}
	n := func(i int) int { v, _ := strconv.Atoi(m[i]); return v }
	return span{n(1)*7 + n(2),
		time.Duration(n(3))*time.Hour + time.Duration(n(4))*time.Minute + time.Duration(n(5))*time.Second}, nil
}
