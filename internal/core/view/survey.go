package view

import (
	"slices"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// Brim is how many to-dos fill a cup while to-dos carry no estimate.
const Brim = 8

// RailCup is one cup of the rail with what weighs on it.
type RailCup struct {
	Horizon day.Horizon
	Count   int
}

// Survey is the counts that stand round every view.
type Survey struct {
	Today day.Date
	// Rail is today, the next six days, this week, next week, this month with the twelve
	// after it and those after them up to the last that something is planned for, and
	// parked, in that order.
	Rail []RailCup
	// Counts holds the badge of each view: the Cup counts what is to sort.
	Counts map[Name]int
	// Lists, Tags and People count the open to-dos of each; a tag's count
	// leaves out what is nested under it.
	Lists, Tags, People map[book.ID]int
	// Views counts what the person's own views hold that are counted.
	Views map[book.ID]int
	// Handful is how many are picked for today.
	Handful int
}

// Take counts everything in one pass over the open to-dos.
func Take(b *book.Desk, c day.Clock) *Survey {
	now := at(c)
	s := &Survey{Today: now.today, Rail: rail(now.today), Counts: map[Name]int{},
		Lists: map[book.ID]int{}, Tags: map[book.ID]int{}, People: map[book.ID]int{}}
	week := now.today.AddDays(7)
	later := map[day.Horizon]int{} // months that stand behind those of the rail
	var toSort, today, overdue, within, waiting, projects, ready int
	isReady := now.readyNow(b, openParents(b))
	for _, t := range b.Open() {
		for _, tag := range t.Tags {
			s.Tags[tag]++
		}
		if t.Person.Role != book.NoRole {
			s.People[t.Person.ID]++
			if t.Person.Role == book.WaitingOn {
				waiting++
			}
		}
		if _, ok := isReady(t); ok {
			ready++
		}
		if b.HasSubtasks(t.ID) {
			projects++
		}
		if t.Handful == now.today {
			s.Handful++
		}
		if t.List.IsZero() {
			if key, _ := now.cup(t); key.kind == ToSort {
				toSort++
			}
		} else {
			s.Lists[t.List]++
		}
		if h, _ := now.load(t); !h.IsZero() {
			if i := s.place(h); i >= 0 {
				s.Rail[i].Count++
			} else if h.Precision() == day.Month && h.Later(now.today) {
				later[h]++
			}
		}
		if key, ok := now.inToday(t); ok {
			today++
			if key.kind == Late || key.kind == Handful && now.overdue(t) {
				overdue++
			}
		}
		if !t.Due.IsZero() && !now.DayOfMoment(t.Due).After(week) {
			within++
		}
	}
	s.goOn(later)
	s.Views = OwnCounts(b, c)
	s.Counts[Cup], s.Counts[Today], s.Counts[Overdue], s.Counts[WithinAWeek] = toSort, today, overdue, within
	s.Counts[Bin], s.Counts[Waiting], s.Counts[Projects], s.Counts[Ready] = len(b.Bin()), waiting, projects, ready
	return s
}

// OwnCounts counts what the views hold whose count is shown.
func OwnCounts(b *book.Desk, c day.Clock) map[book.ID]int {
	counts := map[book.ID]int{}
	for _, v := range b.Views() {
		if !v.Counted {
			continue
		}
		d, err := ParseDefinition([]byte(v.Question))
		if err != nil {
			continue
		}
		if held, err := d.Holds(b, c); err == nil {
			counts[v.ID] = len(held)
		}
	}
	return counts
}

// days is how many day cups stand at the head of the rail.
const days = 7

// place returns where on the rail a cup stands, or -1.
func (s *Survey) place(h day.Horizon) int {
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
