package view

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// done groups what was completed or cancelled by day, newest first. A Book of
// years has most of its to-dos here, so days are counted first and only those
// that reach into the rows asked for are collected and put in order.
func done(b *book.Book, now moment, q Query) *Result {
	closed := b.Closed()
	res := &Result{}
	if len(closed) == 0 {
		return res
	}
	days := newDayTable(now.Clock, closed)
	counts := make([]int, len(days.starts))
	for _, t := range closed {
		counts[days.index(t.Completed)]++
	}
	wanted := make(map[int]int) // day index to group
	for i := len(counts) - 1; i >= 0; i-- {
		if counts[i] == 0 {
			continue
		}
		if res.Total < q.Offset+q.Limit && res.Total+counts[i] > q.Offset {
			wanted[i] = len(res.Groups)
		}
		res.Groups = append(res.Groups, Group{Kind: OnDay, Horizon: day.OnDay(days.first.AddDays(i)), Count: counts[i]})
		res.Total += counts[i]
	}
	buckets := make(map[int][]*book.Todo)
	for _, t := range closed {
		if i := days.index(t.Completed); len(wanted) > 0 {
			if _, ok := wanted[i]; ok {
				buckets[i] = append(buckets[i], t)
			}
		}
	}
	start := 0
	for g := range res.Groups {
		i := res.Groups[g].Horizon.First().Sub(days.first)
		if bucket := buckets[i]; bucket != nil {
			res.Groups[g].Rows = now.window(bucket, newestClosed, start, q)
		}
		start += res.Groups[g].Count
	}
	return res
}

// dayTable finds the day of an instant without asking the zone each time.
type dayTable struct {
	first  day.Date
	starts []day.Timestamp // when each day from first on begins
}

func newDayTable(c day.Clock, rows []*book.Todo) dayTable {
	low, high := rows[0].Completed, rows[0].Completed
	for _, t := range rows {
		low, high = min(low, t.Completed), max(high, t.Completed)
	}
	first, last := c.DayOf(low.Time()), c.DayOf(high.Time())
	table := dayTable{first: first}
	for d := first; !d.After(last); d = d.AddDays(1) {
		table.starts = append(table.starts, day.TimestampOf(c.StartOf(d)))
	}
	return table
}

const dayLength = 24 * 60 * 60 * 1000

// index guesses by the mean length of a day and corrects for zone changes.
func (t dayTable) index(ts day.Timestamp) int {
	i := int((ts - t.starts[0]) / dayLength)
	i = max(0, min(i, len(t.starts)-1))
	for i > 0 && ts < t.starts[i] {
		i--
	}
	for i+1 < len(t.starts) && ts >= t.starts[i+1] {
		i++
	}
	return i
}
