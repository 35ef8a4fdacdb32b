package book_test

import (
	"math/rand/v2"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/seed"
	"tincup/internal/sequence"
)

// early is a change worked out ahead of its turn, and how to work it out again.
type early struct {
	*book.Ahead
	again func() (*book.Change, error)
}

// workOutAhead works a step's command out, or the undo of some change; nil where there
// is nothing to do.
func workOutAhead(w *sequence.Windows, s sequence.Step) *early {
	var work func() (*book.Change, error)
	var cmd book.Command
	switch undoable := w.Undoable(); {
	case s.Kind == "undo" || s.Kind == "redo" || s.Kind == "undo-revision":
		if len(undoable) == 0 {
			return nil
		}
		of := undoable[int(s.A)%len(undoable)].Change
		work = func() (*book.Change, error) { return w.Desk.Invert(w.Env(), of, book.Undo) }
	default:
		if cmd = w.Command(s); cmd == nil {
			return nil
		}
		work = func() (*book.Change, error) { return w.Desk.Do(w.Env(), cmd) }
	}
	now, ids := w.Now, w.IDs
	again := func() (*book.Change, error) { // at the same time, with the same new ids
		later, since := w.Now, w.IDs
		defer func() { w.Now, w.IDs = later, max(since, w.IDs) }()
		w.Now, w.IDs = now, ids
		return work()
	}
	c, err := work()
	if err != nil || c.Empty() {
		return nil
	}
	return &early{w.Desk.Ahead(c, cmd), again}
}

// A change worked out ahead of its turn is what it would be if it were worked out then,
// wherever what came between is said to be apart from it.
func TestWorkedOutAheadOfItsTurn(t *testing.T) {
	seed := seed.New(t)
	choices := sequence.Choices(sequence.AllKinds)
	kinds, not := map[book.Kind]int{}, 0
	for i := range int(2000 * *sequences) {
		r := rand.New(rand.NewPCG(seed, uint64(i)))
		w := sequence.NewWindows(book.ID{15: 1})
		for n := range 100 {
			next := func() sequence.Step { return sequence.NextStep(r, choices) }
			ahead := workOutAhead(w, next())
			before := len(w.Changes)
			s := next()
			if err := w.Step(s); err != nil {
				t.Fatalf("seed %d, sequence %d, step %d: %v", seed, i, n, err)
			}
			if ahead == nil || len(w.Changes) == before {
				continue
			}
			between := w.Changes[before]
			if !ahead.Apart(w.Desk, between) {
				not++
				continue
			}
			kinds[ahead.Change.Kind]++
			want, err := ahead.again()
			if err != nil {
				t.Fatalf("seed %d, sequence %d, step %d: %q, worked out ahead, after %q: %v", seed, i, n, ahead.Change.Says, between.Says, err)
			}
			ahead.Change.At(w.Desk.Revision() + 1)
			if got, want := text(t, ahead.Change), text(t, want); got != want {
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
