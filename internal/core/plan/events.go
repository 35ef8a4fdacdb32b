package plan

import (
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// Event is something that happens at a time, whether one works or not: once, of a calendar
// that is only read.
type Event struct {
	Calendar   book.ID
	UID, Title string
	// AllDay events begin and end with days.
	AllDay bool
	// From and To are when it begins and ends; of one that is all-day the midnights, in UTC,
	// that begin its first day and the day after its last.
	From, To time.Time
	// Busy: it takes time of the person's.
	Busy bool
}

// Stretch is the time that an event takes, in a person's own days where it is all-day.
func (e *Event) Stretch(c day.Clock) Stretch {
	if !e.AllDay {
		return Stretch{MinuteOf(e.From), MinuteOf(e.To.Add(time.Minute - time.Nanosecond))}
	}
	return Stretch{MinuteOf(c.StartOf(day.DateOf(e.From.UTC()))), MinuteOf(c.StartOf(day.DateOf(e.To.UTC())))}
}

// Slot is the time that an event takes on a day, as a plan: the day alone of one that lasts whole
// days, or that has no minutes on it.
func (e *Event) Slot(c day.Clock, on day.Date) day.Horizon {
	from, to := e.From, e.To
	if start := c.StartOf(on); from.Before(start) {
		from = start
	}
	if end := c.StartOf(on.AddDays(1)); to.After(end) {
		to = end
	}
	wall := from.In(c.Zone)
	slot, err := day.OnDay(day.DateOf(wall)).WithSlot(clockTime(wall), int(MinuteOf(to.Add(time.Minute-time.Nanosecond))-MinuteOf(from)))
	if e.AllDay || err != nil {
		return day.OnDay(on)
	}
	return slot
}

// Happening is an event on one day.
type Happening struct {
	*Event
	// On is the part of the event that lies on the day.
	On Stretch
	// Takes is how many minutes of the day's working hours it takes that are not over.
	Takes int
}

// happening is an event as it lies on a day of the capacity; s is its Stretch.
func (k *Capacity) happening(e *Event, s Stretch, on *Day) Happening {
	h := Happening{Event: e, On: s.within(on.All)}
	if e.Busy {
		for _, taken := range common(on.Hours, []Stretch{{max(s.From, k.now), s.To}}) {
			h.Takes += taken.Minutes()
		}
	}
	return h
}

// Happenings are the events of a day that are not over, in the order of the agenda, and how many
// more there are beside these: MostListed are returned at most, busy ones before others. A day
// outside of the capacity or of the agenda has none.
func (k *Capacity) Happenings(a *Agenda, on day.Date) (listed []Happening, more int) {
	of := k.Day(on)
	if of == nil {
		return nil, 0
	}
	indices, total := a.on(on, k.now)
	for _, i := range indices {
		listed = append(listed, k.happening(&a.events[i], a.stretches[i], of))
	}
	return listed, total - len(listed)
}
