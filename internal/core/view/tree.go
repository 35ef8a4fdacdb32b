package view

import (
	"slices"

	"tincup/internal/core/book"
)

// placed is a to-do with how deep it stands below another of its group.
type placed struct {
	todo  *book.Todo
	depth int
}

// arrange puts the rows of a group in order: each subtask whose parent is in
// the group stands under it, and siblings are ordered among themselves; flat,
// they are ordered among all.
func arrange(rows []*book.Todo, order func(a, b *book.Todo) int, flat bool) []placed {
	nested := !flat && slices.ContainsFunc(rows, func(t *book.Todo) bool { return !t.Parent.IsZero() })
	out := make([]placed, 0, len(rows))
	if !nested {
		slices.SortFunc(rows, order)
		for _, t := range rows {
			out = append(out, placed{todo: t})
		}
		return out
	}
	here := make(map[book.ID]bool, len(rows))
	for _, t := range rows {
		here[t.ID] = true
	}
	var top []*book.Todo
	under := map[book.ID][]*book.Todo{}
	for _, t := range rows {
		if here[t.Parent] {
			under[t.Parent] = append(under[t.Parent], t)
		} else {
			top = append(top, t)
		}
	}
	var walk func(siblings []*book.Todo, depth int)
	walk = func(siblings []*book.Todo, depth int) {
		slices.SortFunc(siblings, order)
		for _, t := range siblings {
			out = append(out, placed{t, depth})
			walk(under[t.ID], depth+1)
		}
	}
	walk(top, 0)
	return out
}

// path names the to-dos above one, the outermost first.
func path(b *book.Book, t *book.Todo) []string {
	var titles []string
	for id := t.Parent; !id.IsZero(); {
		parent, err := b.Todo(id)
		if err != nil {
			break
		}
		titles = append(titles, parent.Title)
		id = parent.Parent
	}
	slices.Reverse(titles)
	return titles
}

// comesRound finds on which days up to a last one repeats come round again,
// after the occurrence that stands in the view as a row.
func (n moment) comesRound(rows []*book.Todo, upTo int) map[groupKey][]*book.Todo {
	last := n.today.AddDays(upTo)
	found := map[groupKey][]*book.Todo{}
	for _, t := range rows {
		if t.Repeat == nil {
			continue
		}
		for _, on := range t.Coming(n.Clock, last) {
			found[n.onDay(on)] = append(found[n.onDay(on)], t)
		}
	}
	for _, todos := range found {
		slices.SortFunc(todos, byWeight)
	}
	return found
}

// minutes is the work in a group, each row's counted once: its estimate, or the
// work of its subtasks in the group where that is more.
func minutes(rows []*book.Todo) (sum int) {
	nested := false
	for _, t := range rows {
		sum += int(t.Estimate)
		nested = nested || !t.Parent.IsZero()
	}
	if !nested || sum == 0 {
		return sum
	}
	under := make(map[book.ID][]*book.Todo, len(rows))
	here := make(map[book.ID]bool, len(rows))
	for _, t := range rows {
		here[t.ID] = true
	}
	for _, t := range rows {
		if here[t.Parent] {
			under[t.Parent] = append(under[t.Parent], t)
		}
	}
	var work func(t *book.Todo) int
	work = func(t *book.Todo) int {
		below := 0
		for _, sub := range under[t.ID] {
			below += work(sub)
		}
		return max(int(t.Estimate), below)
	}
	sum = 0
	for _, t := range rows {
		if !here[t.Parent] {
			sum += work(t)
		}
	}
	return sum
}
