package book_test

import (
	"errors"
	"fmt"
	"math/rand/v2"
	"path/filepath"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/golden"
	"tincup/internal/sequence"
)

// saidOf is what the history says of some steps, and why some are refused, line by line.
func saidOf(choices []string, steps int) string {
	var b strings.Builder
	r, random := sequence.New(book.ID{15: 1}), rand.New(rand.NewPCG(1, 1))
	for range steps {
		s := sequence.NextStep(random, choices)
		var cmd book.Command
		if s.Kind != "undo" && s.Kind != "redo" {
			if cmd = r.Command(s); cmd == nil {
				continue // there is nothing yet to do it to
			}
		}
		before := len(r.Changes)
		_, err := r.Take(s)
		switch {
		case err != nil:
			fmt.Fprintf(&b, "%s: %v\n", s.Kind, err)
		case len(r.Changes) > before:
			fmt.Fprintf(&b, "%s: %s\n", s.Kind, r.Changes[before].Says)
		case cmd != nil:
			r.IDs++ // or the next would take the same
			_, refused := r.Desk.Do(r.Env(), cmd)
			var rule *book.RuleError
			if errors.As(refused, &rule) {
				fmt.Fprintf(&b, "%s: refused, %s: %s\n", s.Kind, rule.Field, rule.Reason)
			} else {
				fmt.Fprintf(&b, "%s: nothing to do, %v\n", s.Kind, refused)
			}
		}
	}
	return b.String()
}

// What commands of every kind say and refuse, one after the other, is what was read and found
// right once.
func TestWhatCommandsSay(t *testing.T) {
	var b strings.Builder
	for _, part := range []struct {
		name    string
		weights map[string]int
	}{{"Everyday", sequence.Everyday}, {"Trees", sequence.Trees}, {"Shelves", sequence.Shelves}, {"Labels", sequence.Labels},
		{"Places", sequence.Places}, {"Settings", sequence.Chosen}} {
		fmt.Fprintf(&b, "# %s\n%s\n", part.name, saidOf(sequence.Choices(part.weights), 260))
	}
	golden.Same(t, filepath.Join("testdata", "said.txt"), b.String())
}
