package app_test

import (
	"fmt"
	"path/filepath"
	"sync"
	"sync/atomic"
	"testing"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// Commands on many, worked out ahead of their turn while others tick, edit and undo:
// each takes effect whole, with the revision of its own turn, and is undone whole, also
// by what the file has of it.
func TestManyWhileOthersTick(t *testing.T) {
	path := filepath.Join(t.TempDir(), "t.db")
	a := openFrozen(t, path)
	do := func(window string, cmd book.Command) {
		if _, err := a.Run(t.Context(), app.Request{Window: window}, cmd, nil); err != nil {
			t.Errorf("%s: %v", window, err)
		}
	}
	do("first", book.AddList{Name: "Night Signals"})
	do("first", book.AddList{Name: "House"})
	var lists [2]book.ID
	a.Read(func(b *book.Desk, _ day.Clock) {
		for _, l := range b.Lists() {
			if l.Name == "House" {
				lists[1] = l.ID
			} else {
				lists[0] = l.ID
			}
		}
	})
	for i := range 310 {
		do("first", book.Capture{Title: fmt.Sprint("Label crate ", i), List: lists[1]})
	}
	var ids, others []book.ID
	a.Read(func(b *book.Desk, _ day.Clock) {
		for i, t := range b.Subtasks(lists[1]) {
			if i < 300 {
				ids = append(ids, t.ID)
			} else {
				others = append(others, t.ID)
			}
		}
	})
	var stop atomic.Bool
	var ticking sync.WaitGroup
	for i, id := range others {
		ticking.Go(func() {
			window := fmt.Sprint("other ", i)
			for n := 0; !stop.Load(); n++ {
				estimate := n % 100
				do(window, book.Complete{ID: id})
				do(window, book.Reopen{ID: id})
				do(window, book.Edit{ID: id, Estimate: &estimate})
			}
		})
	}
	in := func(list book.ID) (n int) {
		a.Read(func(b *book.Desk, _ day.Clock) {
			for _, id := range ids {
				if row, err := b.Todo(id); err == nil && row.List == list {
					n++
				}
			}
		})
		return n
	}
	for round := range 12 {
		to := lists[round%2]
		do("mover", book.MoveMany{IDs: ids, To: book.Move{List: to}})
		if n := in(to); n != 300 {
			t.Fatalf("round %d: %d of 300 were moved", round, n)
		}
		if round%3 == 2 {
			if _, err := a.Undo(t.Context(), app.Request{Window: "mover"}, 0, nil); err != nil {
				t.Fatal(err)
			}
			if n := in(to); n != 0 {
				t.Fatalf("round %d: %d are still there after undo", round, n)
			}
			do("mover", book.MoveMany{IDs: ids, To: book.Move{List: to}})
		}
	}
	stop.Store(true)
	ticking.Wait()
	var revision int64
	a.Read(func(b *book.Desk, clock day.Clock) {
		row, _ := b.Todo(ids[0])
		revision = row.Revision
		for _, id := range ids {
			if row, _ := b.Todo(id); row.Revision != revision {
				t.Errorf("%s has revision %d, others %d", row.Title, row.Revision, revision)
			}
		}
		for _, f := range b.Faults(clock.Today()) {
			t.Error(f.Says)
		}
	})
	if err := a.Close(); err != nil {
		t.Fatal(err)
	}
	a = openFrozen(t, path)
	defer a.Close()
	if _, err := a.Undo(t.Context(), app.Request{Window: "another"}, revision, nil); err != nil {
		t.Errorf("undo of the last move, after a restart: %v", err)
	}
	if n := in(lists[1]); n != 0 {
		t.Errorf("%d of 300 stayed", n)
	}
	past, err := a.History(t.Context(), revision+1, 1)
	if err != nil || len(past) != 1 || past[0].Seq != revision || past[0].TurnedBy == 0 {
		t.Errorf("the history has %+v, %v; change %d should be turned round", past, err, revision)
	}
}
