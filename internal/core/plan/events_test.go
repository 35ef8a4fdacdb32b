package plan_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/seed"
)

func lisbonClock(t *testing.T, now string, start time.Duration) day.Clock {
	t.Helper()
	zone, err := time.LoadLocation("Europe/Lisbon")
	if err != nil {
		t.Fatal(err)
	}
	at, err := time.ParseInLocation("2006-01-02T15:04", now, zone)
	if err != nil {
		t.Fatal(err)
	}
	return day.Clock{Now: at, Zone: zone, DayStart: start}
}

// at is an event from one wall time in Lisbon, or date, to another.
func at(t *testing.T, c day.Clock, title, from, to string) plan.Event {
	t.Helper()
	e := plan.Event{UID: title, Title: title, Busy: true, AllDay: len(from) == 10}
	layout, zone := "2006-01-02T15:04", c.Zone
	if e.AllDay {
		layout, zone = "2006-01-02", time.UTC
	}
	var err error
	for to, text := range map[*time.Time]string{&e.From: from, &e.To: to} {
		if *to, err = time.ParseInLocation(layout, text, zone); err != nil {
			t.Fatal(err)
		}
	}
	return e
}

// An event stands on each day that it touches, with the part of it that lies there and the
// hours that it takes from what is left.
func TestHappenings(t *testing.T) {
	for name, ex := range map[string]struct {
		start    time.Duration
		from, to string
		want     string
	}{
		"within a day":                   {0, "2026-11-26T11:00", "2026-11-26T14:00", "Thu 11:00-14:00 takes 120"}, // an hour of it is the break
		"over midnight":                  {0, "2026-11-26T23:00", "2026-11-27T10:00", "Thu 23:00-00:00 takes 0, Fri 00:00-10:00 takes 60"},
		"over midnight, a day from 4:00": {4 * time.Hour, "2026-11-26T23:00", "2026-11-27T02:00", "Thu 23:00-02:00 takes 0"},
		"it has begun":                   {0, "2026-11-24T08:00", "2026-11-24T10:00", "Tue 08:00-10:00 takes 30"},
		"it is over":                     {0, "2026-11-24T08:00", "2026-11-24T09:30", ""},
		"it ends now and was no time":    {0, "2026-11-24T09:30", "2026-11-24T09:30", "Tue 09:30-09:30 takes 0"},
		"a moment at midnight":           {0, "2026-11-26T00:00", "2026-11-26T00:00", "Thu 00:00-00:00 takes 0"},
		"a whole day":                    {0, "2026-11-26", "2026-11-27", "Thu 00:00-00:00 takes 450"},
		"two whole days from 4:00":       {4 * time.Hour, "2026-11-26", "2026-11-28", "Thu 04:00-04:00 takes 450, Fri 04:00-04:00 takes 450"},
		"began last week":                {0, "2026-11-20", "2026-11-25", "Tue 00:00-00:00 takes 420"},
		"beyond what is reckoned":        {0, "2026-12-20T10:00", "2026-12-20T11:00", ""},
	} {
		t.Run(name, func(t *testing.T) {
			c := lisbonClock(t, "2026-11-24T09:30", ex.start)
			k := plan.NewCapacity(c, plan.DefaultCalendar(), nil, 7)
			a := plan.NewAgenda([]plan.Event{at(t, c, "It", ex.from, ex.to)}, c, 7)
			var got []string
			for _, d := range k.Days {
				listed, _ := k.Happenings(a, d.Date)
				for _, h := range listed {
					wall := func(m plan.Minute) string { return m.Time().In(c.Zone).Format("15:04") }
					got = append(got, fmt.Sprintf("%s %s-%s takes %d", d.Date.Weekday().String()[:3], wall(h.On.From), wall(h.On.To), h.Takes))
				}
			}
			if s := strings.Join(got, ", "); s != ex.want {
				t.Errorf("%q, want %q", s, ex.want)
			}
		})
	}
}

// What an event takes is what the days have less for it, also where the clock changes.
func TestEventsTakeWhatIsLess(t *testing.T) {
	r := rand.New(rand.NewPCG(seed.New(t), 16))
	for range 2000 {
		c := lisbonClock(t, []string{"2026-03-28T08:17", "2026-10-24T13:00", "2026-11-24T09:30"}[r.IntN(3)], time.Duration(r.IntN(7))*time.Hour)
		from := c.Now.Add(time.Duration(r.IntN(5*24*60)-24*60) * time.Minute)
		e := plan.Event{UID: "e", Title: "e", Busy: true, From: from, To: from.Add(time.Duration(r.IntN(3*24*60)) * time.Minute)}
		if r.IntN(3) == 0 {
			e.AllDay = true
			e.From = time.Date(from.Year(), from.Month(), from.Day(), 0, 0, 0, 0, time.UTC)
			e.To = e.From.AddDate(0, 0, 1+r.IntN(3))
		}
		free := plan.NewCapacity(c, plan.DefaultCalendar(), nil, 9)
		a := plan.NewAgenda([]plan.Event{e}, c, 9)
		taken := plan.NewCapacity(c, plan.DefaultCalendar(), a.Busy(), 9)
		for i := range free.Days {
			takes := 0
			listed, _ := free.Happenings(a, free.Days[i].Date)
			for _, h := range listed {
				takes += h.Takes
			}
			if less := free.Days[i].Minutes - taken.Days[i].Minutes; less != takes {
				t.Fatalf("now %v, %+v: on %v it takes %d, and the day has %d less", c.Now, e, free.Days[i].Date, takes, less)
			}
		}
		e.Busy = false
		if len(plan.NewAgenda([]plan.Event{e}, c, 9).Busy()) > 0 {
			t.Fatal("one that takes no time is busy")
		}
	}
}

func TestEventWords(t *testing.T) {
	c := lisbonClock(t, "2026-11-24T09:30", 0)
	k := plan.NewCapacity(c, plan.DefaultCalendar(), nil, 7)
	staff, tea := at(t, c, "Staff", "2026-11-26T10:00", "2026-11-26T11:00"), at(t, c, "Tea", "2026-11-26T20:00", "2026-11-26T21:00")
	fair, long := at(t, c, "Fair", "2026-11-26", "2026-11-27"), at(t, c, "Talk", "2026-11-26T15:00", "2026-11-26T16:30")
	fair.Busy = false
	for want, events := range map[string][]plan.Event{
		"": {},
		"“Staff” takes 1 h, “Tea” at 20:00":                 {staff, tea},
		"“Staff” takes 1 h, “Talk” takes 1 h 30 and 2 more": {fair, staff, long, tea},
		"“Fair”": {fair},
	} {
		listed, more := k.Happenings(plan.NewAgenda(events, c, 7), day.MustDate("2026-11-26"))
		if got := plan.EventWords(listed, more, c.Zone); got != want {
			t.Errorf("%q, want %q", got, want)
		}
	}
	if got := staff.SourceWords("Museum", c.Zone); got != "“Staff” of the calendar “Museum”, Thu 26 Nov 2026, 10:00 to 11:00" {
		t.Errorf("%q", got)
	}
	if got := fair.SourceWords("Museum", c.Zone); got != "“Fair” of the calendar “Museum”, Thu 26 Nov 2026" {
		t.Errorf("%q", got)
	}
}
