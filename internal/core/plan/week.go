package plan

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// Lying is the work of an open to-do where it lies: on a day, a week or a month.
type Lying struct {
	Todo *book.Todo
	On   day.Horizon
	Work Work
	// Due is the earliest due of itself and those above it.
	Due day.Moment
	// Hours are those that it takes.
	Hours term.Hours
	// Within is the to-do above it in whose time of the day it is done; none for most.
	Within book.ID
}

// WeekDay is one day of a week as it is planned.
type WeekDay struct {
	*Day
	// Worked is its hours in minutes, over or not, and with what events take; Over how
	// much of them is over.
	Worked, Over int
	// Lying is what lies on it, in the order in which it is worked on.
	Lying []Lying
	// Load is the work of that in minutes, and Assumed the part of it that has no estimate.
	Load, Assumed int
}

// Week is seven days in a row, with what takes hours of one kind.
type Week struct {
	First day.Date
	// Days are those of the week that the capacity knows: from today on.
	Days []WeekDay
	// Loose is what is planned for the week and for none of its days.
	Loose []Lying

	clock day.Clock
	kind  term.Hours
}

// On returns a day of the week; nil for one that is past or lies outside of it.
func (w *Week) On(d day.Date) *WeekDay {
	for i := range w.Days {
		if w.Days[i].Date == d {
			return &w.Days[i]
		}
	}
	return nil
}

// WeekStart is the first day of the shown week that holds a day.
func WeekStart(of day.Date, sundayFirst bool) day.Date {
	back := (int(of.Weekday()) + 6) % 7
	if sundayFirst {
		back = int(of.Weekday())
	}
	return of.AddDays(-back)
}

// NewWeek lays out the week that begins on a day, of what takes hours of the capacity's kind.
// Its work may be given in any order.
func NewWeek(k *Capacity, first day.Date, lying []Lying) Week {
	w := Week{First: first, clock: k.Clock, kind: k.Kind}
	at := map[day.Date]int{}
	for i := range 7 {
		d := k.Day(first.AddDays(i))
		if d == nil {
			continue
		}
		on := WeekDay{Day: d}
		for _, s := range d.Hours {
			on.Worked += s.Minutes()
			on.Over += s.within(Stretch{s.From, k.now}).Minutes()
		}
		at[d.Date] = len(w.Days)
		w.Days = append(w.Days, on)
	}
	last := first.AddDays(6)
	for _, l := range lying {
		if l.Hours != k.Kind {
			continue
		}
		switch l.On.Precision() {
		case day.Day:
			if i, in := at[l.On.First()]; in {
				w.Days[i].Lying = append(w.Days[i].Lying, l)
				if w.Days[i].Load += l.Work.Minutes; l.Work.Assumed {
					w.Days[i].Assumed += l.Work.Minutes
				}
			}
		case day.Week:
			// A week that begins on Sunday holds the plans of the ISO week that its Monday is in.
			if monday := l.On.First(); !monday.Before(first) && !monday.After(last) {
				w.Loose = append(w.Loose, l)
			}
		}
	}
	for i := range w.Days {
		slices.SortStableFunc(w.Days[i].Lying, InTurn)
	}
	slices.SortStableFunc(w.Loose, InTurn)
	return w
}

// InTurn is the order in which one works on what lies on a day: by its time of the day, then
// by due, priority and position.
func InTurn(a, b Lying) int {
	x, _ := a.Todo.Plan.Slot()
	y, _ := b.Todo.Plan.Slot()
	switch {
	case x.IsZero() != y.IsZero():
		if y.IsZero() {
			return -1
		}
		return 1
	case x != y:
		return x.Minutes() - y.Minutes()
	case a.Todo.Due != b.Todo.Due:
		return int(a.Todo.Due.Ordinal() - b.Todo.Due.Ordinal())
	case a.Todo.Priority != b.Todo.Priority:
		return int(b.Todo.Priority) - int(a.Todo.Priority)
	}
	return book.ComparePositions(a.Todo, b.Todo)
}

// over is by how many minutes a day holds more than it can; 0 where it has no work time, as
// what lies on it then is outside of its hours.
func (d *WeekDay) over() int {
	if d.Worked == 0 {
		return 0
	}
	return max(d.Load-d.Minutes, 0)
}

// outside tells whether work lies on a day without hours.
func (w *Week) outside() bool {
	return slices.ContainsFunc(w.Days, func(d WeekDay) bool { return d.Worked == 0 && d.Load > 0 })
}

// Relief is a move that helps a day which holds too much.
type Relief struct {
	Lying
	To day.Date
}

// Relief finds, for the first day that holds too much, a to-do that may move to another day
// of the week which has room for it, without its due or one above it being missed: the
// shortest that is enough, else the longest there is. What has a time of the day stays, and so does what is
// high.
func (w *Week) Relief() (r Relief, ok bool) {
	for i := range w.Days {
		over := w.Days[i].over()
		if over == 0 {
			continue
		}
		for _, l := range w.Days[i].Lying {
			if _, slot := l.Todo.Plan.Slot(); slot > 0 || !l.Within.IsZero() || l.Work.Minutes == 0 || l.Todo.Priority == book.High {
				continue
			}
			better := !ok || l.Work.Minutes >= over && (r.Work.Minutes < over || l.Work.Minutes < r.Work.Minutes) ||
				r.Work.Minutes < over && l.Work.Minutes > r.Work.Minutes
			if to, fits := w.roomFor(i, l); fits && better {
				r, ok = Relief{l, to}, true
			}
		}
		if ok {
			return r, true
		}
	}
	return r, false
}

// roomFor finds a day of the week beside one that has room for work which lies on it: after
// it, else before.
func (w *Week) roomFor(from int, l Lying) (to day.Date, ok bool) {
	order := make([]int, 0, len(w.Days))
	for i := from + 1; i < len(w.Days); i++ {
		order = append(order, i)
	}
	for i := from - 1; i >= 0; i-- {
		order = append(order, i)
	}
	for _, i := range order {
		d := &w.Days[i]
		late := !l.Due.IsZero() && d.Date.After(w.clock.DayOfMoment(l.Due))
		early := !l.Todo.Start.IsZero() && d.Date.Before(l.Todo.Start)
		if !late && !early && d.Load+l.Work.Minutes <= d.Minutes {
			return d.Date, true
		}
	}
	return to, false
}

// Words says in a sentence or three whether the week holds: which days hold too much and what
// would help, and what is due by when that cannot all be done. due says the latter, from
// Problem.Feasible; "" is nothing. Of own hours nothing is said where nothing lies in them.
func (w *Week) Words(due string) string {
	var over []string
	load, free := 0, 0
	own := ""
	if w.kind != term.WorkingHours {
		own = kindWords[w.kind]
	}
	for i := range w.Days {
		d := &w.Days[i]
		if d.Worked == 0 && d.Load > 0 {
			due = strings.TrimSuffix(fmt.Sprintf("%s on %s lie outside of %s. %s", Hours(d.Load), d.Date.Weekday(), cmp.Or(own, "hours"), due), " ")
			continue
		}
		load, free = load+d.Load, free+d.Minutes
		if n := d.over(); n > 0 {
			over = append(over, fmt.Sprintf("%s holds %s more than %s can", d.Date.Weekday(), Hours(n), cmp.Or(strings.Replace(own, "own", "its own", 1), "it")))
		}
	}
	switch {
	case own != "" && (len(w.Days) == 0 || len(over) == 0 && load == 0):
		return due
	case len(w.Days) == 0:
		return "This week is over."
	case len(over) == 0 && load == 0 && w.outside():
		return due
	case len(over) == 0 && load == 0:
		return sentence("Nothing lies on a day of this week yet", due)
	case len(over) == 0 && own != "":
		return sentence("In "+own+": "+Hours(load)+" of work, "+Hours(free)+" of hours", due)
	case len(over) == 0:
		return sentence("Every day holds what lies on it: "+Hours(load)+" of work, "+Hours(free)+" of hours", due)
	}
	said := over[0]
	switch others := over[1:]; len(others) {
	case 0:
	case 1:
		said += " and " + others[0]
	default:
		said += fmt.Sprintf(", and so do %d other days", len(others))
	}
	if r, ok := w.Relief(); ok {
		said += ". Moving “" + r.Todo.Title + "” to " + r.To.Weekday().String() + " keeps every due"
	}
	return sentence(said, due)
}

func sentence(said, more string) string {
	if more != "" {
		return said + ". " + more
	}
	return said + "."
}

// DueWords says which work is due by when that cannot all be done; "" where all can.
func (v Verdict) DueWords(p *Problem, title func(job int) string) string {
	if v.Feasible {
		return ""
	}
	by := v.FirstMissed.Time().In(p.Clock.Zone)
	names := make([]string, len(v.Because))
	for i, job := range v.Because {
		names[i] = title(job)
	}
	return fmt.Sprintf("By %s %s more is due than your %s hold: %s.", by.Format("Monday 15:04"), Hours(v.LateBy), kindWords[p.Kind], titles(names))
}
