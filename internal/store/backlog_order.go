package store

import (
	"slices"

	"tincup/internal/core/book"
)

// halves are what is written of a large change before its to-dos, and what after them: rows to which
// to-dos refer are there before these, and go after them.
func halves(c *book.Change) (first, last *book.Change) {
	first, last = &book.Change{Revision: c.Revision, Actor: c.Actor}, &book.Change{Revision: c.Revision, Actor: c.Actor}
	first.Shelves, last.Shelves = goesLast(c.Shelves)
	first.Lists, last.Lists = goesLast(c.Lists)
	first.Sections, last.Sections = goesLast(c.Sections)
	first.Tags, last.Tags = goesLast(c.Tags)
	first.People, last.People = goesLast(c.People)
	first.Views, last.Views = goesLast(c.Views)
	first.Settings, last.Settings = goesLast(c.Settings)
	first.Calendars, last.Calendars = goesLast(c.Calendars)
	first.Places, last.Places = goesLast(c.Places)
	first.Rings = c.Rings
	return first, last
}

// goesLast parts the rows that stay or come from those that go.
func goesLast[T any](diffs []book.Diff[T]) (stay, gone []book.Diff[T]) {
	for _, d := range diffs {
		if d.After == nil {
			gone = append(gone, d)
		} else {
			stay = append(stay, d)
		}
	}
	return stay, gone
}

// writable orders to-dos so that each can be written by itself: new ones come first, after those
// that they stand under, and those that go come last, before those that they stood under.
func writable(diffs []book.Diff[book.Todo], at map[book.ID]int) []int {
	steps := make([]int, len(diffs)) // of new ones from 1 on, of those that go below 0, else 0
	var depth func(i int) int
	depth = func(i int) int {
		d := diffs[i]
		if steps[i] != 0 || d.Before != nil && d.After != nil {
			return steps[i]
		}
		t, step := d.After, 1
		if t == nil {
			t, step = d.Before, -1
		}
		if above, ok := at[t.Parent]; ok && (diffs[above].Before == nil) == (step > 0) && (diffs[above].After == nil) == (step < 0) {
			step += depth(above)
		}
		steps[i] = step
		return step
	}
	order := make([]int, len(diffs))
	for i := range diffs {
		order[i] = i
		depth(i)
	}
	turn := func(i int) int { // the new, by their depth, then those that change, then those that go
		switch step := steps[i]; {
		case step > 0:
			return step - len(diffs) - 1
		case step < 0:
			return len(diffs) + 1 + step
		}
		return 0
	}
	slices.SortStableFunc(order, func(i, j int) int { return turn(i) - turn(j) })
	return order
}
