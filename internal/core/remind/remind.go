// Package remind tells what rings and when: what a reminder counts from, which reminders have
// come by a moment and have not rung, when the next one will, what a position enters and leaves,
// and which rings still wait for an answer. It reads a book.Desk and writes nothing; book.RingBell, Acknowledge and RingLater
// do.
//
// A reminder rings once at each wall time. It rings only where that time had not passed when
// it was set, or when what it counts from was (book.Todo.RemindFrom). One that should have
// rung while nothing ran rings when something does again, for a week. A reminder of a to-do
// that is parked, paused or put away waits; of what is done, in the bin or a record it does
// not ring.
package remind

import (
	"cmp"
	"slices"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

const (
	// Oldest is how long after its time a reminder still rings.
	Oldest = 7 * 24 * time.Hour
	// Late is how long after its time one counts as missed.
	Late = 2 * time.Minute
)

// Terms are what rings depend on beside the rows.
type Terms struct {
	Clock day.Clock
	// Hour is when reminders of a date without time come.
	Hour day.TimeOfDay
}

// When returns the instant at which a reminder of a to-do comes; the zero time where there is
// nothing that it could come before.
func (w Terms) When(t *book.Todo, r day.Reminder) time.Time {
	return w.Clock.Rings(r, t.RemindedOf(), w.Hour)
}

// Waits reports whether reminders of a to-do of the desk ring: it is open, and not parked,
// paused or put away.
func Waits(desk *book.Desk, t *book.Todo) bool {
	return desk.IsOpen(t) && t.Plan.Precision() != day.Parked
}

// passed reports whether a reminder that has not rung by now does not ring any more: its time
// had passed when it was set, or is too long ago.
func (w Terms) passed(t *book.Todo, at time.Time) bool {
	return day.TimestampOf(at) <= t.RemindFrom || w.Clock.Now.Sub(at) > Oldest
}

// coming is a reminder that has not rung, with the instant at which it comes or came.
type coming struct {
	reminder day.Reminder
	at       time.Time
	wall     day.Moment
}

// coming returns the reminders of a to-do that have not rung at their times, those first that
// come first. What is older than Oldest is left out.
func (w Terms) coming(desk *book.Desk, t *book.Todo) []coming {
	if len(t.Reminders) == 0 || !Waits(desk, t) {
		return nil
	}
	rung := desk.RingsOf(t.ID)
	var all []coming
	for _, r := range t.Reminders {
		at := w.When(t, r)
		if at.IsZero() || w.passed(t, at) {
			continue
		}
		c := coming{r, at, w.Clock.WallOf(at)}
		if !slices.ContainsFunc(rung, isRing(r, c.wall)) {
			all = append(all, c)
		}
	}
	slices.SortStableFunc(all, func(a, b coming) int { return a.at.Compare(b.at) })
	return all
}

// isRing tells the rings of a reminder, with whatever sound, at a wall time.
func isRing(r day.Reminder, at day.Moment) func(*book.Ring) bool {
	return func(ring *book.Ring) bool { return ring.Reminder.Silent() == r.Silent() && ring.At == at }
}

// Stands reports whether a ring still concerns anybody, answered or not: its to-do rings, and
// has the reminder, at the time at which it rang or at an earlier one where it is one of a time.
// A ring at an edge is over with the dates it rang under: a repeat that was ticked is another.
// Where the to-do was moved to a later time the reminder rings then.
func (w Terms) Stands(desk *book.Desk, r *book.Ring) bool {
	t, err := desk.Todo(r.Todo)
	if err != nil || !Waits(desk, t) || !t.Reminds(r.Reminder) {
		return false
	}
	if r.Reminder.Edge != day.NoEdge {
		return w.since(t, r)
	}
	at := w.When(t, r.Reminder)
	return !at.IsZero() && w.Clock.WallOf(at).Compare(r.At) <= 0
}

// Open returns the rings that were told and wait for an answer, the newest of each to-do, those
// first that rang last.
func (w Terms) Open(desk *book.Desk) []*book.Ring { return w.standing(desk, book.Rung) }

// PutOff returns the rings that will be told again, those first that come first.
func (w Terms) PutOff(desk *book.Desk) []*book.Ring {
	off := w.standing(desk, book.PutOff)
	slices.SortFunc(off, func(a, b *book.Ring) int {
		return cmp.Or(cmp.Compare(a.Later, b.Later), a.ID.Compare(b.ID))
	})
	return off
}

func (w Terms) standing(desk *book.Desk, state book.RingState) []*book.Ring {
	newest := map[book.ID]*book.Ring{}
	for _, r := range desk.Rings() {
		if r.State() != state || !w.Stands(desk, r) {
			continue
		}
		if known := newest[r.Todo]; known == nil || later(r, known) < 0 {
			newest[r.Todo] = r
		}
	}
	all := make([]*book.Ring, 0, len(newest))
	for _, r := range newest {
		all = append(all, r)
	}
	slices.SortFunc(all, later)
	return all
}

// later puts the ring first that rang last.
func later(a, b *book.Ring) int {
	return cmp.Or(cmp.Compare(b.Rang, a.Rang), b.At.Compare(a.At), b.ID.Compare(a.ID))
}

// Prospect is what will become of a reminder of a to-do.
type Prospect uint8

// The prospects.
const (
	// ToCome: it rings at its time.
	ToCome Prospect = iota
	// Rang: it has come, and what became of that is the ring's.
	Rang
	// Passed: its time had passed when it was set. It does not ring.
	Passed
	// Baseless: there is no due, slot or start that it could come before. It does not ring.
	Baseless
	// Waiting: the to-do is parked, paused or put away, and it rings once that ends.
	Waiting
	// Over: the to-do is done or in the bin.
	Over
	// OnEdge: it rings whenever the person passes the edge of its place.
	OnEdge
	// Nowhere: its place has no position, so nobody notices the edge.
	Nowhere
)

// Foresee returns what will become of a reminder, and its time; the zero time where it has
// none.
func (w Terms) Foresee(desk *book.Desk, t *book.Todo, r day.Reminder) (Prospect, time.Time) {
	at := w.When(t, r)
	switch {
	case r.Edge != day.NoEdge:
		return foreseeEdge(desk, t, r), at
	case at.IsZero():
		return Baseless, at
	}
	if slices.ContainsFunc(desk.RingsOf(t.ID), isRing(r, w.Clock.WallOf(at))) {
		return Rang, at
	}
	if !t.Open() {
		return Over, at
	}
	if w.passed(t, at) {
		return Passed, at
	}
	if !Waits(desk, t) {
		return Waiting, at
	}
	return ToCome, at
}
