package plan_test

import (
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/plan"
)

// hold reads the rules of whether a plan holds word by word: what lies on each day, by how much
// each holds more than it can, and which jobs lie where their due cannot be kept.
func (s *slow) hold() (load, over map[day.Date]int, late []string) {
	load, over = map[day.Date]int{}, map[day.Date]int{}
	within := map[day.Date]int{}
	for i, d := range s.days {
		load[d] = 0
		for _, of := range s.of {
			if of == i {
				within[d]++
			}
		}
	}
	timed := map[day.Date][]int{}
	for i, j := range s.jobs {
		on := j.Day
		if on.IsZero() && !j.Due.IsZero() {
			on = s.clock.DayOfMoment(j.Due)
		}
		if on.IsZero() {
			continue
		}
		if on.Before(s.clock.Today()) {
			on = s.clock.Today()
		}
		if _, there := load[on]; there {
			load[on] += j.Minutes
		}
		switch {
		case j.Day.IsZero() || j.Due.IsZero() || s.overdue[i]:
		case on.After(s.clock.DayOfMoment(j.Due)):
			late = append(late, j.ID)
		case j.Due.HasTime():
			timed[on] = append(timed[on], i)
		}
	}
	for i, d := range s.days {
		if load[d] > within[d] {
			over[d] = load[d] - within[d]
		}
		late = append(late, s.lateOn(i, timed[d])...)
	}
	slices.Sort(late)
	return load, over, late
}

// lateOn works through the jobs of a day with a time by which each has to be done, in each minute
// at the one that is due first. Of those that are due at the first due that is missed, the last by
// its id is late, and the others are looked at again.
func (s *slow) lateOn(d int, jobs []int) (late []string) {
	before, within := 0, 0
	for _, of := range s.of {
		if of < d {
			before++
		} else if of == d {
			within++
		}
	}
	jobs = slices.DeleteFunc(slices.Clone(jobs), func(i int) bool { return s.to[i] < 0 || s.to[i] >= before+within })
	for len(jobs) > 0 {
		left, done := map[int]int{}, map[int]int{}
		for _, i := range jobs {
			left[i] = s.jobs[i].Minutes
		}
		for minute := 0; len(done) < len(jobs); minute++ {
			first := -1
			for _, i := range jobs {
				if _, is := done[i]; !is && min(max(s.from[i]-before, 0), within) <= minute && (first < 0 || s.to[i] < s.to[first]) {
					first = i
				}
			}
			if first < 0 {
				continue
			}
			if left[first]--; left[first] == 0 {
				done[first] = minute + 1
			}
		}
		missed, out := -1, -1
		for _, i := range jobs {
			if due := max(s.to[i]-before, 0); done[i] > due && (missed < 0 || due < missed) {
				missed = due
			}
		}
		if missed < 0 {
			return late
		}
		for _, i := range jobs {
			if max(s.to[i]-before, 0) == missed && (out < 0 || s.jobs[i].ID > s.jobs[out].ID) {
				out = i
			}
		}
		late = append(late, s.jobs[out].ID)
		jobs = slices.DeleteFunc(jobs, func(i int) bool { return i == out })
	}
	return late
}

// Whether a plan holds is what the rules say read word by word, for jobs that are planned for days
// before, on and after their dues, also for days that are past or beyond those looked at.
func TestHoldAgainstTheRules(t *testing.T) {
	holding, overfull, tooLate := 0, 0, 0
	against(t, 11, 20**cases, func(r *rand.Rand) world {
		w := randomWorld(t, r, 7, false, true)
		for i := range w.jobs {
			if r.IntN(4) > 0 {
				w.jobs[i].Day = w.clock.Today().AddDays(r.IntN(w.days+2) - 1)
			}
		}
		return w
	}, func(w world) string {
		h := w.problem(t).Hold()
		load, over, late := w.slow().hold()
		got := w.problem(t).IDs(h.PastDue)
		switch {
		case !maps.Equal(h.Load, load):
			return fmt.Sprintf("the load is %v; by the rules %v", h.Load, load)
		case !maps.Equal(h.Over, over):
			return fmt.Sprintf("over are %v; by the rules %v", h.Over, over)
		case !slices.Equal(got, late):
			return fmt.Sprintf("too late are %v; by the rules %v", got, late)
		case h.Holds != (len(over) == 0 && len(late) == 0):
			return fmt.Sprintf("it holds: %t, with %v over and %v too late", h.Holds, over, late)
		}
		holding += b2i(h.Holds)
		overfull += b2i(len(over) > 0)
		tooLate += b2i(len(late) > 0)
		return ""
	})
	t.Logf("%d held, %d had days that are too full, %d jobs too late", holding, overfull, tooLate)
	if least := *cases; holding < least || overfull < least || tooLate < least {
		t.Errorf("%d held, %d had days that are too full, %d jobs too late", holding, overfull, tooLate)
	}
}

// A day that is not among those looked at is none of the plan's.
func TestDayOfAJob(t *testing.T) {
	today := day.MustDate("2026-11-24")
	for name, c := range map[string]struct {
		job  plan.Job
		want string
	}{
		"nothing":      {plan.Job{}, ""},
		"its plan":     {plan.Job{Day: today.AddDays(1), Due: day.Moment{Date: today}}, "2026-11-25"},
		"its due":      {plan.Job{Due: day.Moment{Date: today.AddDays(2)}}, "2026-11-26"},
		"a past plan":  {plan.Job{Day: today.AddDays(-3)}, "2026-11-24"},
		"a past due":   {plan.Job{Due: day.Moment{Date: today.AddDays(-3)}}, "2026-11-24"},
		"beyond":       {plan.Job{Day: today.AddDays(30)}, "2026-12-24"},
		"today itself": {plan.Job{Day: today}, "2026-11-24"},
	} {
		c.job.ID, c.job.Minutes = "a", 5
		w := world{clock: day.Clock{Now: time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC), Zone: time.UTC}, days: 7, jobs: []plan.Job{c.job}}
		if got := w.problem(t).DayOf(0); got.String() != c.want {
			t.Errorf("%s: %s; want %s", name, got, c.want)
		}
	}
}
