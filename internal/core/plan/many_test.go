package plan_test

import (
	"math/rand/v2"
	"testing"

	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/seed"
)

// Many jobs, of which some cannot be begun at once, worked on minute by minute, the earliest
// due first: what is missed then is what Feasible says.
func TestFeasibleOfMany(t *testing.T) {
	r := rand.New(rand.NewPCG(seed.New(t), 77))
	feasible, missed := 0, 0
	for round := range max(*cases/10, 20) {
		w := bigWeek(t, r, 6+r.IntN(40), 8)
		k := plan.NewCapacity(w.clock, w.calendar, nil, w.days)
		type job struct{ release, due, left int }
		var jobs []job
		for _, j := range w.jobs {
			if j.Due.IsZero() {
				continue // nothing that is due later delays what is due earlier
			}
			one := job{due: k.Until(k.Deadline(j.Due)), left: j.Minutes}
			if j.Release.Date != (day.Date{}) {
				one.release = k.Until(plan.MinuteOf(w.clock.StartOf(j.Release.Date)))
			}
			jobs = append(jobs, one)
		}
		first := -1
		for now, open := 0, len(jobs); open > 0; now++ {
			at := -1
			for i, j := range jobs {
				if j.left > 0 && j.release <= now && (at < 0 || j.due < jobs[at].due) {
					at = i
				}
			}
			if at < 0 {
				continue
			}
			if jobs[at].left--; jobs[at].left > 0 {
				continue
			}
			if open--; now+1 > jobs[at].due && (first < 0 || jobs[at].due < first) {
				first = jobs[at].due
			}
		}
		v := w.problem(t).Feasible()
		if v.Feasible != (first < 0) || !v.Feasible && k.Until(v.FirstMissed) != first {
			t.Fatalf("round %d, %d jobs: feasible %t, first missed after %d minutes; minute by minute after %d", round, len(jobs), v.Feasible, k.Until(v.FirstMissed), first)
		}
		if v.Feasible {
			feasible++
		} else {
			missed++
		}
	}
	if feasible < 3 || missed < 3 {
		t.Errorf("%d could be done, %d not", feasible, missed)
	}
}
