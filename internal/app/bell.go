package app

import (
	"context"
	"slices"
	"sync"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/remind"
)

// bellWindow is where the history says that rings were made.
const bellWindow = "bell"

// bells knows what rings next at each desk.
type bells struct {
	mu     sync.Mutex
	queues map[book.ID]*remind.Queue
}

// terms are what rings depend on beside rows, now.
func (a *App) terms(account book.ID) remind.Terms {
	return remind.Terms{Clock: a.clockOf(account), Hour: new(a.inForce(account).settings).ReminderHour()}
}

// quiet returns when the quiet end in which an account is; ok is false where it rings.
func (a *App) quiet(account book.ID) (end time.Time, ok bool) {
	return remind.Quiet(a.clockOf(account), a.inForce(account).settings)
}

// renewBells looks at all to-dos anew: the terms of rings have changed.
func (a *App) renewBells() {
	a.reading.RLock()
	defer a.reading.RUnlock()
	for _, s := range a.everyone() {
		a.bells.renew(s.desk, a.terms(s.Account()))
	}
}

func (b *bells) renew(desk *book.Desk, w remind.Terms) {
	b.mu.Lock()
	defer b.mu.Unlock()
	if b.queues == nil {
		b.queues = map[book.ID]*remind.Queue{}
	}
	b.queues[desk.Account()] = remind.NewQueue(desk, w)
}

// follow brings the queue of who made a change up to date; the caller alone has the Book.
func (b *bells) follow(desk *book.Desk, w remind.Terms, c *book.Change) {
	b.mu.Lock()
	defer b.mu.Unlock()
	if q := b.queues[desk.Account()]; q != nil {
		q.Follow(desk, w, c)
	}
}

// nextRing is when something next rings, for any account; the zero time is never.
func (a *App) nextRing() (next time.Time) {
	for _, account := range a.book.Accounts() {
		if at := a.nextRingOf(account); !at.IsZero() && (next.IsZero() || at.Before(next)) {
			next = at
		}
	}
	return next
}

func (a *App) nextRingOf(account book.ID) (next time.Time) {
	a.bells.mu.Lock()
	q := a.bells.queues[account]
	if q == nil {
		a.bells.mu.Unlock()
		return next
	}
	next, _ = q.Next()
	muted := q.Muted()
	a.bells.mu.Unlock()
	if muted {
		end, quiet := a.quiet(account)
		if !quiet {
			end = a.clock.Now()
		}
		if next.IsZero() || end.Before(next) {
			next = end
		}
	}
	return next
}

// ring tells of all that rings by now.
func (a *App) ring(ctx context.Context) error {
	a.changing.Lock()
	defer a.changing.Unlock()
	for _, s := range a.everyone() {
		if err := s.ringDue(ctx); err != nil {
			return err
		}
	}
	return nil
}

// ringDue tells of what rings at the account's desk by now: it is on the disk before anybody
// is told. The caller holds changing.
func (a *Session) ringDue(ctx context.Context) error {
	if at := a.nextRingOf(a.Account()); a.settings.Once || at.IsZero() || at.After(a.clock.Now()) {
		return nil
	}
	_, quiet := a.quiet(a.Account())
	env := a.env()
	w := a.terms(a.Account())
	w.Clock = env.Clock
	a.reading.RLock()
	a.bells.mu.Lock()
	bell, ok := a.bells.queues[a.Account()].Due(a.desk, w, quiet)
	a.bells.mu.Unlock()
	a.reading.RUnlock()
	if !ok {
		return nil
	}
	return a.tellBell(ctx, env, bell)
}

// tellBell tells of rings, once they are on the disk. The caller holds changing.
func (a *Session) tellBell(ctx context.Context, env book.Env, bell book.RingBell) error {
	change, err := a.desk.Do(env, bell)
	if err != nil {
		return err
	}
	if err := a.keep(ctx, Request{Window: bellWindow, final: true}, change, nil); err != nil {
		return err
	}
	a.tellRings(change)
	a.desktop.signal()
	return nil
}

// OpenRing is a ring with its to-do.
type OpenRing struct {
	book.Ring
	Title string
}

// Bell is what the bell shows.
type Bell struct {
	// Open wait for an answer, the latest first; Later ring again, the soonest first.
	Open, Later []OpenRing
	// OpenCount and LaterCount are how many there are of each, of which MaxRings are told.
	OpenCount, LaterCount int
	// Quiet is the end of quiet hours or of a pause; the zero time where it rings.
	Quiet time.Time
	// Paused: the person chose it, and can end it.
	Paused bool
	// Muted: something waits for that.
	Muted bool
	// Next is when a reminder next comes; the zero time is never.
	Next time.Time
}

// MaxRings is how many rings of each kind Bell tells of.
const MaxRings = 200

// Bell returns what waits for an answer, and what is to come.
func (a *Session) Bell() Bell {
	a.reading.RLock()
	defer a.reading.RUnlock()
	w := a.terms(a.Account())
	titled := func(rings []*book.Ring) ([]OpenRing, int) {
		some := []OpenRing{}
		for _, r := range rings[:min(len(rings), MaxRings)] {
			if t, err := a.desk.Todo(r.Todo); err == nil {
				some = append(some, OpenRing{*r, t.Title})
			}
		}
		return some, len(rings)
	}
	var b Bell
	b.Open, b.OpenCount = titled(w.Open(a.desk))
	b.Later, b.LaterCount = titled(w.PutOff(a.desk))
	if end, quiet := a.quiet(a.Account()); quiet {
		b.Quiet = end
		paused := new(a.inForce(a.Account()).settings).PausedUntil()
		b.Paused = !paused.IsZero() && w.Clock.Instant(paused).After(w.Clock.Now)
	}
	a.bells.mu.Lock()
	defer a.bells.mu.Unlock()
	if q := a.bells.queues[a.Account()]; q != nil {
		b.Next, _ = q.Next()
		b.Muted = q.Muted()
	}
	return b
}

// OpenRings are all that wait for an answer.
func (a *Session) OpenRings() []book.ID {
	a.reading.RLock()
	defer a.reading.RUnlock()
	var ids []book.ID
	for _, r := range a.terms(a.Account()).Open(a.desk) {
		ids = append(ids, r.ID)
	}
	return ids
}

// aboutRings reports whether a change may have altered what rings or has rung.
func aboutRings(desk *book.Desk, c *book.Change) bool {
	if len(c.Rings) > 0 || len(c.Lists) > 0 || len(c.Settings) > 0 || slices.Contains(book.Aside(), c.Kind) {
		return true
	}
	for _, d := range c.Todos {
		if d.After != nil && len(d.After.Reminders) > 0 || d.Before != nil && (len(d.Before.Reminders) > 0 || len(desk.RingsOf(d.Before.ID)) > 0) {
			return true
		}
	}
	return false
}
