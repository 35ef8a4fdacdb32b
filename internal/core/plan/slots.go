package plan

import (
	"cmp"
	"slices"

	"tincup/internal/core/day"
)

// Slots lays the jobs of each day into its hours: from the first free stretch on, in the
// order of their deadlines, then of their weight; deep ones into peak hours first, where
// every due that can be met is met so too. on says which day each job lies on; none leaves
// it out. A job may lie in several stretches; what a day has no room for is not laid.
func (p *Problem) Slots(on func(job int) day.Date) map[int][]Stretch {
	byDay := map[day.Date][]int{}
	for job := range p.Jobs {
		if d := on(job); p.Day(d) != nil && !d.IsZero() {
			byDay[d] = append(byDay[d], job)
		}
	}
	out := map[int][]Stretch{}
	for i := range p.Days {
		d := &p.Days[i]
		jobs := byDay[d.Date]
		if len(jobs) == 0 || d.Minutes == 0 {
			continue
		}
		laid, late := p.lay(d, jobs, true)
		if late > 0 {
			if plain, fewer := p.lay(d, jobs, false); fewer < late {
				laid = plain
			}
		}
		for job, stretches := range laid {
			out[job] = stretches
		}
	}
	return out
}

// lay lays the jobs of one day minute by minute of its work time, and counts those that
// miss their dues so.
func (p *Problem) lay(d *Day, jobs []int, deepFirst bool) (laid map[int][]Stretch, late int) {
	tasks := p.onDay(d, jobs, false)
	slices.SortStableFunc(tasks, func(a, b task) int {
		x, y := p.Jobs[a.job], p.Jobs[b.job]
		return cmp.Or(cmp.Compare(a.due, b.due), cmp.Compare(y.Weight, x.Weight), p.lesser(a.job, b.job))
	})
	free := make([]bool, d.Minutes) // by minutes of work time
	for i := range free {
		free[i] = true
	}
	taken := make([][]int, len(tasks))
	take := func(n, from, to int) {
		for at := max(from, tasks[n].release); at < to && len(taken[n]) < tasks[n].minutes; at++ {
			if free[at] {
				free[at] = false
				taken[n] = append(taken[n], at)
			}
		}
	}
	if deepFirst {
		for n, t := range tasks {
			for _, peak := range d.Peak {
				if p.Jobs[t.job].Deep {
					take(n, p.Until(peak.From)-d.before, p.Until(peak.To)-d.before)
				}
			}
		}
	}
	p.fill(tasks, free, taken)
	laid = map[int][]Stretch{}
	for n, t := range tasks {
		slices.Sort(taken[n])
		if k := len(taken[n]); k < t.minutes || taken[n][k-1] >= t.due {
			late++
		}
		if s := d.stretchesOf(taken[n]); len(s) > 0 {
			laid[t.job] = s
		}
	}
	return laid, late
}

// fill gives each free minute to the first of the tasks that can be worked on then. Those
// that come first are in the order of their dues, so that the rest of the day is worked
// through with the earliest due first.
func (p *Problem) fill(tasks []task, free []bool, taken [][]int) {
	for at := range free {
		if !free[at] {
			continue
		}
		for n, t := range tasks {
			if t.release <= at && len(taken[n]) < t.minutes && p.waited(tasks, taken, t, at) {
				taken[n] = append(taken[n], at)
				break
			}
		}
	}
}

// waited tells whether all that a task waits for on the day is done by a minute.
func (p *Problem) waited(tasks []task, taken [][]int, t task, at int) bool {
	for _, before := range p.Jobs[t.job].After {
		for n, o := range tasks {
			if o.job == before && (len(taken[n]) < o.minutes || slices.Max(taken[n]) >= at) {
				return false
			}
		}
	}
	return true
}

// stretchesOf are minutes of the day's work time as they lie in the day.
func (d *Day) stretchesOf(minutes []int) []Stretch {
	var out []Stretch
	base, i := 0, 0
	for _, s := range d.Free {
		for ; i < len(minutes) && minutes[i] < base+s.Minutes(); i++ {
			at := s.From + Minute(minutes[i]-base)
			if n := len(out); n > 0 && out[n-1].To == at {
				out[n-1].To++
			} else {
				out = append(out, Stretch{at, at + 1})
			}
		}
		base += s.Minutes()
	}
	return out
}
