package question

import (
	"slices"
	"strings"

	"tincup/internal/core/term"
)

// Bounds of a tree.
const (
	MaxDepth  = 40
	MaxTests  = 300
	MaxText   = 500    // characters of a text test
	MaxDays   = 36_500 // of a relative date
	MaxValues = 100    // of one test
)

// Tree is a question. The zero Tree asks nothing, and holds of everything.
type Tree struct{ root *Node }

// NodeKind says what a node is.
type NodeKind uint8

// The kinds of nodes.
const (
	IsTest NodeKind = iota
	IsAll
	IsAny
	IsNot
)

// Node is one node of a tree. Nodes of a tree that was read are not changed any more.
type Node struct {
	Kind  NodeKind
	Nodes []*Node // of all and any; one of not
	Test  *Test
	Path  string // where it stands, as a JSON pointer
}

// NewTree is a tree of nodes that were put together in memory, with the paths that they
// have.
func NewTree(root *Node) Tree { return Tree{root} }

// Root is the node at the top; nil where nothing is asked.
func (t Tree) Root() *Node { return t.root }

// IsZero reports whether nothing is asked.
func (t Tree) IsZero() bool { return t.root == nil || t.root.Kind == IsAll && len(t.root.Nodes) == 0 }

// All is a tree that holds where every one of some does.
func All(trees ...Tree) Tree {
	var nodes []*Node
	for _, t := range trees {
		if t.root != nil {
			nodes = append(nodes, t.root)
		}
	}
	if len(nodes) == 0 {
		return Tree{}
	}
	return joined(IsAll, nodes)
}

// Any is a tree that holds where one of some does, each of which asks something.
func Any(trees ...Tree) Tree {
	nodes := make([]*Node, len(trees))
	for i, t := range trees {
		nodes[i] = t.root
	}
	return joined(IsAny, nodes)
}

func joined(kind NodeKind, nodes []*Node) Tree {
	if len(nodes) == 1 {
		return Tree{nodes[0]}
	}
	return Tree{&Node{Kind: kind, Nodes: nodes}}
}

// Walk calls visit for every test with its polarity: positive where making the test
// true can only make the tree truer.
func (t Tree) Walk(visit func(n *Node, positive bool)) {
	var walk func(n *Node, positive bool)
	walk = func(n *Node, positive bool) {
		switch {
		case n == nil:
		case n.Kind == IsTest:
			visit(n, positive)
		default:
			for _, sub := range n.Nodes {
				walk(sub, positive != (n.Kind == IsNot))
			}
		}
	}
	walk(t.root, true)
}

// Asks reports whether a test is about one of the fields.
func (t Tree) Asks(fields ...Field) (asks bool) {
	t.Walk(func(n *Node, _ bool) { asks = asks || slices.Contains(fields, n.Test.Field) })
	return asks
}

// At finds the node with a path at or under n; nil where there is none.
func (n *Node) At(path string) *Node {
	if n == nil || n.Path == path {
		return n
	}
	if sub := n.toward(path); sub != nil {
		return sub.At(path)
	}
	return nil
}

// toward is the node right under n that is, or holds, the one with the path.
func (n *Node) toward(path string) *Node {
	for _, sub := range n.Nodes {
		if strings.HasPrefix(path+"/", sub.Path+"/") {
			return sub
		}
	}
	return nil
}

// Beside reports whether all groups above the test with the path are of the kind, save a
// not right before it.
func (n *Node) Beside(path string, kind NodeKind) bool {
	for n != nil && n.Path != path {
		if n.Kind != kind && (n.Kind != IsNot || n.Nodes[0].Kind != IsTest) {
			return false
		}
		if n = n.toward(path); n == nil {
			return false
		}
	}
	return true
}

// Alone goes down groups of one to what is in them.
func (n *Node) Alone() *Node {
	for len(n.Nodes) == 1 && n.Kind != IsNot {
		n = n.Nodes[0]
	}
	return n
}

// Names returns the ids that tests on a field name, each once.
func (t Tree) Names(f Field) []term.ID {
	var ids []term.ID
	t.Walk(func(n *Node, _ bool) {
		for _, id := range n.Test.IDs {
			if n.Test.Field == f && !slices.Contains(ids, id) {
				ids = append(ids, id)
			}
		}
	})
	return ids
}

// Instead is the tree with tests on a field naming into where they name from, which a
// test names once. It is t itself where none names from.
func (t Tree) Instead(f Field, from, into term.ID) Tree {
	if !slices.Contains(t.Names(f), from) {
		return t
	}
	return Tree{t.root.instead(f, from, into)}
}

func (n *Node) instead(f Field, from, into term.ID) *Node {
	again := &Node{Kind: n.Kind, Path: n.Path}
	for _, sub := range n.Nodes {
		again.Nodes = append(again.Nodes, sub.instead(f, from, into))
	}
	if n.Test == nil {
		return again
	}
	test := *n.Test
	if test.Field == f {
		test.IDs = nil
		for _, id := range n.Test.IDs {
			if id == from {
				id = into
			}
			if !slices.Contains(test.IDs, id) {
				test.IDs = append(test.IDs, id)
			}
		}
	}
	again.Test = &test
	return again
}
