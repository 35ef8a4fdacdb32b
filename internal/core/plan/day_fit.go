package plan

import (
	"cmp"
	"slices"
)

// FitOf looks at work that is due by the end of today: what the clock leaves no time for, and what
// does not fit into its hours before it is due, the heaviest first. Overdue work is neither.
// load and assumed are the minutes of all that lies on today, left the hours that are left of it.
func (p *Problem) FitOf(g Gathered, load, assumed, left int) DayFit {
	fit := DayFit{Kind: p.Kind, Work: load, Assumed: assumed, Left: left}
	late := map[int]bool{}
	for job, j := range p.Jobs {
		if !j.Due.IsZero() && !p.tasks[job].overdue && p.clockUntil(j.Due) < j.Minutes {
			late[job] = true
		}
	}
	heaviest := func(jobs []int) []int {
		slices.SortStableFunc(jobs, func(a, b int) int {
			return cmp.Or(cmp.Compare(p.Jobs[b].Weight, p.Jobs[a].Weight), p.lesser(a, b))
		})
		return jobs
	}
	var lateJobs, outside []int
	for job := range late {
		lateJobs = append(lateJobs, job)
	}
	for _, job := range p.Give().Late {
		if !late[job] && !p.tasks[job].overdue {
			outside = append(outside, job)
		}
	}
	for _, job := range heaviest(lateJobs) {
		fit.Late = append(fit.Late, g.Todos[job].Title)
	}
	for _, job := range heaviest(outside) {
		fit.Outside = append(fit.Outside, g.Todos[job].Title)
	}
	most := 0
	for _, job := range outside {
		most += p.Jobs[job].Minutes
	}
	fit.Beyond = min(p.beyond(func(job int) bool { return !late[job] }), most)
	return fit
}

// beyond is how many minutes of some jobs cannot be done in the hours before they are due,
// however one works. Working on the earliest due first, and on nothing that is past its due,
// does the most that can be done (F. Glover, Maximum matching in a convex bipartite graph, 1967,
// each minute being a place for one).
func (p *Problem) beyond(in func(job int) bool) int {
	undone := 0
	tasks := p.tightened(in, nil)
	slices.SortFunc(tasks, func(a, b task) int { return cmp.Compare(a.release, b.release) })
	var q queue
	for now, next := 0, 0; next < len(tasks) || len(q) > 0; {
		if len(q) == 0 {
			now = max(now, tasks[next].release)
		}
		for next < len(tasks) && tasks[next].release <= now {
			if tasks[next].due != never {
				q.push(tasks[next])
			}
			next++
		}
		if len(q) == 0 {
			continue
		}
		t := &q[0]
		run := max(min(t.minutes, t.due-now), 0)
		if next < len(tasks) {
			run = min(run, tasks[next].release-now)
		}
		now += run
		if t.minutes -= run; t.minutes == 0 || now >= t.due {
			undone += t.minutes
			q.pop()
		}
	}
	return undone
}
