package filter

import (
	"slices"

	"tincup/internal/core/question"
)

// Sort is a sort of to-dos, by what can be told without looking at each.
type Sort struct{ Open, Note, Paused bool }

// MayHold reports whether the filter could hold of to-dos of a sort, as far as
// their status, kind and pause tell.
func (f Filter) MayHold(s Sort) bool { return amongNode(f.Root(), s) != no }

// amongNode is what the node is for all of a sort.
func amongNode(n *question.Node, s Sort) truth {
	switch {
	case n == nil:
		return yes
	case n.Kind == question.IsTest:
		return amongTest(n.Test, s)
	case n.Kind == question.IsNot:
		return amongNode(n.Nodes[0], s).not()
	}
	decides := truthOf(n.Kind == question.IsAny)
	whole := decides.not()
	for _, sub := range n.Nodes {
		switch amongNode(sub, s) {
		case decides:
			return decides
		case unknown:
			whole = unknown
		}
	}
	return whole
}

func amongTest(t *question.Test, s Sort) truth {
	switch t.Field {
	case question.Kind:
		return truthOf(slices.Contains(t.Words, question.Kind.Words()[toInt(s.Note)]))
	case question.Paused:
		return truthOf(s.Paused == (t.Op == question.Yes))
	case question.Status:
		if s.Note {
			return no
		}
		names := 0
		of := question.Status.Words()[:2]
		if !s.Open {
			of = question.Status.Words()[2:]
		}
		for _, w := range of {
			names += toInt(slices.Contains(t.Words, w))
		}
		switch names {
		case 0:
			return no
		case len(of):
			return yes
		}
	}
	return unknown
}
