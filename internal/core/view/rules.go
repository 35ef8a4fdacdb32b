package view

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// moment is a Clock with its day worked out once.
type moment struct {
	day.Clock
	today day.Date
}

func at(c day.Clock) moment { return moment{c, c.Today()} }

// plan is the to-do's plan, a slot before DayStart on the day before.
func (n moment) plan(t *book.Todo) day.Horizon { return t.Plan.DayIn(n.Clock) }

// overdue: the due day is past, or its time is.
func (n moment) overdue(t *book.Todo) bool {
	if t.Due.IsZero() {
		return false
	}
	if d := n.DayOfMoment(t.Due); d != n.today {
		return d.Before(n.today)
	}
	return t.Due.HasTime() && n.Passed(t.Due)
}

// ready: it can be done right now, as far as it alone tells: not waiting, not
// parked, not planned for later and not before its start.
func (n moment) ready(t *book.Todo) bool {
	return t.Open() && !t.Paused() && n.readyIfOpen(t)
}

// readyIfOpen is ready for what is known to be open and not paused.
func (n moment) readyIfOpen(t *book.Todo) bool {
	return n.startable(t) && t.Person.Role != book.WaitingOn && (t.Plan.IsZero() || n.unplanned(t))
}

// unplanned: no plan keeps it for later, nor is it parked.
func (n moment) unplanned(t *book.Todo) bool {
	plan := n.plan(t)
	return !plan.Later(n.today) && plan.Precision() != day.Parked
}

// startable: nothing about its start keeps it out of the way.
func (n moment) startable(t *book.Todo) bool { return !t.Start.After(n.today) }

func (n moment) cup(t *book.Todo) (groupKey, bool) {
	switch {
	case !t.List.IsZero():
		return groupKey{}, false
	case !t.Start.IsZero() || !t.Due.IsZero() || !t.Plan.IsZero() || t.Paused():
		return groupKey{rank: 1, kind: LaidBy}, true
	case t.IsNote || t.Person.Role == book.WaitingOn || t.Person.Role == book.Ask:
		return groupKey{rank: 2, kind: PeopleAndNotes}, true
	}
	return groupKey{rank: 0, kind: ToSort}, true
}

func (n moment) inOverdue(t *book.Todo) (groupKey, bool) {
	return groupKey{kind: Late}, n.overdue(t)
}

// inToday: the first group that matches wins.
func (n moment) inToday(t *book.Todo) (groupKey, bool) {
	if t.Handful == n.today {
		return groupKey{rank: -1, kind: Handful}, true
	}
	if t.Start.IsZero() && t.Due.IsZero() && t.Plan.IsZero() {
		return groupKey{}, false
	}
	plan := n.plan(t)
	switch {
	case n.overdue(t):
		return groupKey{rank: 0, kind: Late}, true
	case !t.Due.IsZero() && n.DayOfMoment(t.Due) == n.today:
		return groupKey{rank: 1, kind: DueToday}, true
	case !n.startable(t):
		return groupKey{}, false
	case !plan.First().IsZero() && plan.Last() == n.today:
		return groupKey{rank: 2, kind: PlannedToday}, true
	case plan.Past(n.today):
		return groupKey{rank: 3, kind: CarriedOver}, true
	case !t.Start.IsZero() && !plan.Later(n.today) && plan.Precision() != day.Parked:
		return groupKey{rank: 4, kind: CanStart}, true
	}
	return groupKey{}, false
}

// Upcoming shows the days up to upcomingDays after today one by one, then ISO weeks up
// to the day upcomingWeeks after today, and months on demand.
const (
	upcomingDays  = 14
	upcomingWeeks = 56
)

// upcoming places each to-do once, at its first plan or due day after today;
// plans for the current week and month stand first.
func (n moment) upcoming(months int, beyond *int) func(*book.Todo) (groupKey, bool) {
	end := n.today.AddDays(upcomingWeeks)
	if months > 0 {
		end = end.AddDays(1).MonthStart().AddMonths(months).AddDays(-1)
	}
	return func(t *book.Todo) (groupKey, bool) {
		h, ok := n.coming(t)
		if !ok {
			return groupKey{}, false
		}
		switch {
		case !h.Later(n.today): // the current week or month
			if h.Precision() == day.Week {
				return groupKey{rank: 0, kind: ThisWeek, horizon: h}, true
			}
			return groupKey{rank: 1, kind: ThisMonth, horizon: h}, true
		case h.First().After(end):
			*beyond++
			return groupKey{}, false
		}
		return n.head(h), true
	}
}

// head is the head under which a day, week or month to come stands in Upcoming. A week
// that goes on where single days end stands behind them, a month likewise behind weeks.
func (n moment) head(h day.Horizon) groupKey {
	days, weeks := n.today.AddDays(upcomingDays), n.today.AddDays(upcomingWeeks)
	switch {
	case h.First().After(weeks):
		h = day.InMonth(h.First())
	case h.Precision() == day.Day && h.First().After(days):
		h = day.InWeek(h.First())
	}
	switch {
	case h.Precision() == day.Day:
		return n.onDay(h.First())
	case h.Precision() == day.Week:
		return groupKey{rank: rank(n.today, behind(h, days), day.Week), kind: InWeek, horizon: h}
	}
	return groupKey{rank: rank(n.today, behind(h, weeks), day.Month), kind: InMonth, horizon: h}
}

// behind is the first day of a stretch, or the day after last where it goes on after it.
func behind(h day.Horizon, last day.Date) day.Date {
	if h.Last().After(last) {
		return maxDate(h.First(), last.AddDays(1))
	}
	return h.First()
}

// onDay is the head of a day to come.
func (n moment) onDay(d day.Date) groupKey {
	return groupKey{rank: rank(n.today, d, day.Day), kind: OnDay, horizon: day.OnDay(d)}
}

// rank orders heads by their first day, the longer stretch before the shorter.
func rank(today, first day.Date, p day.Precision) int32 {
	return int32(first.Sub(today))*4 + int32(day.Month-p) + 2
}

func maxDate(a, b day.Date) day.Date {
	if a.After(b) {
		return a
	}
	return b
}

// coming returns where the to-do stands in what is to come.
func (n moment) coming(t *book.Todo) (day.Horizon, bool) {
	plan := n.plan(t)
	if p := plan.Precision(); (p == day.Week || p == day.Month) && plan.Current(n.today) {
		return plan, true
	}
	due := n.DayOfMoment(t.Due)
	switch {
	case plan.Later(n.today) && (!due.After(n.today) || !due.Before(plan.First())):
		if plan.Precision() == day.Day {
			return day.OnDay(plan.First()), true
		}
		return plan, true
	case due.After(n.today):
		return day.OnDay(due), true
	case t.Plan.IsZero() && t.Due.IsZero() && t.Start.After(n.today):
		return day.OnDay(t.Start), true
	}
	return day.Horizon{}, false
}

func (n moment) withinAWeek(t *book.Todo) (groupKey, bool) {
	if t.Due.IsZero() {
		return groupKey{}, false
	}
	if n.overdue(t) {
		return groupKey{kind: Late}, true
	}
	due := n.DayOfMoment(t.Due)
	if due.Sub(n.today) > 7 {
		return groupKey{}, false
	}
	return groupKey{rank: 1 + int32(due.Sub(n.today)), kind: OnDay, horizon: day.OnDay(due)}, true
}

func everything(*book.Todo) (groupKey, bool) { return groupKey{kind: All}, true }

// onRail is what stands in one cup of the rail, and for a day also what is due
// on it though it is planned for another time.
func (n moment) onRail(cup day.Horizon) func(*book.Todo) (groupKey, bool) {
	return func(t *book.Todo) (groupKey, bool) {
		switch h, due := n.load(t); {
		case h == cup && !due:
			return groupKey{rank: 0, kind: Planned}, true
		case h == cup:
			return groupKey{rank: 1, kind: DueThen}, true
		case cup.Precision() == day.Day && !t.Due.IsZero() && n.DayOfMoment(t.Due) == cup.First():
			return groupKey{rank: 2, kind: DueElsewhere}, true
		}
		return groupKey{}, false
	}
}

// load returns the cup a to-do weighs on: its plan at its own precision, or,
// with no plan, the day it is due. none when it weighs on no cup.
func (n moment) load(t *book.Todo) (cup day.Horizon, byDue bool) {
	if t.Plan.IsZero() {
		return day.OnDay(n.DayOfMoment(t.Due)), true
	}
	if t.Plan.Precision() == day.Day {
		return day.OnDay(n.plan(t).First()), false
	}
	return t.Plan, false
}
