package filter

import (
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/question"
)

// dates are the days that tests name, and how many days from today the others lie.
func (k *checker) dates() (fixed []day.Date, offsets []int) {
	offsets = []int{0}
	for _, n := range k.nodes {
		t := n.Test
		for _, w := range []question.When{t.Date, t.To} {
			if n, ok := w.Days(); ok {
				offsets = append(offsets, n)
			} else if !w.IsZero() {
				fixed = append(fixed, w.At(day.Date{}))
			}
		}
		if t.Op == question.WithinNext || t.Op == question.WithinPast {
			offsets = append(offsets, t.Days, -t.Days)
		}
	}
	return fixed, offsets
}

// edgesOf are days, those that lie so far from a today, and those beside them, in
// order: where tests on them change their answers.
func edgesOf(fixed []day.Date, today day.Date, offsets []int) []day.Date {
	var days []day.Date
	for _, d := range fixed {
		days = append(days, around(d)...)
	}
	for _, by := range offsets {
		days = append(days, around(today.AddDays(by))...)
	}
	slices.SortFunc(days, day.Date.Compare)
	return slices.Compact(days)
}

func around(d day.Date) []day.Date { return []day.Date{d.AddDays(-1), d, d.AddDays(1)} }

// seenFrom are the weeks and months that the edges of some todays lie in, each as its
// own today sees it, and one of all that lie alike to it. Those that no edge lies in are
// as a day is between the same edges.
func seenFrom(todays []day.Date, offsets []int) []func(*facts) {
	type span struct{ first, last int } // in days after today
	seen := map[span]bool{}
	var values []func(*facts)
	add := func(today day.Date, h day.Horizon) {
		s := span{h.First().Sub(today), h.Last().Sub(today)}
		if !seen[s] {
			seen[s] = true
			values = append(values, func(f *facts) { f.plan, f.planSeen = h, today })
		}
	}
	weekdays := [7]bool{}
	for _, today := range todays {
		month := day.Date{}
		for _, e := range edgesOf(nil, today, offsets) {
			if !weekdays[today.Weekday()] {
				add(today, day.InWeek(e))
			}
			if m := e.MonthStart(); m != month {
				month = m
				add(today, day.InMonth(e))
			}
		}
		weekdays[today.Weekday()] = true
	}
	return values
}

// times are none, and times of the day that stand for all: tests divide the day into stretches,
// each of which begins at midnight, where a test's time begins, or a minute after it ends.
func (w *world) times(field question.Field) []day.TimeOfDay {
	out := []day.TimeOfDay{{}, timeAt(0)}
	for _, n := range w.nodes {
		if t := n.Test; t.Field == field && t.Op == question.TimeBetween {
			out = append(out, t.From, timeAt((t.Until.Minutes()+1)%(24*60)))
		}
	}
	return out
}

func timeAt(minutes int) day.TimeOfDay {
	t, _ := day.NewTimeOfDay(minutes/60, minutes%60) // within the day
	return t
}

// dateValues are the days, and for plans the weeks and months, that stand for
// all there are, and none.
func (w *world) dateValues(name string) []func(*facts) {
	fixed, offsets := w.dates()
	edges := edgesOf(fixed, w.today, offsets)
	none := func(*facts) {}
	values := []func(*facts){none}
	switch name {
	case "start":
		return append(values, each(len(edges), func(f *facts, i int) { f.start = edges[i] })...)
	case "created":
		past := slices.DeleteFunc(edges, func(d day.Date) bool { return d.After(w.today) })
		return each(len(past), func(f *facts, i int) { f.created = past[i] })
	case "completed":
		past := slices.DeleteFunc(edges, func(d day.Date) bool { return d.After(w.today) })
		return append(values, each(len(past), func(f *facts, i int) { f.completed = past[i] })...)
	case "due":
		for _, d := range edges {
			for _, at := range w.times(question.Due) {
				passed := d.Before(w.today)
				values = append(values, func(f *facts) { f.due, f.dueTime, f.passed = d, at, passed })
				if d == w.today && !at.IsZero() { // gone by or still to come
					values = append(values, func(f *facts) { f.due, f.dueTime, f.passed = d, at, true })
				}
			}
		}
		return values
	}
	values = append(values, func(f *facts) { f.plan = day.SomeTime() })
	var plans []day.Horizon
	for _, d := range edges {
		plans = append(plans, day.OnDay(d), day.InWeek(d), day.InMonth(d))
	}
	for _, h := range plans {
		values = append(values, func(f *facts) { f.plan = h })
		if h.Precision() != day.Day {
			continue
		}
		for _, at := range w.times(question.Plan) {
			values = append(values, func(f *facts) { f.plan, f.planTime = h, at })
		}
	}
	return append(values, seenFrom(w.alike[w.today], offsets)...)
}

// sort is the first and the last of the values that tests do not tell apart.
type sort struct{ first, last func(*facts) }

// tellApart keeps of each sort of values, as the tests on the variable see them,
// the first and the last: between these any law finds what it needs.
func (w *world) tellApart(name string, values []func(*facts)) []func(*facts) {
	var tests []*question.Test
	for _, n := range w.nodes {
		if slices.Contains(w.variablesOf(n.Test), name) {
			tests = append(tests, n.Test)
		}
	}
	switch name {
	case "start", "due", "created", "completed", "plan", "estimate", "text", "place", "home", "person", "priority":
	default:
		return values
	}
	nexts := slices.ContainsFunc(w.nodes, func(n *question.Node) bool { return n.Test.Field == question.NextAction })
	w.left.looks -= len(values) * len(tests)
	seen := map[string]sort{}
	several := map[string]bool{}
	var order []string
	for _, set := range values {
		var f facts
		set(&f)
		// What laws ask of it too: whether there is a date at all.
		key := []byte{truthByte(f.due.IsZero() && f.start.IsZero() && f.completed.IsZero()), truthByte(f.passed)}
		if nexts {
			key = append(key, truthByte(f.role == book.WaitingOn), truthByte(w.doable(&f)), truthByte(f.start.After(w.today)))
		}
		for _, t := range tests {
			key = append(key, truthByte(eval(t, &f, w.today)))
		}
		s, known := seen[string(key)]
		if !known {
			s.first = set
			order = append(order, string(key))
		}
		s.last, several[string(key)] = set, known
		seen[string(key)] = s
	}
	sorted := slices.Sorted(slices.Values(order))
	w.key += name + strings.Join(sorted, "|") + ";"
	var kept []func(*facts)
	for _, key := range order {
		s := seen[key]
		if kept = append(kept, s.first); several[key] {
			kept = append(kept, s.last)
		}
	}
	for _, key := range sorted {
		w.sorts[name] = append(w.sorts[name], seen[key])
	}
	return kept
}

// ties adds to the key which sorts of two dates a law lets stand together: that
// is another on another day, though the tests tell the same sorts apart.
func (w *world) ties(of [2]string, holds func(*facts) bool) {
	key := []byte(of[0] + of[1])
	together := func(set ...func(*facts)) bool {
		var f facts
		for _, s := range set {
			s(&f)
		}
		return holds(&f)
	}
	for _, a := range w.sorts[of[0]] {
		for _, b := range w.sorts[of[1]] {
			key = append(key, truthByte(together(a.first, b.first) || together(a.first, b.last) ||
				together(a.last, b.first) || together(a.last, b.last)))
		}
	}
	w.key += string(key)
	w.left.looks -= len(w.sorts[of[0]]) * len(w.sorts[of[1]])
}

func truthByte(b bool) byte {
	if b {
		return 1
	}
	return 0
}
