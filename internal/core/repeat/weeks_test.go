package repeat_test

import (
	"fmt"
	"testing"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// Week numbers, from the front and from the end, against time.ISOWeek: every
// day of two 400-year cycles' worth of turns of the year.
func TestWeekNumbers(t *testing.T) {
	for number := 1; number <= 53; number++ {
		rule := fmt.Sprintf("FREQ=YEARLY;BYWEEKNO=%d;BYDAY=MO,TU,WE,TH,FR,SA,SU", number)
		front, err := repeat.New(repeat.MustParse(rule), day.MustDate("1950-01-01"), repeat.Options{})
		if err != nil {
			t.Fatal(err)
		}
		rule = fmt.Sprintf("FREQ=YEARLY;BYWEEKNO=-%d;BYDAY=MO,TU,WE,TH,FR,SA,SU", number)
		back, err := repeat.New(repeat.MustParse(rule), day.MustDate("1950-01-01"), repeat.Options{})
		if err != nil {
			t.Fatal(err)
		}
		for d := day.MustDate("1950-01-01"); d.Before(day.MustDate("2150-01-01")); d = d.AddDays(1) {
			year, month, dom := d.Civil()
			if month == 2 && dom == 1 { // the turns of the year, and a while around
				d, _ = day.NewDate(year, 11, 20)
				continue
			}
			isoYear, week := instant(d).ISOWeek()
			lastDay, _ := day.NewDate(isoYear, 12, 28) // always in the last week
			_, weeks := instant(lastDay).ISOWeek()
			if got, want := front.Holds(d), week == number; got != want {
				t.Fatalf("%s in week %d: %v, want %v", d, number, got, want)
			}
			if got, want := back.Holds(d), weeks+1-week == number; got != want {
				t.Fatalf("%s in week -%d: %v, want %v", d, number, got, want)
			}
		}
	}
}

// A 31st that is moved forward is a day of the week that it comes to lie in, by
// time.ISOWeek. RFC 7529, section 4.1, names the days of weeks before it moves any, and does
// not say what week one that is moved belongs to.
func TestWeekOfADayMovedForward(t *testing.T) {
	first, last := day.MustDate("2000-01-01"), day.MustDate("2040-01-01")
	for number := 1; number <= 53; number++ {
		rule := repeat.MustParse(fmt.Sprintf("FREQ=YEARLY;BYWEEKNO=%d;BYMONTHDAY=31;SKIP=FORWARD", number))
		s, err := repeat.New(rule, first, repeat.Options{})
		for month := first; month.Before(last); month = month.AddMonths(1) {
			year, m, _ := month.Civil()
			d := month.AddDays(min(day.DaysIn(year, m), 30))
			if _, week := instant(d).ISOWeek(); (err == nil && s.Holds(d)) != (week == number) {
				t.Errorf("the 31st of the month of %s lies on %s in week %d, and of week %d: %v, %v", month, d, week, number, s, err)
			}
		}
	}
}

// Weeks across the ends of the calendar keep their numbers: 0001-01-01 is a
// Monday, and 9999-12-31 a Friday of week 52 (ISO 8601, by time.ISOWeek). In
// weeks from Wednesday on, 29 December 9999 is in week 1 of the year after.
func TestWeekNumbersAtTheEndsOfTheCalendar(t *testing.T) {
	const all = "BYDAY=MO,TU,WE,TH,FR,SA,SU"
	for _, c := range []struct {
		rule, day string
		holds     bool
	}{
		{"BYWEEKNO=-18;WKST=WE", "9999-08-25", true},
		{"BYWEEKNO=-18;WKST=WE", "9999-09-01", false},
		{"BYWEEKNO=1;WKST=WE", "9999-12-31", true},
		{"BYWEEKNO=52;WKST=WE", "9999-12-28", true},
		{"BYWEEKNO=-1;WKST=MO", "9999-12-31", true},
		{"BYWEEKNO=52;WKST=MO", "9999-12-31", true},
		{"BYWEEKNO=1;WKST=MO", "0001-01-07", true},
		{"BYWEEKNO=1;WKST=WE", "0001-01-02", false},
		{"BYWEEKNO=1;WKST=WE", "0001-01-03", true},
		{"BYWEEKNO=-1;WKST=WE", "0001-01-02", true},
	} {
		s, err := repeat.New(repeat.MustParse("FREQ=YEARLY;"+all+";"+c.rule), day.MinDate, repeat.Options{})
		if err != nil {
			t.Fatal(err)
		}
		if got := s.Holds(day.MustDate(c.day)); got != c.holds {
			t.Errorf("%s holds %s: %v, want %v", c.rule, c.day, got, c.holds)
		}
	}
}

// BYSETPOS counts over the whole first week, also where the rule begins within
// it, as it does over the first month and year (RFC 5545 section 3.3.10).
func TestWholeFirstWeek(t *testing.T) {
	for _, c := range []struct{ rule, start, first string }{
		{"FREQ=WEEKLY;BYDAY=MO,WE,FR;BYSETPOS=1", "2026-11-25", "2026-11-30"},
		{"FREQ=WEEKLY;BYDAY=MO,WE,FR;BYSETPOS=2", "2026-11-25", "2026-11-25"},
		{"FREQ=WEEKLY;BYDAY=MO,WE,FR;BYSETPOS=-1;INTERVAL=2", "2026-11-28", "2026-12-11"},
		{"FREQ=MONTHLY;BYDAY=MO;BYSETPOS=1", "2026-11-03", "2026-12-07"},
	} {
		s, err := repeat.New(repeat.MustParse(c.rule), day.MustDate(c.start), repeat.Options{})
		if err != nil {
			t.Fatal(err)
		}
		if got := s.OnOrAfter(day.Date{}); got != day.MustDate(c.first) {
			t.Errorf("%s from %s begins on %s, want %s", c.rule, c.start, got, c.first)
		}
	}
}
