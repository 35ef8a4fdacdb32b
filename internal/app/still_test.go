package app_test

import (
	"fmt"
	"path/filepath"
	"sync"
	"testing"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/store"
)

// An import of many, while it is looked at and while it is worked out, is in nobody's way: in the
// midst of it others change rows, those of the import too, and it comes out as if it had been
// worked out after them.
func TestImportWhileOthersChange(t *testing.T) {
	a := openFrozen(t, filepath.Join(t.TempDir(), "t.db"))
	defer a.Close()
	run := func(window string, cmd book.Command) *book.Change {
		t.Helper()
		var done *book.Change
		_, err := a.Run(t.Context(), app.Request{Window: window}, cmd, func(o *app.Outcome) (*store.Reply, error) { done = o.Change; return &store.Reply{}, nil })
		if err != nil {
			t.Fatal(err)
		}
		return done
	}
	item := func(i int) exchange.Item {
		it := exchange.Item{Incoming: book.Incoming{UID: fmt.Sprint(i, "@loans"), Under: -1, Carries: exchange.All}}
		it.Todo.Title, it.Notes = fmt.Sprint("Lamp ", i), fmt.Sprint("from shelf ", i)
		return it
	}
	calls := run("first", book.AddList{Name: "Calls"}).Lists[0].After.ID
	run("first", exchange.Command([]exchange.Item{item(0)}, book.ID{}))
	title := func() (s, notes string) {
		a.Read(func(b *book.Desk, _ day.Clock) {
			t := b.ByUID("0@loans")
			s = t.Title
			notes, _ = b.Note(t)
		})
		return s, notes
	}
	var row book.ID
	a.Read(func(b *book.Desk, _ day.Clock) { row = b.ByUID("0@loans").ID })
	var items []exchange.Item
	for i := range 300 {
		items = append(items, item(i))
	}
	for _, c := range []struct {
		name, wantBack, wantNotes string
		between                   book.Command
	}{
		{"another to-do", "Lamp 0", "from shelf 0", book.Capture{Title: "Ring the framer", List: calls}},
		{"a title that comes in", "Lamp 0, lent", "from shelf 0", book.Edit{ID: row, Title: new("Lamp 0, lent")}},
		{"notes that come in", "Lamp 0, lent", "on the bench", book.Edit{ID: row, Notes: new("on the bench")}},
	} {
		cmd := exchange.Command(items, book.ID{})
		times := 0
		var once sync.Once
		cmd.Each = func(done int) error {
			if done == 0 {
				times++
			}
			if done == 150 {
				once.Do(func() { run("other", c.between) }) // it waits for nothing
			}
			return nil
		}
		run("w", cmd)
		if is, notes := title(); is != "Lamp 0" || notes != "from shelf 0" {
			t.Errorf("%s: it came in as %q, %q", c.name, is, notes)
		}
		if want := map[bool]int{true: 1, false: 2}[c.name == "another to-do"]; times != want {
			t.Errorf("%s: it was worked out %d times, want %d", c.name, times, want)
		}
		if _, err := a.Undo(t.Context(), app.Request{Window: "w"}, 0, nil); err != nil {
			t.Fatal(c.name, err)
		}
		if is, notes := title(); is != c.wantBack || notes != c.wantNotes {
			t.Errorf("%s: undone it is %q, %q, want %q, %q", c.name, is, notes, c.wantBack, c.wantNotes)
		}
	}
}

// An export is of one moment, its notes too, whatever others do meanwhile.
func TestExportIsOfOneMoment(t *testing.T) {
	a := openFrozen(t, filepath.Join(t.TempDir(), "t.db"))
	defer a.Close()
	run := func(cmd book.Command) {
		if _, err := a.Run(t.Context(), app.Request{Window: "w"}, cmd, nil); err != nil {
			t.Error(err)
		}
	}
	ids := make([]book.ID, 300)
	for i := range ids {
		ids[i] = app.NewID()
		run(book.Capture{ID: ids[i], Title: "0", Notes: "0"})
	}
	stop, stopped := make(chan bool), make(chan bool)
	go func() { // the same number in title and notes of all, one change after the other
		defer close(stopped)
		for n := 1; ; n++ {
			select {
			case <-stop:
				return
			default:
			}
			text := fmt.Sprint(n)
			run(book.Many{IDs: ids, Do: func(id book.ID) book.Command { return book.Edit{ID: id, Title: &text, Notes: &text} }})
		}
	}()
	for range 30 {
		items, err := a.Take(t.Context(), app.What{})
		if err != nil || len(items) != len(ids) {
			t.Fatal(len(items), err)
		}
		for _, item := range items {
			if item.Todo.Title != items[0].Todo.Title || item.Notes != item.Todo.Title {
				t.Fatalf("of one moment: title %s, notes %s, and the title of the first is %s", item.Todo.Title, item.Notes, items[0].Todo.Title)
			}
		}
	}
	close(stop)
	<-stopped
}
