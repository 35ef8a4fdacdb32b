package plan_test

import (
	"fmt"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
)

// lying is work on a day, or in a week.
func lying(title, on string, minutes int, change ...func(*book.Todo)) plan.Lying {
	t := &book.Todo{Title: title, Plan: day.MustHorizon(on)}
	for _, set := range change {
		set(t)
	}
	h := t.Plan
	if h.Precision() == day.Day {
		h = day.OnDay(h.First())
	}
	return plan.Lying{Todo: t, On: h, Work: plan.Work{Minutes: minutes}, Due: t.Due}
}

func due(on string) func(*book.Todo) { return func(t *book.Todo) { t.Due = day.MustMoment(on) } }
func high(t *book.Todo)              { t.Priority = book.High }
func from(on string) func(*book.Todo) {
	return func(t *book.Todo) { t.Start = day.MustDate(on) }
}

// under is work that is due with what it is under.
func under(l plan.Lying, due string) plan.Lying {
	l.Due = day.MustMoment(due)
	return l
}

func TestWeekStart(t *testing.T) {
	for _, c := range []struct {
		of     string
		sunday bool
		want   string
	}{{"2026-11-24", false, "2026-11-23"}, {"2026-11-29", false, "2026-11-23"}, {"2026-11-29", true, "2026-11-29"}, {"2026-11-28", true, "2026-11-22"}, {"2026-11-23", false, "2026-11-23"}} {
		if got := plan.WeekStart(day.MustDate(c.of), c.sunday); got != day.MustDate(c.want) {
			t.Errorf("the week of %s begins on %v, want %s", c.of, got, c.want)
		}
	}
}

// A week is Tuesday 24 to Sunday 29 November, with 440, 450, 450, 450, 120 and 60 minutes.
func TestWeekSays(t *testing.T) {
	c := lisbonClock(t, "2026-11-24T09:10", 0)
	k := plan.NewCapacity(c, plan.DefaultCalendar(), nil, 60)
	monday := day.MustDate("2026-11-23")
	for _, ex := range []struct {
		name  string
		lying []plan.Lying
		due   string
		want  string
	}{
		{"nothing", nil, "", "Nothing lies on a day of this week yet."},
		{"it holds", []plan.Lying{lying("a", "2026-11-25", 90), lying("b", "2026-W48", 600)}, "", "Every day holds what lies on it: 1 h 30 of work, 32 h 50 of hours."},
		{"one is too much", []plan.Lying{lying("a", "2026-11-25", 300), lying("b", "2026-11-25", 200)}, "", "Wednesday holds 50 min more than it can. Moving “b” to Thursday keeps every due."},
		{"the shortest that is enough moves", []plan.Lying{lying("a", "2026-11-25", 300), lying("b", "2026-11-25", 60), lying("c", "2026-11-25", 140)}, "", "Wednesday holds 50 min more than it can. Moving “b” to Thursday keeps every due."},
		{"what is due, high or at a time stays", []plan.Lying{lying("a", "2026-11-25", 300, high), lying("b", "2026-11-25", 100, due("2026-11-25"), from("2026-11-25")), lying("c", "2026-11-25T10:00/PT30M", 100)}, "", "Wednesday holds 50 min more than it can."},
		{"the due of what it is under counts", []plan.Lying{under(lying("a", "2026-11-25", 60), "2026-11-25"), lying("b", "2026-11-25", 440, high)}, "", "Wednesday holds 50 min more than it can. Moving “a” to Tuesday keeps every due."},
		{"the longest where none is enough", []plan.Lying{lying("a", "2026-11-25", 20), lying("b", "2026-11-25", 30), lying("c", "2026-11-25", 25), lying("d", "2026-11-25", 500, high)}, "", "Wednesday holds 2 h 05 more than it can. Moving “b” to Thursday keeps every due."},
		{"the first of the longest where none is enough", []plan.Lying{lying("a", "2026-11-25", 20), lying("b", "2026-11-25", 30), lying("c", "2026-11-25", 30), lying("d", "2026-11-25", 500, high)}, "", "Wednesday holds 2 h 10 more than it can. Moving “b” to Thursday keeps every due."},
		{"one that is just enough", []plan.Lying{lying("a", "2026-11-25", 50), lying("b", "2026-11-25", 60), lying("c", "2026-11-25", 390, high)}, "", "Wednesday holds 50 min more than it can. Moving “a” to Thursday keeps every due."},
		{"one that is just enough, behind another", []plan.Lying{lying("a", "2026-11-25", 60), lying("b", "2026-11-25", 50), lying("c", "2026-11-25", 390, high)}, "", "Wednesday holds 50 min more than it can. Moving “b” to Thursday keeps every due."},
		{"one that is enough behind one that is not", []plan.Lying{lying("a", "2026-11-25", 40), lying("b", "2026-11-25", 60), lying("c", "2026-11-25", 400, high)}, "", "Wednesday holds 50 min more than it can. Moving “b” to Thursday keeps every due."},
		{"the first of two that are enough", []plan.Lying{lying("a", "2026-11-25", 60), lying("b", "2026-11-25", 60), lying("c", "2026-11-25", 380, high)}, "", "Wednesday holds 50 min more than it can. Moving “a” to Thursday keeps every due."},
		{"to a day that it just fills", []plan.Lying{lying("a", "2026-11-26", 350, high), lying("b", "2026-11-25", 100), lying("c", "2026-11-25", 400, high)}, "", "Wednesday holds 50 min more than it can. Moving “b” to Thursday keeps every due."},
		{"three", []plan.Lying{lying("a", "2026-11-25", 500, high), lying("b", "2026-11-26", 460, high), lying("c", "2026-11-27", 460, high)}, "", "Wednesday holds 50 min more than it can, and so do 2 other days."},
		{"before where nothing after has room", []plan.Lying{lying("a", "2026-11-28", 150, due("2026-11-28")), lying("b", "2026-11-27", 400), lying("c", "2026-11-26", 400), lying("d", "2026-11-25", 400)}, "", "Saturday holds 30 min more than it can. Moving “a” to Tuesday keeps every due."},
		{"two", []plan.Lying{lying("a", "2026-11-25", 500, high), lying("b", "2026-11-26", 460, high)}, "", "Wednesday holds 50 min more than it can and Thursday holds 10 min more than it can."},
		{"with what is due", []plan.Lying{lying("a", "2026-11-25", 30)}, "By Friday 17:30 1 h more is due than can be done: “a”.", "Every day holds what lies on it: 30 min of work, 32 h 50 of hours. By Friday 17:30 1 h more is due than can be done: “a”."},
	} {
		w := plan.NewWeek(k, monday, ex.lying)
		if got := w.Words(ex.due); got != ex.want {
			t.Errorf("%s: %q, want %q", ex.name, got, ex.want)
		}
	}
	// What lies on a day without hours is said, and is none of what the others hold.
	calendar := plan.DefaultCalendar()
	calendar.Dates = map[day.Date]day.Hours{day.MustDate("2026-11-25"): nil}
	k2 := plan.NewCapacity(c, calendar, nil, 60)
	for _, ex := range []struct {
		lying []plan.Lying
		due   string
		want  string
	}{
		{nil, "", "Nothing lies on a day of this week yet."},
		{[]plan.Lying{lying("a", "2026-11-26", 60)}, "", "Every day holds what lies on it: 1 h of work, 25 h 20 of hours."},
		{[]plan.Lying{lying("a", "2026-11-25", 45)}, "", "45 min on Wednesday lie outside of hours."},
		{[]plan.Lying{lying("a", "2026-11-25", 45), lying("b", "2026-11-26", 60)}, "Late.", "Every day holds what lies on it: 1 h of work, 25 h 20 of hours. 45 min on Wednesday lie outside of hours. Late."},
	} {
		w := plan.NewWeek(k2, monday, ex.lying)
		if got := w.Words(ex.due); got != ex.want {
			t.Errorf("away on Wednesday: %q, want %q", got, ex.want)
		}
	}
	if w := plan.NewWeek(k, day.MustDate("2026-11-16"), nil); len(w.Days) != 0 || w.Words("") != "This week is over." {
		t.Errorf("last week has %d days, and says %q", len(w.Days), w.Words(""))
	}
}

// What lies in a week stands on its days in the order in which it is worked on, and what has
// no day of it is loose.
func TestWeekLays(t *testing.T) {
	c := lisbonClock(t, "2026-11-24T09:10", 0)
	k := plan.NewCapacity(c, plan.DefaultCalendar(), nil, 60)
	assumed := lying("guess", "2026-11-25", 30)
	assumed.Work.Assumed = true
	w := plan.NewWeek(k, day.MustDate("2026-11-23"), []plan.Lying{
		assumed, lying("noon", "2026-11-25T12:00/PT30M", 30), lying("ten", "2026-11-25T10:00/PT30M", 30), lying("due", "2026-11-25", 10, due("2026-11-26")), lying("high", "2026-11-25", 10, high),
		lying("open", "2026-W48", 20), lying("next", "2026-W49", 20), lying("month", "2026-11", 20), lying("monday", "2026-11-30", 20),
	})
	var titles []string
	for _, l := range w.Days[1].Lying {
		titles = append(titles, l.Todo.Title)
	}
	if got := strings.Join(titles, " "); got != "ten noon due high guess" {
		t.Errorf("on Wednesday lie %q", got)
	}
	if d := w.Days[1]; d.Load != 110 || d.Assumed != 30 || d.Worked != 450 || d.Over != 0 || len(w.Days) != 6 {
		t.Errorf("Wednesday has %d minutes, %d assumed, of %d; %d days", d.Load, d.Assumed, d.Worked, len(w.Days))
	}
	if d := w.Days[0]; d.Over != 10 || d.Worked != 450 || d.Minutes != 440 {
		t.Errorf("of Tuesday's %d minutes %d are over, and %d left", d.Worked, d.Over, d.Minutes)
	}
	if len(w.Loose) != 1 || w.Loose[0].Todo.Title != "open" {
		t.Errorf("loose is %s", fmt.Sprint(w.Loose))
	}
}

func TestLevelWords(t *testing.T) {
	title := func(job int) string { return []string{"a", "b", "c"}[job] }
	monday := day.MustDate("2026-11-23")
	for want, l := range map[string]plan.Levelled{
		"Everything of this week has its day.":                                          {},
		"With these the fullest day is 80 % full, and no plan makes it less.":           {Day: map[int]day.Date{0: monday}, Fullest: 0.8, Bound: 0.7, Proved: true},
		"With these the fullest day is 80 % full; not proved best, none is under 70 %.": {Day: map[int]day.Date{0: monday}, Fullest: 0.8, Bound: 0.7},
		"With these the fullest day is 75 % full, and no plan makes it less.":           {Day: map[int]day.Date{0: monday}, Fullest: 0.75, Bound: 0.75},
		"With these the fullest day is 90 % full, and no plan makes it less.":           {Day: map[int]day.Date{0: monday}, Fullest: 0.904, Bound: 0.9},
		"With these the fullest day is 92 % full; not proved best, none is under 90 %.": {Day: map[int]day.Date{0: monday}, Fullest: 0.92, Bound: 0.9},
		"Everything of this week has its day. Longer than any day it could be on: “b”.": {TooLong: []int{1}},
		"Everything of this week has its day. No day has room for “a” and “c”.":         {Unplaced: []int{0, 2}},
	} {
		if got := l.Words(title); got != want {
			t.Errorf("%q, want %q", got, want)
		}
	}
	l := plan.Levelled{Day: map[int]day.Date{2: monday, 0: monday.AddDays(1), 1: monday}}
	if got := fmt.Sprint(l.Jobs()); got != "[1 2 0]" {
		t.Errorf("the jobs are %s", got)
	}
}
