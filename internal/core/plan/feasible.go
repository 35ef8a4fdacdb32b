package plan

import (
	"cmp"
	"container/heap"
	"slices"
)

// Verdict says whether all work can be done by its deadlines.
type Verdict struct {
	Feasible bool
	// FirstMissed is the first deadline that cannot be met, however one works; LateBy how
	// many minutes of the work due by then are undone then at best.
	FirstMissed Minute
	LateBy      int
	// Because are the places of jobs that compete for the time before FirstMissed: these
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
	v := Verdict{}
	release := 0
	release, v.LateBy = crowded(tasks, due)
	v.Because = p.blame(tasks, release, due)
	v.FirstMissed = p.momentOf(tasks, due)
	return v
}

// momentOf is the earliest deadline that lies so many minutes of work time ahead. Where a
// chain alone made it, it is the deadline of the job that the chain ends in.
func (p *Problem) momentOf(tasks []task, due int) Minute {
	first := Minute(0)
	for _, t := range p.tasks {
		if t.due == due && (first == 0 || p.due[t.job] < first) {
			first = p.due[t.job]
		}
	}
	if first != 0 {
		return first
	}
	return p.moment(due)
}

// moment is when so much work time is over.
func (p *Problem) moment(minutes int) Minute {
	for i := range p.Days {
		d := &p.Days[i]
		if minutes > d.before+d.Minutes {
			continue
		}
		left := max(minutes-d.before, 0)
		for _, s := range d.Free {
			if left <= s.Minutes() {
				return s.From + Minute(left)
			}
			left -= s.Minutes()
		}
	}
	return p.now
}

// queue holds tasks that can be worked on, the earliest deadline first.
type queue []*task

func (q queue) Len() int           { return len(q) }
func (q queue) Less(i, j int) bool { return q[i].due < q[j].due }
func (q queue) Swap(i, j int)      { q[i], q[j] = q[j], q[i] }
func (q *queue) Push(x any)        { *q = append(*q, x.(*task)) }
func (q *queue) Pop() any {
	last := (*q)[len(*q)-1]
	*q = (*q)[:len(*q)-1]
	return last
}

// firstMissed works on the earliest deadline first, and returns the least deadline that is
// missed so. Since nothing that is due later delays what is due earlier, it is the first
// that no way of working meets.
func firstMissed(tasks []task) (due int, missed bool) {
	left := make([]task, 0, len(tasks))
	for _, t := range tasks {
		if t.due != never {
			left = append(left, t)
		}
	}
	slices.SortStableFunc(left, func(a, b task) int { return cmp.Compare(a.release, b.release) })
	var q queue
	now, next := 0, 0
	for next < len(left) || len(q) > 0 {
		if len(q) == 0 {
			now = max(now, left[next].release)
		}
		for next < len(left) && left[next].release <= now {
			heap.Push(&q, &left[next])
			next++
		}
		t := q[0]
		run := t.minutes
		if next < len(left) {
			run = min(run, left[next].release-now)
		}
		now += run
		if t.minutes -= run; t.minutes > 0 {
			continue
		}
		heap.Pop(&q)
		if now > t.due && (!missed || t.due < due) {
			due, missed = t.due, true
		}
	}
	return due, missed
}

// crowded finds the latest moment from which on there is more work due by a deadline than
// time until it, and the greatest such excess from any moment on: how much is undone at
// the deadline at best.
func crowded(tasks []task, due int) (release, excess int) {
	var in []task
	for _, t := range tasks {
		if t.due <= due {
			in = append(in, t)
		}
	}
	slices.SortFunc(in, func(a, b task) int { return cmp.Compare(b.release, a.release) })
	work, found := 0, false
	for i, t := range in {
		work += t.minutes
		if i+1 < len(in) && in[i+1].release == t.release {
			continue
		}
		over := work - (due - t.release)
		if over > 0 && !found {
			release, found = t.release, true
		}
		excess = max(excess, over)
	}
	return release, excess
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
	work := 0
	for _, t := range in {
		set = append(set, t.job)
		if work += t.minutes; work > due-release {
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
	var kept []int
	for _, job := range jobs {
		delete(in, job)
		if !tooMuch() {
			in[job] = true
			kept = append(kept, job)
		}
	}
	return kept
}

// addChains adds all that jobs of a set wait for, or that wait for them.
func (p *Problem) addChains(in map[int]bool) {
	for _, job := range slices.Backward(p.order) {
		for _, before := range p.Jobs[job].After {
			if in[job] {
				in[before] = true
			}
		}
	}
	for _, job := range p.order {
		for _, before := range p.Jobs[job].After {
			if in[before] {
				in[job] = true
			}
		}
	}
}
