package day

import "time"

// MaxDayStart is the latest hour at which a day may begin.
const MaxDayStart = 6 * time.Hour

// Clock is what "now" means to one person. A day runs from DayStart on its
// civil date to DayStart on the next, so that a late worker's day may end
// after midnight.
type Clock struct {
	Now  time.Time
	Zone *time.Location
	// DayStart is 0 to MaxDayStart, in whole minutes of wall time.
	DayStart time.Duration
}

// Today returns the day that holds Now.
func (c Clock) Today() Date { return c.DayOf(c.Now) }

// DayOf returns the day that holds the instant: the latest one that has begun.
// It never runs backwards, also where the wall clock is set back over DayStart.
func (c Clock) DayOf(instant time.Time) Date {
	d := DateOf(instant.In(c.Zone))
	if instant.Before(c.StartOf(d)) {
		d = d.AddDays(-1)
		if instant.Before(c.StartOf(d)) { // a whole day that the zone skipped
			d = d.AddDays(-1)
		}
		return d
	}
	if c.DayStart == 0 {
		return d
	}
	if next := d.AddDays(1); !instant.Before(c.StartOf(next)) {
		return next
	}
	return d
}

// StartOf returns the instant at which day d begins.
func (c Clock) StartOf(d Date) time.Time {
	return c.wall(d, int(c.DayStart/time.Minute))
}

// DayOfMoment returns the day a moment belongs to: a date is its own day, a
// date with time the DayOf its instant. None gives none.
func (c Clock) DayOfMoment(m Moment) Date {
	if !m.HasTime() || m.Time.Minutes() >= int(c.DayStart/time.Minute) {
		return m.Date
	}
	// Before DayStart on the wall, unless a gap moves it past.
	return c.DayOf(c.Instant(m))
}

// Instant returns when the moment is reached: a wall time is the one the
// person meant; one that does not exist moves forward by the gap, one that
// exists twice is the first. A date without time is reached when its day ends.
func (c Clock) Instant(m Moment) time.Time {
	if !m.HasTime() {
		return c.StartOf(m.Date.AddDays(1))
	}
	return c.wall(m.Date, m.Time.Minutes())
}

// Passed reports whether m lies wholly behind Now: a date once its day has
// ended, a date with time once that time is over. None never passes.
func (c Clock) Passed(m Moment) bool {
	if m.IsZero() {
		return false
	}
	if m.HasTime() {
		return c.Now.After(c.Instant(m))
	}
	return !c.Now.Before(c.Instant(m))
}

// Wall returns Now as a civil moment in the zone, to the minute.
func (c Clock) Wall() Moment {
	local := c.Now.In(c.Zone)
	return Moment{DateOf(local), TimeOfDay{int16(local.Hour()*60 + local.Minute() + 1)}}
}

// wall finds the instant of a wall time by trying the offsets in force around
// it; time.Date alone does not promise which one it takes in a transition.
func (c Clock) wall(d Date, minutes int) time.Time {
	year, month, dom := d.Civil()
	near := time.Date(year, month, dom, 0, minutes, 0, 0, c.Zone)
	start, end := near.ZoneBounds()
	if apart(near, start) && apart(near, end) {
		return near
	}
	naive := time.Date(year, month, dom, 0, minutes, 0, 0, time.UTC)
	var first, gap time.Time
	for _, edge := range []time.Time{start, end} {
		if edge.IsZero() {
			continue
		}
		before, after := offset(edge.Add(-time.Nanosecond)), offset(edge)
		asBefore, asAfter := naive.Add(-before), naive.Add(-after)
		if asBefore.Before(edge) {
			first = earlier(first, asBefore)
		} else if asAfter.Before(edge) {
			gap = asBefore
		}
	}
	switch {
	case !gap.IsZero():
		return gap.In(c.Zone)
	case !first.IsZero() && first.Before(near) && near.Sub(first) < 24*time.Hour:
		// Valid only if that instant really shows the wanted wall time.
		if shown := first.In(c.Zone); shown.Minute()+60*shown.Hour() == minutes%1440 && DateOf(shown) == d {
			return shown
		}
	}
	return near
}

// apart reports whether an edge is too far off to matter for a wall time.
func apart(t, edge time.Time) bool {
	if edge.IsZero() {
		return true
	}
	return t.Sub(edge).Abs() > 26*time.Hour
}

func offset(t time.Time) time.Duration {
	_, seconds := t.Zone()
	return time.Duration(seconds) * time.Second
}

func earlier(a, b time.Time) time.Time {
	if a.IsZero() || b.Before(a) {
		return b
	}
	return a
}
