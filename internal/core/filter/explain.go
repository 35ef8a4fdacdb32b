package filter

import (
	"fmt"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/question"
)

// Phrase says one test, or group, by its path, with a not that stands right
// before it; "" where there is none.
func (f Filter) Phrase(b *book.Desk, path string) string {
	n := f.Root().At(path)
	if n == nil {
		return ""
	}
	if above, under := strings.CutSuffix(path, "/not"); under && n.Kind == question.IsTest {
		return say(f.Root().At(above), b, true)
	}
	return say(n, b, true)
}

// Explain says in words what is to blame for an answer of never or always; ""
// for any other.
func (f Filter) Explain(b *book.Desk, a Answer) string {
	if a.Now != Never && a.Now != Always {
		return ""
	}
	never, groups := a.Now == Never, question.IsAny
	if never {
		groups = question.IsAll
	}
	var said []string
	together := true // they stand side by side in groups of all, or of any
	for _, path := range a.Because {
		said = append(said, "“"+f.Phrase(b, path)+"”")
		together = together && f.Root().Beside(path, groups)
	}
	switch n := len(said); {
	case n == 0 && never:
		return "A group of “any” has nothing in it."
	case n == 0:
		return "Nothing is asked."
	case n == 1 && never:
		return said[0] + " is never true."
	case n == 1:
		return said[0] + " is always true."
	case !together && never:
		return "Taken together, these leave nothing: " + strings.Join(said, ", ") + "."
	case !together:
		return "Taken together, these leave nothing out: " + strings.Join(said, ", ") + "."
	case never && n == 2:
		return fmt.Sprintf("%s and %s cannot both be true.", said[0], said[1])
	case never:
		return fmt.Sprintf("%s and %s cannot all be true.", strings.Join(said[:n-1], ", "), said[n-1])
	}
	return fmt.Sprintf("Every to-do is %s or %s.", strings.Join(said[:len(said)-1], ", "), said[len(said)-1])
}
