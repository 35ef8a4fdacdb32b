package view

import (
	"container/heap"
	"slices"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// placed is a to-do with how deep it stands below another of its group.
type placed struct {
	todo  *book.Todo
	depth int
}

// bucket gathers the rows of one group. What is counted of each is counted as it
// is put in, while it is at hand.
type bucket struct {
	key   groupKey
	order order
	// subtasks are the rows with a parent, wherever that is; top are the others.
	top, subtasks []ranked
	estimates     int // of all rows, in minutes
	blank         int // how many rows have work and no estimate
	notes         int
}

func bucketOf(b *book.Desk, rows []*book.Todo, o order) *bucket {
	k := &bucket{order: o}
	for _, t := range rows {
		k.add(b, t)
	}
	return k
}

func (k *bucket) add(b *book.Desk, t *book.Todo) {
	if t.Parent.IsZero() {
		k.top = appendTo(k.top, k.order.ranked(t))
	} else {
		k.subtasks = appendTo(k.subtasks, k.order.ranked(t))
	}
	if k.estimates += int(t.Estimate); t.Estimate == 0 && t.Open() && !t.IsNote && t.Person.Role != term.WaitingOn && t.Deleted.IsZero() && !b.HasSubtasks(t.ID) {
		k.blank++
	}
	if t.IsNote {
		k.notes++
	}
}

// appendTo doubles what is full; append would take steps of a quarter, and leave
// five times as much behind.
func appendTo(rows []ranked, r ranked) []ranked {
	if len(rows) == cap(rows) {
		rows = slices.Grow(rows, max(len(rows), 16))
	}
	return append(rows, r)
}

func (k *bucket) count() int { return len(k.top) + len(k.subtasks) }

// family is the rows of a group with which stands under which.
type family struct {
	// top are those whose parent is not in the group; under holds the others by
	// their parent. A family without subtasks has none under.
	top   []ranked
	under map[*book.Todo][]ranked
	order order
	// minutes is the work in the group, each row's counted once: its estimate, or
	// the work of its subtasks in the group where that is more.
	minutes int
}

// family finds which of the rows stand under which.
func (k *bucket) family(b *book.Desk) family {
	f := family{top: k.top, order: k.order, minutes: k.estimates}
	if len(k.subtasks) == 0 {
		return f
	}
	f.under = map[*book.Todo][]ranked{}
	parents := map[book.ID]*book.Todo{}
	for _, r := range k.subtasks {
		id := r.todo.Parent
		if _, known := parents[id]; !known {
			parent, err := b.Todo(id)
			if err != nil {
				parent = nil
			}
			parents[id] = parent
			f.under[parent] = nil
		}
	}
	// Which of the parents are here is told by the rows themselves.
	here := make(map[*book.Todo]bool, len(f.under))
	for _, rows := range [][]ranked{k.top, k.subtasks} {
		for _, r := range rows {
			if _, is := f.under[r.todo]; is {
				here[r.todo] = true
			}
		}
	}
	for _, r := range k.subtasks {
		if parent := parents[r.todo.Parent]; here[parent] {
			f.under[parent] = append(f.under[parent], r)
		} else {
			f.top = appendTo(f.top, r)
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
		w, e := f.work(sub.todo)
		work, estimates = work+w, estimates+e
	}
	return max(int(t.Estimate), work), estimates + int(t.Estimate)
}

// arrange puts the first rows of a group in order, upTo of them: each subtask
// whose parent is in the group stands under it, and siblings are ordered among
// themselves.
func (f family) arrange(upTo int) []placed {
	out := make([]placed, 0, upTo)
	var walk func(siblings []ranked, depth int)
	walk = func(siblings []ranked, depth int) {
		for _, r := range f.order.first(siblings, upTo-len(out)) {
			if len(out) >= upTo {
				return
			}
			out = append(out, placed{r.todo, depth})
			if len(f.under) > 0 {
				walk(f.under[r.todo], depth+1)
			}
		}
	}
	walk(f.top, 0)
	return out
}

// first returns the first n rows in order. The slice is rearranged.
func (o order) first(rows []ranked, n int) []ranked {
	if n <= 0 {
		return nil
	}
	if n < len(rows)/4 {
		o.selectFirst(rows, n)
		rows = rows[:n]
	}
	slices.SortFunc(rows, o.before)
	return rows
}

// selectFirst brings the first n rows to the front, in no order: a heap of n with the last of them
// on top, which each better one takes the place of.
func (o order) selectFirst(rows []ranked, n int) {
	first := lastOnTop{rows[:n], o}
	heap.Init(first)
	for i := n; i < len(rows); i++ {
		if o.before(rows[i], rows[0]) < 0 {
			rows[i], rows[0] = rows[0], rows[i]
			heap.Fix(first, 0)
		}
	}
}

// lastOnTop is a heap whose number of rows stays the same: nothing is pushed or popped.
type lastOnTop struct {
	rows []ranked
	order
}

func (h lastOnTop) Len() int           { return len(h.rows) }
func (h lastOnTop) Less(i, j int) bool { return h.before(h.rows[i], h.rows[j]) > 0 }
func (h lastOnTop) Swap(i, j int)      { h.rows[i], h.rows[j] = h.rows[j], h.rows[i] }
func (h lastOnTop) Push(any)           {}
func (h lastOnTop) Pop() any           { return nil }

// path names the to-dos above one, the outermost first.
func path(b *book.Desk, t *book.Todo) []string {
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

// comesRound finds under which heads of Upcoming repeats come round again, after the
// occurrence that stands in the view as a row. Each is named once under a head.
func (n moment) comesRound(rows []*book.Todo) map[groupKey][]*book.Todo {
	last := n.today.AddDays(upcomingWeeks)
	found := map[groupKey][]*book.Todo{}
	for _, t := range rows {
		if t.Repeat == nil {
			continue
		}
		for _, on := range t.Coming(n.Clock, last) {
			head := n.head(day.OnDay(on))
			if there := found[head]; len(there) == 0 || there[len(there)-1] != t {
				found[head] = append(there, t)
			}
		}
	}
	for _, todos := range found {
		slices.SortFunc(todos, byWeight.compare)
	}
	return found
}

// assumedBy is how long a to-do without an estimate is taken to be, in minutes.
func assumedBy(b *book.Desk) int {
	chosen, _ := b.Settings()
	return chosen.AssumedMinutes()
}
