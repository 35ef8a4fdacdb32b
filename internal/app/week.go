package app

import (
	"cmp"
	"slices"
	"strings"

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
	// Late: not all that is due by the end of the week can be done by then.
	Late bool
	// Clashes are times of day that something else takes too, by to-do.
	Clashes map[book.ID]plan.Clash
	// Usual are the hours of each day's weekday; Own tells which days have others.
	Usual [7]day.Hours
	Own   [7]bool
}

// ShownWeek is the week that holds a day, or that of today where there is none, for one who
// reads the desk.
func (a *Session) ShownWeek(desk *book.Desk, c day.Clock, of day.Date) ShownWeek {
	if of.IsZero() {
		of = c.Today()
	}
	kept := a.capacity(desk, c)
	k := kept.Capacity
	first := a.weekStart(desk, of)
	w := ShownWeek{Last: first.AddDays(6)}
	w.Week = plan.NewWeek(k, first, a.counts.lying(desk, c, func(h day.Horizon) bool {
		return !h.First().IsZero() && !h.First().After(w.Last) && !h.Last().Before(first)
	}))
	w.Done = doneIn(desk, c, first)
	hours := plan.CalendarOf(a.inForce(desk.Account()).settings)
	for i := range w.Worked {
		on := first.AddDays(i)
		w.Worked[i], w.Usual[i] = hours.On(on).Minutes(), hours.Week[on.Weekday()]
		_, w.Own[i] = hours.Dates[on]
	}
	w.Clashes = map[book.ID]plan.Clash{}
	var clashes []plan.Clash
	for i := range w.Days {
		for _, clash := range k.Clashes(&w.Days[i], kept.agenda) {
			clashes = append(clashes, clash)
			w.Clashes[clash.Todo.ID] = clash
		}
	}
	due := ""
	if p, g, err := a.weekProblem(desk, c, w.Last); err == nil {
		verdict := p.Feasible()
		w.Late = !verdict.Feasible
		due = verdict.DueWords(p, func(job int) string { return g.Todos[job].Title })
	}
	w.Says = strings.TrimSuffix(w.Words(due)+" "+plan.ClashWords(clashes, c.Zone), " ")
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
	for _, of := range done {
		slices.SortFunc(of, func(a, b *book.Todo) int {
			return cmp.Or(cmp.Compare(b.Completed, a.Completed), a.ID.Compare(b.ID))
		})
	}
	return done
}

// weekProblem is the work that is due or planned up to a day, with the hours until then.
func (a *Session) weekProblem(desk *book.Desk, c day.Clock, last day.Date) (*plan.Problem, plan.Gathered, error) {
	kept := a.capacity(desk, c)
	chosen := a.inForce(desk.Account()).settings
	g := plan.GatherUntil(desk, c, chosen.AssumedMinutes(), last)
	days := max(last.Sub(c.Today())+1, 1)
	p, err := plan.NewProblem(plan.NewCapacity(c, plan.CalendarOf(chosen), append(g.Busy, kept.agenda.Busy()...), days), g.Jobs)
	return p, g, err
}

// laterDays is for how many days after a week another due is looked for.
const laterDays = 28

// ToGive is a to-do whose due has to give.
type ToGive struct {
	Todo    *book.Todo
	Minutes int
	// Due is its own, or that of a to-do above it which is earlier.
	Due day.Moment
	// Later is the first date that it could be due on instead; none where none is near, or
	// where its due is not its own.
	Later day.Date
}

// GiveInWeek finds whose dues cost least to let go of where not all that is due up to the end
// of a week can be done, the most work first; proved tells whether nothing costs less. For one
// who reads the desk.
func (a *Session) GiveInWeek(desk *book.Desk, c day.Clock, of day.Date) (give []ToGive, proved bool, err error) {
	if of.IsZero() {
		of = c.Today()
	}
	last := a.weekStart(desk, of).AddDays(6)
	p, g, err := a.weekProblem(desk, c, last)
	if err != nil {
		return nil, false, err
	}
	given := p.Give()
	wide, after, err := a.weekProblem(desk, c, last.AddDays(laterDays))
	if err != nil {
		return nil, false, err
	}
	at := map[book.ID]int{}
	for job, t := range after.Todos {
		at[t.ID] = job
	}
	// What is later and has to give too is in nobody's way.
	var late []int
	in := map[int]bool{}
	for _, job := range given.Late {
		if there, known := at[g.Todos[job].ID]; known {
			late = append(late, there)
			in[there] = true
		}
	}
	weeks := len(late)
	for _, job := range wide.Give().Late {
		if !in[job] {
			late = append(late, job)
		}
	}
	later, err := wide.Later(late, weeks)
	if err != nil {
		return nil, false, err
	}
	for _, job := range given.Late {
		t := g.Todos[job]
		one := ToGive{Todo: t, Minutes: g.Jobs[job].Minutes, Due: g.Jobs[job].Due}
		if there, known := at[t.ID]; known && one.Due == t.Due {
			one.Later = later[there]
		}
		give = append(give, one)
	}
	slices.SortStableFunc(give, func(a, b ToGive) int { return b.Minutes - a.Minutes })
	return give, given.Proved, nil
}

// LayHours proposes times of day for what lies on a day and has none, for one who reads the
// desk.
func (a *Session) LayHours(desk *book.Desk, c day.Clock, of day.Date) ([]plan.Hour, []plan.Lying) {
	if of.IsZero() {
		of = c.Today()
	}
	k := a.Capacity(desk, c)
	on := day.OnDay(of)
	w := plan.NewWeek(k, of, a.counts.lying(desk, c, func(h day.Horizon) bool { return h == on }))
	if len(w.Days) == 0 || w.Days[0].Date != of {
		return nil, nil // it is past, or further ahead than is reckoned
	}
	return plan.LayHours(desk, k, &w.Days[0])
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
