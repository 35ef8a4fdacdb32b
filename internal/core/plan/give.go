package plan

import (
	"cmp"
	"math/bits"
	"slices"
)

// Given is what has to give where not all can be done in time.
type Given struct {
	// Late are the indices of the jobs whose dues cannot be kept: the least weight that can
	// be lost, then the fewest jobs, then the fewest minutes, then the lesser ids. What is
	// overdue is never among them.
	Late []int
	// Proved tells whether nothing better is possible; else it is the best that was found
	// within the effort.
	Proved bool
}

// effort bounds what looking for what has to give takes where starts or chains stand in
// the way, in jobs looked at: 2^12 sets of 12 jobs are within it. Of more than many jobs,
// which are hardly ever proved, it is an eighth.
const (
	effort = 60_000
	many   = 60
)

// loss is what jobs cost that are late.
type loss struct{ weight, jobs, minutes int }

func (l loss) compare(o loss) int {
	return cmp.Or(cmp.Compare(l.weight, o.weight), cmp.Compare(l.jobs, o.jobs), cmp.Compare(l.minutes, o.minutes))
}

func (l loss) with(j Job) loss { return loss{l.weight + j.Weight, l.jobs + 1, l.minutes + j.Minutes} }

// Give finds whose dues to let go of. The work stays to be done, after all that is due;
// what waits for it keeps its own due. Work that is overdue comes first, and what cannot
// be done of it today takes the time after.
func (p *Problem) Give() Given {
	free := p.settled()
	if _, missed := firstMissed(free.tightened(everyJob, nil)); !missed {
		return Given{Proved: true}
	}
	var can []int // those that may be late
	later := false
	for i, t := range free.tasks {
		if t.due != never && !t.overdue {
			can = append(can, i)
		}
		later = later || t.due != never && t.release > 0
	}
	if !later && !p.chained && free.sums() <= mostSums {
		return Given{free.giveBySums(), true}
	}
	s := &search{Problem: free, can: can, may: make([]bool, len(p.Jobs)), late: make([]bool, len(p.Jobs)), left: effort}
	slices.SortFunc(s.can, free.lesser)
	for _, job := range can {
		s.may[job] = true
	}
	given := s.run()
	given.Proved = given.Proved || free.cannotDoBetter(s.bestLoss)
	return given
}

// cannotDoBetter tells whether as much is lost even where all could be begun now and
// nothing waited.
func (p *Problem) cannotDoBetter(l loss) bool {
	same := *p
	same.tasks, same.chained = slices.Clone(p.tasks), false
	for i := range same.tasks {
		same.tasks[i].release = 0
	}
	if _, missed := firstMissed(same.tasks); !missed || same.sums() > mostSums {
		return false
	}
	var least loss
	for _, job := range same.giveBySums() {
		least = least.with(p.Jobs[job])
	}
	return least.compare(l) == 0
}

// settled is the problem with overdue work due when it can be done at the earliest.
func (p *Problem) settled() *Problem {
	same := *p
	same.tasks = slices.Clone(p.tasks)
	first := make(map[int]bool) // overdue work, and what it waits for
	for i, t := range p.tasks {
		if t.overdue {
			first[i] = true
		}
	}
	p.addAwaited(first)
	overdue := p.tightened(func(i int) bool { return first[i] }, nil)
	done := 0
	slices.SortFunc(overdue, func(a, b task) int { return cmp.Compare(a.release, b.release) })
	for _, t := range overdue {
		done = max(done, t.release) + t.minutes
	}
	for i := range same.tasks {
		if same.tasks[i].overdue {
			same.tasks[i].due = max(same.tasks[i].due, done)
		}
	}
	return &same
}

// mostSums bounds how many sums giveBySums looks at: that takes a second or so.
const mostSums = 100_000_000

// sums is how many sums giveBySums looks at.
func (p *Problem) sums() int {
	tasks := p.byDue()
	return len(tasks) * p.mostLate(tasks)
}

// byDue are the tasks that have a due, the earliest first.
func (p *Problem) byDue() []task {
	tasks := slices.DeleteFunc(slices.Clone(p.tasks), func(t task) bool { return t.due == never })
	slices.SortStableFunc(tasks, func(a, b task) int { return cmp.Compare(a.due, b.due) })
	return tasks
}

// mostLate is a bound: a set of late jobs from which none can be taken back has fewer minutes.
func (p *Problem) mostLate(tasks []task) int {
	work, most, longest := 0, 0, 0
	for _, t := range tasks {
		work += t.minutes
		most = max(most, work-t.due)
		if !t.overdue {
			longest = max(longest, t.minutes)
		}
	}
	return most + longest + 1
}

// giveBySums is exact where all can be begun now and nothing waits: a set of late jobs
// will do where, up to each deadline, they make up for what is due by then beyond the time
// there is (Lawler and Moore 1969, counting what is late in the place of what is done).
// best[m] is the least loss at which the jobs so far are late by m minutes in all.
func (p *Problem) giveBySums() []int {
	tasks := p.byDue()
	size := p.mostLate(tasks)
	rank := p.ranks()
	words := (len(p.Jobs) + 63) / 64
	if size*words*len(tasks) > 40_000_000 {
		words = 0 // ties are broken by the order of dues then
	}
	const none = -1
	best := make([]int, size) // weight and number in one
	sets := make([]uint64, size*words)
	for m := range best {
		best[m] = none
	}
	best[0] = 0
	took := make([]uint64, len(tasks)*((size+63)/64))
	row := (size + 63) / 64
	work, reach := 0, 0
	for n, t := range tasks {
		work += t.minutes
		if !t.overdue {
			cost := p.Jobs[t.job].Weight<<20 + 1
			at, bit := rank[t.job]/64, uint64(1)<<(63-rank[t.job]%64)
			reach = min(reach+t.minutes, size-1)
			for m := reach; m >= t.minutes; m-- {
				before := best[m-t.minutes]
				if before == none {
					continue
				}
				old, now := sets[m*words:(m+1)*words], sets[(m-t.minutes)*words:(m-t.minutes+1)*words]
				if better := best[m] == none || before+cost < best[m] || before+cost == best[m] && lesserSet(now, at, bit, old); !better {
					continue
				}
				best[m] = before + cost
				copy(old, now)
				if words > 0 {
					old[at] |= bit
				}
				took[n*row+m/64] |= 1 << (m % 64)
			}
		}
		for m := 0; m < work-t.due && m < size; m++ { // too little is late by this deadline
			best[m] = none
		}
	}
	choice := none
	for m, cost := range best {
		if cost != none && (choice == none || cost < best[choice]) {
			choice = m
		}
	}
	var late []int
	for n, t := range slices.Backward(tasks) {
		if took[n*row+choice/64]&(1<<(choice%64)) != 0 {
			late = append(late, t.job)
			choice -= t.minutes
		}
	}
	slices.SortFunc(late, p.lesser)
	return late
}

// ranks are, by the indices of the jobs, how many have a lesser id.
func (p *Problem) ranks() []int {
	byID := make([]int, len(p.Jobs))
	for i := range byID {
		byID[i] = i
	}
	slices.SortFunc(byID, p.lesser)
	rank := make([]int, len(byID))
	for at, job := range byID {
		rank[job] = at
	}
	return rank
}

// lesserSet tells whether a set with one more job, of the rank that the bit stands for, has
// lesser ids than another of as many jobs: whether the first job that only one of them has
// is its own.
func lesserSet(set []uint64, at int, bit uint64, other []uint64) bool {
	for i, w := range set {
		if i == at {
			w |= bit
		}
		if differ := w ^ other[i]; differ != 0 {
			return w&(1<<(63-bits.LeadingZeros64(differ))) != 0
		}
	}
	return false
}
