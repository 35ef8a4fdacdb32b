package app

import (
	"context"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// replyDays is how long answers to retries are kept.
const replyDays = 7

// tidyStep is how far tidying moves towards the clock at once. A clock that jumps
// ahead for a moment would otherwise empty the bin and the history for good.
const tidyStep = 48 * time.Hour

// tidy lets go of what has been kept long enough. It goes by a date of its own,
// which each start and each new day moves towards the clock by at most tidyStep.
func (a *App) tidy(ctx context.Context) error {
	upTo, err := a.tidyDate(ctx)
	if err != nil {
		return err
	}
	old := book.EmptyBin{UpTo: day.TimestampOf(upTo.AddDate(0, 0, -book.BinDays))}
	for _, s := range a.everyone() {
		if _, err = s.Run(ctx, Request{Window: "housekeeping", final: true}, old, nil); err != nil {
			return err
		}
	}
	if err := a.prune(ctx, upTo); err != nil {
		return err
	}
	if err := a.giveBack(ctx); err != nil {
		return err
	}
	if err := a.sweepFeeds(ctx, upTo); err != nil {
		return err
	}
	return a.sweep(ctx, upTo)
}

// tidyDate moves the date of tidying on and returns it.
func (a *App) tidyDate(ctx context.Context) (time.Time, error) {
	a.changing.Lock()
	defer a.changing.Unlock()
	was, err := a.store.Tidied(ctx)
	if err != nil {
		return time.Time{}, err
	}
	next := a.clock.Now()
	if !was.IsZero() {
		next = was.Time().Add(min(max(next.Sub(was.Time()), -tidyStep), tidyStep))
	}
	return next, a.store.SetTidied(ctx, day.TimestampOf(next))
}

func (a *App) prune(ctx context.Context, upTo time.Time) error {
	a.changing.Lock()
	defer a.changing.Unlock()
	return a.store.Prune(ctx, day.TimestampOf(upTo.AddDate(0, 0, -book.BinDays)), day.TimestampOf(upTo.AddDate(0, 0, -replyDays)))
}

// giveBack gives what the file has no use for back to the disk, in turns.
func (a *App) giveBack(ctx context.Context) error {
	turn := func() (bool, error) {
		a.changing.Lock()
		defer a.changing.Unlock()
		return a.store.GiveBack(ctx)
	}
	for {
		if more, err := turn(); err != nil || !more || ctx.Err() != nil {
			return err
		}
	}
}

// sweep removes the files that nothing refers to any more. It holds nothing up.
func (a *App) sweep(ctx context.Context, upTo time.Time) error {
	used := map[string]bool{}
	for _, s := range a.everyone() {
		s.Read(func(b *book.Desk, _ day.Clock) {
			for t := range b.All() {
				for _, f := range t.Attachments {
					used[f.Hash] = true
				}
			}
		})
	}
	return a.store.SweepFiles(ctx, func(hash string) bool { return used[hash] }, upTo)
}
