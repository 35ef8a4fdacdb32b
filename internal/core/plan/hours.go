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

// mostLaid is how many to-dos of a day are laid at most, the first in turn: 288 slots, which begin
// at multiples of five minutes, are the most that a day has room for.
const mostLaid = 1000

// LayHours proposes a time of its day for each to-do that lies on a day and has none that is
// still to come: the first stretch that is free for all of its minutes, in the order of
// deadlines, then of priority. Deep ones are laid into peak hours before all others, unless
// fewer deadlines would be missed without that. Subtasks of a project keep their order, and one
// after another wait for those before them that have no time. Nothing
// is laid over an event, over another to-do's time, or outside working hours. What is done
// within the time of a to-do above it needs none. The hours are in the order of their
// beginnings; beside them it returns the to-dos for which no stretch is long enough.
func LayHours(b *book.Desk, k *Capacity, d *WeekDay) (hours []Hour, none []Lying) {
	pieces := piecesOf(b, k, d.Lying[:min(len(d.Lying), mostLaid)])
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
	for _, lying := range d.Lying[len(pieces):] {
		if needsHour(k, lying) {
			none = append(none, lying)
		}
	}
	slices.SortFunc(hours, func(a, b Hour) int { return cmp.Compare(a.At.From, b.At.From) })
	return hours, none
}

// needsHour reports whether work has no time of the day that is still to come, and is not done
// within that of a to-do above it.
func needsHour(k *Capacity, l Lying) bool {
	s, has := SlotOf(k.Clock, l.Todo)
	return l.Work.Minutes > 0 && l.Within.IsZero() && (!has || s.To <= k.now)
}

// piecesOf are to-dos of a day as pieces, each at its index.
func piecesOf(b *book.Desk, k *Capacity, all []Lying) []piece {
	pieces := make([]piece, len(all))
	index := map[book.ID]int{}
	for i, lying := range all {
		t := lying.Todo
		index[t.ID] = i
		due, _ := k.dueOf(lying.Due)
		pieces[i] = piece{due: due, weight: WeightOf(t.Priority), deep: t.Concentration == term.Deep}
		if s, has := SlotOf(k.Clock, t); has && s.To > k.now {
			pieces[i].done = s.To
		} else if needsHour(k, lying) {
			pieces[i].minutes = lying.Work.Minutes
		}
	}
	done := map[book.ID]bool{}
	for _, lying := range all {
		if top := b.Top(lying.Todo); !done[top.ID] {
			done[top.ID] = true
			w := projectWalk{desk: b, index: index, pieces: pieces}
			w.visit(top)
		}
	}
	return pieces
}

// projectWalk goes through a project once, each to-do before its subtasks, and tells its pieces
// which of them stand before them.
type projectWalk struct {
	desk   *book.Desk
	index  map[book.ID]int // of the to-dos that are pieces
	pieces []piece
	// met are the pieces met so far, levels the to-dos above the one that is visited.
	met    []int
	levels []level
}

// level is a to-do while its subtasks are visited: those of its pieces that stand before the
// subtask at hand are met[from:to].
type level struct {
	from, to int
	inOrder  bool
}

func (w *projectWalk) visit(t *book.Todo) {
	if i, is := w.index[t.ID]; is {
		for _, l := range w.levels {
			if before := w.met[l.from:l.to]; l.inOrder {
				w.pieces[i].after = append(w.pieces[i].after, before...)
			} else {
				w.pieces[i].behind = append(w.pieces[i].behind, before...)
			}
		}
		w.met = append(w.met, i)
	}
	w.levels = append(w.levels, level{len(w.met), len(w.met), t.InOrder})
	for _, sub := range w.desk.Subtasks(t.ID) {
		w.levels[len(w.levels)-1].to = len(w.met)
		w.visit(sub)
	}
	w.levels = w.levels[:len(w.levels)-1]
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
