package app

import (
	"context"
	"errors"
	"slices"

	"tincup/internal/core/book"
	"tincup/internal/store"
)

// Done is one change of the past, and whether it can be undone now.
type Done struct {
	store.Past
	// Undoable, or Why not.
	Undoable bool
	Why      string
}

// MaxHistory is how many changes History returns at most.
const MaxHistory = 100

// tryAtMost is how many bytes of changes are read to see whether they can be undone;
// changes of many to-dos beyond that are tried when they are to be undone.
const tryAtMost = 48 << 10

// History returns the changes before a revision, the newest first; 0 begins
// with the newest of all.
func (a *Session) History(ctx context.Context, before int64, limit int) ([]Done, error) {
	past, err := a.store.History(ctx, a.Account(), before, min(limit, MaxHistory), tryAtMost)
	if err != nil {
		return nil, err
	}
	a.reading.RLock()
	defer a.reading.RUnlock()
	out := make([]Done, 0, len(past))
	for _, p := range past {
		d := Done{Past: p}
		switch {
		case p.Kind == book.Undo:
			d.Why = "It is an undo itself. Ctrl+Shift+Z in the window where it was made redoes it."
		case p.TurnedBy > 0:
			d.Why = "Undone already."
		case p.Untried:
			d.Undoable = true
		case p.Change == nil && slices.Contains(book.Aside(), p.Kind):
			d.Why = "What has rung has rung. It is answered in the bell."
		case p.Change == nil:
			d.Why = "What the bin let go of is gone for good."
		default:
			var conflict *book.ConflictError
			var rule *book.RuleError
			_, err := a.desk.Invert(a.env(), p.Change, book.Undo)
			if errors.As(err, &conflict) || errors.As(err, &rule) {
				d.Why = err.Error()
			} else if err != nil {
				return nil, err
			} else {
				d.Undoable = true
			}
		}
		out = append(out, d)
	}
	return out, nil
}
