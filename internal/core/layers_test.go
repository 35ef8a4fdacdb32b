package core_test

import (
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"
)

// below says which packages of core each may import; the standard library is
// open to all, nothing else to any.
var below = map[string][]string{
	"term":     {},
	"day":      {},
	"repeat":   {"day"},
	"capture":  {"term", "day", "repeat"},
	"book":     {"term", "day", "repeat", "settings"},
	"search":   {},
	"settings": {"term", "day"},
	"filter":   {"term", "day", "repeat", "book", "search"},
	"view":     {"term", "day", "repeat", "book", "filter"},
}

const corePath = "tincup/internal/core/"

func TestDependenciesPointDown(t *testing.T) {
	seen := map[string]bool{}
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		pkg := filepath.Dir(path)
		allowed, known := below[pkg]
		if !known {
			t.Errorf("%s: the package %s is not in the table of layers", path, pkg)
		}
		seen[pkg] = true
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		if err != nil {
			return err
		}
		for _, spec := range file.Imports {
			name, err := strconv.Unquote(spec.Path.Value)
			if err != nil {
				return err
			}
			if lower, ours := strings.CutPrefix(name, corePath); ours && slices.Contains(allowed, lower) {
				continue
			}
			// Standard packages have no dot in their first element, and are not this module's.
			first, _, _ := strings.Cut(name, "/")
			if strings.Contains(first, ".") || first == "tincup" {
				t.Errorf("%s imports %s, which %s may not", path, name, pkg)
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	for pkg := range below {
		if !seen[pkg] {
			t.Errorf("the table of layers names %s, which is not there", pkg)
		}
	}
}
