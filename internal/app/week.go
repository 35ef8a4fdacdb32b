package app

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
)

// ShownWeek is a week as a person plans it.
type ShownWeek struct {
	plan.Week
	// Last is its seventh day.
	Last day.Date
	// Says whether it holds, in a sentence or three; Relief helps where it does not, and is
	// zero where nothing does.
	Says   string
	Relief plan.Relief
	// Worked is the working hours of each of its days in minutes, of those that are over too.
	Worked [7]int
	// Done are the to-dos that were completed on each of its days.
	Done map[day.Date][]*book.Todo
}

// ShownWeek is the week that holds a day, or that of today where there is none, for one who
// reads the desk.
func (a *Session) ShownWeek(desk *book.Desk, c day.Clock, of day.Date) ShownWeek {
	if of.IsZero() {
		of = c.Today()
	}
	k := a.Capacity(desk, c)
	first := a.weekStart(desk, of)
	w := ShownWeek{Last: first.AddDays(6)}
	w.Week = plan.NewWeek(k, first, a.counts.lying(desk, c, func(h day.Horizon) bool {
		return !h.First().IsZero() && !h.First().After(w.Last) && !h.Last().Before(first)
	}))
	w.Done = doneIn(desk, c, first)
	hours := plan.CalendarOf(a.inForce(desk.Account()).settings)
	for i := range w.Worked {
		on := hours.On(first.AddDays(i))
		w.Worked[i] = on.Minutes()
	}
	due := ""
	if p, g, err := a.weekProblem(desk, c, w.Last); err == nil {
		due = p.Feasible().DueWords(p, func(job int) string { return g.Todos[job].Title })
	}
	w.Says = w.Words(due)
	w.Relief, _ = w.Week.Relief()
	return w
}

// weekStart is the first day of the shown week that holds a day.
func (a *Session) weekStart(desk *book.Desk, of day.Date) day.Date {
	return plan.WeekStart(of, a.inForce(desk.Account()).settings.SundayFirst)
}

// doneIn are the to-dos that were completed on each day of a week, the latest first.
func doneIn(desk *book.Desk, c day.Clock, first day.Date) map[day.Date][]*book.Todo {
	from, to := day.TimestampOf(c.StartOf(first)), day.TimestampOf(c.StartOf(first.AddDays(7)))
	done := map[day.Date][]*book.Todo{}
	for _, t := range desk.Closed() {
		if t.Completed >= from && t.Completed < to && t.Status == book.Completed && t.Deleted.IsZero() && t.Parent.IsZero() {
			on := c.DayOf(t.Completed.Time())
			done[on] = append(done[on], t)
		}
	}
	return done
}

// weekProblem is the work that is due or planned up to a day, with the hours until then.
func (a *Session) weekProblem(desk *book.Desk, c day.Clock, last day.Date) (*plan.Problem, plan.Gathered, error) {
	kept := a.capacity(desk, c)
	chosen := a.inForce(desk.Account()).settings
	g := plan.GatherUntil(desk, c, chosen.AssumedMinutes(), last)
	days := max(last.Sub(c.Today())+1, 1)
	p, err := plan.NewProblem(plan.NewCapacity(c, plan.CalendarOf(chosen), append(g.Busy, kept.busy()...), days), g.Jobs)
	return p, g, err
}

// LevelWeek proposes days for the work of a shown week that has none, for one who reads the
// desk.
func (a *Session) LevelWeek(desk *book.Desk, c day.Clock, of day.Date) (plan.Levelled, plan.Gathered, error) {
	if of.IsZero() {
		of = c.Today()
	}
	p, g, err := a.weekProblem(desk, c, a.weekStart(desk, of).AddDays(6))
	if err != nil {
		return plan.Levelled{}, g, err
	}
	return p.Level(), g, nil
}
