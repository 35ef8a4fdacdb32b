package repeat_test

import (
	"flag"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/teambition/rrule-go"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/seed"
)

var rules = flag.Int("rules", 1000, "random rules of the differential test")

// Where rrule-go differs on purpose of ours, and what decides it:
//
//   - BYWEEKNO, alone or with BYMONTH, and no BYDAY: the weekday is that of
//     DTSTART (RFC 5545 section 3.3.10: what the rule does not hold is derived
//     from DTSTART). rrule-go takes all seven days. It is asked with the
//     weekday written out.
//   - BYSETPOS in the first week of a weekly rule that begins within the week:
//     the positions count over the whole week, as they do over the first month
//     and year (section 3.3.10: "within the set of events specified by the
//     rule" of one interval). rrule-go counts from DTSTART on. Such rules
//     are begun on the first day of a week; TestWholeFirstWeek has the others.
//   - BYDAY with and without numbers in one rule: a list names each of its
//     members (section 3.3.10: "a comma-separated list of days of the week").
//     rrule-go keeps only days that are in both halves. Such rules are left out
//     here; TestDayByDay has them.
//   - BYWEEKNO 52, 53, -52 and -53 at the turn of the year: weeks are those of
//     ISO 8601, as section 3.3.10 says. rrule-go takes 1 January 2022 for week
//     53 of 2021, which has 52, and leaves days out of some others. 1 to 51 and
//     -1 to -51 are compared; TestWeekNumbers checks all by time.ISOWeek.
//   - A number in BYDAY above 5 within a month never holds; rrule-go stops with
//     an index out of range.
//   - SKIP is not known to rrule-go; TestDayByDay checks it.
//   - A number in BYDAY with DAILY or WEEKLY is refused here, as the section
//     says; rrule-go takes it without the number.
//   - BYMONTHDAY with WEEKLY, BYYEARDAY but with YEARLY, BYWEEKNO but with
//     YEARLY, and numbered days with BYWEEKNO are refused here, as the section
//     says ("MUST NOT").

// randomRule makes a rule that both sides define. About one in ten can never
// hold.
func randomRule(r *rand.Rand) string {
	freq := []string{"DAILY", "WEEKLY", "MONTHLY", "YEARLY"}[r.IntN(4)]
	parts := []string{"FREQ=" + freq}
	if r.IntN(2) == 0 {
		most := []int{3, 12, 60, 400}[r.IntN(4)]
		if freq == "YEARLY" && most > 12 && r.IntN(4) > 0 {
			most = 12
		}
		parts = append(parts, fmt.Sprintf("INTERVAL=%d", 1+r.IntN(most)))
	}
	some := func(name string, in int, most int, fromEnd bool) {
		if r.IntN(in) > 0 {
			return
		}
		var values []string
		for range 1 + r.IntN(4) {
			n := 1 + r.IntN(most)
			if fromEnd && r.IntN(3) == 0 {
				n = -n
			}
			values = append(values, fmt.Sprint(n))
		}
		parts = append(parts, name+"="+strings.Join(values, ","))
	}
	before := len(parts)
	some("BYMONTH", 4, 12, false)
	months := len(parts) > before
	weeks := len(parts)
	if freq == "YEARLY" {
		some("BYWEEKNO", 5, 51, true)
	}
	weekly := len(parts) > weeks
	if freq == "YEARLY" && !weekly {
		some("BYYEARDAY", 6, 366, true)
	}
	if freq != "WEEKLY" && !weekly {
		some("BYMONTHDAY", 3, 31, true)
	}
	if r.IntN(2) == 0 {
		var days []string
		numbered := r.IntN(2) == 0
		for range 1 + r.IntN(3) {
			d := []string{"MO", "TU", "WE", "TH", "FR", "SA", "SU"}[r.IntN(7)]
			if (freq == "MONTHLY" || freq == "YEARLY" && !weekly) && numbered {
				most := 5
				if freq == "YEARLY" && !months {
					most = 53
				}
				n := 1 + r.IntN(most)
				if r.IntN(3) == 0 {
					n = -n
				}
				d = fmt.Sprint(n) + d
			}
			days = append(days, d)
		}
		parts = append(parts, "BYDAY="+strings.Join(days, ","))
	}
	if len(parts) > before && freq != "DAILY" {
		some("BYSETPOS", 5, []int{3, 3, 10, 366}[r.IntN(4)], true)
	}
	if r.IntN(3) == 0 {
		parts = append(parts, "WKST="+[]string{"MO", "SU", "WE", "SA"}[r.IntN(4)])
	}
	if r.IntN(6) == 0 {
		parts = append(parts, fmt.Sprintf("COUNT=%d", 1+r.IntN(60)))
	}
	return strings.Join(parts, ";")
}

// reference makes rrule-go's reading of a rule, with what it does not take from
// DTSTART by itself written out.
func reference(text string, start day.Date) (*rrule.RRule, error) {
	o, err := rrule.StrToROption(text)
	if err != nil {
		return nil, err
	}
	year, month, dom := start.Civil()
	o.Dtstart = time.Date(year, month, dom, 0, 0, 0, 0, time.UTC)
	o.Until = instant(day.MaxDate) // else it ends after 292 years
	if len(o.Byweekno) > 0 && len(o.Byweekday) == 0 {
		days := []rrule.Weekday{rrule.MO, rrule.TU, rrule.WE, rrule.TH, rrule.FR, rrule.SA, rrule.SU}
		o.Byweekday = []rrule.Weekday{days[(int(start.Weekday())+6)%7]}
	}
	return rrule.NewRRule(*o)
}

func instant(d day.Date) time.Time {
	year, month, dom := d.Civil()
	return time.Date(year, month, dom, 0, 0, 0, 0, time.UTC)
}

// compare asks both sides for the first 50 dates, and for the next date from
// days spread over them. It reports how many dates there were.
func compare(t testing.TB, text string, start day.Date, from func(span int) []int) int {
	rule, err := repeat.Parse(text)
	if err != nil {
		t.Fatalf("%s: %v", text, err)
	}
	if rule.Freq == repeat.Weekly && len(rule.BySetPos) > 0 {
		start = start.AddDays(-(int(start.Weekday()) - int(rule.WeekStart) + 7) % 7)
	}
	theirs, err := reference(text, start)
	if err != nil {
		t.Fatalf("%s: rrule-go: %v", text, err)
	}
	series, err := repeat.New(rule, start, repeat.Options{})
	next := theirs.Iterator()
	var want, got []day.Date
	for len(want) < 50 {
		d, ok := next()
		if !ok {
			break
		}
		want = append(want, day.DateOf(d))
	}
	if err != nil {
		if len(want) > 0 {
			t.Fatalf("%s from %s: never, but rrule-go has %v", text, start, want[0])
		}
		return 0
	}
	for d := range series.From(start) {
		if got = append(got, d); len(got) == 50 {
			break
		}
	}
	if !slices.Equal(got, want) {
		t.Fatalf("%s from %s:\n ours   %v\n theirs %v", text, start, got, want)
	}
	if len(want) == 0 {
		return 0
	}
	span := want[len(want)-1].Sub(start) + 1
	for _, n := range from(span) {
		d := start.AddDays(n)
		after := theirs.After(instant(d), false)
		ours := series.After(d)
		if after.IsZero() != ours.IsZero() || !after.IsZero() && day.DateOf(after) != ours {
			t.Fatalf("%s from %s: after %s comes %s, rrule-go says %s", text, start, d, ours, after)
		}
	}
	return len(want)
}

func TestAgainstReference(t *testing.T) {
	s := seed.New(t)
	const parts = 2
	var full, dates atomic.Int64
	t.Run("all", func(t *testing.T) {
		for part := range parts {
			t.Run(fmt.Sprint(part), func(t *testing.T) {
				t.Parallel()
				compareMany(t, rand.New(rand.NewPCG(s, uint64(part))), *rules/parts, &full, &dates)
			})
		}
	})
	share := 100 * float64(full.Load()) / float64(*rules)
	t.Logf("%d rules, %.1f %% of them not empty, %d dates alike", *rules, share, dates.Load())
	if share < 70 {
		t.Errorf("only %.1f %% of the rules had a date; 70 %% are wanted", share)
	}
}

func compareMany(t *testing.T, r *rand.Rand, rules int, full, dates *atomic.Int64) {
	first, last := day.MustDate("1970-01-01"), day.MustDate("2100-12-31")
	for range rules {
		start := first.AddDays(r.IntN(last.Sub(first) + 1))
		n := compare(t, randomRule(r), start, func(span int) []int {
			var days []int
			for range 10 {
				days = append(days, r.IntN(span+1))
			}
			return days
		})
		if dates.Add(int64(n)); n > 0 {
			full.Add(1)
		}
	}
}

func FuzzAgainstReference(f *testing.F) {
	f.Add(uint64(1), 20_000)
	f.Add(uint64(7), 9000)
	f.Fuzz(func(t *testing.T, seed uint64, offset int) {
		r := rand.New(rand.NewPCG(seed, 2))
		start := day.MustDate("1970-01-01").AddDays(int(uint(offset) % 47_847))
		compare(t, randomRule(r), start, func(span int) []int { return []int{r.IntN(span + 1), r.IntN(span + 1)} })
	})
}
