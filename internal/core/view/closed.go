package view

import (
	"maps"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/term"
)

// closedGrouping is a grouping by a field whose value is one of a few words, which are
// the groups.
type closedGrouping struct {
	kind Kind
	of   func(*book.Todo) uint8
	// back puts the last value first.
	back bool
	// word is a value as a to-do's field has it, title the head of its group.
	word, title func(uint8) string
}

var closed = map[Grouping]closedGrouping{
	GroupByPriority: {kind: OfPriority, back: true, of: func(t *book.Todo) uint8 { return uint8(t.Priority) },
		word: func(p uint8) string { return book.Priority(p).String() },
		title: func(p uint8) string {
			w := book.Priority(p).String()
			if w == "none" {
				w = "no"
			}
			return strings.ToUpper(w[:1]) + w[1:] + " priority"
		}},
	GroupByConcentration: {kind: OfConcentration, of: func(t *book.Todo) uint8 { return uint8((t.Concentration + 2) % 3) }, // deep, light, unset
		word:  func(c uint8) string { return term.Concentration((c + 1) % 3).String() },
		title: func(c uint8) string { return [...]string{"Deep work", "Light work", "Neither deep nor light"}[c] }},
	GroupByStatus: {kind: OfStatus, of: func(t *book.Todo) uint8 { return uint8(t.Status) },
		word:  func(s uint8) string { return book.Status(s).String() },
		title: func(s uint8) string { return [...]string{"Not begun", "Begun", "Completed", "Cancelled"}[s] }},
}

// The kinds of attention, and the groups of those that take each.
const (
	GroupByConcentration Grouping = "concentration"
	OfConcentration      Kind     = "concentration"
)

var closedGroupings = slices.Sorted(maps.Keys(closed))

func (c closedGrouping) key(t *book.Todo) groupKey {
	code := c.of(t)
	rank := int32(code)
	if c.back {
		rank = -rank
	}
	return groupKey{rank: rank, kind: c.kind, code: code}
}

// closedOf finds the grouping whose groups are of a kind.
func closedOf(k Kind) *closedGrouping {
	for _, c := range closed {
		if c.kind == k {
			return &c
		}
	}
	return nil
}
