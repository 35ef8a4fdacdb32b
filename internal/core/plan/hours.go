package plan

import (
	"cmp"
	"slices"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// fiveMinutes is what the beginnings of proposed hours are rounded up to.
const fiveMinutes = 5

// SlotOf is the time for which a to-do is planned; ok is false where it has no time of day.
func SlotOf(c day.Clock, t *book.Todo) (s Stretch, ok bool) {
	at, minutes := t.Plan.Slot()
	if minutes == 0 {
		return s, false
	}
	from := MinuteOf(c.Instant(day.Moment{Date: t.Plan.First(), Time: at}))
	return Stretch{from, from + Minute(minutes)}, true
}

// Hour is a time of day that is proposed for a to-do.
type Hour struct {
	Lying
	At Stretch
}

// Horizon is the hour as a plan.
func (h Hour) Horizon(c day.Clock) day.Horizon {
	at := h.At.From.Time().In(c.Zone)
	slot, err := day.OnDay(day.DateOf(at)).WithSlot(clockTime(at), min(h.At.Minutes(), day.MaxSlot))
	if err != nil { // a stretch of work time has a length, and lies in a day
		return h.On
	}
	return slot
}

func clockTime(t time.Time) day.TimeOfDay {
	at, _ := day.NewTimeOfDay(t.Hour(), t.Minute())
	return at
}

// LayHours proposes a time of its day for each to-do that lies on a day and has none that is
// still to come: the
// first stretch that is free for all of its minutes, in the order of deadlines, then of
// priority. Deep ones are laid into peak hours before all others, unless more deadlines
// would be missed for that. One after another keep their order. Nothing is laid over an
// event, over another to-do's time, or outside working hours. What is done within the time of
// a to-do above it needs none; without are those for which no stretch is long enough.
func LayHours(b *book.Desk, k *Capacity, d *WeekDay) (hours []Hour, without []Lying) {
	l := newHourLayer(b, k, d)
	deep, none, late := l.lay(true)
	if late+len(none) > 0 {
		if plain, fewer, sooner := l.lay(false); sooner+len(fewer) < late+len(none) {
			deep, none = plain, fewer
		}
	}
	slices.SortStableFunc(deep, func(a, b Hour) int { return cmp.Compare(a.At.From, b.At.From) })
	return deep, none
}

// hourLayer lays the hours of one day.
type hourLayer struct {
	*Capacity
	day *WeekDay
	// free and peak are what is free of the working hours, beside slots too.
	free, peak []Stretch
	// open are those to lay, in their order; due is each one's deadline.
	open []Lying
	due  map[book.ID]Minute
	// after are the to-dos of the day that each waits for, and ends when those have been done
	// that have a time already.
	after map[book.ID][]book.ID
	ends  map[book.ID]Minute
}

func newHourLayer(b *book.Desk, k *Capacity, d *WeekDay) *hourLayer {
	l := &hourLayer{Capacity: k, day: d, due: map[book.ID]Minute{}, after: map[book.ID][]book.ID{}, ends: map[book.ID]Minute{}}
	var taken []Stretch
	on := map[book.ID]bool{}
	for _, lying := range d.Lying {
		t := lying.Todo
		on[t.ID] = true
		if s, has := SlotOf(k.Clock, t); has && s.To > k.now {
			taken = append(taken, s)
			l.ends[t.ID] = s.To
		} else if lying.Work.Minutes > 0 && lying.Within.IsZero() {
			l.open = append(l.open, lying)
			l.due[t.ID] = d.All.To
			if due := DueOf(b, k.Clock, t); !due.IsZero() && due.HasTime() {
				l.due[t.ID] = MinuteOf(k.Clock.Instant(due))
			} else if !due.IsZero() && k.Clock.DayOfMoment(due) == d.Date {
				l.due[t.ID] = d.End()
			}
		}
	}
	taken = merged(taken)
	l.free, l.peak = without(d.Free, taken), without(d.Peak, taken)
	for _, lying := range l.open {
		t := lying.Todo
		parent, err := b.Todo(t.Parent)
		if err != nil || !parent.InOrder {
			continue
		}
		for _, sub := range b.Subtasks(parent.ID) {
			if sub.ID == t.ID {
				break
			}
			if on[sub.ID] {
				l.after[t.ID] = append(l.after[t.ID], sub.ID)
			}
		}
	}
	slices.SortStableFunc(l.open, func(a, b Lying) int {
		return cmp.Or(cmp.Compare(l.due[a.Todo.ID], l.due[b.Todo.ID]), cmp.Compare(b.Todo.Priority, a.Todo.Priority))
	})
	return l
}

// lay lays all that can be laid, and counts the deadlines that are missed so.
func (l *hourLayer) lay(deepFirst bool) (hours []Hour, none []Lying, late int) {
	free, peak := slices.Clone(l.free), slices.Clone(l.peak)
	ends := map[book.ID]Minute{}
	for id, end := range l.ends {
		ends[id] = end
	}
	put := func(lying Lying, into []Stretch) bool {
		from, waits := l.ready(lying.Todo.ID, ends)
		if waits {
			return false
		}
		s, fits := l.firstIn(into, from, lying.Work.Minutes)
		if fits {
			taken := []Stretch{s}
			free, peak = without(free, taken), without(peak, taken)
			ends[lying.Todo.ID] = s.To
			if hours = append(hours, Hour{lying, s}); s.To > l.due[lying.Todo.ID] {
				late++
			}
		}
		return fits
	}
	rest := slices.Clone(l.open)
	if deepFirst {
		rest = slices.DeleteFunc(rest, func(lying Lying) bool {
			return lying.Todo.Concentration == term.Deep && put(lying, peak)
		})
	}
	// What waits for one that is laid after it comes in a later round.
	for again := true; again; {
		again = false
		for i, lying := range rest {
			if put(lying, free) {
				rest = slices.Delete(rest, i, i+1)
				again = true
				break
			}
		}
	}
	return hours, rest, late
}

// ready is from when a to-do can be worked on; waits is true while one that comes before it
// has no time yet.
func (l *hourLayer) ready(id book.ID, ends map[book.ID]Minute) (from Minute, waits bool) {
	for _, before := range l.after[id] {
		end, laid := ends[before]
		if !laid {
			return 0, true
		}
		from = max(from, end)
	}
	return from, false
}

// firstIn is the first stretch of so many minutes within some that are in order, from a
// moment on. It begins at a time of the wall that means that moment: of an hour that comes
// twice a plan means the first.
func (k *Capacity) firstIn(all []Stretch, from Minute, minutes int) (Stretch, bool) {
	for _, s := range all {
		at := (max(s.From, from) + fiveMinutes - 1) / fiveMinutes * fiveMinutes
		for ; at+Minute(minutes) <= s.To; at += fiveMinutes {
			wall := at.Time().In(k.Clock.Zone)
			if MinuteOf(k.Clock.Instant(day.Moment{Date: day.DateOf(wall), Time: clockTime(wall)})) == at {
				return Stretch{at, at + Minute(minutes)}, true
			}
		}
	}
	return Stretch{}, false
}

// Clash is a time of day that something else takes too.
type Clash struct {
	Lying
	At Stretch
	// With is the title of the event, or of the other to-do.
	With string
}

// Clashes are the times of to-dos of a day that are not over and that a busy event takes too,
// or the time of another to-do which begins no later: each once.
func (k *Capacity) Clashes(d *WeekDay, events []Happening) (all []Clash) {
	for i, l := range d.Lying {
		s, has := SlotOf(k.Clock, l.Todo)
		if !has || s.To <= k.now {
			continue
		}
		with := ""
		for _, e := range events {
			if e.Busy && e.On.within(s).Minutes() > 0 {
				with = e.Title
				break
			}
		}
		for _, other := range d.Lying[:i] {
			if o, has := SlotOf(k.Clock, other.Todo); with == "" && has && o.within(s).Minutes() > 0 {
				with = other.Todo.Title
			}
		}
		if with != "" {
			all = append(all, Clash{l, s, with})
		}
	}
	return all
}
