package view_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
	"tincup/internal/seed"
)

// The first rows of many, which are found without putting all in order, are the first of all in
// order.
func TestTheFirstOfMany(t *testing.T) {
	random := seed.New(t)
	for round := range 12 {
		r := rand.New(rand.NewPCG(random, uint64(round)))
		f := fill(t)
		for n := range 240 {
			f.put(book.Capture{Title: fmt.Sprint(n), Priority: book.Priority(r.IntN(4)), Estimate: r.IntN(4) * 30,
				Due: day.Moment{Date: day.DateOf(f.now).AddDays(r.IntN(200))}})
		}
		ask := func(q view.Query) (titles []string) {
			res, err := view.Ask(f.desk, f.clock(), q)
			if err != nil {
				t.Fatal(err)
			}
			for _, g := range res.Groups {
				for _, row := range g.Rows {
					titles = append(titles, row.Todo.Title)
				}
			}
			return titles
		}
		for _, order := range [][]string{nil, {"due"}, {"-due"}, {"estimate", "priority"}, {"-title"}} {
			keys, err := view.ParseKeys(order)
			if err != nil {
				t.Fatal(err)
			}
			q := view.Query{Of: view.WithinAWeek, Order: keys}
			if round%2 == 0 {
				q.Of = define(t, `{"filter":{"field":"status","op":"any-of","values":["needs-action"]}}`)
			}
			q.Limit = 1000
			whole := ask(q)
			for _, limit := range []int{1, 2, 3, 4, 5, 7, 8, 20, 30, 59, 60, 61} {
				q.Limit, q.Offset = limit, 0
				if got := ask(q); !slices.Equal(got, whole[:min(limit, len(whole))]) {
					t.Fatalf("seed %d, round %d, by %v: the first %d are %v; want %v", random, round, order, limit, got, whole[:min(limit, len(whole))])
				}
				q.Offset = r.IntN(len(whole) + 2)
				from, to := min(q.Offset, len(whole)), min(q.Offset+limit, len(whole))
				if got := ask(q); !slices.Equal(got, whole[from:to]) {
					t.Fatalf("seed %d, round %d, by %v: %d from %d are %v; want %v", random, round, order, limit, from, got, whole[from:to])
				}
			}
		}
	}
}

// Done is read a few rows at a time, over days of 23, 24 and 25 hours, and its days hold what was
// done on them.
func TestDoneInPages(t *testing.T) {
	zone, err := time.LoadLocation("Europe/Lisbon")
	if err != nil {
		t.Fatal(err)
	}
	random := seed.New(t)
	for round := range 6 {
		r := rand.New(rand.NewPCG(random, uint64(round)))
		f := fill(t)
		f.now = time.Date(2026, 10, 20, 9, 0, 0, 0, time.UTC) // the clocks change on the 25th
		for n := range 80 {
			id := f.put(book.Capture{Title: fmt.Sprint(n)})
			f.now = f.now.Add(time.Duration(r.IntN(8*60)) * time.Minute)
			f.do(book.Complete{ID: id})
		}
		clock := day.Clock{Now: f.now, Zone: zone, DayStart: time.Duration(round) * time.Hour}
		type row struct{ title, day string }
		ask := func(offset, limit int) (rows []row, total int) {
			res, err := view.Ask(f.desk, clock, view.Query{Of: view.Done, Offset: offset, Limit: limit})
			if err != nil {
				t.Fatal(err)
			}
			for _, g := range res.Groups {
				for _, one := range g.Rows {
					if on := clock.DayOf(one.Todo.Completed.Time()); day.OnDay(on) != g.Horizon {
						t.Errorf("done on %s, it stands under %s", on, g.Horizon)
					}
					rows = append(rows, row{one.Todo.Title, g.Horizon.String()})
				}
			}
			return rows, res.Total
		}
		whole, total := ask(0, 1000)
		if len(whole) != 80 || total != 80 {
			t.Fatalf("%d rows of %d", len(whole), total)
		}
		for range 60 {
			offset, limit := r.IntN(84), r.IntN(12)
			got, total := ask(offset, limit)
			from, to := min(offset, 80), min(offset+limit, 80)
			if total != 80 || !slices.Equal(got, whole[from:to]) {
				t.Fatalf("seed %d, round %d: %d from %d are %v; want %v", random, round, limit, offset, got, whole[from:to])
			}
		}
	}
}

// Groups are called what they are one's.
func TestTitlesOfGroups(t *testing.T) {
	f := fill(t)
	shelf := f.do(book.AddShelf{Name: "Museum"}).Shelves[0].After.ID
	list := f.do(book.AddList{Name: "Loans", Shelf: shelf}).Lists[0].After.ID
	section := f.do(book.AddSection{List: list, Name: "May"}).Sections[0].After.ID
	f.put(book.Capture{Title: "a", List: list, Section: section, NewPerson: "Ines", Role: book.Ask, Priority: book.High, Estimate: 10, Tags: []string{"calls"}})
	f.put(book.Capture{Title: "b"})
	titles := func(q view.Query) string {
		q.Limit = 100
		res, err := view.Ask(f.desk, f.clock(), q)
		if err != nil {
			t.Fatal(err)
		}
		var all []string
		for _, g := range res.Groups {
			all = append(all, g.Title(f.desk))
		}
		return strings.Join(all, ", ")
	}
	for group, want := range map[view.Grouping]string{view.GroupByList: "The Cup, Loans", view.GroupByShelf: "The Cup, Museum", view.GroupByPerson: "Ines, With nobody",
		view.GroupByPriority: "High priority, No priority", view.GroupByTag: "calls"} {
		if got := titles(view.Query{Of: view.Ready, Group: group}); !strings.HasPrefix(got, want) {
			t.Errorf("by %s: %s; want %s", group, got, want)
		}
	}
	if got := titles(view.Query{Of: view.InList{ID: list}}); !strings.Contains(got, "May") {
		t.Errorf("in the list: %s", got)
	}
}

func TestBoundsOfDefinitions(t *testing.T) {
	for text, ok := range map[string]bool{`{"urgentDays":0}`: true, `{"urgentDays":60}`: true, `{"urgentDays":61}`: false, `{"urgentDays":-1}`: false,
		`{"order":["due","title","start","plan"]}`: true, `{"order":["due","title","start","plan","estimate"]}`: false,
		`{"group":"list","shape":"columns"}`: true, `{"group":"nothing"}`: false, `{"shape":"heap"}`: false} {
		if _, err := view.ParseDefinition([]byte(text)); (err == nil) != ok {
			t.Errorf("%s: %v", text, err)
		}
	}
	for text, want := range map[string]view.Shape{`{"shape":"columns"}`: view.InColumns, `{}`: "", `not JSON`: "", `{"shape":7}`: ""} {
		if got := view.ShapeOf([]byte(text)); got != want {
			t.Errorf("the shape of %s is %q", text, got)
		}
	}
}
