package book

import (
	"maps"
	"slices"
)

// Still returns the Desk as it is now, with its notes found in notes: no later change of the Book
// reaches it. Rows are never written to once they are applied, so a still Desk shares them, and
// copies only what finds them. The copy takes one step for each to-do (some 20 ms for 100,000),
// during which the Book must not change.
func (b *Desk) Still(notes Notes) *Desk {
	still := *b
	still.book = &Book{revision: b.book.revision, notes: notes, accounts: slices.Clone(b.book.accounts)}
	still.book.desks = map[ID]*Desk{b.account: &still}
	still.notes, still.slack = notes, nil
	still.todos = maps.Clone(b.todos)
	for i := range b.parts {
		still.parts[i] = slices.Clone(b.parts[i])
	}
	still.siblings = make(map[ID][]*Todo, len(b.siblings))
	for home, siblings := range b.siblings {
		still.siblings[home] = slices.Clone(siblings)
	}
	still.ringsOf = make(map[ID][]*Ring, len(b.ringsOf))
	for id, rings := range b.ringsOf {
		still.ringsOf[id] = slices.Clone(rings)
	}
	still.lists, still.shelves, still.sections = maps.Clone(b.lists), maps.Clone(b.shelves), maps.Clone(b.sections)
	still.tags, still.tagNames, still.carriers = maps.Clone(b.tags), maps.Clone(b.tagNames), maps.Clone(b.carriers)
	still.people, still.views, still.chosen = maps.Clone(b.people), maps.Clone(b.views), maps.Clone(b.chosen)
	still.calendars, still.rings, still.uids = maps.Clone(b.calendars), maps.Clone(b.rings), maps.Clone(b.uids)
	still.places, still.placeNames = maps.Clone(b.places), maps.Clone(b.placeNames)
	return &still
}
