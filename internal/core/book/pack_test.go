package book_test

import (
	"encoding/json"
	"reflect"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// What Pack writes is what json.Marshal writes, for to-dos with all and with
// next to nothing in them; every field of a Todo is set in the first.
func TestPackIsJSON(t *testing.T) {
	id := func(n byte) book.ID { return book.ID{3: 7, 15: n} }
	full := book.Todo{ID: id(1), Title: "“Ring” \"him\"\tsoon é \u2028 \\ <b>", NotesSize: 3, List: id(2), Section: id(3), Parent: id(4), Position: "e0V001",
		Status: book.Cancelled, IsNote: true, InOrder: true, Outcome: "It hangs.", Place: "lantern room", Handful: day.MustDate("2026-11-24"), Priority: book.High,
		Start: day.MustDate("2026-11-20"), Due: day.MustMoment("2026-11-27T16:00"), Plan: day.MustHorizon("2026-11-26T14:00/PT30M"), Estimate: 30,
		Reminders: []day.Reminder{day.ReminderBefore(60)}, Person: book.Involved{ID: id(5), Role: book.WaitingOn, Since: day.MustDate("2026-11-01")},
		Repeat: &repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY"), First: day.MustDate("2026-11-01"), Current: day.MustDate("2026-11-24")},
		Record: id(6), Attachments: []book.Attachment{{Name: "a.png", Hash: "00", Type: "image/png", Size: 9}}, Tags: []book.ID{id(7), id(8)},
		Created: 1, Changed: 2, Completed: 3, Deleted: 4, Revision: 5}
	v := reflect.ValueOf(full)
	for i := range v.NumField() {
		if v.Field(i).IsZero() {
			t.Errorf("%s is not set here; see that Pack writes it", v.Type().Field(i).Name)
		}
	}
	plain := book.Todo{ID: id(9), Title: "plain"}
	for _, c := range []*book.Change{
		{Revision: 4, Kind: "edit", Says: "x", Todos: []book.Diff[book.Todo]{{Before: &plain, After: &full}, {After: &plain}, {Before: &full}}},
		{Revision: 1, Notes: []book.Diff[book.Note]{{After: &book.Note{ID: id(1), Text: "y"}}}},
	} {
		packed, err := c.Pack()
		if err != nil {
			t.Fatal(err)
		}
		want, err := json.Marshal(c)
		if err != nil {
			t.Fatal(err)
		}
		var got, same any
		if json.Unmarshal(packed, &got) != nil || json.Unmarshal(want, &same) != nil || !reflect.DeepEqual(got, same) {
			t.Errorf("%s\nwant\n%s", packed, want)
		}
	}
}
