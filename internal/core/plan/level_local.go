package plan

import (
	"cmp"
	"math"
	"slices"
)

// tries bounds the local search, in ways of moving a job or two that are looked at.
const tries = 200_000

// local spreads the free jobs one by one, those that have the least choice first, each
// where the fullest days stay the emptiest, and then moves and swaps jobs while that makes
// it better. It tells whether every job has a day.
func (l *leveller) local() (spread []int, whole bool) {
	s := &spreading{leveller: l, at: make([]int, len(l.free)), on: make([][]int, len(l.days)), load: slices.Clone(l.load)}
	s.waits, s.awaited = l.waits()
	order := make([]int, len(l.free))
	for i := range order {
		order[i], s.at[i] = i, -1
	}
	slices.SortFunc(order, func(a, b int) int {
		x, y := l.free[a], l.free[b]
		return cmp.Or(cmp.Compare(len(l.can[a]), len(l.can[b])), cmp.Compare(l.Jobs[y].Minutes, l.Jobs[x].Minutes), l.lesser(x, y))
	})
	whole = true
	for _, i := range order {
		best := -1
		for _, to := range l.can[i] {
			if !s.takes(i, to) {
				continue
			}
			if best < 0 || s.emptier(i, to, best) {
				best = to
			}
		}
		if best < 0 {
			whole = false
			continue
		}
		s.put(i, best)
	}
	s.improve()
	return s.at, whole
}

// spreading is one way of spreading while it is made better.
type spreading struct {
	*leveller
	at   []int   // day of each free job
	on   [][]int // free jobs of each day, by their indices in free
	load []int   // of each day
	// waits are those that each waits for, awaited those that wait for it.
	waits, awaited [][]int
}

func (s *spreading) put(i, to int) {
	s.at[i] = to
	s.on[to] = append(s.on[to], i)
	s.load[to] += s.Jobs[s.free[i]].Minutes
}

func (s *spreading) takeOut(i int) {
	from := s.at[i]
	s.at[i] = -1
	s.on[from] = slices.DeleteFunc(s.on[from], func(o int) bool { return o == i })
	s.load[from] -= s.Jobs[s.free[i]].Minutes
}

// takes tells whether a day takes a job, with those that lie on it.
func (s *spreading) takes(i, to int) bool {
	if !slices.Contains(s.can[i], to) || !s.inOrder(i, to) {
		return false
	}
	jobs := []int{s.free[i]}
	for _, o := range s.on[to] {
		jobs = append(jobs, s.free[o])
	}
	return s.fits(to, jobs)
}

// inOrder tells whether the days of a job and of those that wait for it, or it for them,
// are in their order.
func (s *spreading) inOrder(i, to int) bool {
	for _, b := range s.waits[i] {
		if s.at[b] > to {
			return false
		}
	}
	for _, o := range s.awaited[i] {
		if s.at[o] >= 0 && s.at[o] < to {
			return false
		}
	}
	return true
}

// emptier compares two days for one job: which leaves the fuller of the two emptier.
func (s *spreading) emptier(i, a, b int) bool {
	minutes := s.Jobs[s.free[i]].Minutes
	there := pair{s.ratio(a, s.load[a]+minutes), s.ratio(b, s.load[b])}
	here := pair{s.ratio(a, s.load[a]), s.ratio(b, s.load[b]+minutes)}
	return cmp.Or(there.compare(here), s.costOf(i, a).compare(s.costOf(i, b))) < 0
}

// pair is how full two days are. All other days being the same, the way is better in
// which the fuller of the two is emptier, then the other.
type pair struct{ a, b float64 }

func (p pair) compare(o pair) int {
	return cmp.Or(cmp.Compare(math.Max(p.a, p.b), math.Max(o.a, o.b)), cmp.Compare(math.Min(p.a, p.b), math.Min(o.a, o.b)))
}

// improve moves one job, or swaps two, or lets one make room for another, while that makes
// it better.
func (s *spreading) improve() {
	left := tries
	for again := true; again && left > 0; {
		again = false
		for i := range s.at {
			again = s.makeRoom(i, &left) || again
		}
		for i := range s.at {
			for _, to := range s.can[i] {
				if left--; left < 0 {
					return
				}
				again = s.move(i, to) || again
			}
		}
		for i := range s.at {
			for o := range i {
				if left--; left < 0 {
					return
				}
				again = s.swap(i, o) || again
			}
		}
	}
}

func (s *spreading) move(i, to int) bool {
	from := s.at[i]
	if from == to || from < 0 {
		return false
	}
	minutes := s.Jobs[s.free[i]].Minutes
	before := pair{s.ratio(from, s.load[from]), s.ratio(to, s.load[to])}
	after := pair{s.ratio(from, s.load[from]-minutes), s.ratio(to, s.load[to]+minutes)}
	if cmp.Or(after.compare(before), s.costOf(i, to).compare(s.costOf(i, from))) >= 0 {
		return false
	}
	s.takeOut(i)
	if s.takes(i, to) {
		s.put(i, to)
		return true
	}
	s.put(i, from)
	return false
}

// makeRoom moves a job to a day that another one leaves for a third day.
func (s *spreading) makeRoom(i int, left *int) bool {
	from := s.at[i]
	if from < 0 {
		return false
	}
	minutes := s.Jobs[s.free[i]].Minutes
	for _, to := range s.can[i] {
		if to == from {
			continue
		}
		for _, o := range slices.Clone(s.on[to]) {
			other := s.Jobs[s.free[o]].Minutes
			for _, third := range s.can[o] {
				if *left--; third == from || third == to || *left < 0 {
					continue
				}
				before := []float64{s.ratio(from, s.load[from]), s.ratio(to, s.load[to]), s.ratio(third, s.load[third])}
				after := []float64{s.ratio(from, s.load[from]-minutes), s.ratio(to, s.load[to]+minutes-other), s.ratio(third, s.load[third]+other)}
				sortFullest(before)
				sortFullest(after)
				if slices.Compare(after, before) >= 0 {
					continue
				}
				s.takeOut(i)
				s.takeOut(o)
				if s.takes(i, to) {
					s.put(i, to)
					if s.takes(o, third) {
						s.put(o, third)
						return true
					}
					s.takeOut(i)
				}
				s.put(i, from)
				s.put(o, to)
			}
		}
	}
	return false
}

func (s *spreading) swap(i, o int) bool {
	a, b := s.at[i], s.at[o]
	if a == b || a < 0 || b < 0 {
		return false
	}
	differ := s.Jobs[s.free[i]].Minutes - s.Jobs[s.free[o]].Minutes
	before := pair{s.ratio(a, s.load[a]), s.ratio(b, s.load[b])}
	after := pair{s.ratio(a, s.load[a]-differ), s.ratio(b, s.load[b]+differ)}
	was, now := s.costOf(i, a), s.costOf(i, b)
	was.moves, was.days = was.moves+s.costOf(o, b).moves, was.days+b
	now.moves, now.days = now.moves+s.costOf(o, a).moves, now.days+a
	if cmp.Or(after.compare(before), now.compare(was)) >= 0 {
		return false
	}
	s.takeOut(i)
	s.takeOut(o)
	if s.takes(i, b) {
		s.put(i, b)
		if s.takes(o, a) {
			s.put(o, a)
			return true
		}
		s.takeOut(i)
	}
	s.put(i, a)
	s.put(o, b)
	return false
}
