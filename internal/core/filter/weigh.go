package filter

import (
	"tincup/internal/core/book"
)

// maxWeighed is how many tests Weigh looks at one by one.
const maxWeighed = 60

// Weights is what a filter's tests do among some to-dos.
type Weights struct {
	// Matches are those that the filter holds of.
	Matches []*book.Todo
	// Tests are in the order in which they stand; none where there are more
	// than 60.
	Tests []Weight
}

// Weight is what one test does.
type Weight struct {
	Path string
	// Passes is how many the test alone lets through; Without is how many would
	// match if it were dropped: replaced by what lets more through.
	Passes, Without int
}

// Weigh counts, among some to-dos, what the filter and each of its tests let
// through. The error is that of reading notes.
func (f Filter) Weigh(m *Matcher, todos []*book.Todo) (Weights, error) {
	var (
		w         Weights
		asked     []question
		positive  []bool
		positions = map[*node]int{}
	)
	f.tests(func(n *node, p bool) {
		positions[n] = len(asked)
		asked = append(asked, m.test(n.test))
		positive = append(positive, p)
		w.Tests = append(w.Tests, Weight{Path: n.path})
	})
	if len(asked) > maxWeighed {
		asked, w.Tests = nil, nil
	}
	is := make([]bool, len(asked))
	for _, t := range todos {
		if len(asked) == 0 {
			if m.whole.holds(t) {
				w.Matches = append(w.Matches, t)
			}
			continue
		}
		for i := range asked {
			if is[i] = asked[i].holds(t); is[i] {
				w.Tests[i].Passes++
			}
		}
		matches := f.root.given(is, positions)
		if matches {
			w.Matches = append(w.Matches, t)
		}
		for i, was := range is {
			without := matches
			if was != positive[i] {
				is[i] = positive[i]
				without = f.root.given(is, positions)
				is[i] = was
			}
			w.Tests[i].Without += toInt(without)
		}
	}
	return w, m.err
}

// given evaluates a node from what its tests answered.
func (n *node) given(is []bool, at map[*node]int) bool {
	switch n.kind {
	case isTest:
		return is[at[n]]
	case isNot:
		return !n.nodes[0].given(is, at)
	}
	for _, sub := range n.nodes {
		if sub.given(is, at) == (n.kind == isAny) {
			return n.kind == isAny
		}
	}
	return n.kind == isAll
}
