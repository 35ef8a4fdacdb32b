package plan

import (
	"cmp"
	"slices"
)

// exact tries all ways to spread at most ExactJobs jobs, day by day: of the ways to spread
// a set of jobs over the days so far only the best can be the beginning of the best, since
// what comes after is the same for all. known is a way that is there already, and whole
// tells whether it is one of all jobs. It returns nil where there is no way.
func (l *leveller) exact(known []int, whole bool) []int {
	x := &exactly{leveller: l, all: 1<<len(l.free) - 1, before: make([]int, len(l.free))}
	waits, _ := l.waits()
	for i, before := range waits {
		for _, b := range before {
			x.before[i] |= 1 << b
		}
	}
	base := make([]float64, len(l.days))
	for at := range l.days {
		base[at] = l.ratio(at, l.load[at])
	}
	if whole {
		loads := slices.Clone(l.load)
		for i, at := range known {
			loads[at] += l.Jobs[l.free[i]].Minutes
		}
		for at, load := range loads {
			x.known = append(x.known, l.ratio(at, load))
		}
		sortFullest(x.known)
	}
	start := slices.Clone(base)
	sortFullest(start)
	states := map[int]*way{0: {full: start, at: make([]int8, len(l.free))}}
	for at := range l.days {
		states = x.day(at, base[at], states)
	}
	best := states[x.all]
	if best == nil {
		return nil
	}
	spread := make([]int, len(l.free))
	for i, at := range best.at {
		spread[i] = int(at)
	}
	return spread
}

type exactly struct {
	*leveller
	all    int
	before []int     // which jobs each waits for, as a set
	known  []float64 // how full days are in a way that is known, the fullest first
}

// way is the best way to spread a set of jobs over the days so far.
type way struct {
	full []float64 // how full all days are, the fullest first
	cost
	at []int8
}

// compare compares ways to spread the same jobs; ids settle what is left.
func (w *way) compare(o *way, byID []int) int {
	if c := cmp.Or(slices.Compare(w.full, o.full), w.cost.compare(o.cost)); c != 0 {
		return c
	}
	for _, i := range byID {
		if c := cmp.Compare(w.at[i], o.at[i]); c != 0 {
			return c
		}
	}
	return 0
}

func sortFullest(full []float64) {
	slices.SortFunc(full, func(a, b float64) int { return cmp.Compare(b, a) })
}

// day puts each set of jobs on a day that it takes, beside what lay on the days before.
func (x *exactly) day(at int, base float64, states map[int]*way) map[int]*way {
	sets := x.sets(at)
	must := 0 // jobs whose last day it is
	for i, can := range x.can {
		if can[len(can)-1] == at {
			must |= 1 << i
		}
	}
	byID := make([]int, len(x.free))
	for i := range byID {
		byID[i] = i
	}
	slices.SortFunc(byID, func(a, b int) int { return x.lesser(x.free[a], x.free[b]) })
	next := map[int]*way{}
	for done, w := range states {
		for _, set := range sets {
			now := done | set.jobs
			if done&set.jobs != 0 || must&^now != 0 || !x.inTurnOf(set.jobs, now) {
				continue
			}
			n := &way{full: replaced(w.full, base, set.full), cost: cost{w.moves + set.moves, w.days + set.days}, at: w.at}
			if x.known != nil && slices.Compare(n.full, x.known) > 0 {
				continue
			}
			before := next[now]
			if before != nil && cmp.Or(slices.Compare(n.full, before.full), n.cost.compare(before.cost)) > 0 {
				continue
			}
			n.at = slices.Clone(w.at)
			for i := range n.at {
				if set.jobs&(1<<i) != 0 {
					n.at[i] = int8(at)
				}
			}
			if before == nil || n.compare(before, byID) < 0 {
				next[now] = n
			}
		}
	}
	return next
}

// inTurnOf tells whether all that the jobs of a set wait for is done with them.
func (x *exactly) inTurnOf(set, done int) bool {
	for i, before := range x.before {
		if set&(1<<i) != 0 && before&^done != 0 {
			return false
		}
	}
	return true
}

// replaced is how full days are when one of them is fuller than before, which it was by base.
func replaced(full []float64, base, now float64) []float64 {
	out := make([]float64, 0, len(full))
	put, taken := false, false
	for _, f := range full {
		if !put && now >= f {
			out, put = append(out, now), true
		}
		if !taken && f == base {
			taken = true
			continue
		}
		out = append(out, f)
	}
	if !put {
		out = append(out, now)
	}
	return out
}

// setOf is jobs that a day takes together, and how full it is with them.
type setOf struct {
	jobs int
	full float64
	cost
}

// sets are all that a day takes, none among them.
func (x *exactly) sets(at int) []setOf {
	var sets []setOf
	var jobs []int
	var add func(from, set, load int, c cost)
	add = func(from, set, load int, c cost) {
		sets = append(sets, setOf{set, x.ratio(at, load), c})
		for i := from; i < len(x.free); i++ {
			if !slices.Contains(x.can[i], at) {
				continue
			}
			more := load + x.Jobs[x.free[i]].Minutes
			if x.known != nil && x.ratio(at, more) > x.known[0] {
				continue
			}
			jobs = append(jobs, x.free[i])
			if x.fits(at, jobs) {
				own := x.costOf(i, at)
				add(i+1, set|1<<i, more, cost{c.moves + own.moves, c.days + own.days})
			}
			jobs = jobs[:len(jobs)-1]
		}
	}
	add(0, 0, x.load[at], cost{})
	return sets
}
