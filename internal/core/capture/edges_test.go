package capture_test

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"tincup/internal/core/capture"
	"tincup/internal/golden"
)

// What sentences mean that stand just inside a limit of what is read, and just outside. The file
// holds each sentence, with the number of the names it is read beside, and below it what it means;
// the sentence that an offer makes is there too.
func TestEdgesOfSentences(t *testing.T) {
	envs := []capture.Env{at(tuesday), at(tuesday, func(e *capture.Env) {
		e.Lists = append(e.Lists, "Friday", "January", "High", "Garden of Eden", "Suppliers (new)")
		e.People = append(e.People, "Ana", "Anabel", "The Framer", "Ward & Sons", "Friday")
	})}
	path := filepath.Join("testdata", "edges.txt")
	kept, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	var b strings.Builder
	for line := range strings.Lines(string(kept)) {
		number, text, ok := strings.Cut(strings.TrimSuffix(line, "\n"), ": ")
		if strings.HasPrefix(line, " ") || !ok {
			continue
		}
		env := envs[strings.Index("01", number)]
		b.WriteString(line + "  " + meant(text, env) + "\n")
		for _, o := range capture.Offers(text, env) {
			b.WriteString("    > " + o.Taken + "\n")
		}
	}
	golden.Same(t, path, b.String())
}
