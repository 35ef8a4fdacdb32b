package plan_test

import (
	"cmp"
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/seed"
)

// bigWeek is as many jobs as a person has, over so many days with the usual hours.
func bigWeek(t testing.TB, r *rand.Rand, jobs, days int) world {
	zone, err := time.LoadLocation("Europe/Lisbon")
	if err != nil {
		t.Fatal(err)
	}
	w := world{days: days, clock: day.Clock{Now: time.Date(2026, 11, 24, 9, 10, 0, 0, zone), Zone: zone}, calendar: plan.DefaultCalendar()}
	for i := range jobs {
		j := plan.Job{ID: fmt.Sprintf("job%03d", i), Minutes: 5 * (1 + r.IntN(24)), Weight: 1 << r.IntN(4), Deep: r.IntN(3) == 0}
		if r.IntN(3) > 0 {
			j.Due = day.Moment{Date: w.clock.Today().AddDays(r.IntN(days))}
			if r.IntN(3) == 0 {
				j.Due.Time, _ = day.NewTimeOfDay(10+r.IntN(7), 0)
			}
		}
		if r.IntN(5) == 0 {
			j.Release = day.Moment{Date: w.clock.Today().AddDays(r.IntN(days))}
		}
		w.jobs = append(w.jobs, j)
	}
	return w
}

// Beyond what is tried in all ways, how far levelling lies from the bound that nothing can
// beat is printed; taking all proposals makes no due late that was not.
func TestLevelOfBigWeeks(t *testing.T) {
	seed := seed.New(t)
	r := rand.New(rand.NewPCG(seed, 6))
	var far []float64
	for range max(*cases/20, 10) {
		w := bigWeek(t, r, 20+r.IntN(20), 7+r.IntN(8))
		p := w.problem(t)
		level := p.Level()
		if level.Fullest < level.Bound-1e-9 {
			t.Fatalf("seed %d: fullest %v, beneath the bound %v", seed, level.Fullest, level.Bound)
		}
		if level.Bound > 0 && level.Fullest <= 1 && len(level.Unplaced) == 0 {
			far = append(far, level.Fullest/level.Bound-1)
		}
		taken := w
		taken.jobs = slices.Clone(w.jobs)
		for i, d := range level.Day {
			taken.jobs[i].Day = d
		}
		if late := taken.problem(t).Hold().PastDue; level.Fullest <= 1 && len(late) > 0 {
			t.Fatalf("seed %d: taking all proposals makes %v late", seed, p.IDs(late))
		}
	}
	slices.Sort(far)
	if len(far) > 0 {
		t.Logf("%d weeks that can be held: from the bound median %.2f %%, worst %.1f %%", len(far), 100*far[len(far)/2], 100*far[len(far)-1])
		if far[len(far)/2] > 0.05 {
			t.Errorf("half of them lie more than 5 %% above the bound")
		}
	}
}

// takes works through one day, in each minute at the job that is due first, and tells whether all
// is done by its due and by the day's end.
func (l *leveling) takes(d int, jobs []int) bool {
	left, open := make([]int, len(jobs)), 0
	for n, i := range jobs {
		left[n] = l.jobs[i].Minutes
		open += left[n]
	}
	due := func(i int) int {
		if l.to[i] >= 0 && !l.overdue[i] {
			return min(l.to[i], l.before[d]+l.size[d])
		}
		return l.before[d] + l.size[d]
	}
	for m := l.before[d]; m < l.before[d]+l.size[d] && open > 0; m++ {
		first := -1
		for n, i := range jobs {
			if left[n] > 0 && l.from[i] <= m && (first < 0 || due(i) < due(jobs[first])) {
				first = n
			}
		}
		if first < 0 {
			continue
		}
		if left[first]--; m+1 > due(jobs[first]) {
			return false
		}
		open--
	}
	return open == 0
}

// Beyond what is tried in all ways no job can move to another day, and no two can change their
// days, so that it is better: that the fullest day is emptier, or else fewer jobs leave the day
// where they were, or else they lie on earlier days.
func TestLevelCannotBeMadeBetter(t *testing.T) {
	looked, held := 0, 0
	against(t, 16, max(*cases/3, 10), func(r *rand.Rand) world {
		w := bigWeek(t, r, 2*plan.ExactJobs+r.IntN(14), 5+r.IntN(5))
		for i := range w.jobs {
			j := &w.jobs[i]
			j.Minutes = 10 * (1 + r.IntN(6))
			switch r.IntN(6) {
			case 0:
				j.Day, j.Due, j.Release = w.clock.Today().AddDays(r.IntN(w.days)), day.Moment{}, day.Moment{}
			case 1, 2:
				j.Was = w.clock.Today().AddDays(r.IntN(w.days))
			}
		}
		return w
	}, func(w world) string {
		level := w.problem(t).Level()
		if len(level.Day) <= plan.ExactJobs || len(level.Unplaced) > 0 {
			return ""
		}
		l := newLeveling(w)
		at, can := make([]int, len(w.jobs)), make([][]int, len(w.jobs))
		on := make([][]int, w.days)
		for i := range at {
			at[i] = l.dayOf(i)
			if d, proposed := level.Day[i]; proposed {
				at[i], can[i] = d.Sub(l.days[0]), l.window(i)
				l.free = append(l.free, i)
			}
			if at[i] >= 0 && at[i] < w.days {
				on[at[i]] = append(on[at[i]], i)
			}
		}
		for d, jobs := range on {
			if l.size[d] > 0 && !l.takes(d, jobs) {
				return "" // some days are too full, whatever is done
			}
		}
		held++
		ratios, moves, early := l.judged(at)
		// better puts jobs on other days, tells whether that is better, and puts them back.
		better := func(to map[int]int) bool {
			was, days := slices.Clone(at), map[int]bool{}
			for i, d := range to {
				days[at[i]], days[d] = true, true
				at[i] = d
			}
			looked++
			r, m, e := l.judged(at)
			is := cmp.Or(slices.Compare(r, ratios), cmp.Compare(m, moves), cmp.Compare(e, early)) < 0
			for d := range days {
				var jobs []int
				for i, on := range at {
					if on == d {
						jobs = append(jobs, i)
					}
				}
				is = is && l.takes(d, jobs)
			}
			copy(at, was)
			return is
		}
		for n, i := range l.free {
			for _, d := range can[i] {
				if d != at[i] && better(map[int]int{i: d}) {
					return fmt.Sprintf("%s on %s is better", w.jobs[i].ID, l.days[d])
				}
			}
			for _, o := range l.free[:n] {
				if at[i] != at[o] && slices.Contains(can[i], at[o]) && slices.Contains(can[o], at[i]) && better(map[int]int{i: at[o], o: at[i]}) {
					return fmt.Sprintf("%s and %s are better the other way round", w.jobs[i].ID, w.jobs[o].ID)
				}
			}
		}
		return ""
	})
	t.Logf("%d weeks hold, %d other ways looked at", held, looked)
	if held < *cases/30 {
		t.Errorf("only %d weeks hold", held)
	}
}
