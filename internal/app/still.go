package app

import (
	"context"
	"errors"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/store"
)

// still lets f see the account's desk as it is now, for as long as f takes: changes go on
// meanwhile, and do not reach it. Making the desk takes one step for each to-do, so what takes less
// than that is better done by Read. The error is f's, or one of reading the disk.
func (a *Session) still(ctx context.Context, f func(*book.Desk, day.Clock) error) error {
	notes, err := a.store.Snapshot(ctx)
	if err != nil {
		return err
	}
	desk, c, err := a.stand(ctx, notes, func() {})
	if err == nil {
		err = f(desk.With(notes, &lateSlack{session: a, clock: c}), c)
	}
	return errors.Join(err, notes.Close())
}

// stand makes the desk of a still. Nothing is saved or applied meanwhile: rows and notes are those
// of one moment. At that moment, before anything else can be applied, it calls then.
func (a *Session) stand(ctx context.Context, notes *store.Snapshot, then func()) (*book.Desk, day.Clock, error) {
	a.changing.Lock()
	defer a.changing.Unlock()
	if err := notes.Begin(ctx); err != nil {
		return nil, day.Clock{}, err
	}
	a.reading.RLock()
	defer a.reading.RUnlock()
	then()
	return a.desk.Still(notes), a.Clock(), nil
}
