package plan

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// Work is the minutes that a to-do adds by itself.
type Work struct {
	Minutes int
	// Assumed: it has no estimate, and is taken to be as long as one without is.
	Assumed bool
}

// WorkOf is what an open to-do adds by itself: one without open subtasks its estimate, or
// the assumed one; any other what its own estimate is above the work of these. Who waits
// for someone has no work with it.
func WorkOf(b *book.Desk, t *book.Todo, assumed int) Work {
	if t.Person.Role == term.WaitingOn {
		return Work{}
	}
	below, has := workBelow(b, t, assumed)
	switch {
	case has:
		return Work{Minutes: max(int(t.Estimate)-below, 0)}
	case t.Estimate == 0:
		return Work{assumed, true}
	}
	return Work{Minutes: int(t.Estimate)}
}

// workBelow is the work of a to-do's open subtasks, and whether it has any.
func workBelow(b *book.Desk, t *book.Todo, assumed int) (minutes int, has bool) {
	for _, sub := range b.Subtasks(t.ID) {
		open := b.IsOpen(sub)
		if !open && !sub.Paused() { // what stands under a paused one goes on
			continue
		}
		below, some := workBelow(b, sub, assumed)
		minutes += below
		if has = has || open || some; open {
			minutes += WorkOf(b, sub, assumed).Minutes
		}
	}
	return minutes, has
}

// CupOf is the day, week or month, or parked, on which an open to-do lies: its own plan,
// else that of the nearest to-do above it that has one, else the day of its due; none where
// it has none of these. A plan that is past lies on today.
func CupOf(b *book.Desk, c day.Clock, t *book.Todo) day.Horizon {
	h := t.Plan
	for up := t; h.IsZero() && !up.Parent.IsZero(); {
		parent, err := b.Todo(up.Parent)
		if err != nil {
			break
		}
		up, h = parent, parent.Plan
	}
	if h.IsZero() && !t.Due.IsZero() {
		h = day.OnDay(c.DayOfMoment(t.Due))
	}
	if h = h.DayIn(c); h.Precision() == day.Day {
		h = day.OnDay(h.First())
	}
	if today := c.Today(); h.Past(today) {
		return day.OnDay(today)
	}
	return h
}

// HourAbove is the to-do above another in whose time of the day that is done: the nearest one
// that has a plan, where that is for a time of a day and the other has no plan of its own.
func HourAbove(b *book.Desk, t *book.Todo) (id book.ID) {
	for up := t; up.Plan.IsZero() && !up.Parent.IsZero(); {
		parent, err := b.Todo(up.Parent)
		if err != nil {
			return id
		}
		if _, slot := parent.Plan.Slot(); slot > 0 {
			return parent.ID
		}
		up = parent
	}
	return id
}

// DueOf is the earliest due of a to-do and of those above it.
func DueOf(b *book.Desk, c day.Clock, t *book.Todo) day.Moment {
	due := t.Due
	for up := t; !up.Parent.IsZero(); {
		parent, err := b.Todo(up.Parent)
		if err != nil {
			break
		}
		if up = parent; !up.Due.IsZero() && (due.IsZero() || c.Instant(up.Due).Before(c.Instant(due))) {
			due = up.Due
		}
	}
	return due
}

// Gathered is the work on a desk as jobs.
type Gathered struct {
	Jobs []Job
	// Todos are the to-dos of the jobs, each at the index of its job.
	Todos []*book.Todo
	// Busy is the time of slots from now on, which their work takes by itself.
	Busy []Stretch
}

// Gather makes a job of each open to-do that has work and a due or a plan, its own or one
// above it; with a day, of those alone that have a due up to it. What is planned for a time
// of day is done then: it takes its time, and is no job. One after another wait for each
// other.
func Gather(b *book.Desk, c day.Clock, assumed int, dueBy day.Date) Gathered {
	return gather(b, c, assumed, dueBy, day.MaxDate)
}

// GatherUntil is Gather for the days up to one: what is planned for one of them, or for a week
// that ends by then, and what is due by then and planned for no later time. Slots after it
// take no time of these days, and are no matter.
func GatherUntil(b *book.Desk, c day.Clock, assumed int, last day.Date) Gathered {
	return gather(b, c, assumed, day.Date{}, last)
}

// until tells whether work belongs to the days up to one.
func until(c day.Clock, cup day.Horizon, due day.Moment, last day.Date) bool {
	switch {
	case cup.IsZero() || cup.Precision() == day.Parked:
		return !due.IsZero() && !c.DayOfMoment(due).After(last)
	case cup.Precision() == day.Week: // a shown week may begin on Sunday: its Monday says which it is
		return !cup.First().After(last)
	}
	return !cup.Last().After(last)
}

func gather(b *book.Desk, c day.Clock, assumed int, dueBy, last day.Date) Gathered {
	var g Gathered
	later := func(t *book.Todo) bool {
		return (t.Due.IsZero() || t.Due.Date.Sub(last) > 1) && (t.Plan.IsZero() || t.Plan.First().After(last))
	}
	at := map[book.ID]int{}
	for _, t := range b.Open() {
		if t.Parent.IsZero() && (t.Due.IsZero() && (t.Plan.IsZero() || !dueBy.IsZero()) || !dueBy.IsZero() && t.Due.Date.After(dueBy.AddDays(1))) {
			continue // most end here
		}
		if t.Parent.IsZero() && later(t) {
			continue
		}
		due := DueOf(b, c, t)
		if !dueBy.IsZero() && (due.IsZero() || c.DayOfMoment(due).After(dueBy)) {
			continue
		}
		cup := CupOf(b, c, t)
		if last != day.MaxDate && !until(c, cup, due, last) {
			continue
		}
		work := WorkOf(b, t, assumed)
		if work.Minutes == 0 || cup.IsZero() && due.IsZero() || cup.Precision() == day.Parked && due.IsZero() {
			continue
		}
		if from, minutes := t.Plan.Slot(); minutes > 0 {
			start := MinuteOf(c.Instant(day.Moment{Date: t.Plan.First(), Time: from}))
			if s := (Stretch{start, start + Minute(minutes)}); s.To > MinuteOf(c.Now) {
				g.Busy = append(g.Busy, s)
				continue
			}
		}
		j := Job{ID: t.ID.String(), Minutes: work.Minutes, Release: day.Moment{Date: t.Start}, Due: due, Weight: WeightOf(t.Priority), Deep: t.Concentration == term.Deep}
		if cup.Precision() == day.Day && (!t.Plan.IsZero() || t.Due.IsZero()) {
			j.Day = cup.First()
		}
		at[t.ID] = len(g.Jobs)
		g.Jobs, g.Todos = append(g.Jobs, j), append(g.Todos, t)
	}
	g.chain(b, at)
	return g
}

// chain lets the jobs of each to-do that is done one after another wait for those of the
// subtask before them.
func (g *Gathered) chain(b *book.Desk, at map[book.ID]int) {
	done := map[book.ID]bool{}
	for _, t := range g.Todos {
		parent, err := b.Todo(t.Parent)
		if err != nil || !parent.InOrder || done[parent.ID] {
			continue
		}
		done[parent.ID] = true
		var before []int
		for _, sub := range b.Subtasks(parent.ID) {
			if !b.IsOpen(sub) {
				continue
			}
			jobs := jobsUnder(b, sub, at)
			for _, job := range jobs {
				g.Jobs[job].After = append(g.Jobs[job].After, before...)
			}
			if len(jobs) > 0 {
				before = jobs
			}
		}
	}
}

// jobsUnder are the jobs of a to-do and of all that stands under it.
func jobsUnder(b *book.Desk, t *book.Todo, at map[book.ID]int) (jobs []int) {
	if job, is := at[t.ID]; is {
		jobs = append(jobs, job)
	}
	for _, sub := range b.Subtasks(t.ID) {
		jobs = append(jobs, jobsUnder(b, sub, at)...)
	}
	return jobs
}
