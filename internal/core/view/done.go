package view

import (
	"maps"
	"slices"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// done groups what was completed or cancelled by day, newest first. A Book of
// years has most of its to-dos here, so days are counted first and only those
// that reach into the rows asked for are collected and put in order. Each to-do
// is looked at once; the rest works on its time alone.
func done(b *book.Desk, now moment, q Query) *Result {
	closed := b.Closed()
	res := &Result{}
	if len(closed) == 0 {
		return res
	}
	times := make([]day.Timestamp, len(closed))
	for i, t := range closed {
		times[i] = t.Completed
	}
	days := newDayTable(now.Clock, times)
	counts := make([]int, len(days.starts))
	for _, at := range times {
		counts[days.index(at)]++
	}
	start := make(map[int]int) // day wanted to the rows before it
	for i := len(counts) - 1; i >= 0; i-- {
		if res.Total < q.Offset+q.Limit && res.Total+counts[i] > q.Offset {
			start[i] = res.Total
		}
		res.Total += counts[i]
	}
	buckets := make(map[int][]*book.Todo, len(start))
	for i, at := range times {
		d := days.index(at)
		if _, wanted := start[d]; wanted {
			buckets[d] = append(buckets[d], closed[i])
		}
	}
	for _, d := range slices.Backward(slices.Sorted(maps.Keys(buckets))) {
		res.Groups = append(res.Groups, Group{Kind: OnDay, Horizon: day.OnDay(days.first.AddDays(d)),
			Count: counts[d], Rows: now.window(b, bucketOf(b, buckets[d], newestClosed).family(b), counts[d], start[d], q, nil)})
	}
	return res
}

// dayDone is the day on which it was completed or cancelled, the newest first.
func (n moment) dayDone(t *book.Todo) groupKey {
	d := n.DayOf(t.Completed.Time())
	return groupKey{rank: int32(n.today.Sub(d)), kind: OnDay, horizon: day.OnDay(d)}
}

// dayTable finds the day of an instant without asking the zone each time.
type dayTable struct {
	first  day.Date
	starts []day.Timestamp // when each day from first on begins
}

func newDayTable(c day.Clock, times []day.Timestamp) dayTable {
	first, last := c.DayOf(slices.Min(times).Time()), c.DayOf(slices.Max(times).Time())
	table := dayTable{first: first}
	for d := first; !d.After(last); d = d.AddDays(1) {
		table.starts = append(table.starts, day.TimestampOf(c.StartOf(d)))
	}
	return table
}

const dayLength = 24 * 60 * 60 * 1000

// index is that of the day in which an instant lies: the last that begins by then. It is looked
// for from two days before the one that days of 24 hours would make it, as no zone's clocks have
// been set back by more, so that 80,000 rows need no search each. A day that a zone skips begins
// with the next.
func (t dayTable) index(ts day.Timestamp) int {
	i := max(int((ts-t.starts[0])/dayLength)-2, 0)
	for i+1 < len(t.starts) && t.starts[i+1] <= ts {
		i++
	}
	return i
}
