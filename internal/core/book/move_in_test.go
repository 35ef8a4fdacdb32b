package book_test

import (
	"encoding/json"
	"regexp"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

var revisions = regexp.MustCompile(`,?"Revision":\d+`)

// packed is everything of a desk as it passes out and in again, without its revisions.
func packed(t *testing.T, d *book.Desk) (*book.Change, map[string]bool) {
	t.Helper()
	whole, err := d.Whole()
	if err != nil {
		t.Fatal(err)
	}
	text, err := whole.Pack()
	if err != nil {
		t.Fatal(err)
	}
	var back book.Change
	if err := json.Unmarshal(text, &back); err != nil {
		t.Fatal(err)
	}
	rows := map[string]bool{}
	for kind, all := range map[string]any{"to-dos": back.Todos, "notes": back.Notes, "lists": back.Lists, "sections": back.Sections,
		"tags": back.Tags, "people": back.People, "places": back.Places, "rings": back.Rings} {
		text, err := json.Marshal(all)
		if err != nil {
			t.Fatal(err)
		}
		var each []json.RawMessage
		if err := json.Unmarshal(text, &each); err != nil {
			t.Fatal(err)
		}
		for _, row := range each {
			rows[kind+" "+string(revisions.ReplaceAll(row, nil))] = true
		}
	}
	return &back, rows
}

// moved is a desk with something of most kinds.
func moved(t *testing.T) *desk {
	d := newDesk(t)
	list := d.list("Night Signals")
	d.do(book.AddSection{List: list, Name: "Before"})
	one := d.do(book.Capture{Title: "Order mount board", Notes: "two sheets", List: list, Due: day.MustMoment("2026-11-27T16:00"), Tags: []string{"suppliers"}}).Todo().ID
	d.do(book.Capture{Title: "Measure", Parent: one})
	d.do(book.AddPerson{Name: "Ines Prado"})
	d.do(book.Edit{ID: one, Place: ptr("The museum"), Priority: ptr(book.High)})
	gone := d.capture("Old draft")
	d.do(book.Delete{ID: gone})
	d.do(book.Complete{ID: d.capture("Ring the framer")})
	return d
}

func TestMoveIn(t *testing.T) {
	from := moved(t)
	rows, want := packed(t, from.desk)
	to := newDesk(t)
	c := to.do(book.MoveIn{Rows: rows})
	if c.Says != "Moved in: 4 to-dos, 1 list" {
		t.Errorf("it says %q", c.Says)
	}
	_, got := packed(t, to.desk)
	for row := range want {
		if !got[row] {
			t.Errorf("missing: %s", row)
		}
	}
	for row := range got {
		if !want[row] {
			t.Errorf("more: %s", row)
		}
	}
	if _, err := to.desk.Do(to.env(), book.MoveIn{Rows: rows}); err == nil || !strings.Contains(err.Error(), "empty one") {
		t.Errorf("it moves in twice: %v", err)
	}
}

// One row of any kind is something already.
func TestMoveInWantsAnEmptyBook(t *testing.T) {
	rows, _ := packed(t, moved(t).desk)
	for name, cmd := range map[string]book.Command{
		"a to-do": book.Capture{Title: "Ring the framer"}, "a list": book.AddList{Name: "Loans"}, "a shelf": book.AddShelf{Name: "Museum"},
		"a person": book.AddPerson{Name: "Ada"}, "a place": book.AddPlace{Name: "The shed"}, "a calendar": book.AddCalendar{Name: "Choir", File: "choir.ics"},
		"a view": book.AddView{Name: "Calls", Question: `{"filter":{"all":[]}}`},
	} {
		to := newDesk(t)
		to.do(cmd)
		if _, err := to.desk.Do(to.env(), book.MoveIn{Rows: rows}); err == nil || !strings.Contains(err.Error(), "empty one") {
			t.Errorf("it moves in beside %s: %v", name, err)
		}
	}
	to := newDesk(t)
	to.do(book.Choose{Values: map[string]string{"look": "dark"}})
	to.do(book.MoveIn{Rows: rows})
}

// What no command would have left so does not move in, and nothing of it does.
func TestMoveInRefuses(t *testing.T) {
	for name, c := range map[string]struct {
		spoil func(*book.Change)
		says  string
	}{
		"two of one id":        {func(c *book.Change) { c.Todos = append(c.Todos, c.Todos[0]) }, "twice"},
		"no id":                {func(c *book.Change) { c.Todos[0].After.ID = book.ID{} }, "no id"},
		"an empty row":         {func(c *book.Change) { c.Lists[0].After = nil }, "no row"},
		"a title of two lines": {func(c *book.Change) { c.Todos[0].After.Title = "a\nb" }, "line break"},
		"notes of nobody":      {func(c *book.Change) { c.Notes[0].After.ID = book.ID{9} }, "notes in it of to-dos that are not"},
		"a list that is not":   {func(c *book.Change) { c.Lists = nil }, "contradicts itself"},
		"a tag that is not":    {func(c *book.Change) { c.Tags = nil }, "contradicts itself"},
		"a tag with a space":   {func(c *book.Change) { c.Tags[0].After.Name = "a b" }, "may hold letters"},
		"no position":          {func(c *book.Change) { c.Todos[0].After.Position = "!" }, "no position"},
		"all in one position":  {func(c *book.Change) { samePlace(c) }, "stand in one position"},
		"a parent that is not": {func(c *book.Change) { c.Todos[0].After.Parent = book.ID{9} }, "contradicts itself"},
		"under itself":         {func(c *book.Change) { c.Todos[0].After.Parent = c.Todos[0].After.ID }, "contradicts itself"},
		"under a circle": {func(c *book.Change) {
			for i := range 3 { // the first under the second and third, which stand under each other
				c.Todos[i].After.Parent, c.Todos[i].After.List, c.Todos[i].After.Section = c.Todos[min(i+1, 2)].After.ID, book.ID{}, book.ID{}
			}
			c.Todos[2].After.Parent = c.Todos[1].After.ID
		}, "contradicts itself"},
		"a file without a hash": {func(c *book.Change) { c.Todos[0].After.Attachments = []book.Attachment{{Name: "a", Hash: "../../x"}} }, "no hash"},
		"a start after its due": {func(c *book.Change) {
			for _, d := range c.Todos {
				if !d.After.Due.IsZero() {
					d.After.Start = day.MustDate("2030-01-01")
				}
			}
		}, ""},
	} {
		rows, _ := packed(t, moved(t).desk)
		c.spoil(rows)
		to := newDesk(t)
		change, err := to.desk.Do(to.env(), book.MoveIn{Rows: rows})
		if c.says == "" { // a Book may hold it, and says so at each start
			if err != nil {
				t.Errorf("%s: %v", name, err)
			}
			continue
		}
		if err == nil || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%s: %v, %+v; want %q", name, err, change, c.says)
		}
	}
}

func samePlace(c *book.Change) {
	for _, d := range c.Todos {
		d.After.Position = "e0V000"
	}
}
