package app

import (
	"sync"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
)

// rooms keeps the slack of each account's to-dos: it changes with the Book and with the
// work time.
type rooms struct {
	mu   sync.Mutex
	kept map[book.ID]keptRoom
}

type keptRoom struct {
	revision int64
	capacity *plan.Capacity
	room     *plan.Room
}

// lateRoom is the slack of the account's to-dos, reckoned when it is first asked for.
type lateRoom struct {
	session *Session
	clock   day.Clock
	room    *plan.Room
}

// Spare implements book.Room.
func (r *lateRoom) Spare(b *book.Desk, t *book.Todo) (minutes int, known bool) {
	if r.room == nil {
		r.room = r.session.room(b, r.clock)
	}
	return r.room.Spare(b, t)
}

// room is the slack of all to-dos, for one who reads the desk.
func (a *Session) room(desk *book.Desk, c day.Clock) *plan.Room {
	capacity := a.Capacity(desk, c)
	a.rooms.mu.Lock()
	defer a.rooms.mu.Unlock()
	k := a.rooms.kept[desk.Account()]
	if k.room == nil || k.capacity != capacity || k.revision != desk.Revision() {
		chosen := a.inForce(desk.Account()).settings
		k = keptRoom{desk.Revision(), capacity, plan.NewRoom(capacity, desk, chosen.AssumedMinutes())}
		if a.rooms.kept == nil {
			a.rooms.kept = map[book.ID]keptRoom{}
		}
		a.rooms.kept[desk.Account()] = k
	}
	return k.room
}
