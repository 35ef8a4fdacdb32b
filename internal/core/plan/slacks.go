package plan

import (
	"slices"

	"tincup/internal/core/book"
)

// Slacks is the slack of all open to-dos of a desk at one moment: what SlackOf says of one,
// with its own due and estimate. It is a book.Slack.
type Slacks struct {
	capacity *Capacity
	// deadlines are those ahead, in order, and spare the slack of what is due by each.
	deadlines []Minute
	spare     []int
}

// NewSlacks reckons it; assumed is the minutes of a to-do without an estimate.
func NewSlacks(k *Capacity, b *book.Desk, assumed int) *Slacks {
	c, late := k.Clock, 0
	// A deadline and the minutes that are due by it in one number, which is quick to sort: an
	// estimate has at most 20 bits.
	const bits = 20
	var all []int64
	for _, t := range b.Open() {
		if t.Parent.IsZero() && t.Due.IsZero() {
			continue
		}
		d := DueOf(b, c, t)
		switch {
		case d.IsZero():
		case k.passed(d):
			late += WorkOf(b, t, assumed).Minutes
		default:
			if deadline := min(k.Deadline(d), k.deadlineAbove(b, t)); deadline <= k.End() {
				all = append(all, int64(deadline)<<bits|int64(WorkOf(b, t, assumed).Minutes))
			}
		}
	}
	slices.Sort(all)
	r := &Slacks{capacity: k}
	work := late
	for i, d := range all {
		work += int(d & (1<<bits - 1))
		if deadline := d >> bits; i+1 == len(all) || all[i+1]>>bits != deadline {
			r.deadlines = append(r.deadlines, Minute(deadline))
			r.spare = append(r.spare, k.Until(Minute(deadline))-work)
		}
	}
	return r
}

// Spare implements book.Slack.
func (r *Slacks) Spare(b *book.Desk, t *book.Todo) (minutes int, known bool) {
	if t.Due.IsZero() && t.Parent.IsZero() || !t.Open() {
		return 0, false
	}
	due := DueOf(b, r.capacity.Clock, t)
	if due.IsZero() || r.capacity.passed(due) {
		return 0, false
	}
	deadline := min(r.capacity.Deadline(due), r.capacity.deadlineAbove(b, t))
	i, there := slices.BinarySearch(r.deadlines, deadline)
	if !there || !b.IsOpen(t) {
		return 0, false
	}
	return r.spare[i], true
}
