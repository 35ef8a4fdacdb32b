package plan

import (
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// Kinds is something of each kind of hours: of working hours and of own hours.
type Kinds[T any] [term.Kinds]T

// SlotsBeside is the time of the slots, from now on, of open to-dos that take other hours than
// those of a kind: it is taken out of these. Where everything takes working hours there are none.
func SlotsBeside(b *book.Desk, c day.Clock, kind term.Hours) []Stretch {
	if b.OneKind() {
		return nil
	}
	var slots []Stretch
	for _, t := range b.Open() {
		if s, has := SlotOf(c, t); has && s.To > MinuteOf(c.Now) && b.HoursOf(t) != kind && !idle(t) {
			slots = append(slots, s)
		}
	}
	return slots
}

// KindSlacks is the slack of all open to-dos of a desk, of each among those that take hours of
// its kind; to-dos that take no hours have none. It is a book.Slack.
type KindSlacks Kinds[*Slacks]

// NewKindSlacks reckons it; assumed is the minutes of a to-do without an estimate.
func NewKindSlacks(hours Kinds[*Capacity], b *book.Desk, assumed int) *KindSlacks {
	var all KindSlacks
	for kind, k := range hours {
		all[kind] = NewSlacks(k, b, assumed)
	}
	return &all
}

// Spare implements book.Slack.
func (r *KindSlacks) Spare(b *book.Desk, t *book.Todo) (minutes int, known bool) {
	kind := b.HoursOf(t)
	if int(kind) >= len(r) || r[kind] == nil {
		return 0, false
	}
	return r[kind].Spare(b, t)
}
