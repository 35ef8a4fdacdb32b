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

// below says which packages of internal each may import. What is not in it may not be
// there at all. Those of core import nothing else but the standard library.
var below = map[string][]string{
	"core/term":          {},
	"core/day":           {},
	"core/geo":           {},
	"core/search":        {},
	"core/repeat":        {"core/day"},
	"core/settings":      {"core/term", "core/day"},
	"core/question":      {"core/term", "core/day"},
	"core/capture":       {"core/term", "core/day", "core/repeat"},
	"core/book":          {"core/term", "core/day", "core/geo", "core/repeat", "core/settings", "core/question"},
	"core/filter":        {"core/term", "core/day", "core/repeat", "core/question", "core/book", "core/search"},
	"core/plan":          {"core/term", "core/day", "core/settings", "core/book"},
	"core/remind":        {"core/day", "core/geo", "core/settings", "core/book"},
	"core/exchange":      {"core/capture", "core/day", "core/geo", "core/book"},
	"core/view":          {"core/term", "core/day", "core/repeat", "core/question", "core/book", "core/filter", "core/plan"},
	"clock":              {},
	"seed":               {},
	"golden":             {},
	"sequence":           {"core/*"},
	"store":              {"core/*"},
	"app":                {"core/*", "clock", "store"},
	"outside/desktop":    {"app"},
	"outside/feed":       {"core/*", "app"},
	"standin/calendar":   {"core/*"},
	"standin/desktop":    {},
	"standin/device":     {"core/geo"},
	"formats":            {"core/*", "formats/ics", "formats/csvfile", "formats/jscal", "formats/markdown"},
	"formats/everything": {"core/*", "formats/column", "formats/jscal"},
	"formats/column":     {"core/*"},
	"formats/plaintext":  {"core/*"},
	"formats/csvfile":    {"core/*", "formats/column", "formats/plaintext"},
	"formats/markdown":   {"core/*", "formats/column", "formats/plaintext"},
	"formats/jscal":      {"core/*"},
	"formats/ics":        {"core/*", "formats/plaintext"},
	"httpapi/contract":   {},
	"httpapi":            {"core/*", "app", "store", "formats", "formats/csvfile", "formats/everything", "httpapi/contract"}, // of store its errors, and replies that are kept
}

func TestDependenciesPointDown(t *testing.T) {
	const here = "tincup/internal/"
	seen := map[string]bool{}
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		pkg := filepath.ToSlash(filepath.Dir(path))
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
			// Standard packages have no dot in their first element, and are not this module's.
			first, _, _ := strings.Cut(name, "/")
			foreign := !ours && (strings.Contains(first, ".") || first == "tincup")
			core := strings.HasPrefix(pkg, "core/")
			whole := strings.HasPrefix(lower, "core/") && slices.Contains(allowed, "core/*")
			if ours && !whole && !slices.Contains(allowed, lower) || foreign && (core || first == "tincup") {
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
