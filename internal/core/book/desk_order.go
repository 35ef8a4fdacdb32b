package book

import (
	"cmp"
	"strings"
)

// Order is how the to-dos of a list stand, siblings among themselves.
type Order uint8

// The orders. Each is settled by the manual order in the end, and empty values
// come last.
const (
	// ByPriority is high to none, then the due: the order of every group where
	// nobody chose another.
	ByPriority Order = iota
	// ByHand is the manual order alone.
	ByHand
	ByDue
	ByTitle
	// ByCreated puts the newest first.
	ByCreated
	// HighFirst puts high priority first and keeps the manual order otherwise.
	HighFirst
	// NewestByPriority is high to none, then the newest first.
	NewestByPriority
)

// Compare puts two siblings in order. It is total: only a to-do and itself are
// equal.
func (o Order) Compare(a, b *Todo) int {
	if c := o.compareKeys(a, b); c != 0 {
		return c
	}
	return ComparePositions(a, b)
}

// compareKeys compares by all but the manual order.
func (o Order) compareKeys(a, b *Todo) int {
	switch o {
	case ByHand:
		return 0
	case ByDue:
		return a.Due.Compare(b.Due)
	case ByTitle:
		return cmp.Or(strings.Compare(strings.ToLower(a.Title), strings.ToLower(b.Title)), strings.Compare(a.Title, b.Title))
	case ByCreated:
		return cmp.Compare(b.Created, a.Created)
	case HighFirst:
		return cmp.Compare(high(b), high(a))
	case NewestByPriority:
		return cmp.Or(cmp.Compare(b.Priority, a.Priority), cmp.Compare(b.Created, a.Created))
	}
	if a.Priority != b.Priority {
		return int(b.Priority) - int(a.Priority)
	}
	return a.Due.Compare(b.Due)
}

func high(t *Todo) int {
	if t.Priority == High {
		return 1
	}
	return 0
}

// ComparePositions compares by the manual order; the id settles the rest.
func ComparePositions(a, b *Todo) int {
	if c := cmp.Compare(a.Position, b.Position); c != 0 {
		return c
	}
	return a.ID.Compare(b.ID)
}
