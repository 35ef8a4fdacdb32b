// Package golden holds tests to texts that are kept in files. Only tests import it.
package golden

import (
	"flag"
	"os"
	"strings"
	"testing"
)

var update = flag.Bool("update", false, "write the kept texts anew; they are read before they are kept")

// Same fails at the first line in which a text is another than that of the file at a path. It
// names the latest line above that does not begin with a space. With the flag -update it writes
// the file.
func Same(t *testing.T, path, text string) {
	t.Helper()
	if *update {
		if err := os.WriteFile(path, []byte(text), 0o644); err != nil {
			t.Fatal(err)
		}
	}
	kept, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	want, got := strings.Split(string(kept), "\n"), strings.Split(text, "\n")
	head := ""
	for i := range max(len(want), len(got)) {
		there, wanted := line(got, i), line(want, i)
		if !strings.HasPrefix(wanted, " ") {
			head = wanted
		}
		if there != wanted || i >= len(got) || i >= len(want) {
			t.Fatalf("line %d of %s, under %q: there is\n%s\nwant\n%s", i+1, path, head, there, wanted)
		}
	}
}

func line(lines []string, i int) string {
	if i < len(lines) {
		return lines[i]
	}
	return "nothing more"
}
