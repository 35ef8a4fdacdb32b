package plan

import (
	"cmp"
	"slices"
	"sort"
)

// Verdict says whether all work can be done by its deadlines.
type Verdict struct {
	Feasible bool
	// FirstMissed is the first deadline that cannot be met, however one works; LateBy how
	// many minutes of the work due by then are undone then at best.
	FirstMissed Minute
	LateBy      int
	// Because are the indices of jobs that compete for the time before FirstMissed: these
	// alone cannot all be done, and without any one of them the others can.
	Because []int
}

// Feasible tells whether every deadline can be met. What is overdue counts as due at the
// end of today's work time.
func (p *Problem) Feasible() Verdict {
	tasks := p.tightened(everyJob, nil)
	due, missed := firstMissed(tasks)
	if !missed {
		return Verdict{Feasible: true}
	}
	deadline := due
	if p.chained {
		// What waits pulls deadlines forward; the first of the jobs' own that is missed is
		// the first up to which not all can be done.
		tasks, deadline = p.missedByItself()
		due, _ = firstMissed(tasks)
	}
	release := crowded(tasks, due)
	return Verdict{FirstMissed: p.momentOf(deadline), LateBy: undone(tasks, deadline), Because: p.blame(tasks, release, due)}
}

// missedByItself finds the least of the jobs' own deadlines up to which not all can be met,
// and the tasks as they are where later ones do not count.
func (p *Problem) missedByItself() (tasks []task, deadline int) {
	var dues []int
	for _, t := range p.tasks {
		if t.due != never {
			dues = append(dues, t.due)
		}
	}
	slices.Sort(dues)
	upTo := func(due int) []task {
		return p.tightened(everyJob, func(job int) bool { return p.tasks[job].due > due })
	}
	at := sort.Search(len(dues), func(i int) bool {
		_, missed := firstMissed(upTo(dues[i]))
		return missed
	})
	return upTo(dues[at]), dues[at]
}

// momentOf is the earliest of the jobs' deadlines that lie so many minutes of work time
// ahead.
func (p *Problem) momentOf(due int) Minute {
	first := Minute(0)
	for _, t := range p.tasks {
		if t.due == due && (first == 0 || p.due[t.job] < first) {
			first = p.due[t.job]
		}
	}
	return first
}

// queue holds tasks that can be worked on as a heap, the earliest deadline first.
type queue []task

func (q *queue) push(t task) {
	*q = append(*q, t)
	h := *q
	for i := len(h) - 1; i > 0; {
		up := (i - 1) / 2
		if h[up].due <= h[i].due {
			break
		}
		h[up], h[i] = h[i], h[up]
		i = up
	}
}

func (q *queue) pop() {
	h := *q
	last := len(h) - 1
	h[0] = h[last]
	h = h[:last]
	for i := 0; ; {
		down := 2*i + 1
		if down+1 < last && h[down+1].due < h[down].due {
			down++
		}
		if down >= last || h[i].due <= h[down].due {
			break
		}
		h[down], h[i] = h[i], h[down]
		i = down
	}
	*q = h
}

// begun is when the task at an index can be begun, and is due: what tasks are sorted by.
type begun struct {
	release, due int
	at           int32
}

// work works on the earliest deadline first, and tells of each task when it is done. It
// leaves out what has no deadline: nothing that is due later delays what is due earlier.
func work(tasks []task, done func(t task, at int), worked func(t task, from, to int)) {
	left := make([]begun, 0, len(tasks))
	for i, t := range tasks {
		if t.due != never {
			left = append(left, begun{t.release, t.due, int32(i)})
		}
	}
	slices.SortFunc(left, func(a, b begun) int {
		if a.release != b.release {
			return a.release - b.release
		}
		return a.due - b.due
	})
	q := make(queue, 0, len(left))
	now, next := 0, 0
	for next < len(left) || len(q) > 0 {
		if len(q) == 0 {
			now = max(now, left[next].release)
		}
		for next < len(left) && left[next].release <= now {
			q.push(tasks[left[next].at])
			next++
		}
		t := &q[0]
		run := t.minutes
		if next < len(left) {
			run = min(run, left[next].release-now)
		}
		if worked != nil {
			worked(*t, now, now+run)
		}
		now += run
		if t.minutes -= run; t.minutes == 0 {
			done(*t, now)
			q.pop()
		}
	}
}

// firstMissed is the least deadline that is missed where one works on the earliest first:
// the first that no way of working meets.
func firstMissed(tasks []task) (due int, missed bool) {
	work(tasks, func(t task, at int) {
		if at > t.due && (!missed || t.due < due) {
			due, missed = t.due, true
		}
	}, nil)
	return due, missed
}

// undone is how much of the work that is due by a moment is not done then.
func undone(tasks []task, due int) int {
	sum := 0
	var in []task
	for _, t := range tasks {
		if t.due <= due {
			in = append(in, t)
			sum += t.minutes
		}
	}
	work(in, func(task, int) {}, func(_ task, from, to int) { sum -= max(min(to, due)-from, 0) })
	return sum
}

// crowded finds the latest moment from which on there is more work due by a missed deadline
// than time until it.
func crowded(tasks []task, due int) (release int) {
	var in []task
	for _, t := range tasks {
		if t.due <= due {
			in = append(in, t)
		}
	}
	slices.SortFunc(in, func(a, b task) int { return cmp.Compare(b.release, a.release) })
	sum := 0
	for i, t := range in {
		sum += t.minutes
		if i+1 < len(in) && in[i+1].release == t.release {
			continue
		}
		if sum > due-t.release {
			return t.release
		}
	}
	return 0
}

// blame finds a set of jobs that cannot all be done though each of them could be left out.
// Those that can be begun at the moment or later and are due by the deadline are too much
// work together; the longest of them are enough to say so.
func (p *Problem) blame(tasks []task, release, due int) []int {
	var in []task
	for _, t := range tasks {
		if t.release >= release && t.due <= due {
			in = append(in, t)
		}
	}
	slices.SortFunc(in, func(a, b task) int {
		return cmp.Or(cmp.Compare(b.minutes, a.minutes), p.lesser(a.job, b.job))
	})
	var set []int
	sum := 0
	for _, t := range in {
		set = append(set, t.job)
		if sum += t.minutes; sum > due-release {
			break
		}
	}
	if p.chained {
		set = p.irreducible(set, tasks)
	}
	slices.SortFunc(set, p.lesser)
	return set
}

// irreducible adds to a set what its chains need to be too much by itself, and then takes
// out whatever it can do without.
func (p *Problem) irreducible(set []int, tasks []task) []int {
	in := make(map[int]bool, len(set))
	for _, job := range set {
		in[job] = true
	}
	holds := func(job int) bool { return in[job] }
	tooMuch := func() bool {
		_, missed := firstMissed(p.tightened(holds, nil))
		return missed
	}
	if !tooMuch() {
		p.addChains(in)
	}
	if !tooMuch() {
		for _, t := range tasks {
			in[t.job] = true
		}
	}
	var jobs []int
	for job := range in {
		jobs = append(jobs, job)
	}
	// What goes last out stays: the longest.
	slices.SortFunc(jobs, func(a, b int) int {
		return cmp.Or(cmp.Compare(p.Jobs[a].Minutes, p.Jobs[b].Minutes), p.lesser(b, a))
	})
	// Many go at once while that can be; in the end each by itself.
	for size := max(len(jobs)/2, 1); ; size /= 2 {
		var kept []int
		for some := range slices.Chunk(jobs, size) {
			for _, job := range some {
				delete(in, job)
			}
			if tooMuch() {
				continue
			}
			for _, job := range some {
				in[job] = true
			}
			kept = append(kept, some...)
		}
		if jobs = kept; size <= 1 {
			return jobs
		}
	}
}

// addChains adds all that jobs of a set wait for, or that wait for them.
func (p *Problem) addChains(in map[int]bool) {
	p.addAwaited(in)
	for _, job := range p.order {
		for _, before := range p.Jobs[job].After {
			if in[before] {
				in[job] = true
			}
		}
	}
}

// addAwaited adds all that jobs of a set wait for.
func (p *Problem) addAwaited(in map[int]bool) {
	for _, job := range slices.Backward(p.order) {
		for _, before := range p.Jobs[job].After {
			if in[job] {
				in[before] = true
			}
		}
	}
}
