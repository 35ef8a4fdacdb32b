package day_test

import (
	"strings"
	"testing"
	"time"

	"tincup/internal/core/day"
)

func TestReminders(t *testing.T) {
	morning, _ := day.NewTimeOfDay(9, 0)
	utc := day.Clock{Zone: time.UTC}
	for _, c := range []struct{ text, want, words, of, at string }{
		{"2026-11-27T15:00", "", "Fri 27 Nov 2026, 15:00", "2026-11-30", "2026-11-27T15:00"},
		// The durations of RFC 5545 section 3.3.6, before: section 3.8.6.3.
		{"-PT30M", "", "30 min before", "2026-11-27T16:00", "2026-11-27T15:30"},
		{"-PT2H", "", "2 hours before", "2026-11-27T01:00", "2026-11-26T23:00"},
		{"-PT1H30M", "-PT90M", "90 min before", "2026-11-27T16:00", "2026-11-27T14:30"},
		{"-P1D", "", "1 day before", "2026-11-27", "2026-11-26T09:00"},
		{"-P1W", "-P7D", "1 week before", "2026-11-27", "2026-11-20T09:00"},
		{"-PT60M", "-PT1H", "1 hour before", "2026-11-27", "2026-11-27T08:00"},
		{"-PT0M", "", "at the time", "2026-11-27T16:00", "2026-11-27T16:00"},
		{"-PT5M", "", "5 min before", "", ""},
		{"PT30M", "", "30 min after", "2026-11-27", "2026-11-27T09:30"},
		{"PT9H;drip", "", "9 hours after", "2026-11-27", "2026-11-27T18:00"},
		{"PT24H", "P1D", "1 day after", "2026-11-27", "2026-11-28T09:00"},
		{"-PT30M;two-taps", "", "30 min before", "2026-11-27T16:00", "2026-11-27T15:30"},
		{"2026-11-27T15:00;drip", "", "Fri 27 Nov 2026, 15:00", "", "2026-11-27T15:00"},
		// The words of RFC 9074 PROXIMITY, section 8.1; no clock knows when these come.
		{"ARRIVE:The museum", "", "on arriving at The museum", "2026-11-27", ""},
		{"DEPART;drip:Shed; the: second", "", "on leaving Shed; the: second", "2026-11-27", ""},
		{"connect:the car", "CONNECT:the car", "on connecting to the car", "", ""},
		{"DISCONNECT:the car", "", "on disconnecting from the car", "", ""},
	} {
		r, err := day.ParseReminder(c.text)
		if err != nil {
			t.Errorf("%s: %v", c.text, err)
			continue
		}
		want := c.want
		if want == "" {
			want = c.text
		}
		of := day.Moment{}
		if c.of != "" {
			of = day.MustMoment(c.of)
		}
		at := ""
		if rings := utc.Rings(r, of, morning); !rings.IsZero() {
			at = utc.WallOf(rings).String()
		}
		if r.String() != want || r.Words() != c.words || at != c.at {
			t.Errorf("%s: %s, %q, of %s at %s; want %+v", c.text, r, r.Words(), c.of, at, c)
		}
		if again, err := day.ParseReminder(r.String()); err != nil || again != r {
			t.Errorf("%s does not read back: %v", r, err)
		}
	}
	for _, text := range []string{"", "soon", "2026-11-27", "-P", "-PT", "-P1Y", "PT1441M", "P2D", "PT0M", "+PT5M", "-P367D", "-PT1S", "2026-02-31T09:00", "-P99999D", "-PT5M;", ";drip", "-PT5M;Drip", "-PT5M;drip;drip", "-PT5M;a b", "-PT5M;aaaaaaaaaaaaaaaaaaaaaaaaa",
		"ARRIVE", "ARRIVE:", "ARRIVE: museum", "ARRIVE;:museum", "ARRIVE;Drip:museum", "COME:museum", "ARRIVE:" + strings.Repeat("x", 801)} {
		if r, err := day.ParseReminder(text); err == nil {
			t.Errorf("%q reads as %s", text, r)
		}
	}
	var none day.Reminder
	if err := none.UnmarshalText(nil); err != nil || !none.IsZero() || none.String() != "" || none.Words() != "" {
		t.Errorf("none is %+v", none)
	}
	if r := day.ReminderOn(day.Leaving, "Shed"); r.Called("Shed", "Barn") != day.ReminderOn(day.Leaving, "Barn") || r.Called("Barn", "x") != r || r.Shift(7) != r || !day.OnEdges([]day.Reminder{{}, r}) || day.OnEdges([]day.Reminder{day.ReminderBefore(5)}) {
		t.Errorf("%s goes by another name", r)
	}
	moved := day.ReminderAt(day.MustMoment("2026-11-27T15:00")).Shift(7)
	if moved.String() != "2026-12-04T15:00" || day.ReminderBefore(5).Shift(7) != day.ReminderBefore(5) {
		t.Errorf("moved to %s", moved)
	}
}

func FuzzParseReminder(f *testing.F) {
	f.Add("-PT90M")
	f.Add("2026-11-27T15:00")
	f.Add("DEPART;drip:Shed")
	f.Fuzz(func(t *testing.T, text string) {
		r, err := day.ParseReminder(text)
		if err != nil {
			return
		}
		if again, err := day.ParseReminder(r.String()); err != nil || again != r {
			t.Fatalf("%q reads as %s, which reads as %s (%v)", text, r, again, err)
		}
	})
}
