package plan

import (
	"cmp"
	"slices"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

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
// still to come: the first stretch that is free for all of its minutes, in the order of
// deadlines, then of priority. Deep ones are laid into peak hours before all others, unless
// fewer deadlines would be missed without that. Subtasks of a project keep their order, and one
// after another wait for those before them that have no time. Nothing
// is laid over an event, over another to-do's time, or outside working hours. What is done
// within the time of a to-do above it needs none. The hours are in the order of their
// beginnings; beside them it returns the to-dos for which no stretch is long enough.
func LayHours(b *book.Desk, k *Capacity, d *WeekDay) (hours []Hour, none []Lying) {
	pieces := piecesOf(b, k, d)
	var taken []Stretch
	for _, lying := range d.Lying {
		if s, has := SlotOf(k.Clock, lying.Todo); has && s.To > k.now {
			taken = append(taken, s)
		}
	}
	taken = merged(taken)
	for i, s := range k.slots(pieces, without(d.Free, taken), without(d.Peak, taken)) {
		switch {
		case s.Minutes() > 0:
			hours = append(hours, Hour{d.Lying[i], s})
		case pieces[i].minutes > 0 && pieces[i].done == 0:
			none = append(none, d.Lying[i])
		}
	}
	slices.SortFunc(hours, func(a, b Hour) int { return cmp.Compare(a.At.From, b.At.From) })
	return hours, none
}

// piecesOf are the to-dos of a day as pieces, each at its index.
func piecesOf(b *book.Desk, k *Capacity, d *WeekDay) []piece {
	pieces := make([]piece, len(d.Lying))
	index := map[book.ID]int{}
	for i, lying := range d.Lying {
		t := lying.Todo
		index[t.ID] = i
		due, _ := k.dueOf(lying.Due)
		pieces[i] = piece{due: due, weight: WeightOf(t.Priority), deep: t.Concentration == term.Deep}
		if s, has := SlotOf(k.Clock, t); has && s.To > k.now {
			pieces[i].done = s.To
		} else if lying.Within.IsZero() {
			pieces[i].minutes = lying.Work.Minutes
		}
	}
	for i, lying := range d.Lying {
		for t := lying.Todo; !t.Parent.IsZero(); {
			parent, err := b.Todo(t.Parent)
			if err != nil {
				break
			}
			for _, sub := range b.Subtasks(parent.ID) {
				if sub.ID == t.ID {
					break
				}
				for _, at := range jobsUnder(b, sub, index) {
					if parent.InOrder {
						pieces[i].after = append(pieces[i].after, at)
					} else {
						pieces[i].behind = append(pieces[i].behind, at)
					}
				}
			}
			t = parent
		}
	}
	return pieces
}

// Clash is a time of day that something else takes too.
type Clash struct {
	Lying
	At Stretch
	// With is the title of the event, or of the other to-do.
	With string
}

// Clashes are the times of what lies on a day, in turn, that are not over and that a busy event
// takes too, or the time of another to-do which begins no later: each once.
func (k *Capacity) Clashes(lying []Lying, a *Agenda) (all []Clash) {
	for i, l := range lying {
		s, has := SlotOf(k.Clock, l.Todo)
		if !has || s.To <= k.now {
			continue
		}
		with := ""
		if e := a.taking(Stretch{max(s.From, k.now), s.To}); e != nil && !l.Todo.WithinEvent() {
			with = e.Title
		}
		for _, other := range lying[:i] {
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
