package repeat_test

import (
	"errors"
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// A choice is a rule, and that rule the choice again.
func TestChoice(t *testing.T) {
	for _, c := range []struct {
		choice repeat.Choice
		rule   string
	}{
		{repeat.Choice{Every: 1, Unit: repeat.Daily}, "FREQ=DAILY"},
		{repeat.Choice{Every: 3, Unit: repeat.Daily, Count: 5}, "FREQ=DAILY;INTERVAL=3;COUNT=5"},
		{repeat.Choice{Every: 2, Unit: repeat.Weekly, Weekdays: []time.Weekday{time.Monday, time.Thursday}}, "FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,TH"},
		{repeat.Choice{Every: 1, Unit: repeat.Weekly, Until: day.MustDate("2026-12-20")}, "FREQ=WEEKLY;UNTIL=20261220"},
		{repeat.Choice{Every: 1, Unit: repeat.Monthly, MonthDay: 3}, "FREQ=MONTHLY;BYMONTHDAY=3"},
		{repeat.Choice{Every: 1, Unit: repeat.Monthly, MonthDay: 28}, "FREQ=MONTHLY;BYMONTHDAY=28"},
		{repeat.Choice{Every: 1, Unit: repeat.Monthly, MonthDay: 29}, "RSCALE=GREGORIAN;FREQ=MONTHLY;BYMONTHDAY=29;SKIP=BACKWARD"},
		{repeat.Choice{Every: 1, Unit: repeat.Monthly, MonthDay: -1}, "FREQ=MONTHLY;BYMONTHDAY=-1"},
		{repeat.Choice{Every: 1, Unit: repeat.Monthly, Nth: -1, NthDay: time.Friday}, "FREQ=MONTHLY;BYDAY=-1FR"},
		{repeat.Choice{Every: 1, Unit: repeat.Yearly}, "FREQ=YEARLY"},
		{repeat.Choice{Every: 1, Unit: repeat.Yearly, Month: time.March, MonthDay: 14}, "FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=14"},
		{repeat.Choice{Every: 1, Unit: repeat.Yearly, Month: time.May, Nth: 2, NthDay: time.Sunday}, "FREQ=YEARLY;BYMONTH=5;BYDAY=2SU"},
	} {
		rule, err := c.choice.Rule()
		if err != nil {
			t.Errorf("%+v: %v", c.choice, err)
			continue
		}
		want := repeat.MustParse(c.rule)
		if rule.String() != want.String() {
			t.Errorf("%+v is %s, want %s", c.choice, rule, want)
		}
		if back, is := rule.Choice(); !is || fmt.Sprint(back) != fmt.Sprint(c.choice) {
			t.Errorf("%s is the choice %+v (%t), want %+v", rule, back, is, c.choice)
		}
	}
	// A day of the year needs its month; what of a daily rule is chosen for months is nothing.
	for _, c := range []repeat.Choice{{Unit: repeat.Yearly, MonthDay: 3}, {Unit: repeat.Yearly, Nth: 2, NthDay: time.Monday}} {
		var wrong *repeat.ParseError
		if _, err := c.Rule(); !errors.As(err, &wrong) || !strings.Contains(err.Error(), "needs its month") {
			t.Errorf("%+v: %v", c, err)
		}
	}
	if r, err := (repeat.Choice{Unit: repeat.Daily, MonthDay: 3, Nth: 2}).Rule(); err != nil || r.String() != repeat.MustParse("FREQ=DAILY").String() {
		t.Errorf("a daily choice with a day of the month is %v, %v", r, err)
	}
	for _, rule := range []string{"FREQ=MONTHLY;BYMONTHDAY=1,15", "FREQ=MONTHLY;BYDAY=1MO,3MO", "FREQ=DAILY;BYMONTH=3,4", "FREQ=YEARLY;BYYEARDAY=100",
		"FREQ=MONTHLY;BYDAY=MO", "FREQ=DAILY;BYDAY=MO", "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1"} {
		if c, is := repeat.MustParse(rule).Choice(); is {
			t.Errorf("%s is no choice, and came back as %+v", rule, c)
		}
	}
}

// A rule that is asked for, itself or by its first date, on a day that shorter months have
// not, has their last day instead.
func TestLasting(t *testing.T) {
	for _, c := range []struct {
		rule, first string
		lasts       bool
	}{
		{"FREQ=MONTHLY", "2026-01-28", false}, {"FREQ=MONTHLY", "2026-01-29", true}, {"FREQ=MONTHLY", "2026-01-31", true},
		{"FREQ=MONTHLY;BYMONTHDAY=28", "2026-01-31", false}, {"FREQ=MONTHLY;BYMONTHDAY=29", "2026-01-01", true},
		{"FREQ=MONTHLY;BYDAY=1MO", "2026-01-31", false}, {"FREQ=WEEKLY", "2026-01-31", false}, {"FREQ=DAILY", "2026-01-31", false},
		{"FREQ=YEARLY", "2028-02-29", true}, {"RSCALE=GREGORIAN;FREQ=MONTHLY;BYMONTHDAY=31;SKIP=FORWARD", "2026-01-31", false},
	} {
		r := repeat.MustParse(c.rule)
		if got := r.Lasting(day.MustDate(c.first)); (got.Skip == repeat.Backward) != c.lasts {
			t.Errorf("%s from %s: skip is %v", c.rule, c.first, got.Skip)
		}
	}
}

// All coming ones follow one that was moved by hand, where that can be.
func TestAllComingFollow(t *testing.T) {
	for _, c := range []struct{ rule, from, to, want string }{
		{"FREQ=WEEKLY;BYDAY=MO", "2026-11-23", "2026-11-25", "FREQ=WEEKLY;BYDAY=WE"},
		{"FREQ=WEEKLY;BYDAY=MO,TH", "2026-11-23", "2026-11-25", "FREQ=WEEKLY;BYDAY=WE,TH"},
		{"FREQ=MONTHLY;BYMONTHDAY=3", "2026-12-03", "2026-12-07", "FREQ=MONTHLY;BYMONTHDAY=7"},
		{"FREQ=MONTHLY;BYDAY=1MO", "2026-12-07", "2026-12-15", "FREQ=MONTHLY;BYDAY=3TU"},
		{"FREQ=MONTHLY;BYDAY=1MO", "2026-12-07", "2026-12-07", "FREQ=MONTHLY;BYDAY=1MO"},
		{"FREQ=MONTHLY;BYDAY=-1FR", "2026-11-27", "2026-11-26", "FREQ=MONTHLY;BYDAY=-1TH"},
		{"FREQ=MONTHLY;BYDAY=-1FR", "2026-11-27", "2026-11-20", "FREQ=MONTHLY;BYDAY=-1FR"}, // the 20th is no last Friday
		{"FREQ=MONTHLY;BYDAY=1MO,3MO", "2026-12-07", "2026-12-08", "FREQ=MONTHLY;BYDAY=1MO,3MO"},
		{"FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=14", "2027-03-14", "2027-04-02", "FREQ=YEARLY;BYMONTH=4;BYMONTHDAY=2"},
		{"FREQ=YEARLY;BYYEARDAY=100", "2027-04-10", "2027-04-12", "FREQ=YEARLY;BYYEARDAY=100"},
		{"FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO", "2027-05-17", "2027-05-18", "FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO"},
		{"FREQ=MONTHLY;BYDAY=MO,TU;BYSETPOS=-1", "2026-11-30", "2026-11-27", "FREQ=MONTHLY;BYDAY=MO,TU;BYSETPOS=-1"},
		{"FREQ=MONTHLY;BYMONTHDAY=3", "2026-12-03", "2026-12-31", "RSCALE=GREGORIAN;FREQ=MONTHLY;BYMONTHDAY=31;SKIP=BACKWARD"},
		{"FREQ=MONTHLY;BYDAY=1MO", "2026-12-07", "2026-12-14", "FREQ=MONTHLY;BYDAY=2MO"},
		{"FREQ=MONTHLY;BYDAY=1MO", "2026-12-07", "2026-12-01", "FREQ=MONTHLY;BYDAY=1TU"},
	} {
		if got := repeat.MustParse(c.rule).MovedTo(day.MustDate(c.from), day.MustDate(c.to)); got.String() != repeat.MustParse(c.want).String() {
			t.Errorf("%s moved from %s to %s is %s, want %s", c.rule, c.from, c.to, got, c.want)
		}
	}
}

// The greatest that is taken, and the next, which is refused.
func TestBounds(t *testing.T) {
	for _, c := range []struct{ good, bad string }{
		{"FREQ=MONTHLY;BYMONTHDAY=31", "FREQ=MONTHLY;BYMONTHDAY=32"}, {"FREQ=MONTHLY;BYMONTHDAY=-31", "FREQ=MONTHLY;BYMONTHDAY=-32"},
		{"FREQ=YEARLY;BYMONTH=12", "FREQ=YEARLY;BYMONTH=13"}, {"FREQ=YEARLY;BYYEARDAY=366", "FREQ=YEARLY;BYYEARDAY=367"},
		{"FREQ=YEARLY;BYYEARDAY=-366", "FREQ=YEARLY;BYYEARDAY=-367"}, {"FREQ=YEARLY;BYWEEKNO=53;BYDAY=MO", "FREQ=YEARLY;BYWEEKNO=54;BYDAY=MO"},
		{"FREQ=DAILY;INTERVAL=1", "FREQ=DAILY;INTERVAL=0"},
	} {
		if _, err := repeat.Parse(c.good); err != nil {
			t.Errorf("%s: %v", c.good, err)
		}
		if _, err := repeat.Parse(c.bad); err == nil {
			t.Errorf("%s is taken", c.bad)
		}
	}
	for part, most := range map[string]int{"INTERVAL": repeat.MaxInterval, "COUNT": repeat.MaxCount} {
		for n, good := range map[int]bool{most: true, most + 1: false} {
			if _, err := repeat.Parse(fmt.Sprintf("FREQ=DAILY;%s=%d", part, n)); (err == nil) != good {
				t.Errorf("%s=%d: %v", part, n, err)
			}
		}
	}
	begin := func(lead int) error {
		_, err := repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY"), First: day.MustDate("2026-11-24"), Lead: lead}.Begin(day.TimeOfDay{}, time.UTC)
		return err
	}
	for lead, good := range map[int]bool{-1: false, 0: true, repeat.MaxLead: true, repeat.MaxLead + 1: false} {
		if err := begin(lead); (err == nil) != good {
			t.Errorf("a lead of %d: %v", lead, err)
		}
	}
}

// Two repeats are the same where everything of them is; none has the rule of none.
func TestSame(t *testing.T) {
	one := repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY"), First: day.MustDate("2026-11-24")}
	again := repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY"), First: one.First}
	if !one.Same(one) || !one.Same(again) || !(repeat.Repeat{}).Same(repeat.Repeat{}) {
		t.Error("equal ones are not the same")
	}
	for i, change := range []func(*repeat.Repeat){
		func(r *repeat.Repeat) { r.Rule = repeat.MustParse("FREQ=WEEKLY") }, func(r *repeat.Repeat) { r.Rule = nil },
		func(r *repeat.Repeat) { r.First = r.First.AddDays(1) }, func(r *repeat.Repeat) { r.Lead = 1 }, func(r *repeat.Repeat) { r.Anchor = 1 },
		func(r *repeat.Repeat) { r.Without = []day.Date{r.First} },
	} {
		other := again
		if change(&other); one.Same(other) || other.Same(one) {
			t.Errorf("change %d makes no difference", i)
		}
	}
}

// Week 53, and days of a first and last week that lie in the year beside (RFC 5545 section
// 3.3.10, BYWEEKNO; dates of ISO weeks by time.ISOWeek).
func TestWeeksAtTheEndsOfYears(t *testing.T) {
	for _, week := range []int{1, 52, 53} {
		for weekday := range 7 {
			name := []string{"SU", "MO", "TU", "WE", "TH", "FR", "SA"}[weekday]
			rule := repeat.MustParse(fmt.Sprintf("FREQ=YEARLY;BYWEEKNO=%d;BYDAY=%s", week, name))
			first := day.MustDate("2015-01-01")
			var want []day.Date
			for d := first; d.Before(day.MustDate("2033-01-01")); d = d.AddDays(1) {
				year, month, dom := d.Civil()
				if _, w := time.Date(year, month, dom, 0, 0, 0, 0, time.UTC).ISOWeek(); w == week && int(d.Weekday()) == weekday {
					want = append(want, d)
				}
			}
			r, err := repeat.Repeat{Rule: rule, First: want[0]}.Begin(day.TimeOfDay{}, time.UTC)
			if err != nil {
				t.Fatal(err)
			}
			if got := r.Preview(len(want), day.TimeOfDay{}, time.UTC); !slices.Equal(got, want) {
				t.Errorf("%s: %v, want %v", rule, got, want)
			}
		}
	}
}
