package view_test

import (
	"slices"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
	"tincup/internal/core/plan"
	"tincup/internal/core/view"
)

// roomy is a desk that knows its slack, with the hours of one who has said nothing.
func roomy(b *book.Desk, c day.Clock) *book.Desk {
	return b.With(book.MemoryNotes{}, plan.NewSlacks(plan.NewCapacity(c, plan.DefaultCalendar(), nil, plan.MaxDays), b, 30))
}

func TestReady(t *testing.T) {
	f := fill(t) // Tuesday 24 November 2026, 09:00
	ines := f.do(book.AddPerson{Name: "Ines"}).People[0].After.ID
	put := func(title, due, plan, start string, change ...func(*book.Capture)) book.ID {
		c := book.Capture{Title: title}
		if due != "" {
			c.Due = day.MustMoment(due)
		}
		if plan != "" {
			c.Plan = day.MustHorizon(plan)
		}
		if start != "" {
			c.Start = day.MustDate(start)
		}
		for _, set := range change {
			set(&c)
		}
		return f.put(c)
	}
	put("old", "", "", "")
	f.now = f.now.AddDate(0, 0, 3) // Friday 27 November
	put("new", "", "", "")
	put("low", "", "2026-11-27", "", func(c *book.Capture) { c.Priority = book.Low })
	put("late", "2026-11-26", "", "")
	put("a day", "2026-11-28", "", "", func(c *book.Capture) { c.Estimate = 10 })
	put("a day of work", "2026-11-28", "", "", func(c *book.Capture) { c.Estimate = 600 })
	put("by noon", "2026-11-28T12:00", "", "")
	put("later", "", "2026-11-30", "")
	put("parked", "", "parked", "")
	put("not begun", "2026-12-10", "", "2026-12-01")
	put("waits", "", "", "", func(c *book.Capture) { c.Person, c.Role = ines, book.WaitingOn })
	project := put("project", "2026-12-20", "", "")
	first := put("first step", "", "", "", func(c *book.Capture) { c.Parent = project })
	put("second step", "", "", "", func(c *book.Capture) { c.Parent = project })
	bare := f.desk
	f.desk = roomy(bare, f.clock())
	compare(t, f.show(view.Query{Of: view.Ready}), `
all  9
  late
  a day
  a day of work
  by noon
  first step < project
  project (0 of 2)
  low
  old
  new
`)
	f.desk = bare
	f.do(book.Complete{ID: first})
	f.desk = roomy(bare, f.clock())
	if got := f.show(view.Query{Of: view.Ready}); !strings.Contains(got, "second step < project") {
		t.Errorf("after the first step: %s", got)
	}
	res := mustAsk(t, f.desk, f.clock(), view.Ready)
	var why []string
	for _, r := range res.Groups[0].Rows {
		why = append(why, r.Why)
	}
	const over = ", 1 h 40 more is due by then than can be done"
	want := []string{"late, so before all that is not", "1 day left, 10 min of work" + over, "1 day left, 10 h of work" + over, "1 day left" + over,
		"23 days left for what it is part of, 119 h 50 to spare", "23 days left, 119 h 50 to spare", "no due, low priority", "no due, put in 3 days ago", "no due, put in today"}
	if !slices.Equal(why, want) {
		t.Errorf("%q; want %q", why, want)
	}
	if n := countAnew(f.desk, f.clock()).Counts[view.Ready]; n != 9 {
		t.Errorf("the badge is %d", n)
	}
}

// Ready and Waiting are what their definitions say, as filters.
func TestViewsAsFilters(t *testing.T) {
	f := fill(t)
	ines := f.do(book.AddPerson{Name: "Ines"}).People[0].After.ID
	plans := []string{"", "", "2026-11-20", "2026-11-24", "2026-11-25", "2026-W48", "2026-W49", "2026-12", "parked"}
	starts := []string{"", "", "2026-11-20", "2026-11-24", "2026-11-25"}
	var top book.ID
	for i := range 240 {
		c := book.Capture{Title: "x", Role: book.Role(i % 4)}
		if c.Role != book.NoRole {
			c.Person = ines
		}
		if s := plans[i%len(plans)]; s != "" {
			c.Plan = day.MustHorizon(s)
		}
		if s := starts[i/3%len(starts)]; s != "" {
			c.Start = day.MustDate(s)
		}
		if i%5 > 1 {
			c.Parent = top
		}
		id := f.put(c)
		if i%5 == 0 {
			top = id
		}
		if i%7 == 0 && id != top {
			f.do(book.Complete{ID: id})
		}
	}
	const open = `{"field":"status","op":"any-of","values":["needs-action","in-process"]},{"field":"paused","op":"no"},{"field":"kind","op":"any-of","values":["to-do"]}`
	for name, definition := range map[view.Name]string{
		view.Waiting: `{"all":[` + open + `,{"field":"role","op":"any-of","values":["waiting on"]}]}`,
		view.Ready: `{"all":[` + open + `,{"not":{"field":"start","op":"after","date":"P0D"}},{"not":{"field":"role","op":"any-of","values":["waiting on"]}},
			{"any":[{"field":"plan","op":"none"},{"field":"plan","op":"before","date":"P0D"},{"field":"plan","op":"on","date":"P0D"}]},
			{"any":[{"field":"is-subtask","op":"no"},{"field":"next-action","op":"yes"}]}]}`,
	} {
		said, err := filter.Parse([]byte(definition))
		if err != nil {
			t.Fatal(err)
		}
		m := said.Matcher(f.desk, f.clock(), view.CanDo(f.clock()))
		res, err := view.Ask(f.desk, f.clock(), view.Query{Of: name, Limit: 1000})
		if err != nil {
			t.Fatal(err)
		}
		shown := map[book.ID]bool{}
		for _, g := range res.Groups {
			for _, r := range g.Rows {
				shown[r.Todo.ID] = true
			}
		}
		n := 0
		for todo := range f.desk.All() {
			matches, err := m.Match(todo)
			if err != nil || matches != shown[todo.ID] {
				t.Errorf("%s shows %+v: %v; its definition says %v (%v)", name, todo, shown[todo.ID], matches, err)
			}
			if matches {
				n++
			}
		}
		if n < 10 {
			t.Errorf("%s holds only %d", name, n)
		}
	}
}
