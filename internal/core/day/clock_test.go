package day_test

import (
	"testing"
	"time"
	_ "time/tzdata"

	"tincup/internal/core/day"
)

func zone(t testing.TB, name string) *time.Location {
	t.Helper()
	z, err := time.LoadLocation(name)
	if err != nil {
		t.Fatal(err)
	}
	return z
}

// slowInstant finds a wall time by looking at every minute round it: the first
// that shows it, or, where none does, the wanted distance past the gap.
func slowInstant(z *time.Location, m day.Moment) time.Time {
	year, month, dom := m.Date.Civil()
	naive := time.Date(year, month, dom, 0, m.Time.Minutes(), 0, 0, time.UTC)
	shows := func(at time.Time) time.Time { // the wall at an instant, as if UTC
		l := at.In(z)
		return time.Date(l.Year(), l.Month(), l.Day(), l.Hour(), l.Minute(), 0, 0, time.UTC)
	}
	for at := naive.Add(-15 * time.Hour); at.Before(naive.Add(15 * time.Hour)); at = at.Add(time.Minute) {
		wall := shows(at)
		if wall.Equal(naive) {
			return at
		}
		before := shows(at.Add(-time.Minute))
		if before.Before(naive) && wall.After(naive) {
			return at.Add(naive.Sub(before) - time.Minute)
		}
	}
	return time.Time{}
}

// The changes of 2026 to summer and winter time, in zones with a whole-hour, a
// half-hour and a midnight change; dates from the tz database.
func TestInstantRoundTransitions(t *testing.T) {
	for _, c := range []struct{ zone, spring, autumn string }{
		{"Europe/Lisbon", "2026-03-29", "2026-10-25"},
		{"America/New_York", "2026-03-08", "2026-11-01"},
		{"Australia/Lord_Howe", "2026-10-04", "2026-04-05"},
		{"America/Havana", "2026-03-08", "2026-11-01"},
		{"Africa/Cairo", "2026-04-24", "2026-10-30"},
	} {
		z := zone(t, c.zone)
		clock := day.Clock{Zone: z}
		for _, date := range []string{c.spring, c.autumn} {
			for offset := -1; offset <= 1; offset++ {
				d := day.MustDate(date).AddDays(offset)
				for minutes := 0; minutes < 1440; minutes += 15 {
					at, err := day.NewTimeOfDay(minutes/60, minutes%60)
					if err != nil {
						t.Fatal(err)
					}
					m := day.Moment{Date: d, Time: at}
					if got, want := clock.Instant(m), slowInstant(z, m); !got.Equal(want) {
						t.Errorf("%s in %s is %v; want %v", m, c.zone, got, want.In(z))
					}
				}
			}
		}
	}
}

func TestWallTimesThatDoNotExistOrExistTwice(t *testing.T) {
	for _, c := range []struct{ zone, moment, want string }{
		{"Europe/Lisbon", "2026-03-29T01:30", "2026-03-29T02:30:00+01:00"},
		{"America/New_York", "2026-03-08T02:30", "2026-03-08T03:30:00-04:00"},
		{"Europe/Lisbon", "2026-10-25T01:30", "2026-10-25T01:30:00+01:00"},
		{"America/New_York", "2026-11-01T01:30", "2026-11-01T01:30:00-04:00"},
		{"Europe/Lisbon", "2026-07-01T17:00", "2026-07-01T17:00:00+01:00"},
		{"Europe/Lisbon", "2026-12-01T17:00", "2026-12-01T17:00:00Z"},
	} {
		got := day.Clock{Zone: zone(t, c.zone)}.Instant(day.MustMoment(c.moment)).Format(time.RFC3339)
		if got != c.want {
			t.Errorf("%s in %s is %s; want %s", c.moment, c.zone, got, c.want)
		}
	}
}

func TestDayOf(t *testing.T) {
	lisbon := zone(t, "Europe/Lisbon")
	for _, c := range []struct {
		now      string
		dayStart time.Duration
		want     string
	}{
		{"2026-11-24T23:59", 0, "2026-11-24"}, {"2026-11-25T00:00", 0, "2026-11-25"},
		{"2026-11-25T03:59", 4 * time.Hour, "2026-11-24"}, {"2026-11-25T04:00", 4 * time.Hour, "2026-11-25"},
		{"2026-11-25T00:00", 6 * time.Hour, "2026-11-24"}, {"2026-12-31T23:59", 0, "2026-12-31"},
		{"2027-01-01T00:30", time.Hour, "2026-12-31"}, {"2028-02-29T12:00", 0, "2028-02-29"},
	} {
		at, err := time.ParseInLocation("2006-01-02T15:04", c.now, lisbon)
		if err != nil {
			t.Fatal(err)
		}
		if got := (day.Clock{Now: at, Zone: lisbon, DayStart: c.dayStart}).Today().String(); got != c.want {
			t.Errorf("at %s with a day from %v it is %s; want %s", c.now, c.dayStart, got, c.want)
		}
	}
}

// Days never run backwards, and each begins at its StartOf, in every zone and
// with any DayStart, a day skipped (Samoa 2011) and an autumn change over
// midnight (Havana, Azores) included.
func TestDaysRunForwards(t *testing.T) {
	for _, c := range []struct{ zone, from string }{
		{"Europe/Lisbon", "2026-03-27"}, {"Europe/Lisbon", "2026-10-23"}, {"America/Havana", "2026-10-30"},
		{"Atlantic/Azores", "2026-10-23"}, {"Pacific/Apia", "2011-12-28"}, {"America/Sao_Paulo", "2018-11-02"},
	} {
		z := zone(t, c.zone)
		for _, dayStart := range []time.Duration{0, 30 * time.Minute, 4 * time.Hour, 6 * time.Hour} {
			clock := day.Clock{Zone: z, DayStart: dayStart}
			begin := clock.StartOf(day.MustDate(c.from))
			last := day.Date{}
			for at := begin; at.Before(begin.Add(5 * 24 * time.Hour)); at = at.Add(5 * time.Minute) {
				d := clock.DayOf(at)
				if d.Before(last) {
					t.Fatalf("%s, day from %v: %v after %v at %v", c.zone, dayStart, d, last, at.In(z))
				}
				if at.Before(clock.StartOf(d)) || !at.Before(clock.StartOf(d.AddDays(1))) {
					t.Fatalf("%s, day from %v: %v at %v is outside %v..%v", c.zone, dayStart, d, at.In(z),
						clock.StartOf(d), clock.StartOf(d.AddDays(1)))
				}
				last = d
			}
		}
	}
}

func TestPassed(t *testing.T) {
	lisbon := zone(t, "Europe/Lisbon")
	for _, c := range []struct {
		due, now string
		dayStart time.Duration
		want     bool
	}{
		{"2026-11-24", "2026-11-24T23:59", 0, false}, {"2026-11-24", "2026-11-25T00:00", 0, true},
		{"2026-11-24", "2026-11-25T03:59", 4 * time.Hour, false}, {"2026-11-24", "2026-11-25T04:00", 4 * time.Hour, true},
		{"2026-11-24T17:00", "2026-11-24T17:00", 0, false}, {"2026-11-24T17:00", "2026-11-24T17:01", 0, true},
		{"", "2026-11-25T00:00", 0, false},
	} {
		at, err := time.ParseInLocation("2006-01-02T15:04", c.now, lisbon)
		if err != nil {
			t.Fatal(err)
		}
		var due day.Moment
		if err := due.UnmarshalText([]byte(c.due)); err != nil {
			t.Fatal(err)
		}
		if got := (day.Clock{Now: at, Zone: lisbon, DayStart: c.dayStart}).Passed(due); got != c.want {
			t.Errorf("due %q at %s, day from %v: passed is %v", c.due, c.now, c.dayStart, got)
		}
	}
}

func TestWords(t *testing.T) {
	for in, want := range map[string]string{
		"2026-11-27": "Fri 27 Nov 2026", "2026-11-27T14:00/PT30M": "Fri 27 Nov 2026, 14:00 for 30 min",
		"2026-W48": "week 48 of 2026", "2026-11": "November 2026", "parked": "parked",
	} {
		if got := day.MustHorizon(in).Words(); got != want {
			t.Errorf("%s in words is %q; want %q", in, got, want)
		}
	}
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{"2026-11-24", "2026-W48", "2026-11", "parked", "2026-11-27T14:00/PT30M", "2026-11-27T16:00"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		if h, err := day.ParseHorizon(s); err == nil {
			if again, err := day.ParseHorizon(h.String()); err != nil || again != h {
				t.Fatalf("%q reads as %v, which reads as %v, %v", s, h, again, err)
			}
		}
		if m, err := day.ParseMoment(s); err == nil && m.String() != s {
			t.Fatalf("%q reads as %v", s, m)
		}
	})
}
