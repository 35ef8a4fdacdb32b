package remind_test

import (
	"fmt"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/remind"
)

// BenchmarkNextRing asks for the next ring of 10,000 reminders, a tick of one of them between
// (the bar of the next ring is 10 µs); then what it costs to look at all of them once, as at
// the start.
func BenchmarkNextRing(b *testing.B) {
	made, desk := book.Alone(book.MemoryNotes{})
	clock := day.Clock{Now: time.Date(2026, 11, 24, 9, 10, 0, 0, time.UTC), Zone: time.UTC}
	hour, _ := day.NewTimeOfDay(9, 0)
	w := remind.Terms{Clock: clock, Hour: hour}
	rows := &book.Change{Revision: 1, Actor: desk.Account()}
	for n := range 10_000 {
		id := book.ID{12: byte(n >> 16), 13: byte(n >> 8), 14: byte(n), 15: 1}
		at := clock.WallOf(clock.Now.Add(time.Duration(1+n*7919%50_000) * time.Minute))
		rows.Todos = append(rows.Todos, book.Diff[book.Todo]{After: &book.Todo{ID: id, Title: fmt.Sprint("t", n), Due: at, Position: book.Position(fmt.Sprintf("e%07dV", n)),
			Reminders: []day.Reminder{day.ReminderBefore(n % 3 * 60)}}})
	}
	made.Load(1, rows)
	b.Run("next", func(b *testing.B) {
		q := remind.NewQueue(desk, w)
		if at, ok := q.Next(); !ok || at.Before(clock.Now.Add(-3*time.Hour)) {
			b.Fatalf("the next is at %v, %v", at, ok)
		}
		change := &book.Change{Todos: rows.Todos[:1]}
		b.ResetTimer()
		for range b.N {
			q.Follow(desk, w, change)
			q.Next()
		}
	})
	b.Run("all once", func(b *testing.B) {
		for range b.N {
			remind.NewQueue(desk, w)
		}
	})
}
