package book_test

import (
	"errors"
	"flag"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/sequence"
)

var update = flag.Bool("update", false, "write testdata anew, to be read before it is kept")

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
	path := filepath.Join("testdata", "said.txt")
	if *update {
		if err := os.WriteFile(path, []byte(b.String()), 0o644); err != nil {
			t.Fatal(err)
		}
	}
	kept, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	want, got := strings.Split(string(kept), "\n"), strings.Split(b.String(), "\n")
	for i := range max(len(want), len(got)) {
		if i >= len(want) || i >= len(got) || want[i] != got[i] {
			t.Fatalf("line %d of %s: there is\n%s\nwant\n%s", i+1, path, line(got, i), line(want, i))
		}
	}
}

func line(lines []string, i int) string {
	if i < len(lines) {
		return lines[i]
	}
	return "nothing more"
}
