package remind

import (
	"container/heap"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// Queue knows when something next rings at a desk, without looking at what does not ring. It
// is kept up to date by Follow, and made anew where the Terms change.
type Queue struct {
	entries entries
	// next is when each to-do next rings; what the heap holds beside it is out of date.
	next map[book.ID]time.Time
	// muted are to-dos with rings that wait for the end of quiet hours.
	muted map[book.ID]bool
	// edges are to-dos with reminders that come at the edges of places.
	edges map[book.ID]bool
}

// entry is when a to-do rings.
type entry struct {
	at   time.Time
	todo book.ID
}

type entries []entry

func (e entries) Len() int           { return len(e) }
func (e entries) Less(i, j int) bool { return e[i].at.Before(e[j].at) }
func (e entries) Swap(i, j int)      { e[i], e[j] = e[j], e[i] }
func (e *entries) Push(x any)        { *e = append(*e, x.(entry)) }
func (e *entries) Pop() any {
	last := (*e)[len(*e)-1]
	*e = (*e)[:len(*e)-1]
	return last
}

// NewQueue looks at every to-do of a desk once.
func NewQueue(desk *book.Desk, w Terms) *Queue {
	q := &Queue{next: map[book.ID]time.Time{}, muted: map[book.ID]bool{}, edges: map[book.ID]bool{}}
	for _, t := range desk.Open() {
		if len(t.Reminders) > 0 {
			q.look(desk, w, t.ID)
		}
	}
	return q
}

// Follow brings the queue up to date after a change of the desk.
func (q *Queue) Follow(desk *book.Desk, w Terms, c *book.Change) {
	for _, d := range c.Todos {
		q.look(desk, w, rowOf(d).ID)
	}
	for _, d := range c.Rings {
		q.look(desk, w, rowOf(d).Todo)
	}
	for _, d := range c.Lists {
		if d.Before != nil && d.After != nil && d.Before.Away() != d.After.Away() {
			for t := range desk.OfList(d.After.ID) {
				q.look(desk, w, t.ID)
			}
		}
	}
}

// rowOf is a row after a change, or as it was where it went.
func rowOf[T any](d book.Diff[T]) *T {
	if d.After == nil {
		return d.Before
	}
	return d.After
}

// look finds out when a to-do next rings.
func (q *Queue) look(desk *book.Desk, w Terms, id book.ID) {
	delete(q.muted, id)
	delete(q.edges, id)
	var soonest time.Time
	sooner := func(at time.Time) {
		if soonest.IsZero() || at.Before(soonest) {
			soonest = at
		}
	}
	t, err := desk.Todo(id)
	if err == nil && len(t.Reminders) > 0 {
		if day.OnEdges(t.Reminders) && Waits(desk, t) {
			q.edges[id] = true
		}
		if coming := w.coming(desk, t); len(coming) > 0 {
			sooner(coming[0].at)
		}
		for _, r := range desk.RingsOf(id) {
			state := r.State()
			if state != book.PutOff && state != book.Muted || !w.Stands(desk, r) {
				continue
			}
			if state == book.PutOff {
				sooner(r.Later.Time())
			} else {
				q.muted[id] = true
			}
		}
	}
	if soonest.IsZero() {
		delete(q.next, id)
		return
	}
	if known, ok := q.next[id]; !ok || !known.Equal(soonest) {
		q.next[id] = soonest
		heap.Push(&q.entries, entry{soonest, id})
	}
}

// Next returns when something next rings, which may have passed; ok is false where nothing
// does. What is muted does not count.
func (q *Queue) Next() (at time.Time, ok bool) {
	for len(q.entries) > 0 {
		if e := q.entries[0]; q.holds(e) {
			return e.at, true
		}
		heap.Pop(&q.entries)
	}
	return at, false
}

// holds reports whether an entry of the heap is not out of date.
func (q *Queue) holds(e entry) bool {
	at, ok := q.next[e.todo]
	return ok && at.Equal(e.at)
}

// Muted reports whether rings wait for the end of quiet hours.
func (q *Queue) Muted() bool { return len(q.muted) > 0 }

// Due returns what is to ring by now: in quiet hours it is muted, and what is muted rings
// after them. ok is false where nothing is. It is the same until the desk changes.
func (q *Queue) Due(desk *book.Desk, w Terms, quiet bool) (bell book.RingBell, ok bool) {
	bell.Mute = quiet
	seen := map[book.ID]bool{}
	var todos []book.ID
	for len(q.entries) > 0 && !q.entries[0].at.After(w.Clock.Now) {
		e := heap.Pop(&q.entries).(entry)
		if q.holds(e) && !seen[e.todo] {
			seen[e.todo] = true
			todos = append(todos, e.todo)
		}
	}
	for _, id := range todos { // they stay until the change is made that tells of them; what is too old by now goes
		delete(q.next, id)
		q.look(desk, w, id)
	}
	if !quiet {
		for id := range q.muted {
			if !seen[id] {
				todos = append(todos, id)
			}
		}
	}
	for _, id := range todos {
		w.dueOf(desk, id, &bell)
	}
	return bell, len(bell.Come)+len(bell.Again) > 0
}

// dueOf adds what of a to-do is to ring by now. Of reminders that have come the newest alone is
// told; what was put off rings as well; the newest that was muted rings where nothing else of
// the to-do does.
func (w Terms) dueOf(desk *book.Desk, id book.ID, bell *book.RingBell) {
	t, err := desk.Todo(id)
	if err != nil {
		return
	}
	from := len(bell.Come)
	for _, c := range w.coming(desk, t) {
		if c.at.After(w.Clock.Now) {
			break
		}
		bell.Come = append(bell.Come, book.Come{Todo: id, Reminder: c.reminder, At: c.wall, Missed: w.Clock.Now.Sub(c.at) >= Late, Over: true})
	}
	come := len(bell.Come) > from
	if come {
		bell.Come[len(bell.Come)-1].Over = false
	}
	var muted *book.Ring
	for _, r := range desk.RingsOf(id) {
		state := r.State()
		if !w.Stands(desk, r) {
			continue
		}
		if state == book.PutOff && !r.Later.Time().After(w.Clock.Now) {
			bell.Again = append(bell.Again, r.ID)
			come = true
		}
		if state == book.Muted && !bell.Mute && (muted == nil || r.At.Compare(muted.At) > 0) {
			muted = r
		}
	}
	if muted != nil && !come {
		bell.Again = append(bell.Again, muted.ID)
	}
}
