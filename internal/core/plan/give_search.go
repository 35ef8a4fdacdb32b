package plan

import (
	"cmp"
	"slices"
)

// search looks for what has to give among jobs with later starts and chains.
type search struct {
	*Problem
	can  []int // jobs that may be late, the lesser ids first
	late map[int]bool
	left int // effort

	best     []int
	bestLoss loss
	found    bool
}

// holds tells whether all can be done but for the dues of the late ones.
func (s *search) holds() bool {
	s.left -= len(s.tasks)
	_, missed := firstMissed(s.tightened(everyJob, func(job int) bool { return s.late[job] }))
	return !missed
}

func (s *search) run() Given {
	s.late = map[int]bool{}
	s.descend()
	s.late = map[int]bool{}
	s.branch(loss{})
	best := slices.Clone(s.best)
	slices.SortFunc(best, s.lesser)
	return Given{best, s.left > 0}
}

// descend finds an answer to begin with: of what competes for the first deadline that is
// missed the least loss gives, over and over, and what turns out not to be needed is taken
// back, the dearest first.
func (s *search) descend() {
	for {
		tasks := s.tightened(everyJob, func(job int) bool { return s.late[job] })
		due, missed := firstMissed(tasks)
		if !missed {
			break
		}
		release, _ := crowded(tasks, due)
		pick := -1
		for _, t := range tasks {
			if s.late[t.job] || !slices.Contains(s.can, t.job) || t.due > due || t.release < release && !s.chained {
				continue
			}
			if pick < 0 || s.cheaper(t.job, pick) {
				pick = t.job
			}
		}
		if pick < 0 { // a chain pulls another job's deadline forward
			for _, job := range s.can {
				if !s.late[job] && (pick < 0 || s.cheaper(job, pick)) {
					pick = job
				}
			}
		}
		s.late[pick] = true
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
		delete(s.late, job)
		if !s.holds() {
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
	s.best, s.bestLoss, s.found = nil, l, true
	for job := range s.late {
		s.best = append(s.best, job)
	}
	slices.SortFunc(s.best, s.lesser)
}

// branch tries, for the first deadline that is missed, each job that can make up for it:
// one of those due by then has to be late, or, where there are chains, one of any.
// Sets are tried in such an order that none is tried twice.
func (s *search) branch(l loss) {
	if s.left <= 0 {
		return
	}
	s.left -= len(s.tasks)
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
			delete(s.late, job)
		}
		kept = append(kept, job)
		s.fix(job)
	}
	for _, job := range kept {
		s.free(job)
	}
}

// candidates are the jobs one of which has to be late where a deadline is missed.
func (s *search) candidates(tasks []task, due int) []int {
	release, _ := crowded(tasks, due)
	var jobs []int
	for _, t := range tasks {
		if s.late[t.job] || !slices.Contains(s.can, t.job) {
			continue
		}
		if s.chained || t.release >= release && t.due <= due {
			jobs = append(jobs, t.job)
		}
	}
	slices.SortFunc(jobs, func(a, b int) int {
		switch {
		case s.cheaper(a, b):
			return -1
		case s.cheaper(b, a):
			return 1
		}
		return 0
	})
	return jobs
}

// fix takes a job out of those that may be late, and free puts it back.
func (s *search) fix(job int) {
	s.can = slices.DeleteFunc(slices.Clone(s.can), func(j int) bool { return j == job })
}

func (s *search) free(job int) {
	s.can = append(slices.Clone(s.can), job)
	slices.SortFunc(s.can, s.lesser)
}

// lesserIDs tells whether the late jobs have lesser ids than the best ones.
func (s *search) lesserIDs() bool {
	now := make([]int, 0, len(s.late))
	for job := range s.late {
		now = append(now, job)
	}
	slices.SortFunc(now, s.lesser)
	return slices.CompareFunc(now, s.best, s.lesser) < 0
}
