package filter_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
	"tincup/internal/core/repeat"
)

// brute tries every to-do that differs in what a filter asks about.
type brute struct {
	s     *small
	cases []tried
	hours []int
	// tooLarge: there are too many to-dos to try.
	tooLarge bool
}

// tried is a to-do in a Book that holds it, or what is around it.
type tried struct {
	book *book.Desk
	todo *book.Todo
}

// newBrute makes the to-dos. Of what the filter does not ask about each has one
// value, save where something that holds of every to-do needs another.
func newBrute(s *small, packed []byte) *brute {
	asks := func(fields ...string) bool {
		return slices.ContainsFunc(fields, func(f string) bool { return strings.Contains(string(packed), `"`+f+`"`) })
	}
	w := &brute{s: s, hours: []int{9}}
	if asks("overdue", "slack", "at-risk") {
		w.hours = []int{0, 9, 10, 13, 23}
	}
	most := 20_000
	if asks("next-action") { // each in Books of its own
		most = 600
	}
	today := s.clock().Today()
	todos := []book.Todo{{ID: book.ID{0: 7}, Title: "ǂ", Created: 1}}
	vary := func(asked bool, sets ...func(*book.Todo)) {
		if !asked || w.tooLarge {
			return
		}
		if w.tooLarge = len(todos)*len(sets) > most; w.tooLarge {
			return
		}
		var next []book.Todo
		for _, t := range todos {
			for _, set := range sets {
				v := t
				v.Tags = slices.Clone(t.Tags)
				set(&v)
				next = append(next, v)
			}
		}
		todos = next
	}
	same := func(*book.Todo) {}
	for _, tag := range []book.ID{s.work, s.meetings, s.calls, s.otherTag} {
		vary(asks("tag"), same, func(t *book.Todo) { t.Tags = append(t.Tags, tag) })
	}
	lists := []func(*book.Todo){same}
	for _, id := range []book.ID{s.loans, s.labels, s.unnamedList, s.otherList, s.thirdList} {
		lists = append(lists, func(t *book.Todo) { t.List = id })
	}
	for _, in := range [][2]book.ID{{s.loans, s.section}, {s.labels, s.otherSection}, {s.loans, {0: 201}}, {s.labels, {0: 202}}, {s.otherList, {0: 203}}, {s.thirdList, {0: 204}}, {s.unnamedList, {0: 205}}} {
		if asks("section") {
			lists = append(lists, func(t *book.Todo) { t.List, t.Section = in[0], in[1] })
		}
	}
	vary(asks("list", "shelf", "section"), lists...)
	if asks("priority") {
		vary(true, same, func(t *book.Todo) { t.Priority = book.Low }, func(t *book.Todo) { t.Priority = book.Medium }, func(t *book.Todo) { t.Priority = book.High })
	}
	vary(asks("kind", "status", "overdue"), same, func(t *book.Todo) { t.IsNote = true })
	closing := []func(*book.Todo){same, func(t *book.Todo) { t.Status = book.InProcess }}
	for back := range 7 {
		for _, status := range []book.Status{book.Completed, book.Cancelled} {
			if back > 0 && !asks("completed") {
				continue
			}
			closing = append(closing, func(t *book.Todo) { t.Status, t.Completed = status, day.TimestampOf(s.now.AddDate(0, 0, -back)) })
		}
	}
	vary(asks("status", "overdue", "completed", "paused", "next-action"), closing...)
	var people []func(*book.Todo)
	for _, id := range []book.ID{s.ines, s.abel, s.otherPerson} {
		for role := book.Ask; role <= book.For; role++ {
			people = append(people, func(t *book.Todo) { t.Person = book.Involved{ID: id, Role: role} })
		}
	}
	vary(asks("person", "role"), append(people, same)...)
	vary(asks("estimate"), same, func(t *book.Todo) { t.Estimate = 5 }, func(t *book.Todo) { t.Estimate = 10 }, func(t *book.Todo) { t.Estimate = 20 },
		func(t *book.Todo) { t.Estimate = 30 }, func(t *book.Todo) { t.Estimate = 40 })
	spares := []func(*book.Todo){same}
	for _, minutes := range []int64{-30, 0, 5, 10, 20, 30, 40} {
		spares = append(spares, func(t *book.Todo) { t.Revision = 1000 + minutes })
	}
	vary(asks("slack", "at-risk"), spares...)
	for _, title := range []string{"lamp", "oil", "lamp oil"} {
		vary(asks("text"), same, func(t *book.Todo) { t.Title += "|" + title })
	}
	vary(asks("place"), same, func(t *book.Todo) { t.Place = "ǂ" }, func(t *book.Todo) { t.Place = "museum" }, func(t *book.Todo) { t.Place = "Shed" },
		func(t *book.Todo) { t.Place = "museum, shed" }, func(t *book.Todo) { t.Place = "Museum shed" })
	made := []func(*book.Todo){same}
	for back := range 7 {
		made = append(made, func(t *book.Todo) { t.Created = day.TimestampOf(s.now.AddDate(0, 0, -back)) })
	}
	vary(asks("created"), made...)
	vary(asks("attachment"), same, func(t *book.Todo) { t.Attachments = []book.Attachment{{Name: "a.png"}} })
	dues, plans, starts := []func(*book.Todo){same}, []func(*book.Todo){same, func(t *book.Todo) { t.Plan = day.SomeTime() }}, []func(*book.Todo){same}
	timed := strings.Contains(string(packed), "time-between") || asks("overdue", "slack", "at-risk")
	for n := -6; n <= 5; n++ {
		d := today.AddDays(n)
		starts = append(starts, func(t *book.Todo) { t.Start = d })
		for _, at := range []string{"", "08:00", "09:30", "12:00", "18:00"} {
			if at != "" && !timed {
				continue
			}
			dues = append(dues, func(t *book.Todo) {
				if t.Due.Date = d; at != "" {
					t.Due = day.MustMoment(d.String() + "T" + at)
				}
			})
			plans = append(plans, func(t *book.Todo) {
				if t.Plan = day.OnDay(d); at != "" {
					t.Plan = day.MustHorizon(d.String() + "T" + at + "/PT30M")
				}
			})
		}
		plans = append(plans, func(t *book.Todo) { t.Plan = day.InWeek(d) }, func(t *book.Todo) { t.Plan = day.InMonth(d) })
	}
	for _, far := range []int{-40, -20, 20, 40} {
		plans = append(plans, func(t *book.Todo) { t.Plan = day.InWeek(today.AddDays(far)) }, func(t *book.Todo) { t.Plan = day.InMonth(today.AddDays(far)) })
	}
	vary(asks("due", "overdue"), dues...)
	vary(asks("plan"), plans...)
	vary(asks("start"), starts...)
	once := &repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY")}
	vary(asks("repeating", "paused"), same, func(t *book.Todo) { t.Repeat = once })
	vary(asks("paused"), same, func(t *book.Todo) {
		if t.Repeat != nil {
			t.Repeat = &repeat.Repeat{Rule: once.Rule, Paused: today}
		}
	})
	vary(asks("is-subtask", "next-action"), same, func(t *book.Todo) { t.Parent = book.ID{0: 8} })
	vary(asks("in-handful"), same, func(t *book.Todo) { t.Handful = today })
	for i := range todos {
		t := &todos[i]
		if t.IsNote && (t.Status != book.NeedsAction || t.Repeat != nil || !t.Handful.IsZero()) ||
			!t.Start.IsZero() && !t.Due.IsZero() && t.Start.After(t.Due.Date) || !t.Completed.IsZero() && t.Created > t.Completed {
			continue
		}
		w.cases = append(w.cases, tried{s.desk, t})
		if asks("has-subtasks") && !t.IsNote {
			w.cases = append(w.cases, tried{s.under, t})
		}
		if !asks("next-action") || t.Parent.IsZero() {
			continue
		}
		// The only subtask of a project, with and without what is done below it.
		top := &book.Todo{ID: t.Parent, Title: "project", List: t.List, Created: 1}
		w.cases = append(w.cases, tried{s.with(top, t), t})
		if asks("has-subtasks") && !t.IsNote {
			w.cases = append(w.cases, tried{s.with(top, t, &book.Todo{ID: book.ID{0: 6}, Title: "sub", Parent: t.ID, Position: "a0", Status: book.Completed, Completed: 2, Created: 1}), t})
		}
	}
	return w
}

// verdict tries every to-do, with the clock at several times of the day.
func (w *brute) verdict(f filter.Filter) filter.Verdict {
	some, all := false, true
	for _, hour := range w.hours {
		c := w.s.clock()
		c.Now = time.Date(c.Now.Year(), c.Now.Month(), c.Now.Day(), hour, 15, 0, 0, time.UTC)
		var m *filter.Matcher
		var of *book.Desk
		for _, try := range w.cases {
			if try.book != of {
				of, m = try.book, f.Matcher(try.book.With(book.MemoryNotes{}, fakeSlack{c}), c, w.s.ready)
			}
			matched, err := m.Match(try.todo)
			if err != nil {
				panic(err)
			}
			if some, all = some || matched, all && matched; some && !all {
				return filter.Possible
			}
		}
	}
	if some {
		return filter.Always
	}
	return filter.Never
}

// checkBlame replaces every test that is not to blame by what makes the verdict
// harder to reach, and finds it still reached; without any one of those to blame
// it is not.
func (w *brute) checkBlame(t *testing.T, packed []byte, a filter.Answer) {
	t.Helper()
	var tree any
	if err := json.Unmarshal(packed, &tree); err != nil {
		t.Fatal(err)
	}
	wanted := a.Now
	without := func(kept []string) filter.Filter {
		again, err := json.Marshal(replace(tree, "", kept, wanted == filter.Never))
		if err != nil {
			t.Fatal(err)
		}
		return parse(t, "%s", again)
	}
	if got := w.verdict(without(a.Because)); got != wanted {
		t.Fatalf("%s because of %v alone is %s; the filter is %s\n%s", wanted, a.Because, got, a.Verdict, packed)
	}
	for i := range a.Because {
		rest := slices.Concat(a.Because[:i], a.Because[i+1:])
		got := without(rest).Check(w.s.desk, w.s.clock())
		if a.Verdict == wanted && got.Verdict == wanted || a.Verdict != wanted && got.Now == wanted {
			t.Fatalf("without %s it is still %s: %v is not irreducible\n%s", a.Because[i], wanted, a.Because, packed)
		}
	}
}

// replace puts what is weakest, or strongest, in the place of tests not kept.
func replace(tree any, path string, kept []string, positive bool) any {
	n := tree.(map[string]any)
	for _, group := range []string{"all", "any"} {
		if subs, ok := n[group].([]any); ok {
			out := []any{}
			for i, sub := range subs {
				out = append(out, replace(sub, fmt.Sprintf("%s/%s/%d", path, group, i), kept, positive))
			}
			return map[string]any{group: out}
		}
	}
	if sub, ok := n["not"]; ok {
		return map[string]any{"not": replace(sub, path+"/not", kept, !positive)}
	}
	switch {
	case slices.Contains(kept, path):
		return n
	case positive:
		return map[string]any{"all": []any{}}
	}
	return map[string]any{"any": []any{}}
}
