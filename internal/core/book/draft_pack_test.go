package book_test

import (
	"encoding/json"
	"reflect"
	"testing"

	"tincup/internal/core/book"
)

// What Pack writes is what json.Marshal writes, for to-dos with all and with
// next to nothing in them.
func TestPackIsJSON(t *testing.T) {
	id := func(n byte) book.ID { return book.ID{3: 7, 15: n} }
	full := fullTodo()
	plain := book.Todo{ID: id(9), Title: "plain"}
	changes := []*book.Change{
		{Revision: 4, Kind: "edit", Says: "x", Todos: []book.Diff[book.Todo]{{Before: &plain, After: &full}, {After: &plain}, {Before: &full}}},
		{Revision: 1, Notes: []book.Diff[book.Note]{{After: &book.Note{ID: id(1), Text: "y"}}}},
	}
	// Titles of nothing but one character that has to be escaped, or has not.
	for _, title := range []string{`"`, `\`, " ", "!", "~", "\x7f", "\x1f", "é"} {
		changes = append(changes, &book.Change{Todos: []book.Diff[book.Todo]{{After: &book.Todo{ID: id(2), Title: title}}}})
	}
	for _, c := range changes {
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
