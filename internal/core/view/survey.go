package view

import (
	"slices"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
)

// Brim is how many to-dos fill a cup while to-dos carry no estimate.
const Brim = 8

// RailCup is one cup of the rail with what weighs on it.
type RailCup struct {
	Horizon day.Horizon
	Count   int
}

// Load is work in minutes, and how much of it is assumed.
type Load struct{ Minutes, Assumed int }

// Loads is the load of each kind of hours.
type Loads plan.Kinds[Load]

// Survey is the counts that stand round every view.
type Survey struct {
	Today day.Date
	// Rail is today, the next six days, this week, next week, this month with the twelve
	// after it and those after them up to the last that something is planned for, and
	// parked, in that order.
	Rail []RailCup
	// Loads are the work that lies on each day, week and month, and parked. That of today is
	// what Today holds but for what can be started.
	Loads map[day.Horizon]Loads
	// Counts holds the badge of each view: the Cup counts what is to sort.
	Counts map[Name]int
	// Lists, Tags and People count the open to-dos of each; a tag's count
	// leaves out what is nested under it.
	Lists, Tags, People map[book.ID]int
	// Views counts what the person's own views hold that are counted.
	Views map[book.ID]int
	// Handful is how many are picked for today.
	Handful int
	// unkept are views that a Tally does not count.
	unkept []saved
}

// Complete adds the counts of views that ask what stands in notes. It may take long, and
// leaves them out where notes cannot be read.
func (s *Survey) Complete(b *book.Desk, c day.Clock) {
	for _, v := range s.unkept {
		if held, err := v.definition.Holds(b, c); err == nil {
			s.Views[v.id] = len(held)
		}
	}
}

// days is how many day cups stand at the head of the rail.
const days = 7

// onRail returns the index of a cup on the rail, or -1.
func (s *Survey) onRail(h day.Horizon) int {
	if h.Precision() == day.Day {
		if n := h.First().Sub(s.Today); n >= 0 && n < days {
			return n
		}
		return -1
	}
	for i := days; i < len(s.Rail); i++ {
		if s.Rail[i].Horizon == h {
			return i
		}
	}
	return -1
}

// monthsAhead is how many months stand on the rail beside the current one, planned for
// or not; mostMonths is how many there are at most.
const (
	monthsAhead = 12
	mostMonths  = 120
)

func rail(today day.Date) []RailCup {
	var cups []RailCup
	for i := range days {
		cups = append(cups, RailCup{Horizon: day.OnDay(today.AddDays(i))})
	}
	cups = append(cups, RailCup{Horizon: day.InWeek(today)}, RailCup{Horizon: day.InWeek(today.AddDays(7))})
	month := today.MonthStart()
	for i := range monthsAhead + 1 {
		cups = append(cups, RailCup{Horizon: day.InMonth(month.AddMonths(i))})
	}
	return append(cups, RailCup{Horizon: day.SomeTime()})
}

// goOn lets the months of the rail go on up to the last that something is planned for.
func (s *Survey) goOn(later map[day.Horizon]int) {
	last := day.Date{}
	for h := range later {
		if h.First().After(last) {
			last = h.First()
		}
	}
	end := len(s.Rail) - 1 // parked
	month := s.Today.MonthStart()
	for i := monthsAhead + 1; i <= mostMonths && !month.AddMonths(i).After(last); i++ {
		h := day.InMonth(month.AddMonths(i))
		s.Rail = slices.Insert(s.Rail, end, RailCup{Horizon: h, Count: later[h]})
		end++
	}
}

// NextChange returns the next instant after Now at which an answer changes
// though the Book does not: the start of tomorrow, or the moment after a due
// time of an open to-do.
func NextChange(b *book.Desk, c day.Clock) time.Time {
	next := c.StartOf(c.Today().AddDays(1))
	for _, t := range b.Open() {
		next = Sooner(c, t, next)
	}
	return next
}

// Sooner returns when the to-do's due time passes, where that is after Now and
// before next; else next.
func Sooner(c day.Clock, t *book.Todo, next time.Time) time.Time {
	if !t.Open() || !t.Due.HasTime() || t.Due.Date.Sub(day.DateOf(c.Now.In(c.Zone))) > 2 {
		return next
	}
	// A due time has passed once the clock is beyond it.
	if passes := c.Instant(t.Due).Add(time.Millisecond); passes.After(c.Now) && passes.Before(next) {
		return passes
	}
	return next
}
