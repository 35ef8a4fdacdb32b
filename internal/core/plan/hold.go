package plan

import (
	"cmp"
	"slices"

	"tincup/internal/core/day"
)

// Hold says whether the plan holds as it is: each job bound to the day it is planned for.
type Hold struct {
	Holds bool
	// Over is by how many minutes each day that holds more than it can does so.
	Over map[day.Date]int
	// PastDue are the indices of the jobs whose planned day cannot keep their due: it comes
	// after it, or the time of the due is too early on it. What is overdue is not among them.
	PastDue []int
	// Load is how much work lies on each day of the capacity: on the day a job is planned
	// for, else on its due day. What is planned for a day that is past, or overdue and
	// planned for none, lies on today.
	Load map[day.Date]int
}

// DayOf is the day a job lies on; none where it is planned for no day and has no due.
func (p *Problem) DayOf(job int) day.Date {
	j, today := p.Jobs[job], p.Days[0].Date
	on := j.Day
	if on.IsZero() && !j.Due.IsZero() {
		on = p.Clock.DayOfMoment(j.Due)
	}
	if !on.IsZero() && on.Before(today) {
		return today
	}
	return on
}

// Hold tells whether the plan holds.
func (p *Problem) Hold() Hold {
	h := Hold{Over: map[day.Date]int{}, Load: map[day.Date]int{}}
	for i := range p.Days {
		h.Load[p.Days[i].Date] = 0
	}
	bound := map[day.Date][]int{}
	for i, j := range p.Jobs {
		on := p.DayOf(i)
		if p.Day(on) == nil || on.IsZero() {
			if !j.Day.IsZero() && !on.IsZero() && p.plannedPast(i, on) {
				h.PastDue = append(h.PastDue, i)
			}
			continue
		}
		h.Load[on] += j.Minutes
		if !j.Day.IsZero() {
			bound[on] = append(bound[on], i)
		}
	}
	for i := range p.Days {
		d := &p.Days[i]
		if over := h.Load[d.Date] - d.Minutes; over > 0 {
			h.Over[d.Date] = over
		}
		h.PastDue = append(h.PastDue, p.tooEarly(d, bound[d.Date])...)
	}
	slices.SortFunc(h.PastDue, p.lesser)
	h.Holds = len(h.Over) == 0 && len(h.PastDue) == 0
	return h
}

// plannedPast tells whether a job is planned for a day after its due.
func (p *Problem) plannedPast(job int, on day.Date) bool {
	j := p.Jobs[job]
	return !j.Due.IsZero() && !p.tasks[job].overdue && on.After(p.Clock.DayOfMoment(j.Due))
}

// tooEarly are those of the jobs on a day whose dues it cannot keep: they come before it,
// or at a time of it by which not all can be done that is due by then.
func (p *Problem) tooEarly(d *Day, jobs []int) []int {
	var out, timed []int
	for _, job := range jobs {
		switch {
		case p.plannedPast(job, d.Date):
			out = append(out, job)
		case p.Jobs[job].Due.HasTime() && !p.tasks[job].overdue && p.tasks[job].due < d.before+d.Minutes:
			timed = append(timed, job)
		}
	}
	for len(timed) > 0 {
		tasks := p.onDay(d, timed, false)
		due, missed := firstMissed(tasks)
		if !missed {
			return out
		}
		// Of those that cannot all be done, the last by due and id is late.
		at := -1
		for n, t := range tasks {
			if t.due == due && (at < 0 || p.lesser(t.job, tasks[at].job) > 0) {
				at = n
			}
		}
		out = append(out, tasks[at].job)
		timed = slices.DeleteFunc(timed, func(job int) bool { return job == tasks[at].job })
	}
	return out
}

// onDay are tasks of jobs that are to be done within one day, in minutes of its own. Where
// the day may be over full, only dues at a time of it count.
func (p *Problem) onDay(d *Day, jobs []int, overFull bool) []task {
	own := func(t task) task {
		t.release = min(max(t.release-d.before, 0), d.Minutes)
		if t.due == never || t.overdue {
			t.due = d.before + d.Minutes
		}
		if t.due = min(max(t.due-d.before, 0), d.Minutes); overFull && t.due == d.Minutes {
			t.due = never
		}
		return t
	}
	tasks := make([]task, len(jobs))
	for i, job := range jobs {
		tasks[i] = own(p.tasks[job])
	}
	if !p.chained {
		return tasks
	}
	slices.SortFunc(tasks, func(a, b task) int { return cmp.Compare(p.turn[a.job], p.turn[b.job]) })
	at := make(map[int]int, len(tasks))
	for i, t := range tasks {
		at[t.job] = i
	}
	p.tighten(tasks, func(job int) int {
		if i, there := at[job]; there {
			return i
		}
		return -1
	})
	return tasks
}
