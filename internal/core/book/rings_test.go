package book_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/settings"
	"tincup/internal/core/term"
)

// rang tells that reminders have come, and returns the rings.
func (d *desk) rang(cmd book.RingBell) []book.ID {
	var ids []book.ID
	for _, diff := range d.do(cmd).Rings {
		if diff.Before == nil {
			ids = append(ids, diff.After.ID)
		}
	}
	return ids
}

// come is a reminder of a to-do so many minutes before something.
func come(todo book.ID, minutes int) book.Come {
	return book.Come{Todo: todo, Reminder: day.ReminderBefore(minutes), At: day.MustMoment("2026-11-24T09:00")}
}

// states are the states of a to-do's rings, in the order in which they came.
func (d *desk) states(todo book.ID) string {
	var words []string
	for _, r := range d.desk.RingsOf(todo) {
		words = append(words, map[book.RingState]string{book.Rung: "rung", book.Muted: "muted", book.PutOff: "later", book.Answered: "answered"}[r.State()])
	}
	return strings.Join(words, " ")
}

// What is answered, put off, told again and muted, and what else of the same to-do that concerns.
func TestRings(t *testing.T) {
	d := newDesk(t)
	a, b := d.capture("a"), d.capture("b")
	rings := d.rang(book.RingBell{Come: []book.Come{come(a, 5), come(a, 10), come(b, 5)}})
	if d.states(a) != "rung rung" || d.states(b) != "rung" {
		t.Fatalf("%s, %s", d.states(a), d.states(b))
	}
	seen := d.do(book.Acknowledge{Rings: rings[:1]})
	if seen.Says != "Seen: “a”" || d.states(a) != "answered answered" || d.states(b) != "rung" {
		t.Errorf("%q: %s, %s", seen.Says, d.states(a), d.states(b))
	}
	// It is turned round, to and fro, and the undoing of the undoing too.
	turned := seen
	for _, turn := range []struct {
		kind book.Kind
		want string
	}{{book.Undo, "rung rung"}, {book.Redo, "answered answered"}, {book.Undo, "rung rung"}} {
		back, err := d.desk.Invert(d.env(), turned, turn.kind)
		if err != nil {
			t.Fatal(err)
		}
		d.book.Apply(back)
		if d.states(a) != turn.want {
			t.Errorf("%s: %s, want %s", turn.kind, d.states(a), turn.want)
		}
		turned = back
	}
	later := d.do(book.RingLater{Rings: []book.ID{rings[1], rings[2]}, Until: d.now.Add(time.Hour)})
	if later.Says != "Rings again Tue 24 Nov 10:04: 2 reminders" || d.states(a) != "answered later" || d.states(b) != "later" {
		t.Errorf("%q: %s, %s", later.Says, d.states(a), d.states(b))
	}
	again := d.do(book.RingBell{Again: rings[2:]})
	if again.Says != "Rang: “b”" || d.states(b) != "rung" || len(again.Rings) != 1 {
		t.Errorf("%q: %s", again.Says, d.states(b))
	}
	// What was answered stays so when it is answered again, or put off.
	d.do(book.Acknowledge{Rings: rings})
	was := d.desk.RingsOf(b)[0].Acknowledged
	d.do(book.Acknowledge{Rings: rings})
	d.do(book.RingLater{Rings: rings, Until: d.now.Add(time.Hour)})
	if d.states(a) != "answered answered" || d.desk.RingsOf(b)[0].Acknowledged != was {
		t.Errorf("answered twice: %s, %v", d.states(a), d.desk.RingsOf(b)[0])
	}
	// One that comes over another is answered at once, and one that is muted stands until it is told.
	c := d.capture("c")
	muted := d.do(book.RingBell{Come: []book.Come{come(c, 5)}, Mute: true})
	if muted.Says != "Quiet now, rings later: “c”" || d.states(c) != "muted" {
		t.Errorf("%q: %s", muted.Says, d.states(c))
	}
	d.do(book.RingBell{Come: []book.Come{{Todo: c, Reminder: day.ReminderBefore(7), Over: true}}, Mute: true})
	d.do(book.RingBell{Come: []book.Come{come(c, 9)}, Mute: true})
	if d.states(c) != "muted answered muted" {
		t.Errorf("muted too: %s", d.states(c))
	}
	d.do(book.RingBell{Again: []book.ID{d.desk.RingsOf(c)[0].ID}})
	if d.states(c) != "rung answered answered" {
		t.Errorf("told: %s", d.states(c))
	}
	if kinds := book.Aside(); !slices.Contains(kinds, again.Kind) || !slices.Contains(kinds, seen.Kind) || !slices.Contains(kinds, later.Kind) || len(kinds) != 3 {
		t.Errorf("aside are %v", kinds)
	}
}

func TestRingsThatAreRefused(t *testing.T) {
	d := newDesk(t)
	a, gone := d.capture("a"), d.capture("gone")
	ring := d.rang(book.RingBell{Come: []book.Come{come(a, 5)}})
	d.do(book.Delete{ID: gone})
	most := d.now.Add(book.MaxLater * 24 * time.Hour)
	for name, c := range map[string]struct {
		cmd  book.Command
		says string
	}{
		"put off to now":          {book.RingLater{Rings: ring, Until: d.now}, "until: Tue 24 Nov 09:04 has passed."},
		"put off a moment ahead":  {book.RingLater{Rings: ring, Until: d.now.Add(time.Second)}, ""},
		"put off as far as can":   {book.RingLater{Rings: ring, Until: most}, ""},
		"put off too far":         {book.RingLater{Rings: ring, Until: most.Add(time.Second)}, "until: Thu 25 Nov 2027 09:04 is too far ahead: 366 days is the most."},
		"a ring that is not":      {book.Acknowledge{Rings: []book.ID{{9}}}, "There is no ring"},
		"again of none":           {book.RingBell{Again: []book.ID{{9}}}, "There is no ring"},
		"of what is in the bin":   {book.RingBell{Come: []book.Come{come(gone, 5)}}, "id: “gone” is in the bin."},
		"a ring that is put away": {book.RingLater{Rings: []book.ID{{9}}, Until: d.now.Add(time.Hour)}, "There is no ring"},
	} {
		if says := d.refusal(c.cmd); !strings.HasPrefix(says, c.says) || (says == "") != (c.says == "") {
			t.Errorf("%s: %q; want %q", name, says, c.says)
		}
	}
}

// Rings go with their to-do for good, and come back with it; the bin forgets those that are old.
func TestRingsThatGo(t *testing.T) {
	d := newDesk(t)
	made := d.do(book.Capture{Title: "a"})
	a := made.Todo().ID
	d.rang(book.RingBell{Come: []book.Come{come(a, 5)}})
	if err := d.undo(made); err != "" || d.desk.RingsOf(a) != nil || len(d.desk.Rings()) != 0 {
		t.Errorf("its to-do is undone: %v, %v", d.desk.RingsOf(a), err)
	}
	open, answered, done := d.capture("open"), d.capture("answered"), d.capture("done")
	d.rang(book.RingBell{Come: []book.Come{come(open, 5), come(answered, 5), come(done, 5)}})
	d.do(book.Acknowledge{Rings: []book.ID{d.desk.RingsOf(answered)[0].ID}})
	d.do(book.Complete{ID: done})
	at := day.TimestampOf(d.now) - day.Timestamp(time.Minute/time.Millisecond)
	d.do(book.EmptyBin{UpTo: at - 60_001})
	if got := fmt.Sprint(d.states(open), d.states(answered), d.states(done)); got != "rungansweredrung" {
		t.Errorf("a moment before they are old: %s", got)
	}
	d.do(book.EmptyBin{UpTo: at})
	if got := fmt.Sprint(d.states(open), "|", d.states(answered), "|", d.states(done)); got != "rung||" {
		t.Errorf("old: %s", got)
	}
}

func TestReviewsAndKeeping(t *testing.T) {
	d := newDesk(t)
	id, done := d.capture("a"), d.capture("done")
	d.do(book.Complete{ID: done})
	was := d.todo(id).Changed
	if c := d.do(book.Keep{ID: id}); c.Says != "Kept: “a”" || d.todo(id).Changed <= was {
		t.Errorf("%q, changed %v, before %v", c.Says, d.todo(id).Changed, was)
	}
	week := 7 * 24 * 60
	for name, c := range map[string]struct {
		cmd  book.Command
		says string
	}{
		"done":            {book.Keep{ID: done}, "id: “done” is done or cancelled."},
		"not there":       {book.Keep{ID: book.ID{9}}, "There is no to-do"},
		"no such walk":    {book.FinishReview{Walk: settings.Walks}, "walk: There is a daily"},
		"below the first": {book.FinishReview{Walk: -1}, "walk: There is a daily"},
		"a week":          {book.FinishReview{Minutes: week}, ""},
		"above a week":    {book.FinishReview{Minutes: week + 1}, "minutes: 0 decided in 10081 minutes; "},
		"less than none":  {book.FinishReview{Decided: -1}, "minutes: -1 decided in 0 minutes; "},
		"before":          {book.FinishReview{Minutes: -1}, "minutes: 0 decided in -1 minutes; "},
	} {
		if says := d.refusal(c.cmd); !strings.HasPrefix(says, c.says) || (says == "") != (c.says == "") {
			t.Errorf("%s: %q; want %q", name, says, c.says)
		}
	}
	for walk, says := range map[settings.Walk]string{settings.Daily: "Daily review done: 3 decided in 1 min", settings.Monthly: "Monthly review done: 3 decided in 1 min"} {
		if c := d.do(book.FinishReview{Walk: walk, Decided: 3}); c.Says != says {
			t.Errorf("it says %q", c.Says)
		}
		if chosen, _ := d.desk.Settings(); chosen.Reviewed[walk] != "2026-11-24" || chosen.Reviewed[settings.Weekly] != "" && chosen.Reviewed[settings.Weekly] != "never" {
			t.Errorf("reviewed %v", chosen.Reviewed)
		}
	}
}

// What a change did to each kind of row, and which revision the row is of.
func TestFieldsAndRevisionsOfEachKind(t *testing.T) {
	d := newDesk(t)
	list := d.list("Loans")
	shelf := d.do(book.AddShelf{Name: "Home"}).Shelves[0].After.ID
	section := d.do(book.AddSection{List: list, Name: "May"}).Sections[0].After.ID
	person := d.do(book.AddPerson{Name: "Ines"}).People[0].After.ID
	view := d.do(book.AddView{Name: "v", Question: "{}"}).Views[0].After.ID
	calendar := d.do(book.AddCalendar{Name: "c", Address: "https://a.example/"}).Calendars[0].After.ID
	ground := d.do(book.AddPlace{Name: "museum"}).Places[0].After.ID
	made := d.do(book.Capture{Title: "a", Tags: []string{"calls"}})
	id, tag := made.Todo().ID, made.Todo().Tags[0]
	name := ptr("other")
	for _, c := range []struct {
		kind   book.RowKind
		id     book.ID
		cmd    book.Command
		fields string
	}{
		{book.ListRow, list, book.EditList{ID: list, Name: name}, "[name]"},
		{book.ListRow, list, book.EditList{ID: list, Order: ptr(book.ByDue), Pinned: ptr(true)}, "[pinned order]"},
		{book.SectionRow, section, book.EditSection{ID: section, Name: "other"}, "[name]"},
		{book.ShelfRow, shelf, book.EditShelf{ID: shelf, Name: name}, "[name]"},
		{book.ShelfRow, shelf, book.EditShelf{ID: shelf, Hours: ptr(term.OwnHours)}, "[hours]"},
		{book.TagRow, tag, book.EditTag{ID: tag, Name: name}, "[name]"},
		{book.PersonRow, person, book.EditPerson{ID: person, Name: name}, "[name]"},
		{book.ViewRow, view, book.EditView{ID: view, Name: name}, "[name]"},
		{book.CalendarRow, calendar, book.EditCalendar{ID: calendar, Name: name}, "[name]"},
		{book.PlaceRow, ground, book.EditPlace{ID: ground, Name: name, Radius: ptr(200)}, "[name radius]"},
		{book.TodoRow, id, book.Edit{ID: id, Title: name, Notes: ptr("n")}, "[notes title]"},
		{book.TodoRow, id, book.Edit{ID: id, Notes: ptr("m")}, "[notes]"},
		{book.TodoRow, id, book.Edit{ID: id, Notes: ptr("")}, "[notes]"},
	} {
		change := d.do(c.cmd)
		got := change.FieldsOf(c.kind, c.id)
		slices.Sort(got)
		want := strings.Fields(strings.Trim(c.fields, "[]"))
		slices.Sort(want)
		if fmt.Sprint(got) != fmt.Sprint(want) {
			t.Errorf("%T: %v; want %v", c.cmd, got, want)
		}
		if other := change.FieldsOf(c.kind, book.ID{9}); len(other) != 0 {
			t.Errorf("%T: of another row %v", c.cmd, other)
		}
		if revision, err := d.desk.RevisionOf(c.kind, c.id); err != nil || revision != d.desk.Revision() {
			t.Errorf("%T: revision %d, %v", c.cmd, revision, err)
		}
		if _, err := d.desk.RevisionOf(c.kind, book.ID{9}); err == nil {
			t.Errorf("%T: a row that is not there has a revision", c.cmd)
		}
		if len(book.FieldNamesOf(c.kind)) == 0 {
			t.Errorf("%s has no fields", c.kind)
		}
		if fields := change.FieldsOf(c.kind, c.id); !slices.ContainsFunc(fields, func(f string) bool { return slices.Contains(book.FieldNamesOf(c.kind), f) }) {
			t.Errorf("%v are no fields of %s", fields, c.kind)
		}
	}
	if fields := made.FieldsOf(book.TodoRow, id); len(fields) != 0 {
		t.Errorf("of a new to-do %v", fields)
	}
}
