package plan_test

import (
	"fmt"
	"math/rand/v2"
	"strconv"
	"testing"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/seed"
)

// lies tells whether an event that is not over lies on a day, as the day alone says.
func lies(e *plan.Event, c day.Clock, on day.Date) bool {
	s, from, to := e.Stretch(c), plan.MinuteOf(c.StartOf(on)), plan.MinuteOf(c.StartOf(on.AddDays(1)))
	now := plan.MinuteOf(c.Now.Add(time.Minute - time.Nanosecond))
	switch {
	case s.To < now || s.To == now && s.From < s.To:
		return false
	case s.From == s.To:
		return from <= s.From && s.From < to
	}
	return s.From < to && from < s.To
}

// Each day lists the first of its busy events, then the first others, twenty at most and in the
// order of the events, and counts those that it does not list.
func TestAgendaAgainstEachDay(t *testing.T) {
	random := seed.New(t)
	for n := range 200 {
		r := rand.New(rand.NewPCG(random, uint64(n)))
		c := lisbonClock(t, []string{"2026-03-28T08:17", "2026-10-24T13:00", "2026-11-24T09:30"}[r.IntN(3)], time.Duration(r.IntN(7))*time.Hour)
		events := make([]plan.Event, r.IntN(120))
		for i := range events {
			from := c.Now.Add(time.Duration(r.IntN(12*24*60)-4*24*60) * time.Minute)
			e := plan.Event{UID: fmt.Sprint(i), Title: fmt.Sprint(i), Busy: r.IntN(3) == 0, From: from}
			e.To = from.Add(time.Duration(r.IntN(3)*r.IntN(4*24*60)) * time.Minute)
			if e.AllDay = r.IntN(2) == 0; e.AllDay {
				e.From = time.Date(from.Year(), from.Month(), from.Day(), 0, 0, 0, 0, time.UTC)
				e.To = e.From.AddDate(0, 0, 1+r.IntN(6))
			}
			events[i] = e
		}
		k, a := plan.NewCapacity(c, plan.DefaultCalendar(), nil, 9), plan.NewAgenda(events, c, 9)
		for _, d := range k.Days {
			chosen, total := map[string]bool{}, 0
			for _, busy := range []bool{true, false} {
				for i := range events {
					if e := &events[i]; e.Busy == busy && lies(e, c, d.Date) {
						if total++; total <= plan.MostListed {
							chosen[e.UID] = true
						}
					}
				}
			}
			listed, more := k.Happenings(a, d.Date)
			if len(listed) != len(chosen) || more != total-len(chosen) {
				t.Fatalf("seed %d, agenda %d, %v: %d listed and %d more, want %d and %d", random, n, d.Date, len(listed), more, len(chosen), total-len(chosen))
			}
			before := -1
			for _, h := range listed {
				i, err := strconv.Atoi(h.UID)
				if err != nil || !chosen[h.UID] || i <= before {
					t.Fatalf("seed %d, agenda %d, %v: lists %s behind %d", random, n, d.Date, h.UID, before)
				}
				before = i
			}
		}
	}
}

// Events that all last for years are counted on each day and listed no more than others; which of
// them takes a time of day is known all the same.
func TestAgendaOfManyLongEvents(t *testing.T) {
	c := lisbonClock(t, "2026-11-24T09:30", 0)
	const many = 20_000
	events := make([]plan.Event, many)
	for i := range events {
		events[i] = plan.Event{UID: fmt.Sprint(i), Title: "Loan of lamp", AllDay: true, From: time.Date(2020, 1, 1, 0, 0, 0, 0, time.UTC), To: time.Date(2040, 1, 1, 0, 0, 0, 0, time.UTC)}
	}
	events[many-1].Busy = true
	k, a := plan.NewCapacity(c, plan.DefaultCalendar(), nil, plan.MaxDays), plan.NewAgenda(events, c, plan.MaxDays)
	for _, d := range k.Days {
		listed, more := k.Happenings(a, d.Date)
		if len(listed) != plan.MostListed || more != many-plan.MostListed || listed[len(listed)-1].UID != fmt.Sprint(many-1) {
			t.Fatalf("%v lists %d and %d more, the last of them %s", d.Date, len(listed), more, listed[len(listed)-1].UID)
		}
	}
	if listed, more := k.Happenings(a, c.Today().AddDays(-1)); len(listed)+more > 0 {
		t.Errorf("yesterday has %d and %d more", len(listed), more)
	}
	if e := a.Find(c.Today().AddDays(7), func(e *plan.Event) bool { return e.UID == "12345" }); e == nil || e.UID != "12345" {
		t.Errorf("an event that is not listed is not found: %v", e)
	}
	if e := a.Find(c.Today().AddDays(-1), func(*plan.Event) bool { return true }); e != nil {
		t.Errorf("yesterday has %v", e)
	}
}
