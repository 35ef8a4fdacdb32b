package book_test

import (
	"errors"
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// desk is a Book's desk with a clock and ids that count up.
type desk struct {
	t    *testing.T
	book *book.Book
	desk *book.Desk
	now  time.Time
	ids  int
}

func newDesk(t *testing.T) *desk {
	b, at := book.Alone(book.MemoryNotes{})
	return &desk{t: t, book: b, desk: at, now: time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC)}
}

func (d *desk) env() book.Env {
	return book.Env{Clock: day.Clock{Now: d.now, Zone: time.UTC}, NewID: func() book.ID {
		d.ids++
		var id book.ID
		id[14], id[15] = byte(d.ids>>8), byte(d.ids)
		return id
	}}
}

// do carries a command out a minute after the one before.
func (d *desk) do(cmd book.Command) *book.Change {
	d.t.Helper()
	d.now = d.now.Add(time.Minute)
	c, err := d.desk.Do(d.env(), cmd)
	if err != nil {
		d.t.Fatalf("%T: %v", cmd, err)
	}
	if !c.Empty() {
		d.book.Apply(c)
	}
	return c
}

func (d *desk) capture(title string) book.ID { return d.do(book.Capture{Title: title}).Todo().ID }

func (d *desk) list(name string) book.ID {
	return d.do(book.AddList{Name: name}).Lists[0].After.ID
}

func (d *desk) todo(id book.ID) *book.Todo {
	d.t.Helper()
	t, err := d.desk.Todo(id)
	if err != nil {
		d.t.Fatal(err)
	}
	return t
}

func ptr[T any](v T) *T { return &v }

func TestCaptureKeepsEveryField(t *testing.T) {
	d := newDesk(t)
	list := d.list("Night Signals")
	c := d.do(book.Capture{Title: "  Order mount board ", Notes: "two sheets\r\nwarm white", List: list, Priority: book.High,
		Start: day.MustDate("2026-11-25"), Due: day.MustMoment("2026-11-27T16:00"), Plan: day.MustHorizon("2026-W48"),
		Tags: []string{"suppliers", "Work/Boards", "SUPPLIERS"}})
	got := d.todo(c.Todo().ID)
	if got.Title != "Order mount board" || got.List != list || got.Priority != book.High || got.Status != book.NeedsAction ||
		got.Start.String() != "2026-11-25" || got.Due.String() != "2026-11-27T16:00" || got.Plan.String() != "2026-W48" ||
		got.Created != got.Changed || got.Created.Time() != d.now || len(got.Tags) != 2 {
		t.Errorf("captured %+v", got)
	}
	if note, _ := d.desk.Note(got); note != "two sheets\nwarm white" {
		t.Errorf("the notes are %q", note)
	}
	if c.Says != "Put in: “Order mount board”" {
		t.Errorf("it says %q", c.Says)
	}
}

func TestRefusals(t *testing.T) {
	d := newDesk(t)
	id := d.capture("Ring the framer")
	d.do(book.Edit{ID: id, Due: ptr(day.MustMoment("2026-11-27"))})
	binned := d.capture("Old draft")
	d.do(book.Delete{ID: binned})
	d.list("Loans")
	d.do(book.AddShelf{Name: "Home"})
	stranger := book.ID{1}
	for name, c := range map[string]struct {
		cmd   book.Command
		field string
		says  string
	}{
		"empty title":              {book.Capture{Title: " \t "}, "title", "empty"},
		"title of 501":             {book.Capture{Title: strings.Repeat("é", 501)}, "title", "501 characters; 500"},
		"line feed in title":       {book.Capture{Title: "one\ntwo"}, "title", "line break"},
		"line separator in title":  {book.Capture{Title: "one\u2028two"}, "title", "line break"},
		"control in title":         {book.Capture{Title: "bell\a here"}, "title", "U+0007"},
		"title not UTF-8":          {book.Capture{Title: "a\xff"}, "title", "UTF-8"},
		"notes too long":           {book.Capture{Title: "x", Notes: strings.Repeat("n", 65537)}, "notes", "65537 bytes; 65536"},
		"control in notes":         {book.Capture{Title: "x", Notes: "a\x00b"}, "notes", "U+0000"},
		"unknown list":             {book.Capture{Title: "x", List: stranger}, "list", "no list"},
		"start after due":          {book.Capture{Title: "x", Start: day.MustDate("2026-11-28"), Due: day.MustMoment("2026-11-27T09:00")}, "start", "after the due"},
		"same id twice":            {book.Capture{ID: id, Title: "x"}, "id", "exists already"},
		"tag with an empty part":   {book.Capture{Title: "x", Tags: []string{"a//b"}}, "tags", "empty part"},
		"tag ending in a slash":    {book.Capture{Title: "x", Tags: []string{"a/"}}, "tags", "empty part"},
		"tag beginning in a digit": {book.Capture{Title: "x", Tags: []string{"1st"}}, "tags", "begin with a letter"},
		"tag with a space":         {book.Capture{Title: "x", Tags: []string{"a b"}}, "tags", "letters, digits"},
		"edit to an empty title":   {book.Edit{ID: id, Title: ptr("")}, "title", "empty"},
		"edit start after due":     {book.Edit{ID: id, Start: ptr(day.MustDate("2026-11-28"))}, "start", "after the due"},
		"edit due before start":    {book.Edit{ID: id, Start: ptr(day.MustDate("2026-11-20")), Due: ptr(day.MustMoment("2026-11-19"))}, "start", "after the due"},
		"edit to completed":        {book.Edit{ID: id, Status: ptr(book.Completed)}, "status", "Complete or cancel it instead"},
		"edit in the bin":          {book.Edit{ID: binned, Title: ptr("x")}, "id", "in the bin"},
		"tick in the bin":          {book.Complete{ID: binned}, "id", "in the bin"},
		"plan in the bin":          {book.PlanFor{ID: binned}, "id", "in the bin"},
		"move to unknown list":     {book.Move{ID: id, List: stranger}, "list", "no list"},
		"list name taken":          {book.AddList{Name: "LOANS"}, "name", "exists already"},
		"list name too long":       {book.AddList{Name: strings.Repeat("x", 101)}, "name", "101 characters; 100"},
		"unknown shelf":            {book.AddList{Name: "x", Shelf: stranger}, "shelf", "no shelf"},
		"shelf name taken":         {book.AddShelf{Name: "home"}, "name", "exists already"},
	} {
		before := snapshot(t, d.desk)
		_, err := d.desk.Do(d.env(), c.cmd)
		var rule *book.RuleError
		if !errors.As(err, &rule) || rule.Field != c.field || !strings.Contains(rule.Reason, c.says) {
			t.Errorf("%s: %v; want field %s and “%s”", name, err, c.field, c.says)
		}
		if snapshot(t, d.desk) != before {
			t.Errorf("%s: the Book has changed", name)
		}
	}
	for _, cmd := range []book.Command{book.Edit{ID: stranger}, book.Complete{ID: stranger}, book.Delete{ID: stranger},
		book.Restore{ID: stranger}, book.Tagging{ID: stranger}} {
		if _, err := d.desk.Do(d.env(), cmd); !errors.Is(err, book.ErrNotFound) {
			t.Errorf("%T of a stranger: %v", cmd, err)
		}
	}
}

func TestTitlesOfEveryKindAreKept(t *testing.T) {
	d := newDesk(t)
	for _, title := range []string{strings.Repeat("é", 500), "שלום עולם", "👩‍🚒 drill", "<script>alert(1)</script>", `"quoted", \back`} {
		if got := d.todo(d.capture(title)).Title; got != title {
			t.Errorf("%q became %q", title, got)
		}
	}
}

func TestStatus(t *testing.T) {
	d := newDesk(t)
	id := d.capture("Send loan agreement")
	d.do(book.Complete{ID: id})
	if got := d.todo(id); got.Status != book.Completed || got.Completed.Time() != d.now || got.Open() {
		t.Errorf("ticked: %+v", got)
	}
	when := d.todo(id).Completed
	if c := d.do(book.Complete{ID: id}); !c.Empty() || d.todo(id).Completed != when {
		t.Error("a second tick did something")
	}
	d.do(book.Cancel{ID: id})
	if d.todo(id).Status != book.Cancelled {
		t.Error("a completed to-do cannot be cancelled")
	}
	d.do(book.Reopen{ID: id})
	if got := d.todo(id); got.Status != book.NeedsAction || !got.Completed.IsZero() {
		t.Errorf("reopened: %+v", got)
	}
	d.do(book.Edit{ID: id, Status: ptr(book.InProcess)})
	if got := d.todo(id); got.Status != book.InProcess || !got.Open() {
		t.Errorf("begun: %+v", got)
	}
}

func TestMovingAndTagging(t *testing.T) {
	d := newDesk(t)
	loans, labels := d.list("Loans"), d.list("Labels")
	a := d.do(book.Capture{Title: "a", List: loans, Tags: []string{"calls"}}).Todo().ID
	b := d.do(book.Capture{Title: "b", List: labels}).Todo().ID
	d.do(book.Move{ID: a, List: labels})
	if d.todo(a).List != labels || d.todo(a).Position <= d.todo(b).Position {
		t.Error("a moved to-do does not stand at the end of its new list")
	}
	at := d.todo(a).Position
	if c := d.do(book.Move{ID: a, List: labels}); !c.Empty() || d.todo(a).Position != at {
		t.Error("moving to where it is did something")
	}
	d.do(book.Move{ID: a})
	if !d.todo(a).List.IsZero() {
		t.Error("a move to no list is not a move to the Cup")
	}
	d.do(book.Tagging{ID: a, Add: []string{"#letters", "Calls"}, Remove: []string{"nothing"}})
	if n := len(d.todo(a).Tags); n != 2 {
		t.Errorf("it carries %d tags", n)
	}
	d.do(book.Tagging{ID: a, Remove: []string{"#CALLS"}})
	if tags := d.todo(a).Tags; len(tags) != 1 || tagName(t, d.desk, tags[0]) != "letters" {
		t.Errorf("it carries %v", tags)
	}
}

func TestBinLetsGoAfter30Days(t *testing.T) {
	d := newDesk(t)
	old, young := d.do(book.Capture{Title: "old", Notes: "n"}).Todo().ID, d.capture("young")
	d.do(book.Delete{ID: old})
	d.now = d.now.AddDate(0, 0, 20)
	d.do(book.Delete{ID: young})
	d.now = d.now.AddDate(0, 0, 10)
	d.do(book.EmptyBin{UpTo: day.TimestampOf(d.now.AddDate(0, 0, -book.BinDays))})
	if _, err := d.desk.Todo(old); !errors.Is(err, book.ErrNotFound) {
		t.Error("the old one is still there")
	}
	if d.todo(young).Deleted.IsZero() || len(d.desk.Bin()) != 1 {
		t.Error("the young one is not in the bin")
	}
}

func TestUndoLeavesOtherFieldsAlone(t *testing.T) {
	d := newDesk(t)
	id := d.capture("Meter reading")
	rename := d.do(book.Edit{ID: id, Title: ptr("Meter reading, store room")})
	d.do(book.PlanFor{ID: id, Plan: day.MustHorizon("2026-11-26")})
	undo, err := d.desk.Invert(d.env(), rename, book.Undo)
	if err != nil {
		t.Fatal(err)
	}
	d.book.Apply(undo)
	if got := d.todo(id); got.Title != "Meter reading" || got.Plan.String() != "2026-11-26" {
		t.Errorf("after undo: %+v", got)
	}
	if undo.Says != "Undone. Changed: “Meter reading, store room”, before: “Meter reading”" {
		t.Errorf("it says %q", undo.Says)
	}
}

func TestUndoOfWhatChangedFurtherIsRefused(t *testing.T) {
	d := newDesk(t)
	first := d.do(book.Capture{Title: "a", Tags: []string{"calls"}})
	id := first.Todo().ID
	due := d.do(book.Edit{ID: id, Due: ptr(day.MustMoment("2026-11-27"))})
	d.do(book.Edit{ID: id, Due: ptr(day.MustMoment("2026-11-28"))})
	made := d.do(book.AddList{Name: "Labels"})
	d.do(book.Move{ID: id, List: made.Lists[0].After.ID})
	note := d.do(book.Edit{ID: id, Notes: ptr("one")})
	d.do(book.Edit{ID: id, Notes: ptr("two")})
	for name, c := range map[string]struct {
		change *book.Change
		fields []string
	}{
		"capture": {first, []string{"notes", "list", "due"}}, "due": {due, []string{"due"}},
		"list": {made, []string{"its to-dos"}}, "notes": {note, []string{"notes"}},
	} {
		_, err := d.desk.Invert(d.env(), c.change, book.Undo)
		var conflict *book.ConflictError
		if !errors.As(err, &conflict) || !slices.Equal(conflict.Fields, c.fields) {
			t.Errorf("%s: %v; want a conflict in %v", name, err, c.fields)
		}
	}
}

func TestUndoOfATagOthersCarryByNow(t *testing.T) {
	d := newDesk(t)
	a, b := d.capture("a"), d.capture("b")
	tagging := d.do(book.Tagging{ID: a, Add: []string{"calls"}})
	d.do(book.Tagging{ID: b, Add: []string{"calls"}})
	undo, err := d.desk.Invert(d.env(), tagging, book.Undo)
	if err != nil {
		t.Fatal(err)
	}
	d.book.Apply(undo)
	if len(d.todo(a).Tags) != 0 || len(d.todo(b).Tags) != 1 || tagName(t, d.desk, d.todo(b).Tags[0]) != "calls" {
		t.Error("the tag did not stay with the other to-do alone")
	}
}

func tagName(t *testing.T, b *book.Desk, id book.ID) string {
	t.Helper()
	tag, err := b.Tag(id)
	if err != nil {
		t.Fatal(err)
	}
	return tag.Name
}

// snapshot writes everything in a Book but revisions, in one order.
func snapshot(t *testing.T, b *book.Desk) string {
	t.Helper()
	var lines []string
	for _, part := range [][]*book.Todo{b.Open(), b.Closed(), b.Bin()} {
		for _, todo := range part {
			row := *todo
			row.Revision = 0
			note, err := b.Note(todo)
			if err != nil {
				t.Fatal(err)
			}
			lines = append(lines, fmt.Sprintf("%+v %q", row, note))
		}
	}
	for _, l := range b.Lists() {
		lines = append(lines, fmt.Sprintf("list %v %q %v %v %v", l.ID, l.Name, l.Shelf, l.Colour, l.Position))
	}
	for _, tag := range b.Tags() {
		lines = append(lines, fmt.Sprintf("tag %v %q %v", tag.ID, tag.Name, tag.Colour))
	}
	slices.Sort(lines)
	return strings.Join(lines, "\n")
}
