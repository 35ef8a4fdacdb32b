package httpapi_test

import (
	"bytes"
	"encoding/json"
	"reflect"
	"slices"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/core/term"
	"tincup/internal/core/view"
	"tincup/internal/httpapi"
	"tincup/internal/httpapi/contract"
)

// Rows that are written at once are what the contract's types would be, whatever
// is in them; every field of a row is set in one of them.
func TestRowsAreTheContracts(t *testing.T) {
	id := func(n byte) book.ID { return book.ID{3: 7, 15: n} }
	all, b := book.Alone(book.MemoryNotes{})
	all.Load(1, &book.Change{Actor: b.Account(), Tags: []book.Diff[book.Tag]{{After: &book.Tag{ID: id(7), Name: "calls"}}, {After: &book.Tag{ID: id(8), Name: "<work>/é\"&"}}}})
	full := &book.Todo{ID: id(1), Title: "“Ring” \"him\"\t<b>soon</b> & é \u2028 \\ \x7f", NotesSize: 3, List: id(2), Section: id(3), Parent: id(4), Position: "e0V001",
		Status: book.Cancelled, IsNote: true, InOrder: true, Outcome: "It hangs.", Place: "lantern room", Handful: day.MustDate("2026-11-24"), Priority: book.High,
		Start: day.MustDate("2026-11-20"), Due: day.MustMoment("2026-11-27T16:00"), Plan: day.MustHorizon("2026-11-26T14:00/PT30M"), Estimate: 30, Concentration: term.Deep,
		Reminders: []day.Reminder{day.ReminderBefore(60)}, Person: book.Involved{ID: id(5), Role: book.WaitingOn, Since: day.MustDate("2026-11-01")},
		Repeat: &repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY"), First: day.MustDate("2026-11-01"), Current: day.MustDate("2026-11-24")},
		Source: book.Source{Link: "event:1/a", Words: "“Meeting”"},
		Record: id(6), Attachments: []book.Attachment{{Name: "a.png", Hash: "00", Type: "image/png", Size: 9}}, Tags: []book.ID{id(7), id(8), id(9)},
		Created: 1, Changed: 2, Completed: 3, Deleted: 4, Revision: 5}
	plain := &book.Todo{ID: id(9), Title: "plain", Created: 1, Changed: 1}
	rows := []view.Row{
		{Todo: plain},
		{Todo: full, Late: true, DaysLate: 3, Dimmed: true, Depth: 2, Progress: book.Progress{Done: 1, Total: 3}, Why: "late, so before all that is not", Waited: 4,
			Path: []string{"a", "b <c>"}, Standing: &view.Standing{Next: plain, Moved: day.MustDate("2026-11-01"), Quiet: 23}},
		{Todo: plain, Standing: &view.Standing{Moved: day.MustDate("2026-11-01")}},
	}
	set := map[string]bool{}
	for i, r := range rows {
		var found *contract.Found
		if i == 1 {
			notes := "the lamp"
			found = &contract.Found{Title: []contract.Span{{Start: 1, End: 2}}, Notes: &notes}
		}
		got := httpapi.AppendRow(nil, b, r, found)
		var typed contract.Row
		dec := json.NewDecoder(bytes.NewReader(got))
		dec.DisallowUnknownFields()
		if err := dec.Decode(&typed); err != nil {
			t.Fatalf("%s is no row of the contract: %v", got, err)
		}
		want, err := json.Marshal(typed)
		if err != nil {
			t.Fatal(err)
		}
		var g, w any
		if err := json.Unmarshal(got, &g); err != nil {
			t.Fatalf("%s: %v", got, err)
		}
		if err := json.Unmarshal(want, &w); err != nil || !reflect.DeepEqual(g, w) {
			t.Errorf("%s\nwant\n%s", got, want)
		}
		if i == 1 { // every value is the one that was put in
			for name, value := range map[string]any{"title": full.Title, "place": full.Place, "outcome": full.Outcome, "concentration": "deep", "due": full.Due.String(), "plan": full.Plan.String(),
				"start": full.Start.String(), "status": full.Status.String(), "priority": full.Priority.String(), "estimate": float64(full.Estimate), "revision": float64(full.Revision),
				"handful": full.Handful.String(), "list": full.List.String(), "section": full.Section.String(), "parent": full.Parent.String(), "record": full.Record.String(),
				"deleted": full.Deleted.String(), "completed": full.Completed.String(), "tags": []any{"calls", "<work>/é\"&"}, "reminders": []any{"-PT1H"}} {
				if is := g.(map[string]any)["todo"].(map[string]any)[name]; !reflect.DeepEqual(is, value) {
					t.Errorf("%s is written as %v, want %v", name, is, value)
				}
			}
		}
		for of, v := range map[string]reflect.Value{"": reflect.ValueOf(typed), "todo.": reflect.ValueOf(typed.Todo)} {
			for j := range v.NumField() {
				if !v.Field(j).IsZero() {
					set[of+v.Type().Field(j).Name] = true
				}
			}
		}
	}
	for of, typ := range map[string]reflect.Type{"": reflect.TypeFor[contract.Row](), "todo.": reflect.TypeFor[contract.Todo]()} {
		for j := range typ.NumField() {
			if name := of + typ.Field(j).Name; !set[name] && name != "todo.Notes" { // notes come with one to-do alone
				t.Errorf("%s is set in no row here; see that it is written", name)
			}
		}
	}
}

// Every field of a to-do that a person can change is written in an answer.
func TestEveryFieldIsOverHTTP(t *testing.T) {
	there := httpapi.FieldsOverHTTP()
	for _, name := range book.FieldNames() {
		if !slices.Contains(there, name) {
			t.Errorf("%s is not in todoFields", name)
		}
	}
}

// A view that is written around its rows is what json.Marshal makes of it.
func TestViewsAreWritten(t *testing.T) {
	_, b := book.Alone(book.MemoryNotes{})
	c := day.Clock{Now: time.Date(2026, 11, 24, 9, 10, 0, 0, time.UTC), Zone: time.UTC}
	row := func(title string) view.Row {
		return view.Row{Todo: &book.Todo{ID: book.ID{15: 1}, Title: title, Created: 1, Changed: 1}}
	}
	for _, groups := range [][]view.Group{
		nil,
		{{Kind: view.All}},
		{{Kind: view.All, Count: 2, Rows: []view.Row{row("a"), row(`"]}"`)}}, {Kind: view.DueToday}, {Kind: view.Planned, Count: 1, Minutes: 30, Rows: []view.Row{row("b")}}},
	} {
		got, body, err := httpapi.ViewBytes(b, c, &view.Result{Groups: groups, Total: len(groups)})
		if err != nil {
			t.Fatal(err)
		}
		want, err := json.Marshal(body)
		if err != nil || string(got) != string(want) {
			t.Errorf("%s\nwant\n%s (%v)", got, want, err)
		}
	}
}
