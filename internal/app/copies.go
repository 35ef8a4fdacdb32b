package app

import (
	"context"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/store"
)

// copyAfter is how long after the start the copy of the day is made: a start is busy enough.
const copyAfter = time.Minute

// planCopy sets the next copy to soon; where the day has one it is found then.
func (a *App) planCopy() { a.nextCopy.Store(a.clock.Now().Add(copyAfter).UnixMilli()) }

// copyOfTheDay makes the copy of the owner's day and plans that of the next. A file of the demo is
// not copied: it may be thrown away.
func (a *App) copyOfTheDay(ctx context.Context) error {
	owner := a.Owner()
	c := owner.Clock()
	a.nextCopy.Store(c.StartOf(c.Today().AddDays(1)).UnixMilli())
	if demo, err := a.store.IsDemo(ctx); err != nil || demo {
		return err
	}
	chosen := a.inForce(a.book.Owner()).settings
	keep := chosen.CopiesKept()
	a.caughtUp(ctx) // so that the copy says rightly how many to-dos it has
	copied, made, err := a.store.CopyDaily(ctx, c.Today(), a.Revision(), keep)
	if made {
		a.log.Info("a copy was made and looked through", "copy", copied.Path, "to-dos", copied.Todos, "files", copied.Files)
	}
	if err != nil {
		a.planCopy()
	}
	return err
}

// CopyTo writes a copy of the data file with its attached files, as store.Copy does.
func (a *App) CopyTo(ctx context.Context, path string) (store.Copied, error) {
	a.caughtUp(ctx)
	return store.Copy(ctx, a.store.Path(), path, false)
}

// Copies are what is known of daily copies without looking into them.
type Copies struct {
	Folder string
	// On are the days of which there are copies, the newest first.
	On []day.Date
}

// DailyCopies finds the daily copies of the data file.
func (a *App) DailyCopies() (c Copies, err error) {
	c.Folder = store.CopyFolder(a.store.Path())
	paths, err := store.DailyCopies(a.store.Path())
	for _, path := range paths {
		name := path[len(c.Folder)+1:]
		if on, err := day.ParseDate(name[:len(name)-len(".db")]); err == nil {
			c.On = append(c.On, on)
		}
	}
	return c, err
}
