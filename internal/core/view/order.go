package view

import (
	"cmp"

	"tincup/internal/core/book"
)

// byWeight is the order of a group unless the person chose another.
func byWeight(a, b *book.Todo) int { return book.ByPriority.Compare(a, b) }

// bySlot puts slots of the day first, by their time.
func bySlot(a, b *book.Todo) int {
	slotA, _ := a.Plan.Slot()
	slotB, _ := b.Plan.Slot()
	return cmp.Or(slotA.Compare(slotB), byWeight(a, b))
}

func newestClosed(a, b *book.Todo) int {
	return cmp.Or(cmp.Compare(a.Status, b.Status), cmp.Compare(b.Completed, a.Completed), book.ComparePlaces(a, b))
}

func newestDeleted(a, b *book.Todo) int {
	return cmp.Or(cmp.Compare(b.Deleted, a.Deleted), book.ComparePlaces(a, b))
}

// longestWaiting puts who has been waited for longest first.
func longestWaiting(a, b *book.Todo) int {
	return cmp.Or(a.Person.Since.Compare(b.Person.Since), byWeight(a, b))
}
