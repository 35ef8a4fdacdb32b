package app

import (
	"context"
	"fmt"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/store"
)

// Step is a command and when it was given.
type Step struct {
	At      time.Time
	Command book.Command
}

// Seed carries out many commands, each at its own time, in one transaction. It
// is for a Book nobody sees yet: when it fails, the App must be closed.
func (a *Session) Seed(ctx context.Context, steps []Step) error {
	a.changing.Lock()
	defer a.changing.Unlock()
	a.reading.Lock()
	defer a.reading.Unlock()
	entries := make([]store.Entry, 0, len(steps))
	for _, s := range steps {
		env := a.env()
		env.Clock.Now = s.At
		change, err := a.desk.Do(env, s.Command)
		if err != nil {
			return fmt.Errorf("%T: %w", s.Command, err)
		}
		if change.Empty() {
			continue
		}
		a.book.Apply(change)
		entries = append(entries, store.Entry{Change: change, At: day.TimestampOf(s.At), Window: "seed"})
	}
	if err := a.store.Save(ctx, entries...); err != nil {
		return err
	}
	a.bells.renew(a.desk, a.terms(a.Account()))
	a.next.Store(0)
	a.look()
	a.wakeIndexer()
	return nil
}
