package repeat

import (
	"strconv"
	"strings"
	"time"

	"tincup/internal/core/day"
)

// Frequency is FREQ, daily and slower.
type Frequency uint8

// The frequencies.
const (
	Daily Frequency = iota
	Weekly
	Monthly
	Yearly
)

// Skip is what becomes of a date that a month or year does not have (RFC 7529
// section 4.1).
type Skip uint8

// The ways to skip.
const (
	Omit Skip = iota
	Backward
	Forward
)

// NthDay is an element of BYDAY: every such weekday where N is 0, else the
// N-th, from the end where N is negative; -53 to 53.
type NthDay struct {
	N   int
	Day time.Weekday
}

// Until is the last moment of a rule: a date, a local date with time, or an
// instant in UTC. The zero Until is none.
type Until struct {
	Date day.Date
	// Second of the day plus one; 0 is a date without time.
	second int
	UTC    bool
}

// UntilDate ends a rule with a date.
func UntilDate(d day.Date) Until { return Until{Date: d} }

// IsZero reports whether there is no end.
func (u Until) IsZero() bool { return u.Date.IsZero() }

// Rule is an RRULE that was read and checked. Treat it as a constant. Lists
// are in the order they were given, days with Monday first.
type Rule struct {
	Freq Frequency
	// Interval is 1 to MaxInterval.
	Interval   int
	ByMonth    []int // 1 to 12
	ByWeekNo   []int // 1 to 53 and -53 to -1
	ByYearDay  []int // 1 to 366 and -366 to -1
	ByMonthDay []int // 1 to 31 and -31 to -1
	ByDay      []NthDay
	BySetPos   []int // 1 to 366 and -366 to -1
	// WeekStart is WKST, Monday unless said.
	WeekStart time.Weekday
	// Count is how many dates there are in all, 0 for no end.
	Count int
	Until Until
	Skip  Skip
}

// Bounds of what a rule may say. The standard has none for the first two.
const (
	MaxInterval = 99_999
	MaxCount    = 99_999
	maxText     = 2000
)

var frequencyNames = [...]string{"DAILY", "WEEKLY", "MONTHLY", "YEARLY"}
var skipNames = [...]string{"OMIT", "BACKWARD", "FORWARD"}
var dayNames = [...]string{"SU", "MO", "TU", "WE", "TH", "FR", "SA"}

// String returns the canonical form: FREQ first, INTERVAL only above 1, the BY
// parts, then WKST, COUNT or UNTIL, RSCALE and SKIP. It begins without
// "RRULE:" and is what Parse reads.
func (r *Rule) String() string {
	var b strings.Builder
	b.WriteString("FREQ=" + frequencyNames[r.Freq])
	if r.Interval > 1 {
		b.WriteString(";INTERVAL=" + strconv.Itoa(r.Interval))
	}
	writeNumbers(&b, ";BYMONTH=", r.ByMonth)
	writeNumbers(&b, ";BYWEEKNO=", r.ByWeekNo)
	writeNumbers(&b, ";BYYEARDAY=", r.ByYearDay)
	writeNumbers(&b, ";BYMONTHDAY=", r.ByMonthDay)
	for i, d := range r.ByDay {
		b.WriteString(separator(";BYDAY=", i))
		if d.N != 0 {
			b.WriteString(strconv.Itoa(d.N))
		}
		b.WriteString(dayNames[d.Day])
	}
	writeNumbers(&b, ";BYSETPOS=", r.BySetPos)
	if r.WeekStart != time.Monday {
		b.WriteString(";WKST=" + dayNames[r.WeekStart])
	}
	if r.Count > 0 {
		b.WriteString(";COUNT=" + strconv.Itoa(r.Count))
	}
	if !r.Until.IsZero() {
		b.WriteString(";UNTIL=" + r.Until.String())
	}
	if r.Skip != Omit {
		b.WriteString(";RSCALE=GREGORIAN;SKIP=" + skipNames[r.Skip])
	}
	return b.String()
}

func writeNumbers(b *strings.Builder, name string, numbers []int) {
	for i, n := range numbers {
		b.WriteString(separator(name, i))
		b.WriteString(strconv.Itoa(n))
	}
}

func separator(name string, i int) string {
	if i == 0 {
		return name
	}
	return ","
}

// String returns the form of RFC 5545: 20261220, 20261220T170000 or
// 20261220T170000Z.
func (u Until) String() string {
	s := strings.ReplaceAll(u.Date.String(), "-", "")
	if u.second == 0 {
		return s
	}
	n := u.second - 1
	s += "T" + two(n/3600) + two(n/60%60) + two(n%60)
	if u.UTC {
		s += "Z"
	}
	return s
}

func two(n int) string { return string([]byte{byte('0' + n/10), byte('0' + n%10)}) }

// MarshalText implements encoding.TextMarshaler.
func (r *Rule) MarshalText() ([]byte, error) { return []byte(r.String()), nil }

// UnmarshalText implements encoding.TextUnmarshaler.
func (r *Rule) UnmarshalText(text []byte) error {
	parsed, err := Parse(string(text))
	if err == nil {
		*r = *parsed
	}
	return err
}

// At returns the rule as it is written beside a first date with a time: an UNTIL that is
// a date becomes that date with the time, since it must be of the first date's kind (RFC
// 5545 section 3.3.10). Without a time, or an UNTIL of its own kind, it is the rule itself.
func (r *Rule) At(at day.TimeOfDay) *Rule {
	if at.IsZero() || r.Until.IsZero() || r.Until.second > 0 {
		return r
	}
	timed := *r
	timed.Until.second = at.Minutes()*60 + 1
	return &timed
}

// last returns the last date at which an occurrence at a time of day in a zone
// is not after the end. MaxDate stands for no end.
func (u Until) last(at day.TimeOfDay, zone *time.Location) day.Date {
	switch {
	case u.IsZero():
		return day.MaxDate
	case u.second == 0:
		return u.Date
	case !u.UTC:
		if at.Minutes()*60 > u.second-1 {
			return u.Date.AddDays(-1)
		}
		return u.Date
	}
	year, month, dom := u.Date.Civil()
	end := time.Date(year, month, dom, 0, 0, u.second-1, 0, time.UTC)
	if zone == nil {
		zone = time.UTC
	}
	if at.IsZero() {
		at, _ = day.NewTimeOfDay(0, 0)
	}
	d := day.DateOf(end.In(zone))
	if (day.Clock{Zone: zone}).Instant(day.Moment{Date: d, Time: at}).After(end) {
		return d.AddDays(-1)
	}
	return d
}

// Plain reports whether the rule is an interval and no more: it has no BY part.
func (r *Rule) Plain() bool {
	return len(r.ByMonth)+len(r.ByWeekNo)+len(r.ByYearDay)+len(r.ByMonthDay)+len(r.ByDay)+len(r.BySetPos) == 0
}
