package plan

import (
	"slices"
	"sort"

	"tincup/internal/core/day"
)

// MostListed is how many events of one day are listed at most.
const MostListed = 20

// Agenda is events by the days on which they lie. A day lists MostListed of its events and counts
// the others, so that 20,000 events which all last for years cost no more than 20 a day. An
// Agenda does not change, and is safe for concurrent use.
type Agenda struct {
	events    []Event
	stretches []Stretch // of each event
	busy      []Stretch // the time that events take, in order and apart
	first     day.Date
	days      []agendaDay
	today     []int32 // the indices of all events of the first day
}

// agendaDay is one day with the indices of its listed events, and how many it has in all.
type agendaDay struct {
	all    Stretch
	listed []int32
	total  int
}

// NewAgenda makes the agenda of so many days from today on, 1 to MaxDays. Events are listed in
// the order in which they are given; the slice must not change afterwards.
func NewAgenda(events []Event, c day.Clock, days int) *Agenda {
	a := &Agenda{events: events, stretches: make([]Stretch, len(events)), first: c.Today(), days: make([]agendaDay, min(max(days, 1), MaxDays))}
	next := MinuteOf(c.StartOf(a.first))
	for i := range a.days {
		a.days[i].all.From = next
		next = MinuteOf(c.StartOf(a.first.AddDays(i + 1)))
		a.days[i].all.To = next
	}
	var busy []Stretch
	starting := make([]int, len(a.days)+1) // how many more events each day has than the day before
	for i := range events {
		a.stretches[i] = events[i].Stretch(c)
		if events[i].Busy {
			busy = append(busy, a.stretches[i])
		}
		if from, to := a.span(a.stretches[i]); from < to {
			starting[from]++
			starting[to]--
			if from == 0 {
				a.today = append(a.today, int32(i))
			}
		}
	}
	a.busy = merged(busy)
	for i, there := 0, 0; i < len(a.days); i++ {
		there += starting[i]
		a.days[i].total = there
	}
	a.list()
	return a
}

// span is the days, by their numbers, on which a stretch lies: from up to, and without, to. A
// stretch of no minutes lies on the day in which it is.
func (a *Agenda) span(s Stretch) (from, to int) {
	from = sort.Search(len(a.days), func(i int) bool { return a.days[i].all.To > s.From })
	if s.From == s.To {
		if s.From < a.days[0].all.From {
			return 0, 0
		}
		return from, min(from+1, len(a.days))
	}
	to = sort.Search(len(a.days), func(i int) bool { return a.days[i].all.From >= s.To })
	return from, to
}

// list chooses the events that each day lists: the first busy ones, then the first others. A day
// that has enough is passed over from then on.
func (a *Agenda) list() {
	next := make([]int, len(a.days)+1) // the first day from each on that has room
	for i := range next {
		next[i] = i
	}
	room := func(i int) int {
		for next[i] != i {
			next[i] = next[next[i]]
			i = next[i]
		}
		return i
	}
	for _, busy := range []bool{true, false} {
		for e := range a.events {
			if a.events[e].Busy != busy {
				continue
			}
			from, to := a.span(a.stretches[e])
			for i := room(from); i < to; i = room(i + 1) {
				d := &a.days[i]
				if d.listed = append(d.listed, int32(e)); len(d.listed) == MostListed {
					next[i] = i + 1
				}
			}
		}
	}
	for i := range a.days {
		slices.Sort(a.days[i].listed)
	}
}

// on returns the indices of the listed events of a day that are not over now, and how many events
// it has in all that are not over. Of today, on which events end one by one, both are found anew.
func (a *Agenda) on(date day.Date, now Minute) (listed []int32, total int) {
	at := date.Sub(a.first)
	switch {
	case at < 0 || at >= len(a.days):
		return nil, 0
	case at > 0:
		return a.days[at].listed, a.days[at].total
	}
	for _, busy := range []bool{true, false} {
		for _, e := range a.today {
			s := a.stretches[e]
			if a.events[e].Busy != busy || s.To < now || s.To == now && s.From < s.To {
				continue
			}
			if total++; len(listed) < MostListed {
				listed = append(listed, e)
			}
		}
	}
	slices.Sort(listed)
	return listed, total
}

// Busy is the time that the events take, in order and apart.
func (a *Agenda) Busy() []Stretch { return a.busy }

// Find returns the first event of a day that meets something, listed or not; nil for none.
func (a *Agenda) Find(on day.Date, meets func(*Event) bool) *Event {
	at := on.Sub(a.first)
	if at < 0 || at >= len(a.days) {
		return nil
	}
	for e, s := range a.stretches {
		if from, to := a.span(s); from <= at && at < to && meets(&a.events[e]) {
			return &a.events[e]
		}
	}
	return nil
}

// taking is the first busy event that takes part of a stretch; nil for none.
func (a *Agenda) taking(s Stretch) *Event {
	i := sort.Search(len(a.busy), func(i int) bool { return a.busy[i].To > s.From })
	if i == len(a.busy) || a.busy[i].From >= s.To {
		return nil
	}
	for e := range a.events {
		if a.events[e].Busy && a.stretches[e].within(s).Minutes() > 0 {
			return &a.events[e]
		}
	}
	return nil
}
