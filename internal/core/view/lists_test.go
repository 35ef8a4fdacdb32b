package view_test

import (
	"fmt"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
)

// A list with a due stands in Projects always, and in the views of dates as a to-do would that
// is due on its day; it is no row, and is not counted.
func TestListsWithADue(t *testing.T) {
	f := fill(t) // Tuesday 24 November
	for name, due := range map[string]string{"Past": "2026-11-20", "Today's": "2026-11-24", "Near": "2026-11-27", "Far": "2026-12-20", "Beyond": "2027-09-01", "Away": "2026-11-24"} {
		on := day.MustDate(due)
		list := f.do(book.AddList{Name: name}).Lists[0].After.ID
		f.do(book.EditList{ID: list, Due: &on})
		f.put(book.Capture{Title: "open " + name, List: list})
		f.do(book.Complete{ID: f.put(book.Capture{Title: "done " + name, List: list})})
		if yes := true; name == "Away" {
			f.do(book.EditList{ID: list, Archived: &yes})
		}
	}
	for of, want := range map[view.Name]string{
		view.Today:       "overdue: Past 1/2 4 late; due-today: Today's 1/2 0",
		view.Overdue:     "overdue: Past 1/2 4 late",
		view.WithinAWeek: "overdue: Past 1/2 4 late; day 2026-11-24: Today's 1/2 0; day 2026-11-27: Near 1/2 0",
		view.Upcoming:    "day 2026-11-27: Near 1/2 0; week 2026-W51: Far 1/2 0",
		view.Projects:    "all: Past 1/2 4 late, Today's 1/2 0, Near 1/2 0, Far 1/2 0, Beyond 1/2 0",
		view.Ready:       "", view.Open: "",
	} {
		res, err := view.Ask(f.desk, f.clock(), view.Query{Of: of, Limit: 100})
		if err != nil {
			t.Fatal(err)
		}
		var groups []string
		for _, g := range res.Groups {
			var lists []string
			for _, l := range g.Lists {
				words := fmt.Sprintf("%s %d/%d %d", l.List.Name, l.Progress.Done, l.Progress.Total, l.DaysLate)
				if l.Late {
					words += " late"
				}
				lists = append(lists, words)
			}
			if len(lists) > 0 {
				groups = append(groups, strings.TrimSpace(fmt.Sprintf("%s %s", g.Kind, g.Horizon))+": "+strings.Join(lists, ", "))
			}
			if g.Count != len(g.Rows) {
				t.Errorf("%s: %d rows in a group of %d", of, len(g.Rows), g.Count)
			}
		}
		if got := strings.Join(groups, "; "); got != want {
			t.Errorf("%s has the lists %q, want %q", of, got, want)
		}
		if res.Beyond != 0 {
			t.Errorf("%s: %d beyond", of, res.Beyond)
		}
	}
	res, _ := view.Ask(f.desk, f.clock(), view.Query{Of: view.Today, Group: view.GroupByList, Limit: 100})
	for _, g := range res.Groups {
		if len(g.Lists) > 0 {
			t.Errorf("grouped by list, %s holds lists", g.Kind)
		}
	}
}

// The page of a shelf holds what is open in its lists, by list, with empty ones.
func TestPageOfAShelf(t *testing.T) {
	f := fill(t)
	shelf := f.do(book.AddShelf{Name: "Home"}).Shelves[0].After.ID
	other := f.do(book.AddShelf{Name: "Museum"}).Shelves[0].After.ID
	list := func(name string, on book.ID) book.ID {
		return f.do(book.AddList{Name: name, Shelf: on}).Lists[0].After.ID
	}
	allotment, flat, loans := list("Allotment", shelf), list("Flat", shelf), list("Loans", other)
	f.put(book.Capture{Title: "Dig", List: allotment, Priority: book.High})
	f.put(book.Capture{Title: "Sow", List: allotment})
	f.put(book.Capture{Title: "Sign", List: loans})
	f.put(book.Capture{Title: "loose"})
	of := view.OnShelf{ID: shelf}
	compare(t, f.show(view.Query{Of: of}), "in-list  2\n  Dig\n  Sow\nin-list  0\n")
	if gives := view.Gives(f.desk, f.clock(), of); gives != nil {
		t.Errorf("of two lists it gives %v", gives)
	}
	if got := view.Sentence(f.desk, f.clock(), of); got != "Open in the lists of this shelf, which take working hours." {
		t.Errorf("it says %q", got)
	}
	yes := true
	f.do(book.EditList{ID: flat, Archived: &yes})
	compare(t, f.show(view.Query{Of: of}), "in-list  2\n  Dig\n  Sow\n")
	if gives := view.Gives(f.desk, f.clock(), of); len(gives) != 1 || gives[0].Text != "Allotment" {
		t.Errorf("of one list it gives %v", gives)
	}
	f.do(book.DeleteShelf{ID: shelf})
	if _, err := view.Ask(f.desk, f.clock(), view.Query{Of: of}); err == nil {
		t.Error("a shelf in the bin has a page")
	}
}
