package view_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
)

// walked writes a walk as its steps with the titles in each.
func (f *filled) walked(walk view.Review) string {
	f.t.Helper()
	var lines []string
	for _, g := range mustAsk(f.t, f.desk, f.clock(), walk).Groups {
		var titles []string
		for _, r := range g.Rows {
			titles = append(titles, r.Todo.Title)
		}
		if len(titles) != g.Count {
			f.t.Errorf("%s counts %d and has %d rows", g.Kind, g.Count, len(titles))
		}
		lines = append(lines, strings.TrimSuffix(fmt.Sprintf("%s: %s", g.Kind, strings.Join(titles, ", ")), " "))
	}
	return strings.Join(lines, "\n")
}

// Each step holds what the rules say, each to-do stands in the first step it belongs to, and
// steps that are empty stand there too.
func TestReview(t *testing.T) {
	f := fill(t) // Tuesday 24 November 2026
	list := f.do(book.AddList{Name: "Loans"}).Lists[0].After.ID
	in := func(title string, change ...func(*book.Capture)) book.ID {
		c := book.Capture{Title: title, List: list}
		for _, set := range change {
			set(&c)
		}
		return f.put(c)
	}
	plan := func(h string) func(*book.Capture) { return func(c *book.Capture) { c.Plan = day.MustHorizon(h) } }
	due := func(m string) func(*book.Capture) { return func(c *book.Capture) { c.Due = day.MustMoment(m) } }
	f.put(book.Capture{Title: "thought"})
	f.put(book.Capture{Title: "a note", IsNote: true})
	f.put(book.Capture{Title: "dated, in the Cup", Due: day.MustMoment("2026-12-24")})
	in("late", due("2026-11-20"))
	in("late and parked", due("2026-11-20"), plan("parked"))
	in("carried over", plan("2026-11-23"))
	in("today", plan("2026-11-24"))
	in("due today", due("2026-11-24"))
	in("tomorrow", plan("2026-11-25"))
	in("this month", plan("2026-11"))
	in("next month", plan("2026-12"))
	in("the month after", plan("2027-01"))
	in("parked", plan("parked"))
	who := f.do(book.AddPerson{Name: "Teodor"}).People[0].After.ID
	f.do(book.Edit{ID: in("owed"), Person: &book.Involved{ID: who, Role: book.WaitingOn}})
	bench := in("bench")
	f.do(book.Edit{ID: f.put(book.Capture{Title: "joiner", Parent: bench}), Person: &book.Involved{ID: who, Role: book.WaitingOn}})
	moving := in("moving")
	f.put(book.Capture{Title: "step", Parent: moving})
	in("plain")
	want := `to-sort: thought
slipped: late, late and parked, carried over
waited-for: joiner, owed
stuck: bench
this-month: this month
next-month: next month
parked: parked
untouched:`
	if got := f.walked(view.Weekly); got != want {
		t.Errorf("weekly:\n%s\nwant\n%s", got, want)
	}
	if got := f.walked(view.Daily); got != "to-sort: thought\nslipped: late, late and parked, carried over\nthe-day: due today, today" {
		t.Errorf("daily:\n%s", got)
	}
	// After 60 days nothing was touched but what is kept; the project stands still after 14.
	f.now = f.now.AddDate(0, 0, 60)
	if got := f.walked(view.Monthly); strings.Contains(got, "untouched: plain") {
		t.Errorf("after 60 days:\n%s", got)
	}
	f.now = f.now.AddDate(0, 0, 1)
	in("new")
	got := f.walked(view.Monthly)
	if !strings.Contains(got, "plain") || strings.Contains(got, "new") || !strings.Contains(got, "this-month: the month after") {
		t.Errorf("after 61 days:\n%s", got)
	}
	if weekly := f.walked(view.Weekly); !strings.Contains(weekly, "stuck: bench, moving") {
		t.Errorf("after 61 days:\n%s", weekly)
	}
	for _, todo := range f.desk.Open() {
		f.do(book.Keep{ID: todo.ID})
	}
	if got := f.walked(view.Monthly); !strings.HasSuffix(got, "untouched:") {
		t.Errorf("all kept:\n%s", got)
	}
	if _, err := view.Ask(f.desk, f.clock(), view.Query{Of: view.Review("yearly")}); err == nil || !strings.Contains(err.Error(), "daily, weekly or monthly") {
		t.Errorf("a yearly one: %v", err)
	}
}

// Of random Books every open to-do stands in a walk once at most, and what the first steps of
// the weekly walk hold is what their views hold.
func TestReviewOfRandomBooks(t *testing.T) {
	for seed := range uint64(20) {
		f := fill(t)
		r := rand.New(rand.NewPCG(seed, 5))
		plans := []string{"", "2026-11-23", "2026-11-24", "2026-11", "2026-12", "parked", "2026-W48"}
		var parent book.ID
		for i := range 60 {
			c := book.Capture{Title: fmt.Sprint(i), Plan: day.Horizon{}}
			if p := plans[r.IntN(len(plans))]; p != "" {
				c.Plan = day.MustHorizon(p)
			}
			if r.IntN(3) == 0 {
				c.Due = day.Moment{Date: day.MustDate("2026-11-20").AddDays(r.IntN(9))}
			}
			if r.IntN(4) == 0 {
				c.Parent = parent
			}
			id := f.put(c)
			if r.IntN(6) == 0 {
				parent = id
			}
		}
		seen := map[book.ID]view.Kind{}
		count := map[view.Kind]int{}
		for _, g := range mustAsk(t, f.desk, f.clock(), view.Weekly).Groups {
			for _, row := range g.Rows {
				if before, twice := seen[row.Todo.ID]; twice {
					t.Fatalf("seed %d: %s stands in %s and in %s", seed, row.Todo.Title, before, g.Kind)
				}
				seen[row.Todo.ID] = g.Kind
			}
			count[g.Kind] = g.Count
		}
		for _, g := range mustAsk(t, f.desk, f.clock(), view.Cup).Groups {
			if g.Kind == view.ToSort && g.Count != count[view.ToSort] {
				t.Fatalf("seed %d: %d to sort, of the walk %d", seed, g.Count, count[view.ToSort])
			}
		}
		for _, row := range mustAsk(t, f.desk, f.clock(), view.Overdue).Groups[0].Rows {
			if kind := seen[row.Todo.ID]; kind != view.Slipped {
				t.Fatalf("seed %d: %s is overdue and stands in %q", seed, row.Todo.Title, kind)
			}
		}
	}
}
