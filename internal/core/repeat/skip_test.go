package repeat_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// dayByDay reads a monthly or yearly rule as RFC 7529 section 4.1 words it: it
// writes down every day the rule names, whether the month has it or not, then
// moves or drops those it has not, and only then looks at BYDAY and BYSETPOS.
func dayByDay(r *repeat.Rule, start day.Date, count int) []day.Date {
	var found []day.Date
	year, month, _ := start.Civil()
	for period := 0; len(found) < count && period < 3000; period += r.Interval {
		var set []day.Date
		if r.Freq == repeat.Monthly {
			n := year*12 + int(month) - 1 + period
			set = named(r, start, n/12, time.Month(n%12+1), nil)
		} else {
			for m := time.January; m <= time.December; m++ {
				set = named(r, start, year+period, m, set)
			}
			set = yearDays(r, year+period, set)
		}
		set = slices.DeleteFunc(set, func(d day.Date) bool { return !onWeekday(r, d) })
		slices.SortFunc(set, day.Date.Compare)
		set = slices.Compact(set)
		for i, d := range set {
			picked := len(r.BySetPos) == 0 || slices.Contains(r.BySetPos, i+1) || slices.Contains(r.BySetPos, i-len(set))
			if picked && !d.Before(start) && len(found) < count && !slices.Contains(found, d) {
				found = append(found, d)
			}
		}
		slices.SortFunc(found, day.Date.Compare)
	}
	return found
}

// named adds the days of one month that BYMONTH and BYMONTHDAY name.
func named(r *repeat.Rule, start day.Date, year int, month time.Month, set []day.Date) []day.Date {
	_, startMonth, startDom := start.Civil()
	doms, months := r.ByMonthDay, r.ByMonth
	if len(r.ByMonthDay)+len(r.ByDay)+len(r.ByYearDay) == 0 {
		doms = []int{startDom}
		if r.Freq == repeat.Yearly && len(months) == 0 {
			months = []int{int(startMonth)}
		}
	}
	if len(months) > 0 && !slices.Contains(months, int(month)) || len(r.ByYearDay) > 0 {
		return set
	}
	length := day.DaysIn(year, month)
	first, _ := day.NewDate(year, month, 1)
	if len(doms) == 0 {
		for n := range length {
			set = append(set, first.AddDays(n))
		}
	}
	for _, n := range doms {
		set = numbered(r, first, length, n, set)
	}
	return set
}

// numbered adds the n-th day of a month or year, or where SKIP moves it.
func numbered(r *repeat.Rule, first day.Date, length, n int, set []day.Date) []day.Date {
	switch {
	case n < 0 && length+n >= 0:
		return append(set, first.AddDays(length+n))
	case n > 0 && n <= length:
		return append(set, first.AddDays(n-1))
	case n > 0 && r.Skip == repeat.Backward:
		return append(set, first.AddDays(length-1))
	case n > 0 && r.Skip == repeat.Forward:
		return append(set, first.AddDays(length))
	}
	return set
}

func yearDays(r *repeat.Rule, year int, set []day.Date) []day.Date {
	first, _ := day.NewDate(year, time.January, 1)
	length := 365
	if day.IsLeap(year) {
		length = 366
	}
	for _, n := range r.ByYearDay {
		set = numbered(r, first, length, n, set)
	}
	return set
}

func onWeekday(r *repeat.Rule, d day.Date) bool {
	if len(r.ByDay) == 0 {
		return true
	}
	year, month, dom := d.Civil()
	length := day.DaysIn(year, month)
	if r.Freq == repeat.Yearly && len(r.ByMonth) == 0 {
		first, _ := day.NewDate(year, time.January, 1)
		next, _ := day.NewDate(year+1, time.January, 1)
		length, dom = next.Sub(first), d.Sub(first)+1
	}
	return slices.ContainsFunc(r.ByDay, func(want repeat.NthDay) bool {
		return want.Day == d.Weekday() && (want.N == 0 || want.N == (dom-1)/7+1 || want.N == -((length-dom)/7+1))
	})
}

func TestDayByDay(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 5))
	pick := func(values ...string) string { return values[r.IntN(len(values))] }
	full := 0
	const rounds = 6000
	for range rounds {
		freq := pick("MONTHLY", "YEARLY")
		text := "FREQ=" + freq + pick("", "", fmt.Sprintf(";INTERVAL=%d", 1+r.IntN(14))) +
			pick("", "", ";BYMONTH=2", ";BYMONTH=2,4,11", ";BYMONTH=12,1")
		numbered := pick("", "", ";BYMONTHDAY=31", ";BYMONTHDAY=30,31", ";BYMONTHDAY=29,-1", ";BYMONTHDAY=28,29,-31", ";BYMONTHDAY=1,30")
		if freq == "YEARLY" && !strings.Contains(text, "BYMONTH") && numbered == "" {
			numbered = pick("", ";BYYEARDAY=366", ";BYYEARDAY=1,366", ";BYYEARDAY=-366,365")
		}
		text += numbered
		text += pick("", "", ";BYDAY=MO", ";BYDAY=1SU,FR", ";BYDAY=-1FR,2TU", ";BYDAY=5WE,SA,1MO")
		if strings.Count(text, ";BY") > 0 && !strings.Contains(text, "YEARDAY") {
			text += pick("", "", ";BYSETPOS=1", ";BYSETPOS=-1", ";BYSETPOS=2,-2")
		}
		text += ";RSCALE=GREGORIAN;SKIP=" + pick("OMIT", "BACKWARD", "FORWARD")
		start := day.MustDate("1999-01-01").AddDays(r.IntN(4000))
		rule := repeat.MustParse(text)
		want := dayByDay(rule, start, 30)
		series, err := repeat.New(rule, start, repeat.Options{})
		if err != nil {
			if len(want) > 0 {
				t.Fatalf("%s from %s: %v, want %v", text, start, err, want)
			}
			continue
		}
		var got []day.Date
		for d := range series.From(day.Date{}) {
			if got = append(got, d); len(got) == 30 {
				break
			}
		}
		if len(want) == 30 && !slices.Equal(got, want) {
			t.Fatalf("%s from %s:\n ours       %v\n day by day %v", text, start, got, want)
		}
		if len(want) == 30 {
			full++
		}
		for i := 1; i < len(got); i++ {
			if next := series.After(got[i-1]); next != got[i] {
				t.Fatalf("%s from %s: after %s comes %s, want %s", text, start, got[i-1], next, got[i])
			}
		}
	}
	if full < rounds*2/3 {
		t.Errorf("only %d of %d rules had 30 dates", full, rounds)
	}
}
