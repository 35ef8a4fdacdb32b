package book_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// Everything that a Book must not hold is found where it is, said once for each row, and nothing
// else is.
func TestEveryFault(t *testing.T) {
	id := func(n byte) book.ID { return book.ID{15: n} }
	todo := func(n byte, change func(*book.Todo)) book.Diff[book.Todo] {
		row := book.Todo{ID: id(n), Title: fmt.Sprint("t", n), Position: book.Position(fmt.Sprintf("e0V%03d", n)), Created: 1}
		if change != nil {
			change(&row)
		}
		return book.Diff[book.Todo]{After: &row}
	}
	todos := func(diffs ...book.Diff[book.Todo]) *book.Change { return &book.Change{Todos: diffs} }
	under := func(n byte) func(*book.Todo) { return func(t *book.Todo) { t.Parent = id(n) } }
	list := book.Diff[book.List]{After: &book.List{ID: id(100), Shelf: id(101), Name: "Loans", Position: "a0V"}}
	shelf := book.Diff[book.Shelf]{After: &book.Shelf{ID: id(101), Name: "Museum", Position: "a0V"}}
	today := day.MustDate("2026-11-24")
	chain := func(levels int) *book.Change {
		c := &book.Change{}
		for n := range levels + 1 {
			c.Todos = append(c.Todos, todo(byte(n+1), func(t *book.Todo) {
				if n > 0 {
					t.Parent = id(byte(n))
				}
			}))
		}
		return c
	}
	picked := func(n byte) *book.Change {
		c := &book.Change{}
		for i := range n {
			c.Todos = append(c.Todos, todo(i+1, func(t *book.Todo) { t.Handful = today }))
		}
		return c
	}
	closed := func(t *book.Todo) { t.Status, t.Completed = book.Completed, 5 }
	for name, c := range map[string]struct {
		rows *book.Change
		says string // what the faults say, parted by bars
	}{
		"nothing":                   {&book.Change{Lists: []book.Diff[book.List]{list}, Shelves: []book.Diff[book.Shelf]{shelf}, Todos: []book.Diff[book.Todo]{todo(1, func(t *book.Todo) { t.List = id(100) })}}, ""},
		"start after due":           {todos(todo(1, func(t *book.Todo) { t.Start, t.Due = today.AddDays(1), day.Moment{Date: today} })), "“t1” would start on 2026-11-25, after it is due on 2026-11-24."},
		"start on the due":          {todos(todo(1, func(t *book.Todo) { t.Start, t.Due = today, day.Moment{Date: today} })), ""},
		"a note with a plan":        {todos(todo(1, func(t *book.Todo) { t.IsNote, t.Plan = true, day.OnDay(today) })), "“t1” is a note, and a note has no plan."},
		"a note that repeats":       {todos(todo(1, func(t *book.Todo) { t.IsNote, t.Repeat = true, &repeat.Repeat{} })), "“t1” is a note, and a note does not repeat."},
		"a note that is picked":     {todos(todo(1, func(t *book.Todo) { t.IsNote, t.Handful = true, today })), "“t1” is a note, and a note is not picked for a day."},
		"a note that is begun":      {todos(todo(1, func(t *book.Todo) { t.IsNote, t.Status = true, book.InProcess })), "“t1” is a note, and a note has no tick."},
		"open and done":             {todos(todo(1, func(t *book.Todo) { t.Completed = 5 })), "“t1” is open and has been closed at some time, or the other way round."},
		"done at no time":           {todos(todo(1, func(t *book.Todo) { t.Status = book.Cancelled })), "“t1” is open and has been closed at some time, or the other way round."},
		"a parent that is not":      {todos(todo(1, under(9))), "“t1” stands under a to-do that is not there."},
		"under itself":              {todos(todo(1, under(1))), "“t1” stands under itself."},
		"a ring":                    {todos(todo(1, under(2)), todo(2, under(1)), todo(3, nil)), "“t1” stands under itself.|“t2” stands under itself."},
		"as deep as may be":         {chain(book.MaxDepth), ""},
		"one level more":            {chain(book.MaxDepth + 1), "“t102” stands more than 100 levels deep."},
		"five are picked":           {picked(5), ""},
		"six are picked":            {picked(6), "6 to-dos are picked for 2026-11-24; 5 is the most."},
		"under a note":              {todos(todo(1, func(t *book.Todo) { t.IsNote = true }), todo(2, under(1))), "“t2” stands under the note “t1”."},
		"open under one that is no": {todos(todo(1, closed), todo(2, under(1))), "“t2” is open, and “t1”, under which it stands, is not."},
		"under one in the bin":      {todos(todo(1, func(t *book.Todo) { t.Deleted = 5 }), todo(2, under(1))), "“t2” stands under “t1”, which is in the bin."},
		"both in the bin":           {todos(todo(1, func(t *book.Todo) { t.Deleted = 5 }), todo(2, func(t *book.Todo) { t.Parent, t.Deleted = id(1), 5 })), ""},
		"another list than above": {&book.Change{Lists: []book.Diff[book.List]{list}, Shelves: []book.Diff[book.Shelf]{shelf}, Todos: []book.Diff[book.Todo]{todo(1, nil), todo(2, func(t *book.Todo) { t.Parent, t.List = id(1), id(100) })}},
			"“t2” is not in the list and section of “t1”, under which it stands."},
		"a list that is not":      {todos(todo(1, func(t *book.Todo) { t.List = id(100) })), "“t1” is in a list that is not there."},
		"a section that is not":   {todos(todo(1, func(t *book.Todo) { t.Section = id(100) })), "“t1” is in a section that is not of its list."},
		"a shelf that is not":     {&book.Change{Lists: []book.Diff[book.List]{list}}, "The list “Loans” is on a shelf that is not there."},
		"a section of no list":    {&book.Change{Sections: []book.Diff[book.Section]{{After: &book.Section{ID: id(50), List: id(100), Name: "May", Position: "a0V"}}}}, "The section “May” is of a list that is not there."},
		"a person who is not":     {todos(todo(1, func(t *book.Todo) { t.Person = book.Involved{ID: id(9), Role: book.Ask} })), "“t1” tells of a person who is not there."},
		"a place that is no row":  {todos(todo(1, func(t *book.Todo) { t.Place = "Nowhere" })), "“t1” is to be done at “Nowhere”, which is no place yet."},
		"a tag that is not":       {todos(todo(1, func(t *book.Todo) { t.Tags = []book.ID{id(9)} })), "“t1” carries a tag that is not there."},
		"one position":            {todos(todo(1, nil), todo(2, func(t *book.Todo) { t.Position = "e0V001" })), "“t1” and “t2” stand in one position."},
		"one position, two homes": {todos(todo(1, nil), todo(2, func(t *book.Todo) { t.Position, t.Parent = "e0V001", id(1) })), ""},
		"shelves of one name": {&book.Change{Shelves: []book.Diff[book.Shelf]{shelf, {After: &book.Shelf{ID: id(102), Name: "MUSEUM", Position: "a0V"}}}},
			"Two have one name: shelf “|The shelf “|stands where another stands."},
		"people of one name": {&book.Change{People: []book.Diff[book.Person]{{After: &book.Person{ID: id(1), Name: "Ines"}}, {After: &book.Person{ID: id(2), Name: "ines"}}}}, "Two have one name: person “"},
	} {
		for _, d := range c.rows.Lists {
			d.After.Owner = book.ID{15: 1}
		}
		b := book.New(book.MemoryNotes{}, book.ID{15: 1})
		c.rows.By(book.ID{15: 1})
		b.Load(1, c.rows)
		desk, err := b.Desk(book.ID{15: 1})
		if err != nil {
			t.Fatal(err)
		}
		var said []string
		for _, f := range desk.Faults(today) {
			said = append(said, f.Says)
		}
		slices.Sort(said)
		all := strings.Join(said, "|")
		for _, part := range strings.Split(c.says, "|") {
			if !strings.Contains(all, part) || c.says == "" && all != "" {
				t.Errorf("%s: it says %q; want %q", name, all, part)
			}
		}
		if want := strings.Count(c.says, "|") + 1; c.says != "" && len(said) > want {
			t.Errorf("%s: it says more than it should: %q", name, all)
		}
	}
}
