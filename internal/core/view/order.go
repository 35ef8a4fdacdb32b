package view

import (
	"cmp"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// order is how the rows of a group follow each other.
type order struct {
	compare func(a, b *book.Todo) int
	// rank, if set, tells most of it from one row alone: whatever has the lower
	// rank comes first. Rows are ranked when they are gathered, while they are at
	// hand; comparing two would fetch both again.
	rank func(*book.Todo) int64
}

// ranked is a row with its rank, 0 where the order has none.
type ranked struct {
	rank int64
	todo *book.Todo
}

func (o order) ranked(t *book.Todo) ranked {
	if o.rank == nil {
		return ranked{todo: t}
	}
	return ranked{o.rank(t), t}
}

func (o order) before(a, b ranked) int {
	if a.rank != b.rank {
		return cmp.Compare(a.rank, b.rank)
	}
	return o.compare(a.todo, b.todo)
}

// byWeight is the order of a group unless the person chose another.
var byWeight = order{book.ByPriority.Compare, func(t *book.Todo) int64 {
	return int64(book.High-t.Priority)<<40 | t.Due.Ordinal()
}}

// bySlot puts slots of the day first, by their time.
var bySlot = order{compare: func(a, b *book.Todo) int {
	slotA, _ := a.Plan.Slot()
	slotB, _ := b.Plan.Slot()
	return cmp.Or(slotA.Compare(slotB), byWeight.compare(a, b))
}}

var newestClosed = order{compare: func(a, b *book.Todo) int {
	return cmp.Or(cmp.Compare(a.Status, b.Status), cmp.Compare(b.Completed, a.Completed), book.ComparePositions(a, b))
}}

var newestDeleted = order{compare: func(a, b *book.Todo) int {
	return cmp.Or(cmp.Compare(b.Deleted, a.Deleted), book.ComparePositions(a, b))
}}

// byNextDate puts first what comes first: by due, without one by plan, without either by start.
var byNextDate = order{compare: func(a, b *book.Todo) int {
	return cmp.Or(nextDate(a).Compare(nextDate(b)), byWeight.compare(a, b))
}}

func nextDate(t *book.Todo) day.Date {
	switch {
	case !t.Due.IsZero():
		return t.Due.Date
	case !t.Plan.First().IsZero():
		return t.Plan.First()
	}
	return t.Start
}

// longestWaiting puts who has been waited for longest first.
var longestWaiting = order{compare: func(a, b *book.Todo) int {
	return cmp.Or(a.Person.Since.Compare(b.Person.Since), byWeight.compare(a, b))
}}
