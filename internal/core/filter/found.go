package filter

import (
	"encoding/json"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/search"
)

// Found returns the filter that holds what a search finds: of each of its terms
// what has it in title or notes, or has a tag, a person or a place that bears it
// by now; names of files are no field of a filter. Words are compared as fold
// makes them. The error is a *ParseError where that takes more tests than a
// filter may have.
func Found(b *book.Desk, q search.Query, fold func(string) string) (Filter, error) {
	all := &node{kind: isAll}
	for _, t := range q.Wanted {
		all.nodes = append(all.nodes, bearing(b, t, fold))
	}
	for _, t := range q.LeftOut {
		all.nodes = append(all.nodes, &node{kind: isNot, nodes: []*node{bearing(b, t, fold)}})
	}
	root := all
	if only := all.nodes[0]; len(all.nodes) == 1 && only.kind == isAny {
		root = only
	}
	data, err := json.Marshal(Filter{root})
	if err != nil {
		return Filter{}, err
	}
	return Parse(data)
}

// bearing asks for a term in each of the fields that have it.
func bearing(b *book.Desk, t search.Term, fold func(string) string) *node {
	m := search.NewMarker(search.Query{Wanted: []search.Term{t}}, fold)
	bears := func(name string) bool { return len(m.Marks(name, 1)) > 0 }
	text := strings.Join(strings.Fields(t.Text), " ")
	tests := []*Test{{Field: Text, Op: Contains, Text: text}}
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
	for some := range slices.Chunk(tags, maxValues) {
		tests = append(tests, &Test{Field: Tag, Op: AnyOf, IDs: some})
	}
	for some := range slices.Chunk(people, maxValues) {
		tests = append(tests, &Test{Field: Person, Op: AnyOf, IDs: some})
	}
	for todo := range b.All() {
		if todo.Place != "" && bears(todo.Place) {
			tests = append(tests, &Test{Field: Place, Op: Contains, Text: text})
			break
		}
	}
	if len(tests) == 1 {
		return &node{kind: isTest, test: tests[0]}
	}
	some := &node{kind: isAny}
	for _, t := range tests {
		some.nodes = append(some.nodes, &node{kind: isTest, test: t})
	}
	return some
}
