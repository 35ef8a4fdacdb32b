package book_test

import (
	"encoding/json"
	"flag"
	"fmt"
	"math/rand/v2"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/seed"
	"tincup/internal/sequence"
)

var sequences = flag.Float64("sequences", 0.02, "share of the random sequences of a full run")

// text is a change as the history keeps it.
func text(t testing.TB, c *book.Change) string {
	t.Helper()
	packed, err := c.Pack()
	if err != nil {
		t.Fatal(err)
	}
	return string(packed)
}

// again is a change as it comes back from the history.
func again(c *book.Change) (*book.Change, error) {
	packed, err := c.Pack()
	if err != nil {
		return nil, err
	}
	back := &book.Change{}
	if err := json.Unmarshal(packed, back); err != nil {
		return nil, err
	}
	back.By(c.Actor)
	return back, nil
}

// play plays steps, goes back to the start, on to the end and back again. What is there is as it
// was each time, and so it is in a second Book that follows by the changes of the history alone.
func play(steps []sequence.Step) (*sequence.Run, error) {
	r, follower := sequence.New(book.ID{15: 1}), sequence.New(book.ID{15: 1})
	var failed error
	r.Applied = func(c *book.Change) {
		back, err := again(c)
		if err != nil {
			failed = fmt.Errorf("%q: %w", c.Says, err)
			return
		}
		follower.Keep(back)
	}
	look := func(when string) error {
		if failed != nil {
			return failed
		}
		if err := r.Sound(); err != nil {
			return fmt.Errorf("%s: %w", when, err)
		}
		if got, want := sequence.Dump(follower.Desk), sequence.Dump(r.Desk); got != want {
			return fmt.Errorf("%s, who follows has\n%s\nwant\n%s", when, got, want)
		}
		return nil
	}
	first := sequence.Dump(r.Desk)
	for _, s := range steps {
		if _, err := r.Take(s); err != nil {
			return r, err
		}
		if err := look(s.Kind); err != nil {
			return r, err
		}
	}
	return r, r.ThereAndBack(first, func(when, _ string) error { return look(when) })
}

// shrinking is the share from which on a sequence that fails is shrunk, which may take minutes.
const shrinking = 0.1

func TestSequences(t *testing.T) {
	seed := seed.New(t)
	for _, c := range []struct {
		name    string
		number  float64
		weights map[string]int
	}{{"everyday", 1000, sequence.Everyday}, {"trees", 1000, sequence.Trees}, {"shelves", 500, sequence.Shelves},
		{"labels", 500, sequence.Labels}, {"places", 500, sequence.Places}, {"settings", 200, sequence.Chosen}} {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			choices, total := sequence.Choices(c.weights), map[string]int{}
			for i := range int(c.number * *sequences) {
				steps := sequence.Generate(rand.New(rand.NewPCG(seed, uint64(i))), choices)
				r, err := play(steps)
				if err != nil && *sequences < shrinking {
					t.Fatalf("seed %d, sequence %d: %v; -sequences %v shrinks it", seed, i, err, shrinking)
				}
				if err != nil {
					small := sequence.Shrink(steps, func(s []sequence.Step) bool {
						_, err := play(s)
						return err != nil
					})
					_, err = play(small)
					t.Fatalf("seed %d, sequence %d, shrunk from %d to %d steps:\n%v\n%v", seed, i, len(steps), len(small), small, err)
				}
				for kind, n := range r.Counts {
					total[kind] += n
				}
			}
			for kind := range c.weights {
				if total[kind] == 0 {
					t.Errorf("no step was %s", kind)
				}
			}
			t.Log(total)
		})
	}
}

// Whatever two windows do, undo and redo, in whatever order: every rule holds after every step,
// and an undo that would break one, or that a later change is in the way of, is refused.
func TestTwoWindows(t *testing.T) {
	seed := seed.New(t)
	choices, refused := sequence.Choices(sequence.AllKinds), map[string]int{}
	for i := range int(2000 * *sequences) {
		r := rand.New(rand.NewPCG(seed, uint64(i)))
		w := sequence.NewWindows(book.ID{15: 1})
		for n := range 100 {
			s := sequence.NextStep(r, choices)
			err := w.Step(s)
			if err == nil {
				err = w.Sound()
			}
			if err != nil {
				t.Fatalf("seed %d, sequence %d, step %d, %v: %v", seed, i, n, s, err)
			}
		}
		for why, n := range w.Refused {
			refused[why] += n
		}
	}
	if refused["a rule"] == 0 || refused["changed since"] == 0 {
		t.Errorf("turns were refused so often: %v", refused)
	}
}
