package plan_test

import (
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/plan"
)

// randomHours is a few days with some hours each, among them peak hours and what is busy, and jobs
// that lie on these days, some deep and some waiting for others.
func randomHours(t testing.TB, r *rand.Rand) world {
	w := randomWorld(t, r, 8, true, true)
	for i := range w.days {
		w.calendar.Dates[w.clock.Today().AddDays(i)] = day.Hours{{From: 540, To: 560 + 5*r.IntN(12)}, {From: 640, To: 650 + r.IntN(60)}}
	}
	from := 540 + 5*r.IntN(12)*r.IntN(2)
	w.calendar.Peak = day.Hours{{From: from, To: from + 15 + 5*r.IntN(12)}}
	w.clock.Now = w.clock.Now.Add(time.Duration(r.IntN(40)) * time.Minute)
	w.busy = nil
	for range r.IntN(3) {
		busy := plan.MinuteOf(w.clock.StartOf(w.clock.Today())) + 540 + plan.Minute(r.IntN(150))
		w.busy = append(w.busy, plan.Stretch{From: busy, To: busy + plan.Minute(1+r.IntN(30))})
	}
	for i := range w.jobs {
		j := &w.jobs[i]
		j.Minutes, j.Deep = 1+r.IntN(45), r.IntN(3) == 0
		if j.Due.HasTime() {
			j.Due.Time, _ = day.NewTimeOfDay(9+r.IntN(2), 5*r.IntN(12))
		}
		if r.IntN(5) > 0 {
			j.Day = w.clock.Today().AddDays(r.IntN(w.days + 1))
		}
	}
	if len(w.jobs) > 1 && r.IntN(3) == 0 { // what is due soon may be in the way of deep work
		on := w.clock.Today().AddDays(r.IntN(w.days))
		soon, _ := day.NewTimeOfDay(9, 35+5*r.IntN(5))
		w.jobs[0].Deep, w.jobs[0].Day, w.jobs[0].Due = true, on, day.Moment{}
		w.jobs[1].Deep, w.jobs[1].Day, w.jobs[1].Due, w.jobs[1].Release = false, on, day.Moment{Date: on, Time: soon}, day.Moment{}
	}
	return w
}

// slots reads the rules word by word, in minutes of the wall: which minutes each job takes.
func (s *slow) slots(peak day.Hours, deepFirst bool) (laid map[int]plan.Stretch, missed int) {
	laid = map[int]plan.Stretch{}
	free := map[plan.Minute]bool{}
	for _, m := range s.minutes {
		free[plan.MinuteOf(m)] = true
	}
	deadline := func(i int) plan.Minute {
		due := s.jobs[i].Due
		at := s.clock.Instant(due)
		switch n := slices.Index(s.days, due.Date); {
		case due.IsZero():
			at = s.clock.Now.AddDate(1, 0, 0)
		case s.overdue[i] && len(s.of) > 0:
			at = s.hoursTo[s.of[0]]
		case s.overdue[i]:
			at = s.hoursTo[len(s.days)-1]
		case n >= 0 && !due.HasTime():
			at = s.hoursTo[n]
		}
		return plan.MinuteOf(at)
	}
	// put finds the first minute from which all of a job's minutes are free.
	put := func(i int, only day.Hours) bool {
		j := s.jobs[i]
		for _, from := range s.minutes {
			at := plan.MinuteOf(from)
			can := at%5 == 0 && day.DateOf(from.In(s.clock.Zone)) == j.Day && (j.Release.IsZero() || !from.Before(s.clock.Instant(j.Release)) ||
				!j.Release.HasTime() && !from.Before(s.clock.StartOf(j.Release.Date)))
			for m := at; m < at+plan.Minute(j.Minutes); m++ {
				wall := m.Time().In(s.clock.Zone)
				now := wall.Hour()*60 + wall.Minute()
				can = can && free[m] && (only == nil || slices.ContainsFunc(only, func(h day.Span) bool { return now >= h.From && now < h.To }))
			}
			for _, before := range j.After {
				if s.jobs[before].Day == j.Day {
					can = can && laid[before].To > 0 && laid[before].To <= at
				}
			}
			if can {
				laid[i] = plan.Stretch{From: at, To: at + plan.Minute(j.Minutes)}
				for m := at; m < laid[i].To; m++ {
					free[m] = false
				}
				return true
			}
		}
		return false
	}
	order := []int{}
	for i, j := range s.jobs {
		if slices.Contains(s.days, j.Day) {
			order = append(order, i)
		}
	}
	slices.SortFunc(order, func(a, b int) int {
		switch x, y := s.jobs[a], s.jobs[b]; {
		case deadline(a) != deadline(b):
			return int(deadline(a) - deadline(b))
		case x.Weight != y.Weight:
			return y.Weight - x.Weight
		default:
			return strings.Compare(x.ID, y.ID)
		}
	})
	if deepFirst {
		for _, i := range order {
			if s.jobs[i].Deep {
				put(i, peak)
			}
		}
	}
	for again := true; again; {
		again = false
		for _, i := range order {
			if _, has := laid[i]; !has && put(i, nil) {
				again = true
				break
			}
		}
	}
	for _, i := range order {
		if s, has := laid[i]; !has || s.To > deadline(i) {
			missed++
		}
	}
	return laid, missed
}

// The times of day of jobs are what the rules say read word by word, day by day.
func TestSlotsAgainstTheRules(t *testing.T) {
	inPeak, plainly := 0, 0
	against(t, 13, 2**cases, func(r *rand.Rand) world { return randomHours(t, r) }, func(w world) string {
		got := w.problem(t).Slots(func(job int) day.Date { return w.jobs[job].Day })
		want := map[int]plan.Stretch{}
		all := w.slow()
		for _, d := range all.days {
			one := w
			one.jobs = slices.Clone(w.jobs)
			for i := range one.jobs {
				if one.jobs[i].Day != d {
					one.jobs[i].Day = day.Date{}
				}
			}
			s := one.slow()
			laid, missed := s.slots(w.calendar.Peak, true)
			if plain, fewer := s.slots(w.calendar.Peak, false); fewer < missed {
				laid = plain
				plainly++
			} else if missed == 0 {
				inPeak++
			}
			maps.Copy(want, laid)
		}
		if !maps.Equal(got, want) {
			return fmt.Sprintf("%v; by the rules %v", wallTimes(w, got), wallTimes(w, want))
		}
		return ""
	})
	if inPeak < *cases/10 || plainly < *cases/50 {
		t.Errorf("%d days with deep work first, %d without", inPeak, plainly)
	}
}

func wallTimes(w world, slots map[int]plan.Stretch) map[string]string {
	out := map[string]string{}
	for job, s := range slots {
		out[w.jobs[job].ID] = s.From.Time().In(w.clock.Zone).Format("2 Jan 15:04") + s.To.Time().In(w.clock.Zone).Format("–15:04")
	}
	return out
}

// Hours on both sides of midnight are one stretch where the day begins after them.
func TestSlotsOverMidnight(t *testing.T) {
	night := day.Hours{{From: 0, To: 2 * 60}, {From: 22 * 60, To: 24 * 60}}
	clock := day.Clock{Now: time.Date(2026, 11, 24, 12, 0, 0, 0, time.UTC), Zone: time.UTC, DayStart: 4 * time.Hour}
	calendar := plan.Calendar{}
	for i := range calendar.Week {
		calendar.Week[i] = night
	}
	p, err := plan.NewProblem(plan.NewCapacity(clock, calendar, nil, 1), []plan.Job{{ID: "watch", Minutes: 180, Day: clock.Today()}, {ID: "log", Minutes: 60, Day: clock.Today()}, {ID: "wipe", Minutes: 5, Day: clock.Today()}})
	if err != nil {
		t.Fatal(err)
	}
	got := wallTimes(world{clock: clock, jobs: p.Jobs}, p.Slots(p.DayOf))
	if want := map[string]string{"log": "24 Nov 22:00–23:00", "watch": "24 Nov 23:00–02:00"}; !maps.Equal(got, want) {
		t.Errorf("%v, want %v", got, want)
	}
}
