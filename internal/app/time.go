package app

import (
	"context"
	"maps"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
)

// keepTime tells listeners when the clock alone changes an answer: at the
// start of a day and when a due time passes. A clock that is set over such an
// instant, forwards or back, or a machine that slept, counts too.
func (a *App) keepTime(ctx context.Context) {
	a.planNextChange()
	last, days := a.clock.Now(), a.days()
	for a.clock.Wait(ctx, a.nextChange()) == nil {
		now, today := a.clock.Now(), a.days()
		newDay := !maps.Equal(today, days)
		if newDay {
			if err := a.tidy(ctx); err != nil {
				a.log.Warn("old history stays for now", "error", err)
			}
		}
		if newDay || now.Before(last) || !now.Before(a.nextChange()) {
			a.planNextChange()
			a.hub.sendAll(Event{Kind: TimePassed, Revision: a.Revision()})
		}
		last, days = now, today
	}
}

// days is the day that it is for each account.
func (a *App) days() map[book.ID]day.Date {
	days := map[book.ID]day.Date{}
	for _, s := range a.everyone() {
		days[s.Account()] = s.Clock().Today()
	}
	return days
}

// Revision is the Book's.
func (a *App) Revision() int64 {
	a.reading.RLock()
	defer a.reading.RUnlock()
	return a.book.Revision()
}

func (a *App) nextChange() time.Time { return time.UnixMilli(a.next.Load()) }

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
