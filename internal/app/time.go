package app

import (
	"context"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/view"
)

// sources are all that time brings.
func (a *App) sources() []*source {
	sources := []*source{
		{name: "answers", next: a.nextChange, setBack: func() { a.next.Store(0) }, run: func(context.Context) error {
			a.planNextChange()
			a.reads.soon() // it may be another day, for which calendars are read anew
			a.hub.sendAll(Event{Kind: TimePassed, Revision: a.Revision()})
			return nil
		}},
		{name: "tidying", long: true, next: func() time.Time { return timeOf(a.nextTidying.Load()) }, setBack: a.planTidying, run: func(ctx context.Context) error {
			a.planTidying()
			return a.tidy(ctx)
		}},
	}
	if a.settings.Once {
		return sources
	}
	sources = append(sources, &source{name: "copies", long: true, next: func() time.Time { return timeOf(a.nextCopy.Load()) }, setBack: a.planCopy, run: a.copyOfTheDay})
	sources = append(sources, &source{name: "rings", next: a.nextRing, setBack: a.renewBells, run: a.ring})
	if a.settings.Calendars != nil {
		sources = append(sources, &source{name: "calendars", long: true, next: func() time.Time { return timeOf(a.reads.next.Load()) },
			setBack: a.reads.soon, run: func(ctx context.Context) error {
				a.reads.next.Store(a.clock.Now().Add(refreshEvery).UnixMilli()) // soon may bring it nearer meanwhile
				next := a.readDue(ctx).UnixMilli()
				for known := a.reads.next.Load(); next < known && !a.reads.next.CompareAndSwap(known, next); {
					known = a.reads.next.Load()
				}
				return nil
			}})
	}
	return sources
}

// timeOf is an instant kept in Unix milliseconds.
func timeOf(ms int64) time.Time { return time.UnixMilli(ms) }

// planTidying sets the next tidying to when a day next begins for an account.
func (a *App) planTidying() {
	var next time.Time
	for _, s := range a.everyone() {
		c := s.Clock()
		if begins := c.StartOf(c.Today().AddDays(1)); next.IsZero() || begins.Before(next) {
			next = begins
		}
	}
	a.nextTidying.Store(next.UnixMilli())
}

// Revision is the Book's.
func (a *App) Revision() int64 {
	a.reading.RLock()
	defer a.reading.RUnlock()
	return a.book.Revision()
}

// nextChange is when an answer next changes by time alone: at the start of a day and when a
// due time passes.
func (a *App) nextChange() time.Time { return timeOf(a.next.Load()) }

func (a *App) planNextChange() {
	a.reading.RLock()
	defer a.reading.RUnlock()
	var next time.Time
	for _, s := range a.everyone() {
		if soon := view.NextChange(s.desk, s.Clock()); next.IsZero() || soon.Before(next) {
			next = soon
		}
	}
	a.next.Store(next.UnixMilli())
}

// dueSooner brings the next change forward to a due time that a change set. The
// caller holds reading, so that it does not cross planNextChange.
func (a *App) dueSooner(c *book.Change) {
	now := a.clockOf(c.Actor)
	for _, d := range c.Todos {
		if d.After == nil {
			continue
		}
		a.next.Store(view.Sooner(now, d.After, a.nextChange()).UnixMilli())
	}
}
