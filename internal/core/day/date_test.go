package day_test

import (
	"errors"
	"testing"
	"time"

	"tincup/internal/core/day"
)

// Every day of 0001 to 9999 against the time package: civil date, weekday and
// ISO week.
func TestDatesAgainstTime(t *testing.T) {
	want := time.Date(1, 1, 1, 12, 0, 0, 0, time.UTC)
	for d := day.MinDate; ; d = d.AddDays(1) {
		y, m, dom := d.Civil()
		wy, wm, wd := want.Date()
		isoY, isoW := d.ISOWeek()
		wantIsoY, wantIsoW := want.ISOWeek()
		// A week of the year 0 lies before the calendar's first day only by name.
		if y != wy || m != wm || dom != wd || d.Weekday() != want.Weekday() || isoY != wantIsoY || isoW != wantIsoW {
			t.Fatalf("%v: got %d-%d-%d %v %d-W%d, time has %v %d-W%d", d, y, m, dom, d.Weekday(), isoY, isoW,
				want.Format("2006-01-02 Mon"), wantIsoY, wantIsoW)
		}
		back, err := day.NewDate(y, m, dom)
		if err != nil || back != d {
			t.Fatalf("NewDate(%d, %d, %d) = %v, %v; want %v", y, m, dom, back, err, d)
		}
		if d == day.MaxDate {
			break
		}
		want = want.AddDate(0, 0, 1)
	}
}

// Years with 53 weeks, from the list in the article on ISO 8601 week dates,
// given here from memory, and the weeks round New Year from ISO 8601 examples.
func TestISOWeeks(t *testing.T) {
	long := map[int]bool{2004: true, 2009: true, 2015: true, 2020: true, 2026: true, 2032: true, 2037: true, 2043: true, 2048: true}
	for year := 2004; year <= 2050; year++ {
		if _, err := day.WeekStart(year, 53); (err == nil) != long[year] {
			t.Errorf("WeekStart(%d, 53): %v; 53 weeks is %v", year, err, long[year])
		}
	}
	for text, want := range map[string][2]int{
		"2026-12-31": {2026, 53}, "2027-01-03": {2026, 53}, "2027-01-04": {2027, 1},
		"2005-01-01": {2004, 53}, "2008-12-29": {2009, 1}, "2010-01-03": {2009, 53},
	} {
		y, w := day.MustDate(text).ISOWeek()
		if y != want[0] || w != want[1] {
			t.Errorf("%s is in week %d-W%d; want %d-W%d", text, y, w, want[0], want[1])
		}
	}
}

func TestParse(t *testing.T) {
	for _, c := range []struct {
		in         string
		parse      func(string) (string, error)
		ok, exists bool
	}{
		{"2026-02-28", parseDate, true, true}, {"2024-02-29", parseDate, true, true}, {"2026-02-29", parseDate, false, false},
		{"2100-02-29", parseDate, false, false}, {"2026-13-01", parseDate, false, false}, {"26-01-01", parseDate, false, true},
		{"2026-1-1", parseDate, false, true}, {"0000-01-01", parseDate, false, false}, {"", parseDate, false, true},
		{"2026-11-27T16:00", parseMoment, true, true}, {"2026-11-27T24:00", parseMoment, false, false},
		{"2026-02-31T10:00", parseMoment, false, false}, {"2026-11-27 16:00", parseMoment, false, true},
		{"2026-11-27T16:00Z", parseMoment, false, true}, {"2026-11-27", parseMoment, true, true},
		{"2026-W48", parseHorizon, true, true}, {"2026-W53", parseHorizon, true, true}, {"2027-W53", parseHorizon, false, false},
		{"2026-11", parseHorizon, true, true}, {"2026-13", parseHorizon, false, false}, {"parked", parseHorizon, true, true},
		{"2026-11-27T14:00/PT30M", parseHorizon, true, true}, {"2026-11-27T14:00", parseHorizon, false, true},
		{"2026-11-27T14:00/PT0M", parseHorizon, false, true}, {"2026-11-27T14:00/30", parseHorizon, false, true},
		{"some day", parseHorizon, false, true}, {"2026-02-30", parseHorizon, false, false},
	} {
		got, err := c.parse(c.in)
		if c.ok && (err != nil || got != c.in) {
			t.Errorf("%q reads as %q, %v; want itself", c.in, got, err)
		}
		if !c.ok && (err == nil || errors.Is(err, day.ErrImpossible) == c.exists) {
			t.Errorf("%q: error %v; impossible should be %v", c.in, err, !c.exists)
		}
	}
	if h := day.MustHorizon("2026-11-27T14:00/PT1H30M"); h.String() != "2026-11-27T14:00/PT90M" {
		t.Errorf("one hour and a half is written %v", h)
	}
}

func parseDate(s string) (string, error)    { d, err := day.ParseDate(s); return d.String(), err }
func parseMoment(s string) (string, error)  { m, err := day.ParseMoment(s); return m.String(), err }
func parseHorizon(s string) (string, error) { h, err := day.ParseHorizon(s); return h.String(), err }

func TestArithmetic(t *testing.T) {
	for _, c := range []struct {
		from   string
		months int
		want   string
	}{
		{"2026-01-31", 1, "2026-02-28"}, {"2024-01-31", 1, "2024-02-29"}, {"2024-02-29", 12, "2025-02-28"},
		{"2026-03-31", -1, "2026-02-28"}, {"2026-12-15", 1, "2027-01-15"}, {"2026-01-15", -1, "2025-12-15"},
		{"9999-12-31", 1, "9999-12-31"}, {"0001-01-01", -5, "0001-01-01"},
	} {
		if got := day.MustDate(c.from).AddMonths(c.months).String(); got != c.want {
			t.Errorf("%s and %d months is %s; want %s", c.from, c.months, got, c.want)
		}
	}
	if got := day.MaxDate.AddDays(1); got != day.MaxDate {
		t.Errorf("a day after the last is %v", got)
	}
	var none day.Date
	if none.AddDays(3) != none || none.AddMonths(3) != none || none.String() != "" || !none.IsZero() {
		t.Error("none does not stay none")
	}
}

func TestHorizon(t *testing.T) {
	today := day.MustDate("2026-11-24") // a Tuesday
	for _, c := range []struct {
		h           string
		first, last string
		is          string
	}{
		{"2026-11-24", "2026-11-24", "2026-11-24", "current"}, {"2026-11-25", "2026-11-25", "2026-11-25", "later"},
		{"2026-11-23", "2026-11-23", "2026-11-23", "past"}, {"2026-W48", "2026-11-23", "2026-11-29", "current"},
		{"2026-W49", "2026-11-30", "2026-12-06", "later"}, {"2026-W47", "2026-11-16", "2026-11-22", "past"},
		{"2026-11", "2026-11-01", "2026-11-30", "current"}, {"2026-12", "2026-12-01", "2026-12-31", "later"},
		{"2026-10", "2026-10-01", "2026-10-31", "past"}, {"parked", "", "", ""},
	} {
		h := day.MustHorizon(c.h)
		is := ""
		for name, holds := range map[string]bool{"current": h.Current(today), "later": h.Later(today), "past": h.Past(today)} {
			if holds {
				is += name
			}
		}
		if h.First().String() != c.first || h.Last().String() != c.last || is != c.is {
			t.Errorf("%s covers %v..%v and is %q; want %s..%s, %q", c.h, h.First(), h.Last(), is, c.first, c.last, c.is)
		}
	}
}

func TestCompareNoneLast(t *testing.T) {
	order := []string{"2026-11-24T09:00", "2026-11-24T17:00", "2026-11-24", "2026-11-25", ""}
	for i := range order {
		for j := range order {
			var a, b day.Moment
			if a.UnmarshalText([]byte(order[i])) != nil || b.UnmarshalText([]byte(order[j])) != nil {
				t.Fatal("the table does not parse")
			}
			if got, want := a.Compare(b), min(max(i-j, -1), 1); got != want {
				t.Errorf("%q against %q is %d; want %d", order[i], order[j], got, want)
			}
		}
	}
}
