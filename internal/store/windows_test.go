package store_test

import (
	"context"
	"errors"
	"fmt"
	"maps"
	"math/rand/v2"
	"path/filepath"
	"slices"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/seed"
)

// past is one change that two windows remember.
type past struct {
	window  uint32
	change  *book.Change
	turned  bool
	isUndo  bool
	command bool
}

// windows is a Book changed from two windows, each with an undo of its own, and
// with undo of any change by its revision.
type windows struct {
	*run
	past    []*past
	refused map[string]int // how often a turn was refused, and of what class
}

// allKinds are the kinds of every other sequence.
var allKinds = func() map[string]int {
	all := map[string]int{}
	for _, some := range []map[string]int{everyday, trees, shelves, labels} {
		for kind, weight := range some {
			all[kind] = max(all[kind], min(weight, 16))
		}
	}
	all["undo"], all["redo"], all["undo-revision"] = 8, 8, 14
	return all
}()

// step carries a step out in one of the windows.
func (w *windows) step(s step) error {
	window := s.c >> 16 % 2
	var of *past
	kind := book.Undo
	switch s.kind {
	case "undo":
		for _, p := range slices.Backward(w.past) {
			if p.window == window && !p.turned && !p.isUndo {
				of = p
				break
			}
		}
	case "redo":
		kind = book.Redo
		for _, p := range slices.Backward(w.past) {
			if p.window == window && p.command {
				break
			}
			if p.window == window && !p.turned && p.isUndo {
				of = p
				break
			}
		}
	case "undo-revision":
		undoable := slices.DeleteFunc(slices.Clone(w.past), func(p *past) bool { return p.turned || p.isUndo })
		if len(undoable) > 0 {
			of = undoable[int(s.a)%len(undoable)]
		}
	default:
		before := len(w.changes)
		if _, err := w.take(s); err != nil {
			return err
		}
		for _, c := range w.changes[before:] {
			w.past = append(w.past, &past{window: window, change: c.Slim(), command: true})
		}
		return nil
	}
	if of == nil {
		return nil
	}
	w.now = w.now.Add(1)
	change, err := w.desk.Invert(w.env(), of.change, kind)
	var conflict *book.ConflictError
	var rule *book.RuleError
	switch {
	case errors.As(err, &conflict):
		w.refused["changed since"]++
		return nil
	case errors.As(err, &rule):
		w.refused["a rule"]++
		return nil
	case err != nil:
		return fmt.Errorf("%s of %q: %w", kind, of.change.Says, err)
	}
	if !change.Empty() {
		w.keep(change)
		w.past = append(w.past, &past{window: window, change: change.Slim(), isUndo: kind == book.Undo})
	}
	of.turned = true
	w.counts[s.kind]++
	return nil
}

// playWindows plays steps and looks for what is wrong after each, in memory and,
// at some of them and the end, in the file.
func playWindows(t *testing.T, steps []step) (*windows, error) {
	file := open(t, filepath.Join(t.TempDir(), "t.db"))
	defer shut(t, file)
	empty, err := loadDesk(context.Background(), file)
	if err != nil {
		return nil, err
	}
	w := &windows{run: newRun(empty.Account()), refused: map[string]int{}}
	for i, s := range steps {
		if err := w.step(s); err != nil {
			return w, fmt.Errorf("step %d, %v: %w", i, s, err)
		}
		if err := sound(w.desk, w.now); err != nil {
			return w, fmt.Errorf("step %d, %v: %w", i, s, err)
		}
		if i%40 == 39 || i == len(steps)-1 {
			if err := save(file, w.changes, dump(w.desk)); err != nil {
				return w, fmt.Errorf("up to step %d, the file: %w", i, err)
			}
			w.changes = nil
			again, err := loadDesk(context.Background(), file)
			if err != nil {
				return w, err
			}
			if err := sound(again, w.now); err != nil {
				return w, fmt.Errorf("up to step %d, the file: %w", i, err)
			}
		}
	}
	return w, nil
}

// Whatever two windows do, undo and redo, in whatever order: every rule holds
// after every step, and what would break one is refused.
func TestTwoWindows(t *testing.T) {
	seed := seed.New(t)
	kinds := slices.Sorted(maps.Keys(allKinds))
	var choices []string
	for _, kind := range kinds {
		choices = append(choices, slices.Repeat([]string{kind}, allKinds[kind])...)
	}
	total, refused := map[string]int{}, map[string]int{}
	number := int(2000 * *sequences)
	for i := range number {
		r := rand.New(rand.NewPCG(seed, uint64(i)))
		steps := make([]step, 100)
		for n := range steps {
			steps[n] = step{choices[r.IntN(len(choices))], r.Uint32(), r.Uint32(), r.Uint32()}
		}
		w, err := playWindows(t, steps)
		if err != nil {
			small := shrink(steps, func(s []step) bool {
				_, err := playWindows(t, s)
				return err != nil
			})
			_, err = playWindows(t, small)
			t.Fatalf("seed %d, sequence %d, shrunk to %d steps:\n%v\n%v", seed, i, len(small), small, err)
		}
		for kind, n := range w.counts {
			total[kind] += n
		}
		for why, n := range w.refused {
			refused[why] += n
		}
	}
	for _, kind := range kinds {
		if total[kind] == 0 && number >= 100 {
			t.Errorf("nothing was %s", kind)
		}
	}
	if refused["a rule"] == 0 || refused["changed since"] == 0 {
		t.Errorf("turns were refused so often: %v", refused)
	}
	t.Logf("%d sequences: %v; turns refused: %v", number, total, refused)
}
