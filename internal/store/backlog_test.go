package store_test

import (
	"fmt"
	"maps"
	"math/rand/v2"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/seed"
	"tincup/internal/sequence"
	"tincup/internal/store"
)

// Random commands are saved to a file that writes the rows of a change of two to-dos or more one at a
// time, with random turns between, and with saves that fail. At random moments the file is opened
// as a crash would leave it, and holds what the Book in memory holds; notes read the same meanwhile.
func TestRowsOfLargeChangesAreWrittenLater(t *testing.T) {
	seed := seed.New(t)
	met := map[string]int{}
	for name, weights := range map[string]map[string]int{"everyday": sequence.Everyday, "trees": sequence.Trees, "shelves": sequence.Shelves, "labels": sequence.Labels} {
		for i := range max(int(30**sequences), 1) {
			r := rand.New(rand.NewPCG(seed, uint64(i)))
			steps := sequence.Generate(r, sequence.Choices(weights))
			if err := playDeferred(t, r, steps, met); err != nil {
				t.Fatalf("seed %d, %s %d: %v", seed, name, i, err)
			}
		}
	}
	for _, wanted := range []string{"resumed", "failed", "a note waited", "a save met rows that waited"} {
		if met[wanted] < 3 {
			t.Errorf("%s: %d times", wanted, met[wanted])
		}
	}
	t.Log(met)
}

func playDeferred(t *testing.T, r *rand.Rand, steps []sequence.Step, met map[string]int) error {
	path := filepath.Join(t.TempDir(), "t.db")
	file := open(t, path)
	defer shut(t, file)
	empty, err := loadDesk(t.Context(), file)
	if err != nil {
		return err
	}
	file.DeferFrom(2)
	run := sequence.New(empty.Account())
	run.Book.Load(empty.Revision())
	for n, s := range steps {
		kept := len(run.Changes)
		if _, err := run.Take(s); err != nil {
			return err
		}
		for _, c := range run.Changes[kept:] {
			entry := store.Entry{Change: c, Window: "w"}
			if file.Behind() {
				met["a save met rows that waited"]++
				if r.IntN(3) == 0 {
					twice := *c
					twice.Revision = empty.Revision() + 1 // which the history has
					if err := file.Save(t.Context(), store.Entry{Change: &twice, Window: "w"}); err == nil {
						return fmt.Errorf("step %d: two changes have one revision", n)
					}
					met["failed"]++
				}
			}
			if err := file.Save(t.Context(), entry); err != nil {
				return fmt.Errorf("step %d, %v: %w", n, s, err)
			}
		}
		for range r.IntN(4) {
			if err := sameNotes(t, file, run, met); err != nil {
				return fmt.Errorf("step %d: %w", n, err)
			}
			if _, err := file.IndexSome(t.Context()); err != nil {
				return fmt.Errorf("step %d: %w", n, err)
			}
		}
		if r.IntN(4) == 0 {
			if file.Behind() {
				met["resumed"]++
			}
			if err := afterCrash(t, path, run.Desk); err != nil {
				return fmt.Errorf("step %d, %v: %w", n, s, err)
			}
		}
	}
	return nil
}

// sameNotes compares notes as the file and as the Book has them, by each way of reading them.
func sameNotes(t *testing.T, file *store.Store, run *sequence.Run, met map[string]int) error {
	if !file.Behind() {
		return nil
	}
	snapshot, err := file.Snapshot(t.Context())
	if err != nil {
		return err
	}
	defer snapshot.Close()
	if err := snapshot.Begin(t.Context()); err != nil {
		return err
	}
	var all []book.ID
	holding := map[book.ID]bool{}
	for todo := range run.Desk.All() {
		all = append(all, todo.ID)
		want := run.Notes[todo.ID]
		if strings.Contains(strings.ToLower(want), "e") {
			holding[todo.ID] = true
		}
		if want != "" {
			met["a note waited"]++
		}
		for _, notes := range []book.Notes{file.CommandNotes(), snapshot, file.HeldNotes()} {
			if got, err := notes.Note(todo.ID); err != nil || got != want {
				return fmt.Errorf("%T: the notes of %q are %q (%v), want %q", notes, todo.Title, got, err, want)
			}
		}
	}
	of, err := file.NotesOf(t.Context(), all)
	if err != nil {
		return err
	}
	for _, id := range all {
		if of[id] != run.Notes[id] {
			return fmt.Errorf("of many: the notes are %q, want %q", of[id], run.Notes[id])
		}
	}
	for _, notes := range []book.Notes{file.CommandNotes(), snapshot} {
		got, err := notes.Holding("e")
		if err != nil || !slices.Equal(slices.SortedFunc(maps.Keys(got), book.ID.Compare), slices.SortedFunc(maps.Keys(holding), book.ID.Compare)) {
			return fmt.Errorf("%T: %d notes hold an e (%v), want %d", notes, len(got), err, len(holding))
		}
	}
	return nil
}

// afterCrash opens a copy of a file that is open, as it is on the disk.
func afterCrash(t *testing.T, path string, was *book.Desk) error {
	to := filepath.Join(t.TempDir(), "t.db")
	for _, end := range []string{"", "-wal", "-files"} {
		if end == "-files" {
			if err := os.CopyFS(to+end, os.DirFS(path+end)); err != nil && !os.IsNotExist(err) {
				return err
			}
			continue
		}
		bytes, err := os.ReadFile(path + end)
		if err != nil {
			return err
		}
		if err := os.WriteFile(to+end, bytes, 0o600); err != nil {
			return err
		}
	}
	again, err := store.OpenWith(t.Context(), to, store.Options{Repair: true})
	if err != nil {
		return err
	}
	defer shut(t, again)
	desk, err := loadDesk(t.Context(), again)
	if err != nil {
		return err
	}
	for todo := range was.All() {
		if now, err := desk.Todo(todo.ID); err != nil || now.Revision != todo.Revision {
			return fmt.Errorf("after a crash %q is %+v (%v), want revision %d", todo.Title, now, err, todo.Revision)
		}
	}
	if got, want := sequence.Dump(desk), sequence.Dump(was); got != want {
		return fmt.Errorf("after a crash the file has\n%s\nwant\n%s", got, want)
	}
	return again.CheckIndex(t.Context())
}

// A row that goes while others wait stays away, and a name that it had is free at once.
func TestWhatGoesWhileRowsWait(t *testing.T) {
	path := filepath.Join(t.TempDir(), "t.db")
	file := open(t, path)
	defer shut(t, file)
	file.DeferFrom(3)
	b, err := file.Load(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	desk := ownersDesk(t, b)
	save := func(c *book.Change) {
		t.Helper()
		c.Actor = desk.Account()
		c.At(b.Revision() + 1)
		if err := file.Save(t.Context(), store.Entry{Change: c, Window: "w"}); err != nil {
			t.Fatal(err)
		}
		b.Apply(c)
		if err := afterCrash(t, path, desk); err != nil {
			t.Fatal(err)
		}
	}
	tag := &book.Tag{ID: book.ID{1}, Name: "lamps"}
	come := &book.Change{Tags: []book.Diff[book.Tag]{{After: tag}}}
	for i, position := range []book.Position{"a", "b", "c", "d"} {
		todo := &book.Todo{ID: book.ID{2, byte(i)}, Title: "label a lamp", Position: position, Tags: []book.ID{tag.ID}}
		come.Todos = append(come.Todos, book.Diff[book.Todo]{After: todo})
	}
	save(come)
	save(&book.Change{Todos: []book.Diff[book.Todo]{{Before: come.Todos[1].After}}})
	if file.Behind() {
		t.Error("a row of the backlog went, and the rest still waits")
	}
	goes := &book.Change{Tags: []book.Diff[book.Tag]{{Before: tag}}}
	for _, i := range []int{0, 2, 3} {
		goes.Todos = append(goes.Todos, book.Diff[book.Todo]{Before: come.Todos[i].After})
	}
	save(goes)
	if !file.Behind() {
		t.Fatal("nothing waits; want the to-dos that go")
	}
	save(&book.Change{Tags: []book.Diff[book.Tag]{{After: &book.Tag{ID: book.ID{3}, Name: "lamps"}}}})
}
