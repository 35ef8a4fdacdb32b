package plan

import (
	"sort"
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

// BusyOf is the time that events take, in any order and overlapping where they do.
func BusyOf(events []Event, c day.Clock) []Stretch {
	var busy []Stretch
	for i := range events {
		if events[i].Busy {
			busy = append(busy, events[i].Stretch(c))
		}
	}
	return busy
}

// Happening is an event on one day.
type Happening struct {
	*Event
	// On is the part of the event that lies on the day.
	On Stretch
	// Takes is how many minutes of the day's working hours it takes that are not over.
	Takes int
}

// Happenings are the events of each day of the capacity that are not over, in the order
// of the events.
func (k *Capacity) Happenings(events []Event) map[day.Date][]Happening {
	on := map[day.Date][]Happening{}
	for i := range events {
		e := &events[i]
		s := e.Stretch(k.Clock)
		if s.To < k.now || s.To == k.now && s.From < s.To {
			continue
		}
		for d := k.dayAt(s.From); d < len(k.Days); d++ {
			of := &k.Days[d]
			if of.All.From >= s.To && (of.All.From > s.From || s.From < s.To) {
				break
			}
			h := Happening{Event: e, On: s.within(of.All)}
			if e.Busy {
				for _, taken := range common(of.Hours, []Stretch{{max(s.From, k.now), s.To}}) {
					h.Takes += taken.Minutes()
				}
			}
			on[of.Date] = append(on[of.Date], h)
		}
	}
	return on
}

// dayAt is the number of the day in which a minute lies; 0 where it is past, and that of
// days where it lies beyond them.
func (k *Capacity) dayAt(m Minute) int {
	return sort.Search(len(k.Days), func(i int) bool { return k.Days[i].All.To > m })
}
