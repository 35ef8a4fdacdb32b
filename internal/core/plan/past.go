package plan

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// PastDay is what became of one day.
type PastDay struct {
	Date day.Date
	// Planned is the work in minutes of what has the day as its plan by now, done or not; what
	// was moved to another day since counts there. Done is that of what was completed on it.
	Planned, Done int
	// Count is how many were completed.
	Count int
}

// Past reckons the days up to and with today, so many of them. The minutes are estimates, the
// assumed one where there is none; of a project that has subtasks its own share is none.
func Past(b *book.Desk, c day.Clock, assumed, days int) []PastDay {
	today := c.Today()
	first := today.AddDays(1 - days)
	all := make([]PastDay, days)
	for i := range all {
		all[i].Date = first.AddDays(i)
	}
	at := func(d day.Date) *PastDay {
		if n := d.Sub(first); n >= 0 && n < days {
			return &all[n]
		}
		return nil
	}
	minutes := func(t *book.Todo) int {
		switch {
		case b.HasSubtasks(t.ID):
			return 0
		case t.Estimate == 0:
			return assumed
		}
		return int(t.Estimate)
	}
	add := func(t *book.Todo) {
		if t.IsNote || !t.Deleted.IsZero() || t.Person.Role == term.WaitingOn {
			return
		}
		if h := t.Plan.DayIn(c); h.Precision() == day.Day {
			if d := at(h.First()); d != nil {
				d.Planned += minutes(t)
			}
		}
		if t.Status == book.Completed {
			if d := at(c.DayOf(t.Completed.Time())); d != nil {
				d.Done += minutes(t)
				d.Count++
			}
		}
	}
	from := day.TimestampOf(c.StartOf(first))
	for _, t := range b.Open() {
		if !t.Plan.IsZero() && !t.Plan.First().After(today) {
			add(t)
		}
	}
	for _, t := range b.Closed() {
		if t.Completed >= from || !t.Plan.IsZero() && !t.Plan.Last().Before(first) {
			add(t)
		}
	}
	return all
}
