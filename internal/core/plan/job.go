package plan

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// Job is a piece of work.
type Job struct {
	// ID names it; where all else is alike, the lesser comes first.
	ID string
	// Minutes of work, 1 to MaxMinutes.
	Minutes int
	// Release is when it can be begun, the zero Moment being now; a date is its beginning.
	Release day.Moment
	// Due is when it must be done; a date is the end of that day's working hours.
	Due day.Moment
	// Weight is what is lost where its due is not met: 1, 2, 4 or 8 for no, low, medium and
	// high priority.
	Weight int
	// Day is the one it is planned for; none where it is for no day.
	Day day.Date
	// Was is the day it was planned for before it was released; none for most.
	Was day.Date
	// After are the indices of the jobs that have to be done before it.
	After []int
	// Deep work goes into peak hours first.
	Deep bool
}

// Bounds of a problem.
const (
	MaxMinutes = 100_000
	MaxJobs    = 5_000
)

// JobError says which part of a job is wrong.
type JobError struct{ ID, Field, Reason string }

func (e *JobError) Error() string { return fmt.Sprintf("%s: %s: %s", e.ID, e.Field, e.Reason) }

// never is the deadline of a job that has none within the days looked at.
const never = math.MaxInt

// task is a job in minutes of work time from now: it can be begun at release, and has to be
// done at due.
type task struct {
	job          int
	minutes      int
	release, due int
	// by is the job whose due it is: its own, or that of one that waits for it.
	by      int
	overdue bool
}

// Problem is jobs and the work time that there is for them.
type Problem struct {
	*Capacity
	Jobs []Job
	// tasks are the jobs, each at its index, without what follows from chains.
	tasks []task
	// due and release are moments; due is noDeadline for none.
	due, release []Minute
	order        []int // indices of the jobs, each behind those it waits for
	turn         []int // where each job stands in order
	chained      bool
}

// NewProblem checks the jobs. The error is a *JobError.
func NewProblem(k *Capacity, jobs []Job) (*Problem, error) {
	p := &Problem{Capacity: k, Jobs: jobs, tasks: make([]task, len(jobs)), due: make([]Minute, len(jobs)), release: make([]Minute, len(jobs))}
	seen := make(map[string]bool, len(jobs))
	for i, j := range jobs {
		switch {
		case seen[j.ID]:
			return nil, &JobError{j.ID, "id", "two jobs have it; each needs one of its own"}
		case j.Minutes < 1 || j.Minutes > MaxMinutes:
			return nil, &JobError{j.ID, "minutes", fmt.Sprintf("%d minutes; 1 to %d is wanted", j.Minutes, MaxMinutes)}
		}
		seen[j.ID] = true
		p.measure(i)
		p.chained = p.chained || len(j.After) > 0
	}
	if !p.chained {
		return p, nil
	}
	var err error
	if p.order, err = p.inOrder(); err != nil {
		return nil, err
	}
	p.turn = make([]int, len(jobs))
	for at, job := range p.order {
		p.turn[job] = at
	}
	return p, nil
}

// measure finds when a job can be begun and has to be done.
func (p *Problem) measure(i int) {
	j, t := &p.Jobs[i], &p.tasks[i]
	*t = task{job: i, by: i, minutes: j.Minutes, due: never}
	p.release[i] = p.now
	if !j.Release.IsZero() {
		at := p.Clock.StartOf(j.Release.Date)
		if j.Release.HasTime() {
			at = p.Clock.Instant(j.Release)
		}
		p.release[i] = max(p.now, MinuteOf(at))
	}
	t.release = p.Until(p.release[i])
	if p.due[i], t.overdue = p.dueOf(j.Due); p.due[i] <= p.End() {
		t.due = p.Until(p.due[i])
	}
}

// inOrder puts every job behind those it waits for, or names one that waits for itself.
func (p *Problem) inOrder() ([]int, error) {
	const (
		waiting = iota + 1
		placed
	)
	state, order := make([]uint8, len(p.Jobs)), make([]int, 0, len(p.Jobs))
	type frame struct{ job, next int }
	for root := range p.Jobs {
		for stack := []frame{{root, 0}}; len(stack) > 0; {
			f := &stack[len(stack)-1]
			if f.next == 0 && state[f.job] != 0 { // met before
				if state[f.job] == waiting {
					return nil, &JobError{p.Jobs[f.job].ID, "after", "it waits for itself: take one link out of the circle"}
				}
				stack = stack[:len(stack)-1]
				continue
			}
			state[f.job] = waiting
			if f.next < len(p.Jobs[f.job].After) {
				to := p.Jobs[f.job].After[f.next]
				if to < 0 || to >= len(p.Jobs) {
					return nil, &JobError{p.Jobs[f.job].ID, "after", "it waits for a job that is not there"}
				}
				f.next++
				if state[to] == waiting {
					return nil, &JobError{p.Jobs[to].ID, "after", "it waits for itself: take one link out of the circle"}
				}
				stack = append(stack, frame{to, 0})
				continue
			}
			state[f.job] = placed
			order = append(order, f.job)
			stack = stack[:len(stack)-1]
		}
	}
	return order, nil
}

// tightened are the tasks of some jobs, by their indices, as chains among these make them:
// none can be begun before what it waits for can be done, nor end so late that what waits
// for it cannot. Without chains they are the tasks themselves.
func (p *Problem) tightened(in func(job int) bool, freed func(job int) bool) []task {
	out := make([]task, 0, len(p.tasks))
	var at []int // the index of each in out, and 1 more; 0 for none
	if p.chained {
		at = make([]int, len(p.tasks))
	}
	each := func(i int) {
		if !in(i) {
			return
		}
		t := p.tasks[i]
		if freed != nil && freed(i) {
			t.due = never
		}
		out = append(out, t)
		if p.chained {
			at[i] = len(out)
		}
	}
	if !p.chained {
		for i := range p.tasks {
			each(i)
		}
		return out
	}
	for _, i := range p.order {
		each(i)
	}
	p.tighten(out, func(job int) int { return at[job] - 1 })
	return out
}

// tighten makes tasks, each behind those it waits for, as their chains want them; at is
// where a job stands among them, -1 where it does not.
func (p *Problem) tighten(tasks []task, at func(job int) int) {
	for n := range tasks {
		for _, before := range p.Jobs[tasks[n].job].After {
			if b := at(before); b >= 0 {
				tasks[n].release = max(tasks[n].release, tasks[b].release+tasks[b].minutes)
			}
		}
	}
	for _, t := range slices.Backward(tasks) { // a due that was made earlier goes on
		if t.due == never {
			continue
		}
		for _, before := range p.Jobs[t.job].After {
			if b := at(before); b >= 0 && t.due-t.minutes < tasks[b].due {
				tasks[b].due, tasks[b].by = t.due-t.minutes, t.by
			}
		}
	}
}

func everyJob(int) bool { return true }

// lesser orders jobs that are alike otherwise.
func (p *Problem) lesser(a, b int) int { return cmp.Compare(p.Jobs[a].ID, p.Jobs[b].ID) }

// IDs are those of jobs by their indices; never nil.
func (p *Problem) IDs(jobs []int) []string {
	ids := make([]string, len(jobs))
	for i, job := range jobs {
		ids[i] = p.Jobs[job].ID
	}
	return ids
}

// Overdue are the indices of the jobs whose due is past, by their ids.
func (p *Problem) Overdue() []int {
	var jobs []int
	for i, t := range p.tasks {
		if t.overdue {
			jobs = append(jobs, i)
		}
	}
	slices.SortFunc(jobs, p.lesser)
	return jobs
}

// WeightOf is what is lost where the due of a to-do of a priority is not met.
func WeightOf(p term.Priority) int { return 1 << p }
