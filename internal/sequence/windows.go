package sequence

import (
	"errors"
	"fmt"
	"slices"

	"tincup/internal/core/book"
)

// Past is one change that two windows remember.
type Past struct {
	Window uint32
	Change *book.Change
	// Turned: it was undone, or redone, since. IsUndo: it is an undo or a redo; IsCommand: it is
	// neither.
	Turned, IsUndo, IsCommand bool
}

// Windows is a Book changed from two windows, each with an undo of its own, and
// with undo of any change by its revision.
type Windows struct {
	*Run
	Past []*Past
	// Refused says how often an undo or a redo was refused, and why.
	Refused map[string]int
}

// NewWindows is an account's empty Book with two windows.
func NewWindows(account book.ID) *Windows {
	return &Windows{Run: New(account), Refused: map[string]int{}}
}

// Undoable are the changes that can be undone by their revisions.
func (w *Windows) Undoable() []*Past {
	return slices.DeleteFunc(slices.Clone(w.Past), func(p *Past) bool { return p.Turned || p.IsUndo })
}

// Step carries a step out in one of the windows. An undo or a redo that a rule or a later change is
// against is counted; any other refusal of one is an error.
func (w *Windows) Step(s Step) error {
	window := s.C >> 16 % 2
	var of *Past
	kind := book.Undo
	switch s.Kind {
	case "undo":
		for _, p := range slices.Backward(w.Past) {
			if p.Window == window && !p.Turned && !p.IsUndo {
				of = p
				break
			}
		}
	case "redo":
		kind = book.Redo
		for _, p := range slices.Backward(w.Past) {
			if p.Window == window && p.IsCommand {
				break
			}
			if p.Window == window && !p.Turned && p.IsUndo {
				of = p
				break
			}
		}
	case "undo-revision":
		if undoable := w.Undoable(); len(undoable) > 0 {
			of = undoable[int(s.A)%len(undoable)]
		}
	default:
		before := len(w.Changes)
		if _, err := w.Take(s); err != nil {
			return err
		}
		for _, c := range w.Changes[before:] {
			w.Past = append(w.Past, &Past{Window: window, Change: c.Slim(), IsCommand: true})
		}
		return nil
	}
	if of == nil {
		return nil
	}
	w.Now = w.Now.Add(1)
	change, err := w.Desk.Invert(w.Env(), of.Change, kind)
	var conflict *book.ConflictError
	var rule *book.RuleError
	switch {
	case errors.As(err, &conflict):
		w.Refused["changed since"]++
		return nil
	case errors.As(err, &rule):
		w.Refused["a rule"]++
		return nil
	case err != nil:
		return fmt.Errorf("%s of %q: %w", kind, of.Change.Says, err)
	}
	if !change.Empty() {
		w.Keep(change)
		w.Past = append(w.Past, &Past{Window: window, Change: change.Slim(), IsUndo: kind == book.Undo})
	}
	of.Turned = true
	w.Counts[s.Kind]++
	return nil
}
