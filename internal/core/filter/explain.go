package filter

import (
	"fmt"
	"slices"
	"strings"

	"tincup/internal/core/book"
)

// Phrase says one test, or group, by its path, with a not that stands right
// before it; "" where there is none.
func (f Filter) Phrase(b *book.Desk, path string) string {
	n := f.root.at(path)
	if n == nil {
		return ""
	}
	if above, under := strings.CutSuffix(path, "/not"); under && n.kind == isTest {
		return f.root.at(above).say(b, true)
	}
	return n.say(b, true)
}

func (n *node) at(path string) *node {
	if n == nil || n.path == path {
		return n
	}
	for _, sub := range n.nodes {
		if strings.HasPrefix(path+"/", sub.path+"/") {
			return sub.at(path)
		}
	}
	return nil
}

// Explain says in words what is to blame for an answer of never or always; ""
// for any other.
func (f Filter) Explain(b *book.Desk, a Answer) string {
	if a.Now != Never && a.Now != Always {
		return ""
	}
	var said []string
	together := true // they stand side by side in groups of all, or of any
	for _, path := range a.Because {
		said = append(said, "“"+f.Phrase(b, path)+"”")
		together = together && f.root.beside(path, a.Now == Never)
	}
	never := a.Now == Never
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

// beside reports whether all groups above a test are of all, or of any, save a
// not right before it.
func (n *node) beside(path string, all bool) bool {
	wanted := isAny
	if all {
		wanted = isAll
	}
	for n != nil && n.path != path {
		if n.kind != wanted && (n.kind != isNot || n.nodes[0].kind != isTest) {
			return false
		}
		i := slices.IndexFunc(n.nodes, func(sub *node) bool { return strings.HasPrefix(path+"/", sub.path+"/") })
		if i < 0 {
			return false
		}
		n = n.nodes[i]
	}
	return true
}
