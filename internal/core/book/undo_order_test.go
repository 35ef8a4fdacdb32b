package book_test

import (
	"errors"
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/seed"
	"tincup/internal/sequence"
)

// rowsOf says which rows a desk has, for one that should have none.
func rowsOf(d *book.Desk) string {
	var said []string
	for t := range d.All() {
		said = append(said, "to-do "+t.Title)
	}
	for _, l := range d.Lists() {
		said = append(said, "list "+l.Name)
	}
	for _, s := range d.Shelves() {
		said = append(said, "shelf "+s.Name)
	}
	for _, t := range d.Tags() {
		said = append(said, "tag "+t.Name)
	}
	for _, p := range d.People() {
		said = append(said, "person "+p.Name)
	}
	for _, v := range d.Views() {
		said = append(said, "view "+v.Name)
	}
	for _, c := range d.Calendars() {
		said = append(said, "calendar "+c.Name)
	}
	return strings.Join(said, ", ")
}

// All changes undone by their revisions, in any order in which they can be, leave what was there
// before the first of them: nothing. Places aside: one that a reminder named between may stay.
func TestUndoneInAnyOrder(t *testing.T) {
	random := seed.New(t)
	whole, stuck := 0, 0
	for name, weights := range map[string]map[string]int{"everyday": sequence.Everyday, "labels": sequence.Labels, "trees": sequence.Trees} {
		choices := sequence.Choices(weights)
		for i := range int(8000 * *sequences) {
			r := rand.New(rand.NewPCG(random, uint64(i)))
			w := sequence.NewWindows(book.ID{15: 1})
			for range 4 + r.IntN(20) {
				if s := sequence.NextStep(r, choices); s.Kind != "undo" && s.Kind != "redo" {
					if err := w.Step(s); err != nil {
						t.Fatal(err)
					}
				}
			}
			var said []string
			for again := true; again; {
				again = false
				undoable := w.Undoable()
				r.Shuffle(len(undoable), func(i, j int) { undoable[i], undoable[j] = undoable[j], undoable[i] })
				for _, p := range undoable {
					w.Now = w.Now.Add(1)
					change, err := w.Desk.Invert(w.Env(), p.Change, book.Undo)
					var conflict *book.ConflictError
					var rule *book.RuleError
					if errors.As(err, &conflict) || errors.As(err, &rule) {
						continue
					}
					if err != nil {
						t.Fatal(err)
					}
					if !change.Empty() {
						w.Keep(change)
					}
					p.Turned, again = true, true
					said = append(said, fmt.Sprint(p.Change.Revision, " ", p.Change.Says))
				}
			}
			if len(w.Undoable()) > 0 {
				stuck++
				continue
			}
			whole++
			if left := rowsOf(w.Desk); left != "" {
				t.Fatalf("seed %d, %s %d: undone\n%s\nand %s is left", random, name, i, strings.Join(said, "\n"), left)
			}
		}
	}
	t.Logf("%d were undone to the start, %d were not", whole, stuck)
	if whole < stuck {
		t.Errorf("%d were undone to the start, and %d were not", whole, stuck)
	}
}
