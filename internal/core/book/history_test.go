package book_test

import (
	"encoding/json"
	"os"
	"reflect"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/geo"
	"tincup/internal/core/repeat"
	"tincup/internal/core/settings"
	"tincup/internal/core/term"
)

// fullTodo has every field set.
func fullTodo() book.Todo {
	id := func(n byte) book.ID { return book.ID{3: 7, 15: n} }
	return book.Todo{ID: id(1), Title: "“Ring” \"him\"\tsoon é \u2028 \\ <b>", NotesSize: 3, List: id(2), Section: id(3), Parent: id(4), Position: "e0V001",
		Status: book.Cancelled, IsNote: true, InOrder: true, Outcome: "It hangs.", Source: book.Source{Link: "event:1/a", Words: "“Meeting” of the calendar “Museum”"}, Place: "lantern room", Handful: day.MustDate("2026-11-24"), Priority: book.High,
		Start: day.MustDate("2026-11-20"), Due: day.MustMoment("2026-11-27T16:00"), Plan: day.MustHorizon("2026-11-26T14:00/PT30M"), Estimate: 30, Concentration: term.Deep,
		Reminders: []day.Reminder{day.ReminderBefore(60)}, Person: book.Involved{ID: id(5), Role: book.WaitingOn, Since: day.MustDate("2026-11-01")},
		Repeat: &repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY"), First: day.MustDate("2026-11-01"), Current: day.MustDate("2026-11-24"),
			Anchor: repeat.Completion, Lead: 2, Without: []day.Date{day.MustDate("2026-11-03")}, Last: day.MustDate("2027-01-01"),
			Paused: day.MustDate("2026-11-20"), Ticks: 3, Missed: 1, LastDone: day.MustDate("2026-11-19")},
		Record: id(6), Attachments: []book.Attachment{{Name: "a.png", Hash: "00", Type: "image/png", Size: 9}}, Tags: []book.ID{id(7), id(8)},
		Created: 1, Changed: 2, Completed: 3, Cleared: true, Deleted: 4, RemindFrom: 6, UID: "lamps@harbour.example", Revision: 5}
}

// fullChange has a row of every kind, with every field set.
func fullChange() *book.Change {
	id := func(n byte) book.ID { return book.ID{3: 9, 15: n} }
	t := fullTodo()
	on := day.MustDate("2026-11-24")
	return &book.Change{Revision: 5, Kind: "edit", Says: "Changed: “Ring”",
		Todos:    []book.Diff[book.Todo]{{Before: &book.Todo{ID: t.ID, Title: "Ring", Revision: 4}, After: &t}},
		Notes:    []book.Diff[book.Note]{{Before: &book.Note{ID: t.ID, Text: "was"}, After: &book.Note{ID: t.ID, Text: "is"}}},
		Lists:    []book.Diff[book.List]{{After: &book.List{ID: id(1), Owner: id(9), Shelf: id(2), Name: "House", Colour: book.Plum, Position: "e1", Order: book.ByDue, Checklist: true, Pinned: true, Archived: 7, Due: on, Outcome: "It hangs.", With: id(5), Template: on, Deleted: 8, Revision: 5}}},
		Sections: []book.Diff[book.Section]{{After: &book.Section{ID: id(3), List: id(1), Name: "Roof", Position: "e2", Revision: 5}}},
		Shelves:  []book.Diff[book.Shelf]{{After: &book.Shelf{ID: id(2), Name: "Home", Position: "e3", Hours: term.OwnHours, Deleted: 9, Revision: 5}}},
		Tags:     []book.Diff[book.Tag]{{After: &book.Tag{ID: id(4), Name: "calls", Colour: book.Sea, Revision: 5}}},
		People:   []book.Diff[book.Person]{{After: &book.Person{ID: id(5), Name: "Ada", Email: "a@harbour.example", Phone: "1", Note: "n", Revision: 5}}},
		Settings: []book.Diff[book.Chosen]{{After: &book.Chosen{Account: id(9), Settings: settings.Settings{Zone: "Europe/Lisbon", DayStart: 240, SundayFirst: true,
			MonthFirst: true, Look: "dark", UrgentDays: 5, KeysOff: true, Reasons: true, CloseRows: true, Views: "today"}, Revision: 5}}},
		Views:     []book.Diff[book.View]{{After: &book.View{ID: id(6), Name: "Mine", Question: "{}", Icon: "eye", Colour: book.Clay, Position: "e4", Pinned: true, Counted: true, Revision: 5}}},
		Calendars: []book.Diff[book.Calendar]{{After: &book.Calendar{ID: id(7), Name: "Museum", Colour: book.Moss, Address: "https://museum.example/a.ics", File: "a.ics", AllDayTakes: true, Revision: 5}}},
		Rings:     []book.Diff[book.Ring]{{After: &book.Ring{ID: id(8), Todo: t.ID, Reminder: day.ReminderBefore(60), At: day.MustMoment("2026-11-27T15:00"), Rang: 7, Missed: true, Acknowledged: 8, Later: 9, Revision: 5}}},
		Places:    []book.Diff[book.Place]{{After: &book.Place{ID: id(10), Name: "Museum", Middle: geo.MustAt(38.7223, -9.1393), Radius: 300, Thing: true, Revision: 5}}},
	}
}

// A change as the history has kept it reads to the same change whatever the program calls
// its fields, and is written so again. The file is not written anew when this fails: what
// is kept of thirty days is as it says.
func TestHistoryIsReadAsItWasKept(t *testing.T) {
	kept, err := os.ReadFile("testdata/history.json")
	if err != nil {
		t.Fatal(err)
	}
	var read book.Change
	if err := json.Unmarshal(kept, &read); err != nil {
		t.Fatal(err)
	}
	if want := fullChange(); !reflect.DeepEqual(&read, want) {
		t.Errorf("it reads\n%+v\nwant\n%+v", read, *want)
	}
	packed, err := read.Pack()
	if err != nil {
		t.Fatal(err)
	}
	var got, want any
	if json.Unmarshal(packed, &got) != nil || json.Unmarshal(kept, &want) != nil || !reflect.DeepEqual(got, want) {
		t.Errorf("it is kept as\n%s\nwant\n%s", packed, kept)
	}
}

// Every field that the history keeps has a name of its own there, and is set in fullChange.
func TestNamesOfTheHistory(t *testing.T) {
	seen := map[reflect.Type]bool{}
	var look func(v reflect.Value, path string)
	look = func(v reflect.Value, path string) {
		switch v.Kind() {
		case reflect.Pointer:
			if !v.IsNil() {
				look(v.Elem(), path)
			}
			return
		case reflect.Slice:
			for i := range v.Len() {
				look(v.Index(i), path)
			}
			return
		case reflect.Struct:
		default:
			return
		}
		_, text := v.Addr().Interface().(json.Marshaler)
		_, text2 := v.Addr().Interface().(interface{ MarshalText() ([]byte, error) })
		if text || text2 || seen[v.Type()] && v.Type() != reflect.TypeFor[book.Todo]() {
			return
		}
		seen[v.Type()] = true
		for i := range v.NumField() {
			f := v.Type().Field(i)
			if !f.IsExported() {
				continue
			}
			if name, _, _ := strings.Cut(f.Tag.Get("json"), ","); name == "" {
				t.Errorf("%s.%s has no name in the history", path, f.Name)
			}
			look(v.Field(i), path+"."+f.Name)
		}
	}
	look(reflect.ValueOf(fullChange()), "Change")
	if len(seen) < 12 {
		t.Errorf("only %d kinds of rows were looked at", len(seen))
	}
}

// Every field of a to-do but those that each change writes is in the one table of fields:
// it is seen to differ, and can be set back.
func TestEveryFieldIsInTheTable(t *testing.T) {
	full := fullTodo()
	v := reflect.ValueOf(full)
	for i := range v.NumField() {
		name := v.Type().Field(i).Name
		if v.Field(i).IsZero() {
			t.Errorf("%s is not set in fullTodo", name)
		}
		switch name {
		case "ID", "Created", "Changed", "RemindFrom", "UID", "Revision":
			continue
		}
		one := book.Todo{ID: full.ID}
		reflect.ValueOf(&one).Elem().Field(i).Set(v.Field(i))
		if book.Altered(&book.Todo{ID: full.ID}, &one) == 0 {
			t.Errorf("%s is in no entry of the table of fields", name)
		}
		slim := (&book.Change{Todos: []book.Diff[book.Todo]{{Before: &book.Todo{ID: full.ID}, After: &one}}}).Slim()
		if kept := reflect.ValueOf(slim.Todos[0].After).Elem().Field(i); !reflect.DeepEqual(kept.Interface(), v.Field(i).Interface()) {
			t.Errorf("%s is not copied by its entry", name)
		}
	}
}
