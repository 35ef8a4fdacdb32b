package app

import (
	"sync"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
)

// slacks keeps the slack of each account's to-dos: it changes with the Book and with the
// work time.
type slacks struct {
	mu   sync.Mutex
	kept map[book.ID]keptSlacks
}

type keptSlacks struct {
	revision int64
	hours    plan.Kinds[*plan.Capacity]
	slacks   *plan.KindSlacks
}

// lateSlack is the slack of the account's to-dos, reckoned when it is first asked for.
type lateSlack struct {
	session *Session
	clock   day.Clock
	slacks  *plan.KindSlacks
}

// Spare implements book.Slack.
func (r *lateSlack) Spare(b *book.Desk, t *book.Todo) (minutes int, known bool) {
	if r.slacks == nil {
		r.slacks = r.session.slacksOf(b, r.clock)
	}
	return r.slacks.Spare(b, t)
}

// slacksOf is the slack of all to-dos, for one who reads the desk.
func (a *Session) slacksOf(desk *book.Desk, c day.Clock) *plan.KindSlacks {
	hours := a.capacity(desk, c).hours
	a.slacks.mu.Lock()
	defer a.slacks.mu.Unlock()
	k := a.slacks.kept[desk.Account()]
	if k.slacks == nil || k.hours != hours || k.revision != desk.Revision() {
		chosen := a.inForce(desk.Account()).settings
		k = keptSlacks{desk.Revision(), hours, plan.NewKindSlacks(hours, desk, chosen.AssumedMinutes())}
		if a.slacks.kept == nil {
			a.slacks.kept = map[book.ID]keptSlacks{}
		}
		a.slacks.kept[desk.Account()] = k
	}
	return k.slacks
}
