package app

import (
	"context"
	"time"
)

// searchPatience is how long a search waits for words that are not in the index
// yet. What is found later is told as time that has passed.
const searchPatience = 150 * time.Millisecond

// keepIndexed writes the rows of changes of many to-dos, which the history has already, then their
// words into the search index, and merges what was written. It does so a few at a time, and rests as
// long as it worked each time, so that nothing waits for it long.
func (a *App) keepIndexed(ctx context.Context) {
	for {
		for (a.store.Indexing() || a.store.Merging()) && ctx.Err() == nil {
			begun := time.Now()
			if err := a.bringUpToDate(ctx); err != nil {
				if ctx.Err() != nil { // it goes on at the next start
					return
				}
				a.log.Warn("the search index is behind", "error", err)
				break
			}
			select {
			case <-ctx.Done():
			case <-time.After(time.Since(begun)):
			}
		}
		select {
		case <-ctx.Done():
			return
		case <-a.toIndex:
		}
	}
}

// bringUpToDate writes the words of some to-dos and merges a little of the index; by
// turns, so that neither gets ahead of the other.
func (a *App) bringUpToDate(ctx context.Context) error {
	if a.store.Indexing() {
		more, err := a.indexSome(ctx)
		if err != nil {
			return err
		}
		if !more {
			a.hub.sendAll(Event{Kind: TimePassed, Revision: a.Revision()})
		}
	}
	if a.store.Merging() {
		return a.mergeSome(ctx)
	}
	return nil
}

func (a *App) indexSome(ctx context.Context) (more bool, err error) {
	a.changing.Lock()
	defer a.changing.Unlock()
	if ctx.Err() != nil {
		return false, ctx.Err()
	}
	return a.store.IndexSome(context.WithoutCancel(ctx))
}

func (a *App) mergeSome(ctx context.Context) error {
	a.changing.Lock()
	defer a.changing.Unlock()
	if ctx.Err() != nil {
		return nil
	}
	return a.store.MergeSome(context.WithoutCancel(ctx))
}

// caughtUp lets the rows of an earlier change of many be written, a few at a time: two such changes
// do not wait at once. What keeps them from being written is met again by the next change.
func (a *App) caughtUp(ctx context.Context) {
	for a.store.Behind() {
		begun := time.Now()
		if _, err := a.indexSome(ctx); err != nil {
			return
		}
		select {
		case <-ctx.Done():
		case <-time.After(time.Since(begun)):
		}
	}
}

// indexed waits a little for the index to be up to date.
func (a *App) indexed(ctx context.Context) error {
	for begun := time.Now(); a.store.Indexing() && time.Since(begun) < searchPatience; {
		if _, err := a.indexSome(ctx); err != nil {
			return err
		}
	}
	return nil
}

// wakeIndexer lets keepIndexed look whether there is something to do.
func (a *App) wakeIndexer() {
	select {
	case a.toIndex <- struct{}{}:
	default:
	}
}
