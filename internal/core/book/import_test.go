package book_test

import (
	"errors"
	"fmt"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

func coming(uid, title string, change ...func(*book.Incoming)) book.Incoming {
	in := book.Incoming{UID: uid, Under: -1, Todo: book.Todo{Title: title}, Carries: book.FieldsOf(book.FieldNames()...)}
	for _, f := range change {
		f(&in)
	}
	return in
}

// bring imports, and returns the change and what became of each in a word.
func (d *desk) bring(items ...book.Incoming) (*book.Change, string) {
	d.t.Helper()
	cmd := book.Import{Items: items, Report: make([]book.Imported, len(items))}
	c, err := d.desk.Do(d.env(), cmd)
	if err != nil {
		d.t.Fatal(err)
	}
	if !c.Empty() {
		d.book.Apply(c)
	}
	d.sound()
	var words []string
	for _, told := range cmd.Report {
		switch {
		case told.Err != nil:
			words = append(words, "refused: "+told.Err.Error())
		case told.New:
			words = append(words, "new")
		case len(told.Changed) > 0:
			words = append(words, strings.Join(told.Changed, "+"))
		default:
			words = append(words, "same")
		}
	}
	return c, strings.Join(words, " | ")
}

func TestImport(t *testing.T) {
	d := newDesk(t)
	due := func(text string) func(*book.Incoming) {
		return func(in *book.Incoming) { in.Todo.Due = day.MustMoment(text) }
	}
	lamps := coming("lamps@x", "Count the lamps", due("2026-11-27"), func(in *book.Incoming) {
		in.List, in.Section, in.Person, in.Tags, in.Notes = "Loans", "Before", "Ada", []string{"calls"}, "In the store"
		in.Todo.Person.Role, in.Todo.Place = book.Ask, "The museum"
	})
	wicks := coming("wicks@x", "Trim the wicks", func(in *book.Incoming) { in.Under = 0 })
	first, said := d.bring(lamps, wicks)
	if said != "new | new" || first.Says != "Brought in: 2 new, and made: the list “Loans”, the person “Ada”" {
		t.Fatalf("%s; %s", said, first.Says)
	}
	a, b := d.desk.ByUID("lamps@x"), d.desk.ByUID("wicks@x")
	if a == nil || b == nil || b.Parent != a.ID || a.Place != "The museum" || d.desk.PlaceNamed("the museum") == nil || a.Person.Role != book.Ask {
		t.Fatalf("%+v, %+v", a, b)
	}
	if _, said := d.bring(lamps, wicks); said != "same | same" {
		t.Errorf("once more: %s", said)
	}
	// Field by field, also what another list says; what is not carried stays.
	lamps.Todo.Due, lamps.Notes, lamps.List = day.MustMoment("2026-11-30"), "In the shed", "Labels"
	wicks.Carries = book.FieldsOf("priority")
	wicks.Todo = book.Todo{Title: "not carried", Priority: book.High}
	second, said := d.bring(lamps, wicks)
	if said != "notes+due+list | priority" && said != "due+notes+list | priority" {
		t.Errorf("changed: %s", said)
	}
	if got := d.todo(b.ID); got.Title != "Trim the wicks" || got.Priority != book.High || got.List != d.todo(a.ID).List {
		t.Errorf("the subtask is %+v", got)
	}
	for _, c := range []*book.Change{second, first} {
		if why := d.undo(c); why != "" {
			t.Fatal(why)
		}
	}
	if d.desk.Len() != 0 || len(d.desk.Lists()) != 0 || d.desk.ByUID("lamps@x") != nil {
		t.Errorf("%d to-dos and %d lists are left", d.desk.Len(), len(d.desk.Lists()))
	}
}

// What breaks a rule is left out with what is under it, and all else comes in.
func TestImportLeavesOut(t *testing.T) {
	d := newDesk(t)
	binned := d.capture("binned")
	d.do(book.Delete{ID: binned})
	daily := d.do(book.Capture{Title: "daily", Due: day.MustMoment("2026-11-24"), Repeat: &repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY")}}).Todo().ID
	record := d.do(book.Complete{ID: daily})
	var kept book.ID
	for _, diff := range record.Todos {
		if diff.Before == nil {
			kept = diff.After.ID
		}
	}
	bad := coming("bad", "starts late", func(in *book.Incoming) {
		in.Todo.Start, in.Todo.Due, in.List = day.MustDate("2026-12-01"), day.MustMoment("2026-11-27"), "Nobody makes this"
	})
	_, said := d.bring(bad,
		coming("sub", "under it", func(in *book.Incoming) { in.Under = 0 }),
		coming("good", "good"), coming("good", "twice"), coming("", " "),
		coming(binned.String(), "binned"), coming(kept.String(), "record"),
		coming(strings.Repeat("x", 256), "long uid"),
		coming("tag", "x", func(in *book.Incoming) { in.Tags = []string{"no good"} }),
		coming("list", "x", func(in *book.Incoming) { in.List = strings.Repeat("x", 300) }),
		coming("rule", "x", func(in *book.Incoming) { in.Todo.Repeat = &repeat.Repeat{} }),
		coming("orphan", "its parent is not there", func(in *book.Incoming) { in.Parent = "nobody" }),
		coming("child", "of one that is there", func(in *book.Incoming) { in.Parent = daily.String() }))
	for i, want := range []string{"is after the due", "was left out", "new", "that of number 3 as well", "title is empty", "in the bin", "record", "256 bytes", "may hold letters", "300 characters", "without a rule", "new", "new"} {
		if got := strings.Split(said, " | ")[i]; !strings.Contains(got, want) {
			t.Errorf("number %d: %s; %q is wanted", i+1, got, want)
		}
	}
	if len(d.desk.Lists()) != 0 || d.desk.ByUID("child").Parent != daily {
		t.Errorf("lists %d, the child is under %v", len(d.desk.Lists()), d.desk.ByUID("child").Parent)
	}
	// Without a report it is all or none.
	if _, err := d.desk.Do(d.env(), book.Import{Items: []book.Incoming{coming("fine", "fine"), bad}}); err == nil || !strings.Contains(err.Error(), "item 2") {
		t.Errorf("without a report: %v", err)
	}
	if _, err := d.desk.Do(d.env(), book.Import{}); err == nil {
		t.Error("nothing came in")
	}
}

// An import tells how far it has got, and is ended by who is told.
func TestImportTellsHowFarItIs(t *testing.T) {
	d := newDesk(t)
	var told []int
	cmd := book.Import{Items: []book.Incoming{coming("a", "Lamps"), coming("b", "Wicks"), coming("c", "Oil")}}
	cmd.Each = func(done int) error {
		told = append(told, done)
		return nil
	}
	if c, err := d.desk.Do(d.env(), cmd); err != nil || len(c.Todos) != 3 || fmt.Sprint(told) != "[0 1 2 3]" {
		t.Errorf("told %v: %v", told, err)
	}
	enough := errors.New("enough")
	for stop := range 4 {
		cmd.Each = func(done int) error {
			if done == stop {
				return enough
			}
			return nil
		}
		if c, err := d.desk.Do(d.env(), cmd); c != nil || !errors.Is(err, enough) {
			t.Errorf("ended at %d: %v, %v", stop, c, err)
		}
	}
}

// The sentence of the history stays one that can be read, however much is made.
func TestImportSaysLittleOfMuch(t *testing.T) {
	for n, want := range map[int]string{
		3: "Brought in: 3 new, and made: the list “List 0”, the list “List 1”, the list “List 2”, the person “Person 0”, the person “Person 1”, the person “Person 2”",
		4: "Brought in: 4 new, and made: 4 lists, 4 people",
	} {
		d := newDesk(t)
		var items []book.Incoming
		for i := range n {
			items = append(items, coming("", "Lamp", func(in *book.Incoming) {
				in.List, in.Person, in.Todo.Person.Role = fmt.Sprint("List ", i), fmt.Sprint("Person ", i), book.Ask
			}))
		}
		if c, _ := d.bring(items...); c.Says != want {
			t.Errorf("of %d: %s", n, c.Says)
		}
	}
}

// A closed parent of something open is open; the handful holds five; ids of our own are kept.
func TestImportKeepsTheRules(t *testing.T) {
	d := newDesk(t)
	today := day.DateOf(d.now)
	done := coming("p", "done", func(in *book.Incoming) { in.Todo.Status = book.Completed })
	items := []book.Incoming{done, coming("s", "open", func(in *book.Incoming) { in.Under = 0 })}
	for i := range 7 {
		items = append(items, coming(fmt.Sprint("h", i), "picked", func(in *book.Incoming) { in.Todo.Handful = today }))
	}
	own := "01a20000-0000-7000-8000-00000000abcd"
	items = append(items, coming(own, "ours"), coming("01A20000-0000-7000-8000-00000000ABCE", "in capitals"))
	if _, said := d.bring(items...); strings.Contains(said, "refused") {
		t.Fatal(said)
	}
	if p := d.desk.ByUID("p"); !p.Open() || !p.Completed.IsZero() {
		t.Errorf("the parent is %v", p.Status)
	}
	picked := 0
	for todo := range d.desk.All() {
		if todo.Handful == today {
			picked++
		}
	}
	if picked != 5 || d.desk.ByUID(own).ID.String() != own || d.desk.ByUID(own).KnownAs() != own || d.desk.ByUID("01A20000-0000-7000-8000-00000000ABCE").KnownAs() != "01A20000-0000-7000-8000-00000000ABCE" {
		t.Errorf("%d are picked; ours is %v", picked, d.desk.ByUID(own))
	}
	// One that repeats and is done comes round no more; one that goes on keeps its ticks.
	r := &repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY"), First: today}
	d.bring(coming("r", "daily", func(in *book.Incoming) { in.Todo.Due, in.Todo.Repeat = day.Moment{Date: today}, r }))
	id := d.desk.ByUID("r").ID
	d.do(book.Complete{ID: id})
	ticks := d.todo(id).Repeat.Ticks
	d.bring(coming("r", "daily, renamed", func(in *book.Incoming) { in.Todo.Due, in.Todo.Repeat = d.todo(id).Due, r }))
	if got := d.todo(id); got.Title != "daily, renamed" || got.Repeat.Ticks != ticks {
		t.Errorf("it goes on as %+v", got.Repeat)
	}
	d.bring(coming("r", "daily, renamed", func(in *book.Incoming) {
		in.Todo.Status, in.Todo.Due, in.Todo.Repeat = book.Completed, d.todo(id).Due, r
	}))
	if got := d.todo(id); got.Open() || got.Repeat != nil {
		t.Errorf("done it is %+v", got)
	}
}

// What comes in alone is named, and may go into a template or a list that was put away.
func TestImportOfOne(t *testing.T) {
	d := newDesk(t)
	template := d.do(book.AddList{Name: "Lending out a lamp", Template: day.MustDate("2026-11-24")}).Lists[0].After.ID
	c := d.do(book.Import{List: template, Items: []book.Incoming{coming("", "Wrap it")}})
	if c.Says != "Brought in: “Wrap it”" || c.Todo().List != template {
		t.Errorf("it says %q, and it is in %s", c.Says, c.Todo().List)
	}
	gone := d.list("Loans")
	d.do(book.DeleteList{ID: gone})
	if _, err := d.desk.Do(d.env(), book.Import{List: gone, Items: []book.Incoming{coming("", "Wrap it")}}); err == nil {
		t.Error("it comes into a list in the bin")
	}
}

// Values that could not be read are added to the notes: to those that come in, or else to those that are
// there. Each is added once, however often it comes, and never takes the place of what was there.
func TestImportOfWhatWasNotRead(t *testing.T) {
	d := newDesk(t)
	notes := func() string {
		t.Helper()
		s, err := d.desk.Note(d.desk.ByUID("a@x"))
		if err != nil {
			t.Fatal(err)
		}
		return s
	}
	item := func(fields string, with, left string) book.Incoming {
		in := coming("a@x", "Oil the hinge", func(in *book.Incoming) { in.Carries = book.FieldsOf(strings.Fields(fields)...) })
		in.Notes, in.Left = with, left
		return in
	}
	for i, c := range []struct {
		in         book.Incoming
		said, want string
	}{
		{item("title", "", "due: soon"), "new", "due: soon"},
		{item("title", "", "due: soon"), "same", "due: soon"},
		{item("title", "", "due: later\x07"), "notes", "due: soon\n\ndue: later"},
		{item("title notes", "with care", "due: soon"), "notes", "with care\n\ndue: soon"},
		{item("title notes", "with care\n\ndue: soon", "due: soon"), "same", "with care\n\ndue: soon"},
		{item("title", "", strings.Repeat("é", book.MaxNotes)), "notes", "with care\n\ndue: soon\n\n" + strings.Repeat("é", (book.MaxNotes-22)/2)},
	} {
		if _, said := d.bring(c.in); said != c.said || notes() != c.want {
			t.Errorf("%d: %s, and the notes are %.60q, want %s, %.60q", i, said, notes(), c.said, c.want)
		}
	}
}
