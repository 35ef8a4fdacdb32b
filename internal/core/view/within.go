package view

import (
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// inList is what a list holds, by its sections; what is paused stands behind
// the rest, and behind that what is ticked in a checklist.
func inList(b *book.Desk, l *book.List) func(*book.Todo) (groupKey, bool) {
	ranks := map[book.ID]int32{}
	for i, s := range b.Sections(l.ID) {
		ranks[s.ID] = int32(i) + 1
	}
	return func(t *book.Todo) (groupKey, bool) {
		switch {
		case !t.Deleted.IsZero() || !t.Record.IsZero():
			return groupKey{}, false
		case t.Paused():
			return groupKey{rank: int32(len(ranks)) + 1, kind: PausedKind}, true
		case !t.Open() && !t.IsNote:
			return groupKey{rank: int32(len(ranks)) + 2, kind: Ticked}, l.Checklist && !t.Cleared
		case t.Section.IsZero():
			return groupKey{kind: All}, true
		}
		return groupKey{rank: ranks[t.Section], kind: InSection, of: t.Section}, true
	}
}

// sectionKeys are the heads of a list's sections.
func sectionKeys(b *book.Desk, l *book.List) []groupKey {
	var keys []groupKey
	for i, s := range b.Sections(l.ID) {
		keys = append(keys, groupKey{rank: int32(i) + 1, kind: InSection, of: s.ID})
	}
	return keys
}

// tagged is what carries a tag or one nested under it: first the tag itself,
// then each nested one by name.
func tagged(b *book.Desk, tag *book.Tag) func(*book.Todo) (groupKey, bool) {
	covered := []*book.Tag{}
	for _, t := range b.Tags() {
		if tag.Covers(t) {
			covered = append(covered, t)
		}
	}
	slices.SortFunc(covered, func(a, b *book.Tag) int { return strings.Compare(a.Name, b.Name) })
	return func(t *book.Todo) (groupKey, bool) {
		for i, c := range covered {
			if t.HasTag(c.ID) {
				return groupKey{rank: int32(i), kind: Tagged, of: c.ID}, true
			}
		}
		return groupKey{}, false
	}
}

// withPerson is the agenda with someone: what to ask, what they owe, and what
// is for them.
func withPerson(person book.ID) func(*book.Todo) (groupKey, bool) {
	return func(t *book.Todo) (groupKey, bool) {
		if t.Person.ID != person {
			return groupKey{}, false
		}
		switch t.Person.Role {
		case book.Ask:
			return groupKey{rank: 0, kind: ToAsk}, true
		case book.WaitingOn:
			return groupKey{rank: 1, kind: TheyOwe}, true
		}
		return groupKey{rank: 2, kind: ForThem}, true
	}
}

// waited is how many days someone has been waited for.
func (n moment) waited(t *book.Todo) int {
	if t.Person.Role != book.WaitingOn || t.Person.Since.IsZero() {
		return 0
	}
	return max(n.today.Sub(t.Person.Since), 0)
}

// NextAction finds a project's next action; nil where there is none.
func NextAction(b *book.Desk, c day.Clock, t *book.Todo) *book.Todo { return b.Next(t, CanDo(c)) }
