package day_test

import (
	"errors"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/day"
)

// Every text at the edge of what is read: the last that is, and the first that is not.
func TestLimitsOfTexts(t *testing.T) {
	horizon := func(s string) error { _, err := day.ParseHorizon(s); return err }
	reminder := func(s string) error { _, err := day.ParseReminder(s); return err }
	hours := func(s string) error { _, err := day.ParseHours(s); return err }
	spans := func(n int) string {
		var all []string
		for i := range n {
			at := day.Span{From: 30 * i, To: 30*i + 15}
			all = append(all, at.String())
		}
		return strings.Join(all, ", ")
	}
	place := func(n int) string { return "ARRIVE:" + strings.Repeat("x", n) }
	for name, c := range map[string]struct {
		read      func(string) error
		good, bad string
	}{
		"the shortest slot":       {horizon, "2026-11-27T14:00/PT1M", "2026-11-27T14:00/PT0M"},
		"the longest slot":        {horizon, "2026-11-27T14:00/PT1440M", "2026-11-27T14:00/PT1441M"},
		"digits of hours":         {horizon, "2026-11-27T14:00/PT0024H", "2026-11-27T14:00/PT00024H"},
		"digits of minutes":       {horizon, "2026-11-27T14:00/PT00090M", "2026-11-27T14:00/PT000090M"},
		"a slot with its time":    {horizon, "2026-11-27T14:00/PT1H30M", "2026-11-27/PT1H30M"},
		"the longest ahead":       {reminder, "-P366D", "-P367D"},
		"digits of minutes ahead": {reminder, "-PT99999M", "-PT100000M"},
		"digits of days":          {reminder, "-P0069D", "-P00069D"},
		"a place's name":          {reminder, place(800), place(801)},
		"a sound's name":          {reminder, "ARRIVE;" + strings.Repeat("a", 20) + ":Shed", "ARRIVE;" + strings.Repeat("a", 21) + ":Shed"},
		"stretches of hours":      {hours, spans(day.MaxSpans), spans(day.MaxSpans + 1)},
		"the first minute":        {hours, "00:00-00:01", "00:00-00:00"},
		"the last minute":         {hours, "23:59-24:00", "24:00-24:01"},
		"the first week":          {horizon, "0001-W01", "0001-W00"},
		"the last week":           {horizon, "9999-W52", "9999-W53"},
	} {
		if err := c.read(c.good); err != nil {
			t.Errorf("%s: %q is refused: %v", name, c.good, err)
		}
		if err := c.read(c.bad); err == nil {
			t.Errorf("%s: %q is read", name, c.bad)
		}
	}
	if _, err := day.NewHours(day.Span{From: -1, To: 60}); err == nil {
		t.Error("hours begin before midnight")
	}
}

// Dates stay within the first and the last one.
func TestLimitsOfDates(t *testing.T) {
	for _, c := range []struct {
		from   day.Date
		months int
		want   string
	}{
		{day.MustDate("0001-02-15"), -1, "0001-01-15"}, {day.MustDate("0001-01-15"), -1, "0001-01-01"}, {day.MustDate("0001-12-31"), -12, "0001-01-01"},
		{day.MustDate("9999-11-30"), 1, "9999-12-30"}, {day.MustDate("9999-12-15"), 1, "9999-12-31"}, {day.MaxDate, 0, "9999-12-31"}, {day.MinDate, 0, "0001-01-01"},
	} {
		if got := c.from.AddMonths(c.months); got.String() != c.want {
			t.Errorf("%s and %d months is %s, want %s", c.from, c.months, got, c.want)
		}
	}
	var wrong *day.ParseError
	if _, err := day.WeekStart(0, 1); !errors.As(err, &wrong) {
		t.Errorf("the first week of no year: %v", err)
	}
	if _, err := day.WeekStart(10_000, 1); !errors.As(err, &wrong) {
		t.Errorf("the first week of the year 10000: %v", err)
	}
}

// A time that is just that of the day's start is of its own date.
func TestTimesAtTheStartOfTheDay(t *testing.T) {
	c := day.Clock{Now: time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC), Zone: time.UTC, DayStart: 4 * time.Hour}
	for at, want := range map[string]string{"2026-11-25T03:59": "2026-11-24", "2026-11-25T04:00": "2026-11-25", "2026-11-25T04:01": "2026-11-25"} {
		if got := c.DayOfMoment(day.MustMoment(at)); got.String() != want {
			t.Errorf("%s is of %s, want %s", at, got, want)
		}
		if got := day.MustHorizon(at + "/PT30M").DayIn(c); got.First().String() != want {
			t.Errorf("a slot at %s is of %s, want %s", at, got.First(), want)
		}
	}
}

// What a reminder comes before: the due, else the slot of the plan, else the start.
func TestRemindedOf(t *testing.T) {
	due, slot, planned, start := day.MustMoment("2026-11-27"), day.MustHorizon("2026-11-26T14:00/PT1M"), day.MustHorizon("2026-11-26"), day.MustDate("2026-11-25")
	for _, c := range []struct {
		due  day.Moment
		plan day.Horizon
		want string
	}{
		{due, slot, "2026-11-27"}, {day.Moment{}, slot, "2026-11-26T14:00"}, {day.Moment{}, planned, "2026-11-25"}, {day.Moment{}, day.Horizon{}, "2026-11-25"},
	} {
		if got := day.RemindedOf(c.due, c.plan, start); got.String() != c.want {
			t.Errorf("due %s, planned %s: %s, want %s", c.due, c.plan, got, c.want)
		}
	}
	if got := day.RemindedOf(day.Moment{}, planned, day.Date{}); !got.IsZero() {
		t.Errorf("of a day without a time: %s", got)
	}
}

// Each edge of a place is read by its word; two of them are of things one connects to.
func TestEdges(t *testing.T) {
	for word, ofThing := range map[string]bool{"ARRIVE": false, "DEPART": false, "CONNECT": true, "DISCONNECT": true} {
		for _, s := range []string{word, strings.ToLower(word)} {
			if e, ok := day.ParseEdge(s); !ok || e.String() != word || e.OfThing() != ofThing {
				t.Errorf("%s is %q, %t, of a thing: %t", s, e, ok, e.OfThing())
			}
		}
	}
	if e, ok := day.ParseEdge("PASS"); ok || e != day.NoEdge || day.NoEdge.OfThing() {
		t.Errorf("PASS is %v", e)
	}
}

// Lengths are said in their largest whole unit, and hostile input is cut short in errors.
func TestWordsOfLengths(t *testing.T) {
	for minutes, want := range map[int]string{0: "0 min", 1: "1 min", 59: "59 min", 60: "1 hour", 90: "90 min", 120: "2 hours", 24 * 60: "1 day", 36 * 60: "36 hours", 7 * 24 * 60: "1 week", 14 * 24 * 60: "2 weeks"} {
		if got := day.LengthWords(minutes); got != want {
			t.Errorf("%d minutes: %s, want %s", minutes, got, want)
		}
	}
	for n, want := range map[int]string{41: strings.Repeat("x", 41), 42: strings.Repeat("x", 41) + "…"} {
		if _, err := day.ParseDate(strings.Repeat("x", n)); err == nil || !strings.Contains(err.Error(), `"`+want+`"`) && !strings.Contains(err.Error(), "“"+want+"”") {
			t.Errorf("%d letters: %v", n, err)
		}
	}
}
