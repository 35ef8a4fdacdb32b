package store_test

import (
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"math/rand/v2"
	"path/filepath"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/seed"
	"tincup/internal/sequence"
	"tincup/internal/store"
)

var sequences = flag.Float64("sequences", 0.1, "share of the random sequences of a full run")

// check plays the steps, goes back to the start, on to the end and back again,
// and compares the Book in memory and in the file, which is empty before and
// after.
func check(steps []sequence.Step, file *store.Store) (*sequence.Run, error) {
	empty, err := loadDesk(context.Background(), file)
	if err != nil {
		return nil, err
	}
	r := sequence.New(empty.Account())
	r.Book.Load(empty.Revision())
	first := sequence.Dump(r.Desk)
	if got := sequence.Dump(empty); got != first {
		return r, fmt.Errorf("the file is not empty:\n%s", got)
	}
	for _, s := range steps {
		if _, err := r.Take(s); err != nil {
			return r, err
		}
		if err := r.Sound(); err != nil {
			return r, err
		}
	}
	return r, r.ThereAndBack(first, func(_, want string) error {
		err := save(file, r.Changes, want)
		r.Changes = nil
		if err != nil {
			err = fmt.Errorf("the file: %w", err)
		}
		return err
	})
}

// save writes changes, as they come back from JSON, and reads the file.
func save(file *store.Store, changes []*book.Change, want string) error {
	var entries []store.Entry
	for _, c := range changes {
		packed, err := c.Pack()
		if err != nil {
			return err
		}
		again := &book.Change{}
		if err := json.Unmarshal(packed, again); err != nil {
			return err
		}
		again.By(c.Actor)
		entries = append(entries, store.Entry{Change: again, Window: "w"})
	}
	if err := file.Save(context.Background(), entries...); err != nil {
		return err
	}
	b, err := loadDesk(context.Background(), file)
	if err != nil {
		return err
	}
	if got := sequence.Dump(b); got != want {
		return fmt.Errorf("has\n%s\nwant\n%s", got, want)
	}
	return file.CheckIndex(context.Background())
}

// runSequences checks random sequences of some kinds of commands, each at least
// 1.5 % of those accepted. A failing one is shrunk and printed.
func runSequences(t *testing.T, number int, weights map[string]int) {
	seed := seed.New(t)
	choices := sequence.Choices(weights)
	total := map[string]int{}
	sum := 0
	file := openFile(t)
	for i := range number {
		steps := sequence.Generate(rand.New(rand.NewPCG(seed, uint64(i))), choices)
		r, err := check(steps, file)
		if err != nil {
			small := sequence.Shrink(steps, func(s []sequence.Step) bool {
				_, err := check(s, openFile(t))
				return err != nil
			})
			_, err = check(small, openFile(t))
			t.Fatalf("seed %d, sequence %d, shrunk from %d to %d steps:\n%v\n%v", seed, i, len(steps), len(small), small, err)
		}
		for kind, n := range r.Counts {
			total[kind] += n
			sum += n
		}
	}
	for kind := range weights {
		if share := 100 * float64(total[kind]) / float64(sum); share < 1.5 && *sequences >= 1 || share == 0 {
			t.Errorf("only %.1f %% of the accepted commands are %s", share, kind)
		}
	}
	t.Logf("%d sequences, %d accepted commands: %v", number, sum, total)
}

func openFile(t *testing.T) *store.Store {
	s, err := store.Open(context.Background(), filepath.Join(t.TempDir(), "t.db"))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		if err := s.Close(); err != nil {
			t.Error(err)
		}
	})
	return s
}

func TestUndoToTheStartAndRedoToTheEnd(t *testing.T) {
	for _, c := range []struct {
		name    string
		number  float64
		weights map[string]int
	}{{"everyday", 1000, sequence.Everyday}, {"trees", 2000, sequence.Trees}, {"shelves", 500, sequence.Shelves}, {"labels", 500, sequence.Labels}, {"places", 500, sequence.Places}, {"settings", 200, sequence.Chosen}} {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			runSequences(t, int(c.number**sequences), c.weights)
		})
	}
}
