package view

import (
	"bytes"
	"cmp"

	"tincup/internal/core/book"
)

// byWeight is the order of a group unless the person chose another: priority
// high to none, then due, then the manual order. The id settles the rest, so
// that the order is total.
func byWeight(a, b *book.Todo) int {
	if a.Priority != b.Priority {
		return int(b.Priority) - int(a.Priority)
	}
	if c := a.Due.Compare(b.Due); c != 0 {
		return c
	}
	return byHand(a, b)
}

func byHand(a, b *book.Todo) int {
	if c := cmp.Compare(a.Position, b.Position); c != 0 {
		return c
	}
	return bytes.Compare(a.ID[:], b.ID[:])
}

// bySlot puts slots of the day first, by their time.
func bySlot(a, b *book.Todo) int {
	slotA, _ := a.Plan.Slot()
	slotB, _ := b.Plan.Slot()
	return cmp.Or(slotA.Compare(slotB), byWeight(a, b))
}

func newestClosed(a, b *book.Todo) int {
	return cmp.Or(cmp.Compare(a.Status, b.Status), cmp.Compare(b.Completed, a.Completed), byHand(a, b))
}

func newestDeleted(a, b *book.Todo) int {
	return cmp.Or(cmp.Compare(b.Deleted, a.Deleted), byHand(a, b))
}
