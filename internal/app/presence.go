package app

import (
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"sync"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/geo"
	"tincup/internal/core/remind"
)

// presences knows at which places each account is. Commands and positions take turns by
// App.changing; mu is for those who read.
type presences struct {
	mu sync.Mutex
	of map[book.ID]*remind.Presence
}

func (p *presences) get(account book.ID) remind.Presence {
	p.mu.Lock()
	defer p.mu.Unlock()
	if known := p.of[account]; known != nil {
		return *known
	}
	return remind.Presence{}
}

func (p *presences) set(account book.ID, to remind.Presence) {
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.of == nil {
		p.of = map[book.ID]*remind.Presence{}
	}
	p.of[account] = &to
}

// openPresences reads what was kept. What cannot be read is where nobody knows.
func (a *App) openPresences(ctx context.Context) {
	for _, account := range a.book.Accounts() {
		text, err := a.store.Presence(ctx, account)
		var p remind.Presence
		if err == nil && text != nil {
			err = json.Unmarshal(text, &p)
		}
		if err != nil {
			a.log.Warn("at which places a person is cannot be read; it is told anew", "error", err)
			continue
		}
		a.presences.set(account, p)
	}
}

// Position is what a device tells of where it is.
type Position struct {
	// Latitude and Longitude are in degrees of WGS 84, Accuracy is in metres.
	Latitude, Longitude, Accuracy float64
	// Age is how long ago it was taken.
	Age time.Duration
}

const (
	// maxAge is how old a position may be, maxAccuracy how wrong: half round the earth.
	maxAge      = 24 * time.Hour
	maxAccuracy = 20_100_000
)

// Move takes in where a device of the account is: what that tells of places rings, and is on
// the disk before anybody is told. The position itself is kept in memory alone. The error is a
// *book.RuleError where it is none.
func (a *Session) Move(ctx context.Context, at Position) error {
	point, err := geo.At(at.Latitude, at.Longitude)
	switch {
	case err != nil:
		return &book.RuleError{Field: "position", Reason: err.Error()}
	case !(at.Accuracy >= 0 && at.Accuracy <= maxAccuracy):
		return &book.RuleError{Field: "accuracy", Reason: fmt.Sprintf("The accuracy is %v m; 0 m or more is wanted.", at.Accuracy)}
	case at.Age < 0:
		return &book.RuleError{Field: "age", Reason: "The position was taken in the future. One that was taken by now is wanted."}
	case at.Age > maxAge:
		return &book.RuleError{Field: "age", Reason: "The position is more than a day old; a newer one is wanted."}
	}
	return a.notice(ctx, func(p *remind.Presence, now time.Time) []remind.Crossing {
		return p.Move(a.desk.Places(), remind.Fix{At: point, Accuracy: at.Accuracy, Taken: now.Add(-at.Age)}, now)
	})
}

// Connect takes in that the account's device connected to a thing, or disconnected from it.
// Errors are a *book.NotFoundError, or a *book.RuleError where the place is no thing.
func (a *Session) Connect(ctx context.Context, thing book.ID, on bool) error {
	var place *book.Place
	var err error
	a.reading.RLock()
	place, err = a.desk.Place(thing)
	a.reading.RUnlock()
	switch {
	case err != nil:
		return err
	case !place.Thing:
		return &book.RuleError{Field: "id", Reason: fmt.Sprintf("“%s” is no thing that one connects to.", place.Name)}
	}
	return a.notice(ctx, func(p *remind.Presence, now time.Time) []remind.Crossing { return p.Connect(place, on, now) })
}

// notice takes in what f makes of where the person was.
func (a *Session) notice(ctx context.Context, f func(*remind.Presence, time.Time) []remind.Crossing) error {
	a.changing.Lock()
	defer a.changing.Unlock()
	ctx = context.WithoutCancel(ctx)
	if err := a.ringDue(ctx); err != nil {
		return err
	}
	was := a.presences.get(a.Account())
	is := was
	is.Stays = maps.Clone(was.Stays)
	now := a.clock.Now()
	a.reading.RLock()
	is.Tidy(a.desk)
	crossings := f(&is, now)
	a.reading.RUnlock()
	if err := a.ringCrossed(ctx, crossings); err != nil {
		return err // the next position tells of it again
	}
	moved := len(crossings) > 0 || !sameStays(was.Stays, is.Stays)
	if moved {
		text, err := json.Marshal(is)
		if err == nil {
			err = a.store.SavePresence(ctx, a.Account(), text)
		}
		if err != nil {
			return err
		}
	}
	a.presences.set(a.Account(), is)
	if moved {
		a.hub.send(a.Account(), Event{Kind: Moved, Revision: a.book.Revision()})
	}
	return nil
}

// sameStays reports whether a person is at the same places.
func sameStays(a, b map[book.ID]remind.Stay) bool {
	return maps.EqualFunc(a, b, func(x, y remind.Stay) bool { return x.Inside == y.Inside && x.Middle == y.Middle })
}

// ringCrossed tells of what rings at some crossings, once it is on the disk. The caller holds
// changing.
func (a *Session) ringCrossed(ctx context.Context, crossings []remind.Crossing) error {
	if len(crossings) == 0 {
		return nil
	}
	_, quiet := a.quiet(a.Account())
	env := a.env()
	w := a.terms(a.Account())
	w.Clock = env.Clock
	a.reading.RLock()
	a.bells.mu.Lock()
	bell, ok := a.bells.queues[a.Account()].Crossed(a.desk, w, crossings, quiet)
	a.bells.mu.Unlock()
	a.reading.RUnlock()
	if !ok {
		return nil
	}
	return a.tellBell(ctx, env, bell)
}

// Whereabouts is where a person is, as far as places tell.
type Whereabouts struct {
	// Places are those at which they are, by their names.
	Places []*book.Place
	// Watched: a reminder waits for the edge of a place that positions tell of.
	Watched bool
	// Seen is when the last position was taken that was believed; the zero time for none.
	Seen time.Time
}

// Here returns where the person is.
func (a *Session) Here() Whereabouts {
	a.reading.RLock()
	defer a.reading.RUnlock()
	p := a.presences.get(a.Account())
	here := Whereabouts{Places: p.Here(a.desk), Seen: p.Last.Taken}
	a.bells.mu.Lock()
	defer a.bells.mu.Unlock()
	if q := a.bells.queues[a.Account()]; q != nil {
		here.Watched = q.Watched(a.desk)
	}
	return here
}
