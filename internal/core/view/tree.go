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

// bucket gathers the rows of one group. What is counted of each is counted as it
// is put in, while it is at hand.
type bucket struct {
	key groupKey
	// subtasks are the rows with a parent, wherever that is; top are the others.
	top, subtasks []*book.Todo
	estimates     int // of all rows, in minutes
	notes         int
}

func bucketOf(rows []*book.Todo) *bucket {
	k := &bucket{}
	for _, t := range rows {
		k.add(t)
	}
	return k
}

func (k *bucket) add(t *book.Todo) {
	if t.Parent.IsZero() {
		k.top = appendTo(k.top, t)
	} else {
		k.subtasks = appendTo(k.subtasks, t)
	}
	k.estimates += int(t.Estimate)
	if t.IsNote {
		k.notes++
	}
}

// appendTo doubles what is full; append would take steps of a quarter, and leave
// five times as much behind.
func appendTo(rows []*book.Todo, t *book.Todo) []*book.Todo {
	if len(rows) == cap(rows) {
		rows = slices.Grow(rows, max(len(rows), 16))
	}
	return append(rows, t)
}

func (k *bucket) count() int { return len(k.top) + len(k.subtasks) }

// family is the rows of a group with which stands under which.
type family struct {
	// top are those whose parent is not in the group; under holds the others by
	// their parent. A family without subtasks has none under.
	top   []*book.Todo
	under map[*book.Todo][]*book.Todo
	// minutes is the work in the group, each row's counted once: its estimate, or
	// the work of its subtasks in the group where that is more.
	minutes int
}

// family finds which of the rows stand under which.
func (k *bucket) family(b *book.Book) family {
	f := family{top: k.top, minutes: k.estimates}
	if len(k.subtasks) == 0 {
		return f
	}
	f.under = map[*book.Todo][]*book.Todo{}
	parents := map[book.ID]*book.Todo{}
	for _, t := range k.subtasks {
		if _, known := parents[t.Parent]; !known {
			parent, err := b.Todo(t.Parent)
			if err != nil {
				parent = nil
			}
			parents[t.Parent] = parent
			f.under[parent] = nil
		}
	}
	// Which of the parents are here is told by the rows themselves.
	here := make(map[*book.Todo]bool, len(f.under))
	for _, rows := range [][]*book.Todo{k.top, k.subtasks} {
		for _, t := range rows {
			if _, is := f.under[t]; is {
				here[t] = true
			}
		}
	}
	for _, t := range k.subtasks {
		if parent := parents[t.Parent]; here[parent] {
			f.under[parent] = append(f.under[parent], t)
		} else {
			f.top = appendTo(f.top, t)
		}
	}
	for parent := range f.under {
		switch {
		case !here[parent]:
			delete(f.under, parent)
		case parent.Parent.IsZero() || !here[parents[parent.Parent]]:
			work, estimates := f.work(parent)
			f.minutes += work - estimates
		}
	}
	return f
}

// work is the minutes of work in a row with what stands under it, and the sum of
// their estimates.
func (f family) work(t *book.Todo) (work, estimates int) {
	for _, sub := range f.under[t] {
		w, e := f.work(sub)
		work, estimates = work+w, estimates+e
	}
	return max(int(t.Estimate), work), estimates + int(t.Estimate)
}

// arrange puts the first rows of a group in order, upTo of them: each subtask
// whose parent is in the group stands under it, and siblings are ordered among
// themselves.
func (f family) arrange(order func(a, b *book.Todo) int, upTo int) []placed {
	out := make([]placed, 0, upTo)
	var walk func(siblings []*book.Todo, depth int)
	walk = func(siblings []*book.Todo, depth int) {
		for _, t := range firstOf(siblings, order, upTo-len(out)) {
			if len(out) >= upTo {
				return
			}
			out = append(out, placed{t, depth})
			if len(f.under) > 0 {
				walk(f.under[t], depth+1)
			}
		}
	}
	walk(f.top, 0)
	return out
}

// firstOf returns the first n rows in order. The slice is rearranged.
func firstOf(rows []*book.Todo, order func(a, b *book.Todo) int, n int) []*book.Todo {
	if n <= 0 {
		return nil
	}
	if n < len(rows)/4 {
		selectFirst(rows, order, n)
		rows = rows[:n]
	}
	slices.SortFunc(rows, order)
	return rows
}

// selectFirst brings the first n rows to the front, in no order: a heap of n
// with the last of them on top, which each better one takes the place of.
func selectFirst(rows []*book.Todo, order func(a, b *book.Todo) int, n int) {
	heap := rows[:n]
	down := func(i int) {
		for {
			child := 2*i + 1
			if child >= n {
				return
			}
			if child+1 < n && order(heap[child+1], heap[child]) > 0 {
				child++
			}
			if order(heap[child], heap[i]) <= 0 {
				return
			}
			heap[i], heap[child] = heap[child], heap[i]
			i = child
		}
	}
	for i := n/2 - 1; i >= 0; i-- {
		down(i)
	}
	for i := n; i < len(rows); i++ {
		if order(rows[i], heap[0]) < 0 {
			rows[i], heap[0] = heap[0], rows[i]
			down(0)
		}
	}
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
