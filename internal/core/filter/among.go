package filter

import "slices"

// All is a filter that holds where every one of some does.
func All(filters ...Filter) Filter {
	var nodes []*node
	for _, f := range filters {
		if f.root != nil {
			nodes = append(nodes, f.root)
		}
	}
	switch len(nodes) {
	case 0:
		return Filter{}
	case 1:
		return Filter{nodes[0]}
	}
	return Filter{&node{kind: isAll, nodes: nodes}}
}

// Must is Parse for filters that are known to be right; it panics on others.
func Must(text string) Filter {
	f, err := Parse([]byte(text))
	if err != nil {
		panic("filter: " + err.Error())
	}
	return f
}

// IsZero reports whether the filter asks nothing.
func (f Filter) IsZero() bool { return f.root == nil || f.root.kind == isAll && len(f.root.nodes) == 0 }

// Asks reports whether a test is about one of the fields.
func (f Filter) Asks(fields ...Field) (asks bool) {
	f.tests(func(n *node, _ bool) { asks = asks || slices.Contains(fields, n.test.Field) })
	return asks
}

// Sort is a sort of to-dos, by what can be told without looking at each.
type Sort struct{ Open, Note, Paused bool }

// MayHold reports whether the filter could hold of to-dos of a sort, as far as
// their status, kind and pause tell.
func (f Filter) MayHold(s Sort) bool { return f.root.among(s) != no }

// among is what the node is for all of a sort.
func (n *node) among(s Sort) truth {
	switch {
	case n == nil:
		return yes
	case n.kind == isTest:
		return n.test.among(s)
	case n.kind == isNot:
		return n.nodes[0].among(s).not()
	}
	decides := truthOf(n.kind == isAny)
	whole := decides.not()
	for _, sub := range n.nodes {
		switch sub.among(s) {
		case decides:
			return decides
		case unknown:
			whole = unknown
		}
	}
	return whole
}

func (t *Test) among(s Sort) truth {
	switch t.Field {
	case Kind:
		return truthOf(slices.Contains(t.Words, kindWords[toInt(s.Note)]))
	case Paused:
		return truthOf(s.Paused == (t.Op == Yes))
	case Status:
		if s.Note {
			return no
		}
		names := 0
		of := statusWords[:2]
		if !s.Open {
			of = statusWords[2:]
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
