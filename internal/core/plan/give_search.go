package plan

import (
	"cmp"
	"slices"
)

// search looks for what has to give among jobs with later starts and chains.
type search struct {
	*Problem
	can  []int  // jobs with a due that can be let go of, the lesser ids first
	may  []bool // those of them that may be late on the present branch, by job
	late []bool // those that are
	left int    // effort

	best     []int
	bestLoss loss
}

// holds tells whether all can be done but for the dues of the late ones.
func (s *search) holds() bool {
	s.left -= len(s.can)
	_, missed := firstMissed(s.tightened(everyJob, func(job int) bool { return s.late[job] }))
	return !missed
}

func (s *search) run() Given {
	s.descend()
	clear(s.late)
	if len(s.can) > many {
		s.left = min(s.left, effort/8)
	}
	s.branch(loss{})
	return Given{s.best, s.left > 0}
}

// descend finds an answer to begin with: of what competes for the first deadline that is
// missed the cheapest gives until it can be met, over and over, and what turns out not to be
// needed is taken back, the dearest first.
func (s *search) descend() {
	for {
		tasks := s.tightened(everyJob, func(job int) bool { return s.late[job] })
		due, missed := firstMissed(tasks)
		if !missed {
			break
		}
		over := undone(tasks, due)
		jobs := s.candidates(tasks, due)
		if len(jobs) == 0 { // overdue work alone, which is done as early as can be
			break
		}
		for _, job := range jobs {
			s.late[job] = true
			if over -= s.Jobs[job].Minutes; over <= 0 {
				break
			}
		}
	}
	back := slices.Clone(s.can)
	slices.SortFunc(back, func(a, b int) int {
		return cmp.Or(cmp.Compare(s.Jobs[b].Weight, s.Jobs[a].Weight), cmp.Compare(s.Jobs[b].Minutes, s.Jobs[a].Minutes), s.lesser(b, a))
	})
	var l loss
	for _, job := range back {
		if !s.late[job] {
			continue
		}
		s.late[job] = false
		if s.left <= 0 || !s.holds() { // beyond the effort it stays late
			s.late[job] = true
			l = l.with(s.Jobs[job])
		}
	}
	s.keep(l)
}

// cheaper orders jobs by what their being late costs for what it brings.
func (s *search) cheaper(a, b int) bool {
	x, y := s.Jobs[a], s.Jobs[b]
	return cmp.Or(cmp.Compare(x.Weight*y.Minutes, y.Weight*x.Minutes), cmp.Compare(y.Minutes, x.Minutes), s.lesser(a, b)) < 0
}

func (s *search) keep(l loss) {
	s.best, s.bestLoss = s.lateJobs(), l
}

// lateJobs are those that are late, the lesser ids first.
func (s *search) lateJobs() []int {
	var jobs []int
	for _, job := range s.can {
		if s.late[job] {
			jobs = append(jobs, job)
		}
	}
	return jobs
}

// branch tries, for the first deadline that is missed, each job that can make up for it: one
// of these has to be late. Those that were tried are not late any more on what follows, so
// that no set is tried twice.
func (s *search) branch(l loss) {
	if s.left <= 0 {
		return
	}
	s.left -= len(s.can)
	tasks := s.tightened(everyJob, func(job int) bool { return s.late[job] })
	due, missed := firstMissed(tasks)
	if !missed {
		if c := l.compare(s.bestLoss); c < 0 || c == 0 && s.lesserIDs() {
			s.keep(l)
		}
		return
	}
	// kept are jobs that are not late in this branch: those tried before.
	var kept []int
	for _, job := range s.candidates(tasks, due) {
		if next := l.with(s.Jobs[job]); next.compare(s.bestLoss) <= 0 {
			s.late[job] = true
			s.branch(next)
			s.late[job] = false
		}
		kept = append(kept, job)
		s.may[job] = false
	}
	for _, job := range kept {
		s.may[job] = true
	}
}

// candidates are the jobs one of which has to be late where a deadline is missed, the
// cheapest first: those whose dues press what is too much work together.
func (s *search) candidates(tasks []task, due int) []int {
	release := crowded(tasks, due)
	var jobs []int
	for _, t := range tasks {
		if t.release >= release && t.due <= due && s.may[t.by] && !s.late[t.by] {
			jobs = append(jobs, t.by)
		}
	}
	slices.SortFunc(jobs, func(a, b int) int {
		switch {
		case a == b:
			return 0
		case s.cheaper(a, b):
			return -1
		}
		return 1
	})
	return slices.Compact(jobs)
}

// lesserIDs tells whether the late jobs have lesser ids than the best ones.
func (s *search) lesserIDs() bool {
	return slices.CompareFunc(s.lateJobs(), s.best, s.lesser) < 0
}
