package filter

import (
	"encoding/json"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/question"
	"tincup/internal/core/search"
)

// Found returns the filter that holds what a search finds: of each of its terms
// what has it in title or notes, or has a tag, a person or a place that bears it
// by now; names of files are no field of a filter. Words are compared as fold
// makes them. The error is a *question.ParseError where that takes more tests than a
// filter may have.
func Found(b *book.Desk, q search.Query, fold func(string) string) (Filter, error) {
	all := &question.Node{Kind: question.IsAll}
	for _, t := range q.Wanted {
		all.Nodes = append(all.Nodes, bearing(b, t, fold))
	}
	for _, t := range q.LeftOut {
		all.Nodes = append(all.Nodes, &question.Node{Kind: question.IsNot, Nodes: []*question.Node{bearing(b, t, fold)}})
	}
	root := all
	if only := all.Nodes[0]; len(all.Nodes) == 1 && only.Kind == question.IsAny {
		root = only
	}
	data, err := json.Marshal(question.NewTree(root))
	if err != nil {
		return Filter{}, err
	}
	return Parse(data)
}

// bearing asks for a term in each of the fields that have it.
func bearing(b *book.Desk, t search.Term, fold func(string) string) *question.Node {
	m := search.NewMarker(search.Query{Wanted: []search.Term{t}}, fold)
	bears := func(name string) bool { return len(m.Marks(name, 1)) > 0 }
	text := strings.Join(strings.Fields(t.Text), " ")
	tests := []*question.Test{{Field: question.Text, Op: question.Contains, Text: text}}
	var tags, people []book.ID
	for _, tag := range b.Tags() {
		if bears(tag.Name) {
			tags = append(tags, tag.ID)
		}
	}
	for _, p := range b.People() {
		if bears(p.Name) {
			people = append(people, p.ID)
		}
	}
	for some := range slices.Chunk(tags, question.MaxValues) {
		tests = append(tests, &question.Test{Field: question.Tag, Op: question.AnyOf, IDs: some})
	}
	for some := range slices.Chunk(people, question.MaxValues) {
		tests = append(tests, &question.Test{Field: question.Person, Op: question.AnyOf, IDs: some})
	}
	for todo := range b.All() {
		if todo.Place != "" && bears(todo.Place) {
			tests = append(tests, &question.Test{Field: question.Place, Op: question.Contains, Text: text})
			break
		}
	}
	if len(tests) == 1 {
		return &question.Node{Kind: question.IsTest, Test: tests[0]}
	}
	some := &question.Node{Kind: question.IsAny}
	for _, t := range tests {
		some.Nodes = append(some.Nodes, &question.Node{Kind: question.IsTest, Test: t})
	}
	return some
}
