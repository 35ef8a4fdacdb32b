package store_test

import (
	"maps"
	"math/rand/v2"
	"slices"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/seed"
)

// early is a change worked out ahead of its turn, and how to work it out again.
type early struct {
	*book.Ahead
	again func() (*book.Change, error)
}

// workOutAhead works a step's command out, or the undo of some change; nil where there
// is nothing to do.
func (w *windows) workOutAhead(s step) *early {
	var work func() (*book.Change, error)
	var cmd book.Command
	switch undoable := slices.DeleteFunc(slices.Clone(w.past), func(p *past) bool { return p.turned || p.isUndo }); {
	case s.kind == "undo" || s.kind == "redo" || s.kind == "undo-revision":
		if len(undoable) == 0 {
			return nil
		}
		of := undoable[int(s.a)%len(undoable)].change
		work = func() (*book.Change, error) { return w.desk.Invert(w.env(), of, book.Undo) }
	default:
		if cmd = w.command(s); cmd == nil {
			return nil
		}
		work = func() (*book.Change, error) { return w.desk.Do(w.env(), cmd) }
	}
	now, ids := w.now, w.ids
	again := func() (*book.Change, error) { // at the same time, with the same new ids
		later, since := w.now, w.ids
		defer func() { w.now, w.ids = later, max(since, w.ids) }()
		w.now, w.ids = now, ids
		return work()
	}
	c, err := work()
	if err != nil || c.Empty() {
		return nil
	}
	return &early{w.desk.Ahead(c, cmd), again}
}

// A change worked out ahead of its turn is what it would be if it were worked out then,
// wherever what came between is said to be apart from it.
func TestWorkedOutAheadOfItsTurn(t *testing.T) {
	seed := seed.New(t)
	var choices []string
	for _, kind := range slices.Sorted(maps.Keys(allKinds)) {
		choices = append(choices, slices.Repeat([]string{kind}, allKinds[kind])...)
	}
	kinds, not := map[book.Kind]int{}, 0
	for i := range int(2000 * *sequences) {
		r := rand.New(rand.NewPCG(seed, uint64(i)))
		w := &windows{run: newRun(book.ID{15: 1}), refused: map[string]int{}}
		for n := range 100 {
			next := func() step { return step{choices[r.IntN(len(choices))], r.Uint32(), r.Uint32(), r.Uint32()} }
			ahead := w.workOutAhead(next())
			before := len(w.changes)
			s := next()
			if err := w.step(s); err != nil {
				t.Fatalf("seed %d, sequence %d, step %d: %v", seed, i, n, err)
			}
			if ahead == nil || len(w.changes) == before {
				continue
			}
			between := w.changes[before]
			if !ahead.Apart(w.desk, between) {
				not++
				continue
			}
			kinds[ahead.Change.Kind]++
			want, err := ahead.again()
			if err != nil {
				t.Fatalf("seed %d, sequence %d, step %d: %q, worked out ahead, after %q: %v", seed, i, n, ahead.Change.Says, between.Says, err)
			}
			ahead.Change.At(w.desk.Revision() + 1)
			if got, want := packed(t, ahead.Change), packed(t, want); got != want {
				t.Fatalf("seed %d, sequence %d, step %d, after %q, %v:\n%s\nworked out then:\n%s", seed, i, n, between.Says, s, got, want)
			}
		}
	}
	apart := 0
	for _, n := range kinds {
		apart += n
	}
	t.Logf("%d were apart, %d not; %v", apart, not, kinds)
	if apart < not/30 {
		t.Errorf("only %d of %d were apart", apart, apart+not)
	}
}

func packed(t *testing.T, c *book.Change) string {
	t.Helper()
	text, err := c.Pack()
	if err != nil {
		t.Fatal(err)
	}
	return string(text)
}
