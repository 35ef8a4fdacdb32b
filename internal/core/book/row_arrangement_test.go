package book_test

import (
	"errors"
	"slices"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

func TestNamesOfPlaces(t *testing.T) {
	d := newDesk(t)
	list, shelf := d.list("Loans"), d.do(book.AddShelf{Name: "Museum"}).Shelves[0].After.ID
	section := d.do(book.AddSection{List: list, Name: "Lamps"}).Sections[0].After.ID
	d.list("Labels")
	d.do(book.AddShelf{Name: "Home"})
	d.do(book.AddSection{List: list, Name: "Crates"})
	d.do(book.Capture{Title: "x", Tags: []string{"calls", "work/meetings"}})
	var tag book.ID
	for _, t := range d.desk.Tags() {
		if t.Name == "calls" {
			tag = t.ID
		}
	}
	long := strings.Repeat("x", 5000)
	for _, c := range []struct {
		cmd  book.Command
		says string
	}{
		{book.AddList{Name: "loans"}, "“Loans” exists already"}, {book.AddList{Name: " "}, "is empty"}, {book.AddList{Name: long}, "5000 characters; 100"},
		{book.EditList{ID: list, Name: ptr("LABELS")}, "“Labels” exists already"}, {book.EditList{ID: list, Name: ptr("")}, "is empty"},
		{book.EditShelf{ID: shelf, Name: ptr("home")}, "“Home” exists already"}, {book.EditShelf{ID: shelf, Name: ptr(long)}, "5000 characters"},
		{book.EditSection{ID: section, Name: "crates"}, "“Crates” exists already"}, {book.AddSection{List: list, Name: ""}, "is empty"},
		{book.EditTag{ID: tag, Name: ptr("work/Meetings")}, "Merge the two"}, {book.EditTag{ID: tag, Name: ptr("a//b")}, "empty part"},
		{book.EditTag{ID: tag, Name: ptr("")}, "is empty"}, {book.EditTag{ID: tag, Name: ptr(long)}, "5000 characters"},
		{book.Capture{Title: "x", Tags: []string{"a//b"}}, "empty part"}, {book.MergeTags{From: tag, Into: tag}, "cannot be merged"},
		{book.AddPerson{Name: "Ines", Email: "ines at harbour"}, "not an e-mail address"}, {book.AddPerson{Name: "Ines", Note: long}, "5000 bytes"},
		{book.StartOver{List: list}, "not a checklist"}, {book.Pour{Template: list, Name: "y", On: day.MustDate("2026-12-01")}, "no template"},
		{book.Capture{Title: "x", List: list, Section: book.ID{3: 1}}, "no section"},
	} {
		if why := d.refused(c.cmd); !strings.Contains(why, c.says) {
			t.Errorf("%T: %q; want %q", c.cmd, why, c.says)
		}
	}
	for _, cmd := range []book.Command{book.EditList{ID: book.ID{9: 1}}, book.DeleteShelf{ID: book.ID{9: 1}}, book.EditSection{ID: book.ID{9: 1}},
		book.DeleteTag{ID: book.ID{9: 1}}, book.RemovePerson{ID: book.ID{9: 1}}} {
		if _, err := d.desk.Do(d.env(), cmd); !errors.Is(err, book.ErrNotFound) {
			t.Errorf("%T on nothing: %v", cmd, err)
		}
	}
}

func TestListAwayAndBack(t *testing.T) {
	d := newDesk(t)
	list := d.list("Autumn fair")
	a := d.do(book.Capture{Title: "a", List: list}).Todo().ID
	sub := d.do(book.Capture{Title: "sub", Parent: a}).Todo().ID
	old := d.do(book.Capture{Title: "thrown away before", List: list}).Todo().ID
	d.do(book.Delete{ID: old})
	open := len(d.desk.Open())
	d.do(book.EditList{ID: list, Archived: ptr(true)})
	if len(d.desk.Open()) != open-2 || len(d.desk.Away()) != 2 {
		t.Errorf("archived: %d open, %d away", len(d.desk.Open()), len(d.desk.Away()))
	}
	if why := d.refused(book.Capture{Title: "x", List: list}); !strings.Contains(why, "is archived") {
		t.Error(why)
	}
	d.do(book.EditList{ID: list, Archived: ptr(false)})
	if len(d.desk.Open()) != open || len(d.desk.Away()) != 0 {
		t.Errorf("back: %d open, %d away", len(d.desk.Open()), len(d.desk.Away()))
	}
	if c := d.do(book.DeleteList{ID: list}); c.Says != "List in the bin: “Autumn fair”, with 1 to-do" {
		t.Error(c.Says)
	}
	// One to-do restored by itself brings its list back.
	d.do(book.Restore{ID: sub})
	if l, _ := d.desk.List(list); !l.Deleted.IsZero() || d.todo(sub).List != list || d.todo(a).Deleted.IsZero() {
		t.Errorf("restored one: %+v", d.todo(sub))
	}
	d.do(book.DeleteList{ID: list})
	d.list("Autumn fair") // its name is taken meanwhile
	d.do(book.RestoreList{ID: list})
	if l, _ := d.desk.List(list); l.Name != "Autumn fair (2)" || !d.todo(sub).Deleted.IsZero() || d.todo(old).Deleted.IsZero() {
		t.Errorf("restored: %s, %v, %v", l.Name, d.todo(sub).Deleted, d.todo(old).Deleted)
	}
	// After 30 days the bin lets go of the list with what was in it.
	d.do(book.Delete{ID: a})
	d.do(book.DeleteList{ID: list})
	d.now = d.now.AddDate(0, 0, 31)
	d.do(book.EmptyBin{UpTo: day.TimestampOf(d.now.AddDate(0, 0, -book.BinDays))})
	if _, err := d.desk.List(list); !errors.Is(err, book.ErrNotFound) {
		t.Error("the list is still in the bin")
	}
}

// A list that comes back under a name which is taken gets a number, within the length of names.
func TestNumberedNames(t *testing.T) {
	d := newDesk(t)
	long := strings.Repeat("ñ", book.MaxName-3)
	for _, c := range [][2]string{{"Fair", "Fair (2)"}, {long, long[:len(long)-2] + " (2)"}} {
		first := d.list(c[0])
		d.do(book.DeleteList{ID: first})
		d.list(c[0])
		d.do(book.RestoreList{ID: first})
		if l, _ := d.desk.List(first); l.Name != c[1] {
			t.Errorf("%q is now %q; %q is wanted", c[0], l.Name, c[1])
		}
	}
}

func TestChecklist(t *testing.T) {
	d := newDesk(t)
	list := d.list("Crates")
	at := d.fill(list, "gloves", "tissue", "straps")
	d.do(book.EditList{ID: list, Checklist: ptr(true)})
	d.do(book.Complete{ID: at["gloves"]})
	d.do(book.Complete{ID: at["straps"]})
	d.do(book.Cancel{ID: at["tissue"]})
	if c := d.do(book.StartOver{List: list}); c.Says != "Started over: “Crates”, 2 to-dos open again" || d.todo(at["tissue"]).Open() {
		t.Errorf("%q", c.Says)
	}
	d.do(book.Complete{ID: at["straps"]})
	done := d.todo(at["straps"]).Completed
	if c := d.do(book.ClearDone{List: list}); c.Says != "Cleared from “Crates”: 1 to-do, kept in Done" {
		t.Errorf("%q", c.Says)
	}
	if now := d.todo(at["straps"]); !now.Cleared || now.Completed != done || !now.Deleted.IsZero() || d.todo(at["gloves"]).Cleared {
		t.Errorf("clear done took the wrong ones: %+v", now)
	}
	// Started over it is passed over, and opened by itself it is in sight again.
	if c := d.do(book.StartOver{List: list}); c.Says != "Started over: “Crates”, 0 to-dos open again" || d.todo(at["straps"]).Open() {
		t.Errorf("%q", c.Says)
	}
	d.do(book.Reopen{ID: at["straps"]})
	d.do(book.Complete{ID: at["straps"]})
	if d.todo(at["straps"]).Cleared {
		t.Error("ticked again, it is out of sight")
	}
}

func TestTemplate(t *testing.T) {
	d := newDesk(t)
	list := d.list("Lending")
	section := d.do(book.AddSection{List: list, Name: "Papers"}).Sections[0].After.ID
	top := d.do(book.Capture{Title: "Agreement", Notes: "two copies", List: list, Section: section, Due: day.MustMoment("2026-12-10T16:00"),
		Start: day.MustDate("2026-12-01"), Tags: []string{"loans"}, Reminders: []day.Reminder{day.ReminderBefore(60)}}).Todo().ID
	d.do(book.Capture{Title: "Sign", Parent: top, Plan: day.MustHorizon("2026-W50")})
	d.do(book.Capture{Title: "Water the lamp", List: list, Due: day.MustMoment("2026-12-04"),
		Repeat: &repeat.Repeat{Rule: repeat.MustParse("FREQ=WEEKLY;BYDAY=FR;UNTIL=20261231")}})
	d.do(book.Complete{ID: d.do(book.Capture{Title: "done", List: list}).Todo().ID})
	open := len(d.desk.Open())
	template := d.do(book.SaveTemplate{List: list, Name: "Lending"}).Lists[0].After
	if template.Template.String() != "2026-12-01" || len(d.desk.Open()) != open || len(d.desk.Away()) != 3 {
		t.Fatalf("%+v, %d open, %d away", template, len(d.desk.Open()), len(d.desk.Away()))
	}
	c := d.do(book.Pour{Template: template.ID, Name: "Lending in spring", On: day.MustDate("2027-03-01")}) // 90 days on, a Monday
	made := c.Lists[0].After
	var lines []string
	for todo := range d.desk.OfList(made.ID) {
		note, _ := d.desk.Note(todo)
		line := strings.TrimSpace(strings.Join([]string{todo.Title, todo.Start.String(), todo.Due.String(), todo.Plan.String(), note}, " "))
		if todo.Repeat != nil {
			line += " " + todo.Repeat.Rule.String()
		}
		lines = append(lines, line)
	}
	slices.Sort(lines)
	want := []string{"Agreement 2027-03-01 2027-03-10T16:00  two copies", "Sign   2027-W10",
		"Water the lamp  2027-03-05 FREQ=WEEKLY;BYDAY=FR;UNTIL=20270331"}
	if strings.Join(lines, "\n") != strings.Join(want, "\n") {
		t.Errorf("poured out:\n%s\nwant\n%s", strings.Join(lines, "\n"), strings.Join(want, "\n"))
	}
	if s := d.desk.Sections(made.ID); len(s) != 1 || s[0].Name != "Papers" || !made.Template.IsZero() {
		t.Errorf("sections %v, template %v", s, made.Template)
	}
}

func TestTags(t *testing.T) {
	d := newDesk(t)
	a := d.do(book.Capture{Title: "a", Tags: []string{"work", "work/meetings"}}).Todo().ID
	b := d.do(book.Capture{Title: "b", Tags: []string{"office/meetings", "work/meetings"}}).Todo().ID
	named := func(name string) book.ID {
		for _, tag := range d.desk.Tags() {
			if tag.Name == name {
				return tag.ID
			}
		}
		t.Fatalf("there is no tag %s", name)
		return book.ID{}
	}
	names := func(id book.ID) string {
		var out []string
		for _, tag := range d.todo(id).Tags {
			out = append(out, tagName(t, d.desk, tag))
		}
		return strings.Join(out, " ")
	}
	d.do(book.EditTag{ID: named("work"), Name: ptr("museum")})
	if names(a) != "museum museum/meetings" || names(b) != "office/meetings museum/meetings" {
		t.Errorf("renamed: %s; %s", names(a), names(b))
	}
	c := d.do(book.MergeTags{From: named("office/meetings"), Into: named("museum/meetings")})
	if names(b) != "museum/meetings" || len(d.desk.Tags()) != 2 {
		t.Errorf("merged: %s; %q", names(b), c.Says)
	}
	c = d.do(book.DeleteTag{ID: named("museum")})
	if names(a)+names(b) != "" || len(d.desk.Tags()) != 0 {
		t.Errorf("removed: %q", c.Says)
	}
	back, err := d.desk.Invert(d.env(), c, book.Undo)
	if err != nil {
		t.Fatal(err)
	}
	d.book.Apply(back)
	if names(a) != "museum museum/meetings" {
		t.Errorf("undone: %s", names(a))
	}
}
