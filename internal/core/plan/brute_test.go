package plan_test

import (
	"flag"
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"tincup/internal/seed"
)

// cases is how many random cases each of the tests against brute force takes; 20,000 is
// the full run.
var cases = flag.Int("cases", 300, "random cases of each test against brute force")

// against runs random worlds until one is wrong, and shrinks that.
func against(t *testing.T, stream uint64, n int, make func(r *rand.Rand) world, wrong func(world) string) {
	t.Helper()
	seed := seed.New(t)
	r := rand.New(rand.NewPCG(seed, stream))
	for round := range n {
		w := make(r)
		if wrong(w) != "" {
			w = w.shrunk(wrong)
			t.Fatalf("seed %d, case %d, shrunk:\n%s\n%s", seed, round, w, wrong(w))
		}
	}
}

// Whether all can be done, the first due that is missed, and by how much, up to 7 jobs with
// releases, chains and broken work time.
func TestFeasibleAgainstBruteForce(t *testing.T) {
	infeasible := 0
	against(t, 1, 3**cases, func(r *rand.Rand) world {
		if r.IntN(3) > 0 {
			return chainedWorld(t, r, 6)
		}
		return randomWorld(t, r, 7, r.IntN(2) == 0, true)
	}, func(w world) string {
		p, s := w.problem(t), w.slow()
		v := p.Feasible()
		due, missed := s.firstMissed()
		if v.Feasible == missed {
			return fmt.Sprintf("feasible %t; by brute force the due after %d minutes is missed: %t", v.Feasible, due, missed)
		}
		if !missed {
			return ""
		}
		infeasible++
		if at := p.Until(v.FirstMissed); at != due {
			return fmt.Sprintf("first missed after %d minutes, by brute force after %d", at, due)
		}
		for i, j := range w.jobs {
			if at := p.Deadline(j.Due); s.to[i] == due && !s.overdue[i] && at < v.FirstMissed {
				return fmt.Sprintf("first missed is %s, and the deadline of %s is %s", v.FirstMissed.Time(), j.ID, at.Time())
			}
		}
		return blamed(t, w, v.Because)
	})
	if infeasible < *cases/10 {
		t.Errorf("only %d of %d could not be done", infeasible, *cases)
	}
}

// blamed says what is wrong with a set to blame: it must be too much by itself, and not
// without any one of its jobs.
func blamed(t *testing.T, w world, because []int) string {
	only := w
	for i := len(w.jobs) - 1; i >= 0; i-- {
		if !slices.Contains(because, i) {
			only = only.without(i)
		}
	}
	if len(only.jobs) == 0 {
		return "nothing is to blame"
	}
	if _, missed := only.slow().firstMissed(); !missed {
		return fmt.Sprintf("%v can all be done", w.problem(t).IDs(because))
	}
	for i := range only.jobs {
		if less := only.without(i); len(less.jobs) > 0 {
			if _, missed := less.slow().firstMissed(); missed {
				return fmt.Sprintf("of %v, %s is not needed", w.problem(t).IDs(because), only.jobs[i].ID)
			}
		}
	}
	return ""
}

// Minutes undone at the first missed due, without chains: the most that work from any
// moment on is more than the time until then.
func TestLateByAgainstCounting(t *testing.T) {
	against(t, 2, *cases, func(r *rand.Rand) world { return randomWorld(t, r, 7, false, true) }, func(w world) string {
		v, s := w.problem(t).Feasible(), w.slow()
		due, missed := s.firstMissed()
		most := 0
		for from := 0; missed && from <= due; from++ {
			work := 0
			for i, j := range w.jobs {
				if s.to[i] >= 0 && s.to[i] <= due && s.from[i] >= from {
					work += j.Minutes
				}
			}
			most = max(most, work-(due-from))
		}
		if v.LateBy != most {
			return fmt.Sprintf("late by %d; counted %d", v.LateBy, most)
		}
		return ""
	})
}

// More work never makes feasible what was not, nor do more hours the other way: without
// overdue work, which is due at the end of the first day that has hours, whichever that is.
func TestMoreWorkAndMoreHours(t *testing.T) {
	against(t, 4, *cases*10, func(r *rand.Rand) world { return randomWorld(t, r, 7, true, true) }, func(w world) string {
		if len(w.problem(t).Overdue()) > 0 {
			return ""
		}
		whole := w.problem(t).Feasible().Feasible
		if len(w.jobs) > 1 && whole && !w.without(0).problem(t).Feasible().Feasible {
			return "without its first job it is not feasible any more"
		}
		more := w
		more.busy = nil
		if whole && !more.problem(t).Feasible().Feasible {
			return "with more hours it is not feasible any more"
		}
		return ""
	})
}
