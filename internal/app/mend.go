package app

import (
	"context"
	"fmt"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/store"
)

// mend looks for what the file contradicts itself in. What loses nothing is put
// right, after a copy; where rows are missing it refuses, unless it is told to
// repair. What else is wrong is left as it is and said in the log.
func (a *App) mend(ctx context.Context) error {
	count := map[book.Gravity]int{}
	first := ""
	for _, s := range a.everyone() {
		for _, f := range s.desk.Faults(s.Clock().Today()) {
			if count[f.Gravity]++; f.Gravity == book.Lost && first == "" {
				first = f.Says
			}
		}
	}
	if count[book.Clash] > 0 {
		a.log.Warn("the data file holds values that contradict each other; they stay as they are", "count", count[book.Clash])
	}
	lost := count[book.Lost]
	if lost > 0 && !a.settings.Repair {
		return &store.DamageError{Path: a.store.Path(),
			What:   fmt.Sprintf("%s contradicts itself in %d places, one of them: %s", a.store.Path(), lost, first),
			Remedy: "Put a copy of the file in its place"}
	}
	if lost+count[book.Twin] == 0 {
		return nil
	}
	aside, err := a.store.CopyAside(ctx)
	if err != nil {
		return err
	}
	for _, s := range a.everyone() {
		change, err := s.desk.Do(s.env(), book.Mend{})
		if err != nil {
			return err
		}
		if change.Empty() {
			continue
		}
		if err := a.store.Save(ctx, store.Entry{Change: change, At: day.TimestampOf(a.clock.Now()), Window: "housekeeping", Final: true}); err != nil {
			return err
		}
		a.book.Apply(change)
	}
	a.log.Warn("the data file was mended", "positions and tags", count[book.Twin], "lost", lost, "copy", aside)
	return nil
}
