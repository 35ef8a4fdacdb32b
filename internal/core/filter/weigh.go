package filter

import (
	"tincup/internal/core/book"
	"tincup/internal/core/question"
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
		asked     []predicate
		positive  []bool
		positions = map[*question.Node]int{}
	)
	f.Walk(func(n *question.Node, p bool) {
		positions[n] = len(asked)
		asked = append(asked, m.test(n.Test))
		positive = append(positive, p)
		w.Tests = append(w.Tests, Weight{Path: n.Path})
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
		matches := given(f.Root(), is, positions)
		if matches {
			w.Matches = append(w.Matches, t)
		}
		for i, was := range is {
			without := matches
			if was != positive[i] {
				is[i] = positive[i]
				without = given(f.Root(), is, positions)
				is[i] = was
			}
			w.Tests[i].Without += toInt(without)
		}
	}
	return w, m.err
}

// given evaluates a node from what its tests answered.
func given(n *question.Node, is []bool, at map[*question.Node]int) bool {
	switch n.Kind {
	case question.IsTest:
		return is[at[n]]
	case question.IsNot:
		return !given(n.Nodes[0], is, at)
	}
	for _, sub := range n.Nodes {
		if given(sub, is, at) == (n.Kind == question.IsAny) {
			return n.Kind == question.IsAny
		}
	}
	return n.Kind == question.IsAll
}
