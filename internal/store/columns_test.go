package store_test

import (
	"encoding/json"
	"os"
	"path/filepath"
	"reflect"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/store"
)

// Every field of a to-do has its columns: a row in which all are set comes back from the
// file as it was put in, new and after each field was changed by itself.
func TestEveryColumn(t *testing.T) {
	kept, err := os.ReadFile("../core/book/testdata/history.json") // a change of all kinds of rows
	if err != nil {
		t.Fatal(err)
	}
	var history book.Change
	if err := json.Unmarshal(kept, &history); err != nil {
		t.Fatal(err)
	}
	full := *history.Todos[0].After
	path := filepath.Join(t.TempDir(), "book.db")
	file := open(t, path)
	empty, err := loadDesk(t.Context(), file)
	if err != nil {
		t.Fatal(err)
	}
	owner := empty.Account()
	revision := int64(0)
	save := func(before, after *book.Todo) book.Todo {
		t.Helper()
		revision++
		after.Revision = revision
		c := &book.Change{Revision: revision, Actor: owner, Kind: "edit", Todos: []book.Diff[book.Todo]{{Before: before, After: after}}}
		if before == nil { // with all that it names
			shelf := book.Shelf{ID: book.ID{1}, Name: "Home", Position: "e0"}
			c.Shelves = []book.Diff[book.Shelf]{{After: &shelf}}
			c.Lists = []book.Diff[book.List]{{After: &book.List{ID: after.List, Owner: owner, Shelf: shelf.ID, Name: "House", Position: "e0"}}}
			c.Sections = []book.Diff[book.Section]{{After: &book.Section{ID: after.Section, List: after.List, Name: "Roof", Position: "e0"}}}
			c.People = []book.Diff[book.Person]{{After: &book.Person{ID: after.Person.ID, Name: "Ada"}}}
			for i, tag := range after.Tags {
				c.Tags = append(c.Tags, book.Diff[book.Tag]{After: &book.Tag{ID: tag, Name: string(rune('a' + i))}})
			}
			for _, other := range []book.ID{after.Parent, after.Record} {
				c.Todos = append([]book.Diff[book.Todo]{{After: &book.Todo{ID: other, Title: "other", List: after.List, Position: book.Position("e0" + other.String()[35:])}}}, c.Todos...)
			}
		}
		if err := file.Save(t.Context(), store.Entry{Change: c}); err != nil {
			t.Fatal(err)
		}
		shut(t, file)
		file = open(t, path)
		b, err := loadDesk(t.Context(), file)
		if err != nil {
			t.Fatal(err)
		}
		row, err := b.Todo(after.ID)
		if err != nil {
			t.Fatal(err)
		}
		return *row
	}
	if got := save(nil, &full); !reflect.DeepEqual(got, full) {
		t.Errorf("new, it comes back as\n%+v\nwant\n%+v", got, full)
	}
	plain := book.Todo{ID: full.ID, Title: full.Title, Created: full.Created, Changed: full.Changed}
	before := full
	v := reflect.ValueOf(full)
	for i := range v.NumField() {
		name := v.Type().Field(i).Name
		switch name {
		case "ID", "Title", "Created", "Changed", "Revision":
			continue
		}
		after := plain
		reflect.ValueOf(&after).Elem().Field(i).Set(v.Field(i))
		got := save(&before, &after)
		if !reflect.DeepEqual(reflect.ValueOf(got).Field(i).Interface(), v.Field(i).Interface()) {
			t.Errorf("%s comes back as %v; want %v", name, reflect.ValueOf(got).Field(i), v.Field(i))
		}
		before = after
	}
	shut(t, file)
}
