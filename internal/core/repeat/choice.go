package repeat

import (
	"fmt"
	"slices"
	"time"

	"tincup/internal/core/day"
)

// Choice is a rule as a person puts one together by hand. Not every rule is a
// Choice; every Choice is a rule.
type Choice struct {
	// Every is the interval, Unit what it counts.
	Every int
	Unit  Frequency
	// Weekdays are those of a weekly rule; none leaves it to the first date.
	Weekdays []time.Weekday
	// MonthDay is the day of the month, 1 to 31, or -1 for the last; 0 leaves
	// it to the first date, or to Nth.
	MonthDay int
	// Nth and NthDay are a weekday of the month: 1 to 5, or -1 for the last.
	Nth    int
	NthDay time.Weekday
	// Month is that of a yearly rule; 0 leaves it to the first date.
	Month time.Month
	// Count or Until end it; both zero is no end.
	Count int
	Until day.Date
}

// Rule returns the rule of a choice. The errors are *ParseError.
func (c Choice) Rule() (*Rule, error) {
	r := &Rule{Freq: c.Unit, Interval: max(c.Every, 1), WeekStart: time.Monday, Count: c.Count}
	if !c.Until.IsZero() {
		r.Until = UntilDate(c.Until)
	}
	switch {
	case c.Unit == Weekly:
		for _, d := range c.Weekdays {
			r.ByDay = append(r.ByDay, NthDay{Day: d})
		}
	case c.Unit >= Monthly && c.Nth != 0:
		r.ByDay = []NthDay{{c.Nth, c.NthDay}}
	case c.Unit >= Monthly && c.MonthDay != 0:
		r.ByMonthDay = []int{c.MonthDay}
	}
	if c.Unit == Yearly && c.Month != 0 {
		r.ByMonth = []int{int(c.Month)}
	}
	if c.Unit == Yearly && c.Month == 0 && (c.Nth != 0 || c.MonthDay != 0) {
		return nil, &ParseError{Want: "a day of the year needs its month"}
	}
	return Parse(r.Lasting(day.Date{}).String())
}

// Lasting returns the rule with SKIP=BACKWARD where it asks for the 29th, 30th
// or 31st, itself or by its first date: a shorter month has its last day
// instead. A rule that says what to skip stays as it is.
func (r *Rule) Lasting(first day.Date) *Rule {
	if r.Skip != Omit || r.Freq < Monthly {
		return r
	}
	_, _, dom := first.Civil()
	late := r.Plain() && dom > 28 || slices.ContainsFunc(r.ByMonthDay, func(n int) bool { return n > 28 })
	if !late {
		return r
	}
	lasting := *r
	lasting.Skip = Backward
	return &lasting
}

// Choice returns the choice a rule is, and whether it is one.
func (r *Rule) Choice() (Choice, bool) {
	c := Choice{Every: r.Interval, Unit: r.Freq, Count: r.Count, Until: r.Until.Date}
	for _, d := range r.ByDay {
		switch {
		case d.N == 0 && r.Freq == Weekly:
			c.Weekdays = append(c.Weekdays, d.Day)
		case d.N != 0 && len(r.ByDay) == 1:
			c.Nth, c.NthDay = d.N, d.Day
		default:
			return Choice{}, false
		}
	}
	if len(r.ByMonthDay) == 1 {
		c.MonthDay = r.ByMonthDay[0]
	}
	if len(r.ByMonth) == 1 {
		c.Month = time.Month(r.ByMonth[0])
	}
	back, err := c.Rule()
	if err != nil {
		return Choice{}, false
	}
	// A rule that a person chose tells nothing of what it skips.
	plain := *r
	if plain.Skip == Backward {
		plain.Skip = back.Skip
	}
	return c, back.String() == plain.String()
}

// MovedTo returns the rule whose dates begin on to where they were on from, for
// "all coming ones" after one was moved by hand: its weekday, day of the month
// or ordinal follows. A rule it cannot be done for is returned as it is.
func (r *Rule) MovedTo(from, to day.Date) *Rule {
	if from == to || len(r.BySetPos)+len(r.ByYearDay)+len(r.ByWeekNo) > 0 {
		return r
	}
	moved := *r
	moved.ByDay, moved.ByMonthDay, moved.ByMonth = slices.Clone(r.ByDay), slices.Clone(r.ByMonthDay), slices.Clone(r.ByMonth)
	_, month, dom := to.Civil()
	for i, d := range moved.ByDay {
		if d.Day != from.Weekday() || d.N != 0 && len(moved.ByDay) > 1 {
			continue
		}
		moved.ByDay[i].Day = to.Weekday()
		if d.N > 0 {
			moved.ByDay[i].N = (dom-1)/7 + 1
		}
	}
	if len(moved.ByMonthDay) == 1 {
		moved.ByMonthDay[0] = dom
	}
	if len(moved.ByMonth) == 1 {
		moved.ByMonth[0] = int(month)
	}
	again, err := Parse(moved.Lasting(to).String())
	if err != nil || !holds(again, to) {
		return r
	}
	return again
}

func holds(r *Rule, d day.Date) bool {
	p := compile(r, d)
	return p.onOrAfter(d) == d
}

// WeekdayName returns the two letters of RFC 5545 for a weekday.
func WeekdayName(d time.Weekday) string { return dayNames[d] }

// ParseWeekday reads the two letters of RFC 5545 for a weekday.
func ParseWeekday(s string) (time.Weekday, error) {
	if i := slices.Index(dayNames[:], s); i >= 0 {
		return time.Weekday(i), nil
	}
	return 0, fmt.Errorf("%.10q is not a weekday; MO, TU, WE, TH, FR, SA or SU is wanted", s)
}

// ParseFrequency reads DAILY, WEEKLY, MONTHLY or YEARLY.
func ParseFrequency(s string) (Frequency, error) { return frequency(s) }

// String returns the word of RFC 5545.
func (f Frequency) String() string { return frequencyNames[f] }
