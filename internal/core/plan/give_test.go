package plan_test

import (
	"cmp"
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"testing"

	"tincup/internal/core/day"
	"tincup/internal/core/plan"
)

// What has to give, up to 8 jobs: where all can be begun now, where there are releases and
// chains, and where many ways cost the same.
func TestGiveAgainstBruteForce(t *testing.T) {
	for name, of := range map[string]func(r *rand.Rand) world{
		"begun now":           func(r *rand.Rand) world { return randomWorld(t, r, 8, false, false) },
		"releases and chains": func(r *rand.Rand) world { return randomWorld(t, r, 8, true, true) },
		"chains of minutes":   func(r *rand.Rand) world { return chainedWorld(t, r, 6) },
		"much alike": func(r *rand.Rand) world {
			chained, later := r.IntN(3) == 0, r.IntN(3) > 0
			w := randomWorld(t, r, 8, chained, false)
			for i := range w.jobs {
				j := &w.jobs[i]
				j.Weight, j.Minutes, j.Due = 1, 1+r.IntN(3), day.Moment{Date: w.clock.Today().AddDays(r.IntN(w.days))}
				if later && i%2 == 0 {
					j.Release.Date = w.clock.Today()
					j.Release.Time, _ = day.NewTimeOfDay(9, r.IntN(4))
				}
			}
			return w
		},
	} {
		t.Run(name, func(t *testing.T) {
			gave := 0
			against(t, 3, *cases, of, func(w world) string {
				given := w.problem(t).Give()
				want, known := w.slow().give()
				if !known {
					return ""
				}
				if len(want) > 0 {
					gave++
				}
				if got := w.problem(t).IDs(given.Late); !slices.Equal(got, want) || !given.Proved {
					return fmt.Sprintf("late %v, proved %t; by brute force %v", got, given.Proved, want)
				}
				return ""
			})
			if gave < *cases/10 {
				t.Errorf("only in %d of %d something had to give", gave, *cases)
			}
		})
	}
}

// lost is what a set of late jobs costs, and their ids in order.
type lost struct {
	weight, jobs, minutes int
	ids                   []string
}

func (l lost) compare(o lost) int {
	return cmp.Or(cmp.Compare(l.weight, o.weight), cmp.Compare(l.jobs, o.jobs), cmp.Compare(l.minutes, o.minutes), slices.Compare(l.ids, o.ids))
}

func (l lost) with(j plan.Job) lost {
	ids := append(slices.Clone(l.ids), j.ID)
	slices.Sort(ids)
	return lost{l.weight + j.Weight, l.jobs + 1, l.minutes + j.Minutes, ids}
}

// leastLost is the textbook's way (Lawler and Moore 1969) where all can be begun now and nothing
// waits: of jobs by their dues, the least that is lost at which so many minutes are done in time.
func leastLost(p *plan.Problem) lost {
	type dated struct {
		plan.Job
		minutes int
	}
	var jobs []dated
	for _, j := range p.Jobs {
		if !j.Due.IsZero() {
			jobs = append(jobs, dated{j, p.Until(p.Deadline(j.Due))})
		}
	}
	slices.SortStableFunc(jobs, func(a, b dated) int { return cmp.Compare(a.minutes, b.minutes) })
	least := map[int]lost{0: {}}
	for _, j := range jobs {
		next := map[int]lost{}
		put := func(done int, l lost) {
			if old, has := next[done]; !has || l.compare(old) < 0 {
				next[done] = l
			}
		}
		for done, l := range least {
			put(done, l.with(j.Job))
			if done += j.Job.Minutes; done <= j.minutes {
				put(done, l)
			}
		}
		least = next
	}
	return slices.MinFunc(slices.Collect(maps.Values(least)), lost.compare)
}

// tightWeek is as many jobs as a person has, of which not all can be done by their dues.
func tightWeek(t testing.TB, r *rand.Rand, jobs, days int) world {
	w := bigWeek(t, r, jobs, days)
	alike := r.IntN(2) == 0
	for i := range w.jobs {
		j := &w.jobs[i]
		j.Release = day.Moment{}
		if alike {
			j.Weight, j.Minutes = 1+r.IntN(2), 30
		}
	}
	r.Shuffle(jobs, func(a, b int) { w.jobs[a], w.jobs[b] = w.jobs[b], w.jobs[a] })
	return w
}

// Of as many jobs as a person has, what has to give is what the textbook's way finds, to the ids.
func TestGiveOfMany(t *testing.T) {
	gave := 0
	against(t, 14, max(*cases/10, 10), func(r *rand.Rand) world { return tightWeek(t, r, 40+r.IntN(110), 2+r.IntN(6)) }, func(w world) string {
		p := w.problem(t)
		given, want := p.Give(), leastLost(p)
		if len(want.ids) > 0 {
			gave++
		}
		if got := p.IDs(given.Late); !slices.Equal(got, want.ids) || !given.Proved {
			return fmt.Sprintf("late %v, proved %t; want %v", got, given.Proved, want)
		}
		return ""
	})
	if gave < max(*cases/10, 10)/2 {
		t.Errorf("only in %d something had to give", gave)
	}
}

// With later starts beyond what can be tried in all ways: without the dues that are let go of the
// rest can be done, none of them was let go of in vain, and what is said to be proved loses no more
// than if all could be begun now.
func TestGiveBeyondAllWays(t *testing.T) {
	proved, open := 0, 0
	against(t, 15, max(*cases/10, 10), func(r *rand.Rand) world {
		w := tightWeek(t, r, 16+r.IntN(80), 2+r.IntN(4))
		for i := range w.jobs {
			if r.IntN(3) == 0 {
				w.jobs[i].Release = day.Moment{Date: w.clock.Today().AddDays(r.IntN(w.days))}
			}
		}
		return w
	}, func(w world) string {
		p := w.problem(t)
		given := p.Give()
		without := func(late []int) bool {
			only := w
			only.jobs = slices.Clone(w.jobs)
			for _, job := range late {
				only.jobs[job].Due = day.Moment{}
			}
			return only.problem(t).Feasible().Feasible
		}
		if !without(given.Late) {
			return fmt.Sprintf("without %v it cannot be done", p.IDs(given.Late))
		}
		var loss lost
		for i, job := range given.Late {
			loss = loss.with(p.Jobs[job])
			if without(slices.Delete(slices.Clone(given.Late), i, i+1)) {
				return fmt.Sprintf("of %v, %s need not give", p.IDs(given.Late), p.Jobs[job].ID)
			}
		}
		bound := leastLost(p)
		switch c := cmp.Or(cmp.Compare(loss.weight, bound.weight), cmp.Compare(loss.jobs, bound.jobs), cmp.Compare(loss.minutes, bound.minutes)); {
		case c < 0:
			return fmt.Sprintf("%v lose less than is possible: %v", p.IDs(given.Late), bound)
		case c == 0 && !given.Proved:
			return fmt.Sprintf("%v lose as much as would be lost without later starts, and that is not said to be proved", p.IDs(given.Late))
		case given.Proved:
			proved++
		default:
			open++
		}
		return ""
	})
	t.Logf("%d proved, %d not", proved, open)
	if proved == 0 || open == 0 {
		t.Errorf("%d proved, %d not", proved, open)
	}
}

// The due that could be kept instead, against brute force with each day tried from its own
// due on, beside those that were found before it.
func TestLaterAgainstBruteForce(t *testing.T) {
	found := 0
	against(t, 12, *cases/3, func(r *rand.Rand) world { return randomWorld(t, r, 6, true, true) }, func(w world) string {
		p := w.problem(t)
		late := p.Give().Late
		later, err := p.Later(late, len(late))
		if err != nil {
			return err.Error()
		}
		with := w
		with.jobs = slices.Clone(w.jobs)
		for _, job := range late {
			with.jobs[job].Due = day.Moment{}
		}
		for _, job := range late {
			want := day.Date{}
			for i := range p.Days {
				if p.Days[i].Date.Before(w.jobs[job].Due.Date) {
					continue
				}
				with.jobs[job].Due = day.Moment{Date: p.Days[i].Date}
				if _, missed := with.slow().firstMissed(); !missed {
					want = p.Days[i].Date
					break
				}
			}
			if want.IsZero() {
				with.jobs[job].Due = day.Moment{}
			} else {
				found++
			}
			if later[job] != want {
				return fmt.Sprintf("job %s could be due %v, by brute force %v", p.Jobs[job].ID, later[job], want)
			}
		}
		return ""
	})
	if found == 0 {
		t.Error("no due could be moved in any case")
	}
}
