package plan_test

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/settings"
	"tincup/internal/core/term"
)

// kindWeek is a week of to-dos on three shelves, each of which takes other hours, with events.
type kindWeek struct {
	*desk
	chosen settings.Settings
	busy   []plan.Stretch
	todos  []*book.Todo
	// read are the hours of each kind and date, once they were read.
	read map[kindDate]day.Hours
}

type kindDate struct {
	kind term.Hours
	date day.Date
}

// The days of these weeks, from Tuesday to Sunday.
const kindDays = 6

var hoursToChoose = []string{"none", "09:00-12:00", "18:00-21:00", "08:00-20:00", "10:00-11:30, 16:00-22:00", "00:00-24:00"}

func randomKindWeek(t *testing.T, seed uint64) *kindWeek {
	r := rand.New(rand.NewPCG(seed, 7))
	w := &kindWeek{desk: newDesk(t), read: map[kindDate]day.Hours{}}
	w.clock.Now = w.clock.Now.Add(time.Duration(r.IntN(14*60)) * time.Minute)
	var lists [3]book.ID
	for kind := range lists {
		shelf := w.do(book.AddShelf{Name: fmt.Sprint("shelf ", kind)}).Shelves[0].After.ID
		hours := term.Hours(kind)
		if hours != term.WorkingHours { // as it is
			w.do(book.EditShelf{ID: shelf, Hours: &hours})
		}
		lists[kind] = w.do(book.AddList{Shelf: shelf, Name: fmt.Sprint("list ", kind)}).Lists[0].After.ID
	}
	for d := range 7 {
		if r.IntN(2) == 0 {
			w.chosen.Hours[d] = hoursToChoose[r.IntN(len(hoursToChoose))]
		}
		if r.IntN(2) == 0 {
			w.chosen.OwnHours[d] = hoursToChoose[r.IntN(len(hoursToChoose))]
		}
	}
	if r.IntN(3) == 0 {
		w.chosen.OwnHoursOn = "2026-11-26 07:00-10:00"
	}
	for range r.IntN(4) {
		from := plan.MinuteOf(w.clock.Now) + plan.Minute(r.IntN(kindDays*1440))
		w.busy = append(w.busy, plan.Stretch{From: from, To: from + plan.Minute(15+r.IntN(300))})
	}
	date := func() day.Date { return w.clock.Today().AddDays(r.IntN(kindDays)) }
	for range 2 + r.IntN(8) {
		c := book.Capture{Title: "x", Estimate: 15 * (1 + r.IntN(20)), Priority: book.Priority(r.IntN(4))}
		if n := r.IntN(4); n < 3 {
			c.List = lists[n]
		}
		switch r.IntN(5) {
		case 0:
			c.Due = day.Moment{Date: date(), Time: day.MustMoment("2026-11-24T16:00").Time}
		case 1, 2:
			c.Due = day.Moment{Date: date()}
		}
		switch r.IntN(5) {
		case 0:
			c.Plan = day.OnDay(date())
		case 1:
			at, _ := day.NewTimeOfDay(r.IntN(24), 0)
			c.Plan, _ = day.OnDay(date()).WithSlot(at, 30+r.IntN(120))
		}
		w.todos = append(w.todos, w.todo(w.do(c).Todo().ID))
	}
	return w
}

// free tells of each minute of the week whether work of a kind may be done in it: read off the
// wall, minute by minute.
func (w *kindWeek) free(kind term.Hours) (free []bool, first plan.Minute) {
	first = plan.MinuteOf(w.clock.StartOf(w.clock.Today()))
	taken := append([]plan.Stretch(nil), w.busy...)
	for _, t := range w.todos {
		if s, has := plan.SlotOf(w.clock, t); has {
			taken = append(taken, s)
		}
	}
	of := func(kind term.Hours, wall time.Time) bool {
		return w.in(kind, day.DateOf(wall), wall.Hour()*60+wall.Minute())
	}
	for m := range plan.Minute(kindDays * 1440) {
		at := first + m
		in := of(kind, at.Time()) && (kind == term.WorkingHours || !of(term.WorkingHours, at.Time())) && at >= plan.MinuteOf(w.clock.Now)
		for _, s := range taken {
			in = in && (at < s.From || at >= s.To)
		}
		free = append(free, in)
	}
	return free, first
}

func (w *kindWeek) hours(kind term.Hours, d day.Date) day.Hours {
	at := kindDate{kind, d}
	if _, known := w.read[at]; !known {
		if w.read[at] = w.chosen.HoursOf(kind, d.Weekday()); len(w.chosen.HoursOfDates(kind)[d]) > 0 {
			w.read[at] = w.chosen.HoursOfDates(kind)[d]
		}
	}
	return w.read[at]
}

// in tells whether a minute of a date lies in its hours of a kind, working hours not taken out.
func (w *kindWeek) in(kind term.Hours, d day.Date, minute int) bool {
	for _, h := range w.hours(kind, d) {
		if minute >= h.From && minute < h.To {
			return true
		}
	}
	return false
}

// wanted is the work of a kind that has no time of its own to come: minutes by their deadline, as
// a minute of the week, with 0 for what has no due; overdue and late tell whether there is such.
func (w *kindWeek) wanted(kind term.Hours) (work map[int]int, load map[day.Date]int, overdue, late bool) {
	work, load = map[int]int{}, map[day.Date]int{}
	for _, t := range w.todos {
		s, has := plan.SlotOf(w.clock, t)
		if w.desk.desk.HoursOf(t) != kind || has && s.To > plan.MinuteOf(w.clock.Now) || t.Due.IsZero() && t.Plan.IsZero() {
			continue
		}
		minutes := int(t.Estimate)
		on := t.Plan.First()
		if t.Plan.IsZero() {
			on = t.Due.Date
		}
		load[on] += minutes
		if t.Due.IsZero() {
			continue
		}
		at := (t.Due.Date.Sub(w.clock.Today()) + 1) * 1440 // the end of its day, or of its hours
		left := at
		if t.Due.HasTime() {
			at -= 1440 - t.Due.Time.Minutes()
			left = at
		} else if hours := w.endOf(kind, t.Due.Date); hours > 0 {
			at -= 1440 - hours
		}
		passed := int(plan.MinuteOf(w.clock.Now) - plan.MinuteOf(w.clock.StartOf(w.clock.Today())))
		overdue = overdue || w.clock.Passed(t.Due)
		late = late || left-passed < minutes
		work[at] += minutes
	}
	return work, load, overdue, late
}

// endOf is when the hours of a kind end on a date, in minutes; 0 where it has none.
func (w *kindWeek) endOf(kind term.Hours, d day.Date) (end int) {
	for m := range 1440 {
		if w.in(kind, d, m) && (kind == term.WorkingHours || !w.in(term.WorkingHours, d, m)) {
			end = m + 1
		}
	}
	return end
}

// Each kind of hours is reckoned apart: what the days offer, what lies on them, whether the dues
// can be met, and how much does not fit, against counting every minute of the week.
func TestKindsOfHoursApart(t *testing.T) {
	seen := map[string]int{}
	for i := range *cases {
		w := randomKindWeek(t, uint64(i))
		for kind := range term.Hours(term.Kinds) {
			if err := w.check(kind, seen); err != nil {
				t.Fatalf("seed %d, %s hours: %v", i, kind, err)
			}
		}
		for _, todo := range w.todos {
			if s, ok := plan.SlackOf(plan.NewCapacity(w.clock, plan.CalendarOf(w.chosen, term.WorkingHours), nil, 30), w.desk.desk, todo, todo.Due, 0, 30); ok && w.desk.desk.HoursOf(todo) != term.WorkingHours {
				t.Fatalf("seed %d: what takes %s hours has %+v of working hours", i, w.desk.desk.HoursOf(todo), s)
			}
		}
	}
	if *cases >= 300 && (seen["holds"] == 0 || seen["does not"] == 0 || seen["beyond"] == 0) {
		t.Errorf("the weeks are too much alike: %v", seen)
	}
}

func (w *kindWeek) check(kind term.Hours, seen map[string]int) error {
	g := plan.Gather(w.desk.desk, w.clock, kind, 30, day.Date{})
	k := plan.NewCapacity(w.clock, plan.CalendarOf(w.chosen, kind), append(g.Busy, w.busy...), kindDays)
	p, err := plan.NewProblem(k, g.Jobs)
	if err != nil {
		return err
	}
	free, _ := w.free(kind)
	for i, d := range k.Days {
		n := 0
		for _, is := range free[i*1440 : (i+1)*1440] {
			if is {
				n++
			}
		}
		if n != d.Minutes {
			return fmt.Errorf("%s offers %d minutes, not %d", d.Date, n, d.Minutes)
		}
	}
	work, load, overdue, late := w.wanted(kind)
	hold := p.Hold()
	for _, d := range k.Days {
		if hold.Load[d.Date] != load[d.Date] {
			return fmt.Errorf("%s holds %d minutes, not %d", d.Date, load[d.Date], hold.Load[d.Date])
		}
	}
	if overdue { // what is overdue is due at the end of hours that are still to come
		return nil
	}
	// Everything can be begun now: what is due by a moment has to fit into the minutes before it.
	short, sum, room := 0, 0, 0
	for m := range len(free) + 1 {
		if sum += work[m]; m > 0 && free[m-1] {
			room++
		}
		short = max(short, sum-room)
	}
	if verdict := p.Feasible(); verdict.Feasible != (short == 0) {
		return fmt.Errorf("%d minutes are too much, and it says %+v", short, verdict)
	}
	if short == 0 {
		seen["holds"]++
		return nil
	}
	seen["does not"]++
	if fit := p.FitOf(g, 1, 0, 0); !late && fit.Beyond != short {
		return fmt.Errorf("%d minutes do not fit, not %d", short, fit.Beyond)
	} else if late != (len(fit.Late) > 0) {
		return fmt.Errorf("late by the clock: %t, and it names %q", late, fit.Late)
	} else if fit.Beyond > 0 {
		seen["beyond"]++
	}
	return nil
}
