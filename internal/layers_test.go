package internal_test

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

// below says which packages of internal each may import besides core, whose own layers
// are in core/layers_test.go. What is not in it may not be there at all.
var below = map[string][]string{
	"clock":            {},
	"seed":             {},
	"store":            {},
	"app":              {"clock", "store"},
	"httpapi/contract": {},
	"httpapi":          {"app", "store", "httpapi/contract"}, // of store its errors, and replies that are kept
}

// withoutCore are those that know nothing of the job.
var withoutCore = []string{"clock", "seed", "httpapi/contract"}

func TestDependenciesPointDown(t *testing.T) {
	const here = "tincup/internal/"
	seen := map[string]bool{}
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		pkg := filepath.ToSlash(filepath.Dir(path))
		if pkg == "core" || strings.HasPrefix(pkg, "core/") {
			return nil
		}
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
			lower, ours := strings.CutPrefix(name, here)
			switch {
			case !ours && !strings.HasPrefix(name, "tincup/"):
			case strings.HasPrefix(lower, "core/") && !slices.Contains(withoutCore, pkg):
			case slices.Contains(allowed, lower):
			default:
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
