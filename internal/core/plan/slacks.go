package plan

import (
	"slices"

	"tincup/internal/core/book"
)

// Slacks is the slack of all open to-dos of a desk that take hours of one kind, at one moment: what SlackOf says of one,
// with its own due and estimate. It is a book.Slack.
type Slacks struct {
	capacity *Capacity
	// deadlines are those ahead, in order, and spare the slack of what is due by each.
	deadlines []Minute
	spare     []int
	// above holds the deadline of each open to-do that has one ahead and may have it from a to-do
	// above it or from its list.
	above map[book.ID]Minute
}

// pastDeadline stands for a deadline that is past; no to-do is due by it.
const pastDeadline Minute = -1

// NewSlacks reckons it; assumed is the minutes of a to-do without an estimate.
func NewSlacks(k *Capacity, b *book.Desk, assumed int) *Slacks {
	// A deadline and the minutes that are due by it in one number, which is quick to sort: an
	// estimate has at most 20 bits.
	const bits = 20
	r := &Slacks{capacity: k, above: map[book.ID]Minute{}}
	tree, above, late := NewTree(b, k.Clock, assumed), k.deadlines(b), 0
	var all []int64
	for _, t := range b.Open() {
		d := tree.Due(t)
		if d.IsZero() || b.HoursOf(t) != k.Kind {
			continue
		}
		switch {
		case k.passed(d):
			late += tree.Work(t).Minutes
			r.above[t.ID] = pastDeadline
		default:
			if deadline := min(k.Deadline(d), above(t)); deadline <= k.End() {
				all = append(all, int64(deadline)<<bits|int64(tree.Work(t).Minutes))
				if !t.Parent.IsZero() || t.Due.IsZero() || deadline != k.Deadline(t.Due) {
					r.above[t.ID] = deadline
				}
			}
		}
	}
	slices.Sort(all)
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
	deadline, known := r.above[t.ID]
	if !known && t.Parent.IsZero() && b.HoursOf(t) == r.capacity.Kind {
		if known = !t.Due.IsZero() && t.Open() && !r.capacity.passed(t.Due); known {
			deadline = r.capacity.Deadline(t.Due)
		}
	}
	if !known {
		return 0, false
	}
	i, there := slices.BinarySearch(r.deadlines, deadline)
	if !there || !b.IsOpen(t) {
		return 0, false
	}
	return r.spare[i], true
}
