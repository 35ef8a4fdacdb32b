package view

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
)

// moment is a Clock with its day worked out once.
type moment struct {
	day.Clock
	today  day.Date
	doable *filter.Matcher // what could be done, of what is open and not paused
}

func at(c day.Clock) moment { return moment{c, c.Today(), canDoFilter.Matcher(nil, c, nil)} }

// canDo: it can be done right now, as far as it alone tells.
func (n moment) canDo(t *book.Todo) bool {
	return t.Open() && !t.Paused() && n.doable.Holds()(t)
}

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

// Upcoming shows the days up to upcomingDays after today one by one, then ISO weeks up
// to the day upcomingWeeks after today, and months on demand.
const (
	upcomingDays  = 14
	upcomingWeeks = 56
)

// comingHead is the head under which a row of Upcoming stands; plans for the current week
// and month stand first.
func (n moment) comingHead(t *book.Todo) groupKey {
	h := n.coming(t)
	switch {
	case h.Later(n.today):
		return n.head(h)
	case h.Precision() == day.Week:
		return groupKey{rank: 0, kind: ThisWeek, horizon: h}
	}
	return groupKey{rank: 1, kind: ThisMonth, horizon: h}
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

// coming is where a row of Upcoming stands: its plan for the current week or month, its
// first plan or due day after today, or its start where it has neither.
func (n moment) coming(t *book.Todo) day.Horizon {
	plan, due := n.plan(t), n.DayOfMoment(t.Due)
	coarse := plan.Precision() == day.Week || plan.Precision() == day.Month
	switch {
	case coarse && plan.Current(n.today):
		return plan
	case plan.Later(n.today) && (!due.After(n.today) || !due.Before(plan.First())):
		if coarse {
			return plan
		}
		return day.OnDay(plan.First())
	case due.After(n.today):
		return day.OnDay(due)
	}
	return day.OnDay(t.Start)
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
