package day_test

import (
	"encoding"
	"errors"
	"testing"
	"time"

	"tincup/internal/core/day"
)

// text is a value that reads and writes itself, as the file, the API and the history do.
type text interface {
	encoding.TextMarshaler
	encoding.TextUnmarshaler
}

// Every value comes back from its text as it was; none is "", and what is wrong says so.
func TestTexts(t *testing.T) {
	for _, c := range []struct {
		into        func() text
		good, wrong []string
	}{
		{func() text { return new(day.Date) }, []string{"", "2026-11-24", "0001-01-01", "9999-12-31"}, []string{"2026-11-31", "20261124", "2026-1-1", "x", "0000-01-01"}},
		{func() text { return new(day.Moment) }, []string{"", "2026-11-24", "2026-11-24T00:00", "2026-11-24T23:59"}, []string{"2026-11-24T24:00", "2026-11-24T", "T09:00", "2026-11-24 09:00"}},
		{func() text { return new(day.Horizon) }, []string{"", "2026-11-24", "2026-W48", "2026-11", "parked", "2026-11-24T09:00/PT30M", "2026-W53"},
			[]string{"2025-W53", "2026-13", "2026-W00", "2026-11-24T09:00", "2026-11-24T09:00/PT0M", "2026-11-24T09:00/P1D", "parket"}},
		{func() text { return new(day.Reminder) }, []string{"", "-PT0M", "-PT15M", "-PT2H", "-P1D", "-P14D", "PT15M", "P1D", "2026-11-24T09:00"}, []string{"2026-11-24", "P2D", "PT0M", "-P", "-P1Y", "-PT1S", "-P12345D"}},
		{func() text { return new(day.Timestamp) }, []string{"", "2026-11-24T09:10:30.123Z"}, []string{"2026-11-24", "now"}},
	} {
		for _, s := range c.good {
			v := c.into()
			if err := v.UnmarshalText([]byte(s)); err != nil {
				t.Errorf("%T %q: %v", v, s, err)
				continue
			}
			if again, err := v.MarshalText(); err != nil || string(again) != s {
				t.Errorf("%T %q comes back as %q, %v", v, s, again, err)
			}
		}
		for _, s := range c.wrong {
			v := c.into()
			if err := v.UnmarshalText([]byte(s)); err == nil || err.Error() == "" {
				t.Errorf("%T reads %q", v, s)
			}
			var wrong *day.ParseError
			if err := v.UnmarshalText([]byte(s)); !errors.As(err, &wrong) {
				t.Errorf("%T %q: %v", v, s, err)
			}
		}
	}
}

func TestTimestamps(t *testing.T) {
	at := time.Date(2026, 11, 24, 9, 10, 30, 123_456_789, time.FixedZone("", 3600))
	ts := day.TimestampOf(at)
	if ts.String() != "2026-11-24T08:10:30.123Z" || !ts.Time().Equal(at.Truncate(time.Millisecond)) || ts.IsZero() {
		t.Errorf("%s, %v", ts, ts.Time())
	}
	if none := day.Timestamp(0); !none.IsZero() || none.String() != "" || !none.Time().IsZero() {
		t.Errorf("none is %q, %v", none, none.Time())
	}
	if b, err := ts.AppendText([]byte("at ")); err != nil || string(b) != "at 2026-11-24T08:10:30.123Z" {
		t.Errorf("%s, %v", b, err)
	}
}

// The day of a moment is that of its instant: before the start of the day the one before.
func TestDaysOfMoments(t *testing.T) {
	zone, err := time.LoadLocation("Europe/Lisbon")
	if err != nil {
		t.Fatal(err)
	}
	c := day.Clock{Now: time.Date(2026, 11, 24, 2, 30, 0, 0, zone), Zone: zone, DayStart: 4 * time.Hour}
	for moment, want := range map[string]string{"": "", "2026-11-24": "2026-11-24", "2026-11-24T04:00": "2026-11-24", "2026-11-24T03:59": "2026-11-23", "2026-11-24T00:00": "2026-11-23"} {
		var m day.Moment
		if err := m.UnmarshalText([]byte(moment)); err != nil {
			t.Fatal(err)
		}
		if got := c.DayOfMoment(m); got.String() != want {
			t.Errorf("%s is on %s; want %s", moment, got, want)
		}
	}
	if got := c.Wall().String(); got != "2026-11-24T02:30" {
		t.Errorf("the wall shows %s", got)
	}
	// 01:30 on the wall is passed over on 29 March 2026: it moves an hour on, past the start.
	c.DayStart = 2 * time.Hour
	if got := c.DayOfMoment(day.MustMoment("2026-03-29T01:30")); got != day.MustDate("2026-03-29") {
		t.Errorf("the hour that is not there is on %s", got)
	}
	for plan, want := range map[string]string{"2026-11-24T01:59/PT30M": "2026-11-23", "2026-11-24T02:00/PT30M": "2026-11-24", "2026-11-24": "2026-11-24", "2026-W48": "2026-11-23", "parked": ""} {
		if got := day.MustHorizon(plan).DayIn(c).First(); got.String() != want {
			t.Errorf("%s begins on %s; want %s", plan, got, want)
		}
	}
}

func TestHorizonsAsTheyAre(t *testing.T) {
	for plan, want := range map[string]day.Precision{"2026-11-24": day.Day, "2026-W48": day.Week, "2026-11": day.Month, "parked": day.Parked, "2026-11-24T09:00/PT30M": day.Day} {
		h := day.MustHorizon(plan)
		if h.Precision() != want || h.IsZero() {
			t.Errorf("%s is of precision %v", plan, h.Precision())
		}
	}
	if !(day.Horizon{}).IsZero() || !day.OnDay(day.Date{}).IsZero() || day.OnDay(day.MustDate("2026-11-24")).IsZero() {
		t.Error("none is none, and the day none is none")
	}
	if at, minutes := day.MustHorizon("2026-11-24T09:05/PT90M").Slot(); at.Minutes() != 545 || minutes != 90 {
		t.Errorf("the slot is %v for %d", at, minutes)
	}
	if at, minutes := day.MustHorizon("2026-11-24").Slot(); !at.IsZero() || minutes != 0 {
		t.Errorf("a day without a slot has %v for %d", at, minutes)
	}
}

// Moments in order by one number, that of their time or, without one, behind all of the day.
func TestOrdinals(t *testing.T) {
	order := []string{"2026-11-23T23:59", "2026-11-24T00:00", "2026-11-24T00:01", "2026-11-24T23:59", "2026-11-24", "2026-11-25T00:00", "9999-12-31", ""}
	for i, a := range order {
		for j, b := range order {
			var x, y day.Moment
			if x.UnmarshalText([]byte(a)) != nil || y.UnmarshalText([]byte(b)) != nil {
				t.Fatal(a, b)
			}
			if got := x.Ordinal() < y.Ordinal(); got != (i < j) {
				t.Errorf("%q before %q: %t", a, b, got)
			}
		}
	}
}

func TestWordsOfReminders(t *testing.T) {
	for text, want := range map[string]string{"": "", "-PT0M": "at the time", "-PT1M": "1 min before", "-PT60M": "1 hour before", "-PT90M": "90 min before", "-P1D": "1 day before",
		"-P2W": "2 weeks before", "-P8D": "8 days before", "2026-11-27T15:00": "Fri 27 Nov 2026, 15:00"} {
		var r day.Reminder
		if err := r.UnmarshalText([]byte(text)); err != nil || r.Words() != want {
			t.Errorf("%q says %q, %v; want %q", text, r.Words(), err, want)
		}
	}
}
