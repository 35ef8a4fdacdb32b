package app

import (
	"cmp"
	"maps"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/term"
)

// ShownWeek is a week as a person plans it.
type ShownWeek struct {
	First, Last day.Date
	// Kinds is what takes hours of each kind; Aside what takes none, by its day.
	Kinds plan.Kinds[plan.Week]
	Aside map[day.Date][]plan.Lying
	// Loose is what is planned for the week and for none of its days.
	Loose []plan.Lying
	// Says whether it holds, in some sentences; Relief helps where it does not, and is
	// zero where nothing does.
	Says   string
	Relief plan.Relief
	// Worked is the hours of each of its days in minutes, by kind, of those that are over too.
	Worked plan.Kinds[[7]int]
	// Done are the to-dos that were completed on each of its days.
	Done map[day.Date][]*book.Todo
	// Late: not all that is due by the end of the week fits into its hours.
	Late bool
	// Clashes are times of day that something else takes too, by to-do.
	Clashes map[book.ID]plan.Clash
	// Usual are the working hours of each day's weekday; Apart tells which days have others.
	Usual [7]day.Hours
	Apart [7]bool
}

// ShownWeek is the week that holds a day, or that of today where there is none, for one who
// reads the desk.
func (a *Session) ShownWeek(desk *book.Desk, c day.Clock, of day.Date) ShownWeek {
	if of.IsZero() {
		of = c.Today()
	}
	kept := a.capacity(desk, c)
	first := a.weekStart(desk, of)
	w := ShownWeek{First: first, Last: first.AddDays(6), Done: doneIn(desk, c, first), Aside: map[day.Date][]plan.Lying{}, Clashes: map[book.ID]plan.Clash{}}
	lying := a.counts.lying(desk, c, func(h day.Horizon) bool {
		return !h.First().IsZero() && !h.First().After(w.Last) && !h.Last().Before(first)
	})
	slices.SortFunc(lying, plan.InTurn)
	var said []string
	for kind, k := range kept.hours {
		week := plan.NewWeek(k, first, lying)
		w.Kinds[kind] = week
		w.Loose = append(w.Loose, week.Loose...)
		due, late := a.dueWords(desk, c, k.Kind, w.Last)
		said = append(said, week.Words(due))
		w.Late = w.Late || late
		if relief, ok := week.Relief(); ok && w.Relief.Todo == nil {
			w.Relief = relief
		}
		hours := plan.CalendarOf(kept.settings, k.Kind)
		for i := range w.Worked[kind] {
			w.Worked[kind][i] = hours.On(first.AddDays(i)).Minutes()
		}
	}
	w.setAside(lying)
	working := plan.CalendarOf(kept.settings, term.WorkingHours)
	for i := range w.Usual {
		on := first.AddDays(i)
		w.Usual[i] = working.Week[on.Weekday()]
		_, w.Apart[i] = working.Dates[on]
	}
	clashes := kept.clashes(lying)
	for _, clash := range clashes {
		w.Clashes[clash.Todo.ID] = clash
	}
	said = append(said, plan.ClashWords(clashes, c.Zone))
	w.Says = strings.Join(slices.DeleteFunc(said, func(s string) bool { return s == "" }), " ")
	return w
}

// setAside keeps what takes no hours.
func (w *ShownWeek) setAside(lying []plan.Lying) {
	for _, l := range lying {
		switch {
		case l.Hours != term.NoHours:
		case l.On.Precision() == day.Day:
			w.Aside[l.On.First()] = append(w.Aside[l.On.First()], l)
		case l.On.Precision() == day.Week && !l.On.First().Before(w.First):
			w.Loose = append(w.Loose, l)
		}
	}
}

// clashes are the times of what lies on days that something else takes too, whichever hours it
// takes.
func (k *keptCapacity) clashes(lying []plan.Lying) (all []plan.Clash) {
	byDay := map[day.Date][]plan.Lying{}
	for _, l := range lying {
		if l.On.Precision() == day.Day {
			byDay[l.On.First()] = append(byDay[l.On.First()], l)
		}
	}
	for _, on := range slices.SortedFunc(maps.Keys(byDay), day.Date.Compare) {
		all = append(all, k.hours[term.WorkingHours].Clashes(byDay[on], k.agenda)...)
	}
	return all
}

// dueWords says what is due up to a day and does not fit into its hours, and whether there is
// any.
func (a *Session) dueWords(desk *book.Desk, c day.Clock, kind term.Hours, last day.Date) (words string, late bool) {
	p, g, err := a.weekProblem(desk, c, kind, last)
	if err != nil {
		return "", false
	}
	verdict := p.Feasible()
	return verdict.DueWords(p, func(job int) string { return g.Todos[job].Title }), !verdict.Feasible
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

// weekProblem is the work of one kind that is due or planned up to a day, with the hours until
// then.
func (a *Session) weekProblem(desk *book.Desk, c day.Clock, kind term.Hours, last day.Date) (*plan.Problem, plan.Gathered, error) {
	chosen := a.inForce(desk.Account()).settings
	g := plan.GatherUntil(desk, c, kind, chosen.AssumedMinutes(), last)
	p, err := a.problem(desk, c, kind, g, max(last.Sub(c.Today())+1, 1))
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
	proved = true
	for kind := range term.Kinds {
		some, best, err := a.giveOf(desk, c, term.Hours(kind), last)
		if err != nil {
			return nil, false, err
		}
		give, proved = append(give, some...), proved && best
	}
	slices.SortStableFunc(give, func(a, b ToGive) int { return b.Minutes - a.Minutes })
	return give, proved, nil
}

// giveOf is GiveInWeek for what takes hours of one kind, up to a day.
func (a *Session) giveOf(desk *book.Desk, c day.Clock, kind term.Hours, last day.Date) (give []ToGive, proved bool, err error) {
	p, g, err := a.weekProblem(desk, c, kind, last)
	if err != nil {
		return nil, false, err
	}
	given := p.Give()
	wide, after, err := a.weekProblem(desk, c, kind, last.AddDays(laterDays))
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
	return give, given.Proved, nil
}

// LayHours proposes times of day for what lies on a day and has none, for one who reads the
// desk.
func (a *Session) LayHours(desk *book.Desk, c day.Clock, of day.Date) ([]plan.Hour, []plan.Lying) {
	if of.IsZero() {
		of = c.Today()
	}
	on := day.OnDay(of)
	lying := a.counts.lying(desk, c, func(h day.Horizon) bool { return h == on })
	var hours []plan.Hour
	var without []plan.Lying
	for _, k := range a.capacity(desk, c).hours {
		w := plan.NewWeek(k, of, lying)
		if len(w.Days) == 0 || w.Days[0].Date != of {
			return nil, nil // it is past, or further ahead than is reckoned
		}
		laid, none := plan.LayHours(desk, k, &w.Days[0])
		hours, without = append(hours, laid...), append(without, none...)
	}
	slices.SortFunc(hours, func(a, b plan.Hour) int { return cmp.Compare(a.At.From, b.At.From) })
	return hours, without
}

// LevelWeek proposes days for the work of a shown week that has none, or that lies on a day which
// holds more than it can, of each kind of hours apart; stays tells of which kinds nothing would
// move. For one who reads the desk.
func (a *Session) LevelWeek(desk *book.Desk, c day.Clock, of day.Date) (levels plan.Kinds[plan.Levelled], gathered plan.Kinds[plan.Gathered], stays plan.Kinds[bool], err error) {
	if of.IsZero() {
		of = c.Today()
	}
	for kind := range levels {
		p, g, err := a.weekProblem(desk, c, term.Hours(kind), a.weekStart(desk, of).AddDays(6))
		if err != nil {
			return levels, gathered, stays, err
		}
		// A to-do that is high, in today's handful or has a time of the day stays where it is planned.
		p.Release(func(job int) bool {
			t := g.Todos[job]
			return t.Priority == book.High || t.Handful == c.Today()
		})
		levels[kind], gathered[kind] = p.Level(), g
		stays[kind] = p.Stays(levels[kind])
	}
	return levels, gathered, stays, nil
}
