package store_test

import (
	"context"
	"fmt"
	"math/rand/v2"
	"path/filepath"
	"testing"

	"tincup/internal/seed"
	"tincup/internal/sequence"
)

// playWindows plays steps and looks for what is wrong after each, in memory and,
// at some of them and the end, in the file.
func playWindows(t *testing.T, steps []sequence.Step) (*sequence.Windows, error) {
	file := open(t, filepath.Join(t.TempDir(), "t.db"))
	defer shut(t, file)
	empty, err := loadDesk(context.Background(), file)
	if err != nil {
		return nil, err
	}
	w := sequence.NewWindows(empty.Account())
	for i, s := range steps {
		if err := w.Step(s); err != nil {
			return w, fmt.Errorf("step %d, %v: %w", i, s, err)
		}
		if err := w.Sound(); err != nil {
			return w, fmt.Errorf("step %d, %v: %w", i, s, err)
		}
		if i%40 == 39 || i == len(steps)-1 {
			if err := save(file, w.Changes, sequence.Dump(w.Desk)); err != nil {
				return w, fmt.Errorf("up to step %d, the file: %w", i, err)
			}
			w.Changes = nil
			again, err := loadDesk(context.Background(), file)
			if err != nil {
				return w, err
			}
			if err := sequence.Sound(again, w.Now); err != nil {
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
	choices := sequence.Choices(sequence.AllKinds)
	total, refused := map[string]int{}, map[string]int{}
	number := int(2000 * *sequences)
	for i := range number {
		r := rand.New(rand.NewPCG(seed, uint64(i)))
		steps := make([]sequence.Step, 100)
		for n := range steps {
			steps[n] = sequence.NextStep(r, choices)
		}
		w, err := playWindows(t, steps)
		if err != nil {
			small := sequence.Shrink(steps, func(s []sequence.Step) bool {
				_, err := playWindows(t, s)
				return err != nil
			})
			_, err = playWindows(t, small)
			t.Fatalf("seed %d, sequence %d, shrunk to %d steps:\n%v\n%v", seed, i, len(small), small, err)
		}
		for kind, n := range w.Counts {
			total[kind] += n
		}
		for why, n := range w.Refused {
			refused[why] += n
		}
	}
	for kind := range sequence.AllKinds {
		if total[kind] == 0 && number >= 100 {
			t.Errorf("nothing was %s", kind)
		}
	}
	if refused["a rule"] == 0 || refused["changed since"] == 0 {
		t.Errorf("turns were refused so often: %v", refused)
	}
	t.Logf("%d sequences: %v; turns refused: %v", number, total, refused)
}
