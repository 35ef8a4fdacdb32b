package app

import (
	"context"
	"sync"

	"tincup/internal/core/term"
)

// ImportStage says what is being done with a file that comes in.
type ImportStage string

// The stages, in their order.
const (
	ImportReading ImportStage = "reading"
	ImportWorking ImportStage = "working" // out what becomes of each item
	ImportKeeping ImportStage = "keeping"
)

// ImportProgress is how far a file that comes in has got. Done and Total are items; both are 0
// while the file is being read.
type ImportProgress struct {
	Stage       ImportStage
	Done, Total int
}

// Reasons for which an import ends, or does not.
var (
	ErrImportStopped = term.Fail(term.Conflict, "It was stopped, and nothing was brought in.")
	ErrImportKeeping = term.Fail(term.Conflict, "It is kept already. Undo takes it back.")
)

// Importing is a file that is looked at or brought in for one window. It is safe for concurrent
// use; a nil one is told nothing and is never stopped.
type Importing struct {
	// key is the Idempotency-Key of its request; "" for none.
	key  string
	ctx  context.Context
	stop context.CancelCauseFunc
	mu   sync.Mutex
	is   ImportProgress
}

// importings are those under way, by their windows.
type importings struct {
	mu  sync.Mutex
	all map[windowKey]*Importing
	// stopped is the key of what each window stopped last, which may arrive only after that.
	stopped map[windowKey]string
}

// StartImport begins to tell how far a window's file has got; it ends with ctx, or when it is
// stopped, which it may be already. key is the Idempotency-Key of the request; "" for none. The
// caller calls done in the end.
func (a *Session) StartImport(ctx context.Context, window, key string) (i *Importing, done func()) {
	i = &Importing{key: key, is: ImportProgress{Stage: ImportReading}}
	i.ctx, i.stop = context.WithCancelCause(ctx)
	at := windowKey{a.Account(), window}
	under := &a.importings
	under.mu.Lock()
	defer under.mu.Unlock()
	if under.all == nil {
		under.all = map[windowKey]*Importing{}
	}
	if stopped, ok := under.stopped[at]; ok && stopped == key {
		i.stop(ErrImportStopped)
	}
	under.all[at] = i
	return i, func() {
		i.stop(nil)
		under.mu.Lock()
		defer under.mu.Unlock()
		if under.all[at] == i { // and not one that has begun since
			delete(under.all, at)
		}
	}
}

func (a *Session) importing(window string) *Importing {
	a.importings.mu.Lock()
	defer a.importings.mu.Unlock()
	return a.importings.all[windowKey{a.Account(), window}]
}

// ImportProgress is how far the file has got that a window brings in; false where it brings none.
func (a *Session) ImportProgress(window string) (ImportProgress, bool) {
	i := a.importing(window)
	if i == nil {
		return ImportProgress{}, false
	}
	i.mu.Lock()
	defer i.mu.Unlock()
	return i.is, true
}

// StopImport ends what a window brings in by the request with a key, also where that has yet to
// arrive. It is ErrImportKeeping where it is being kept, or is kept; other errors are of reading.
func (a *Session) StopImport(ctx context.Context, window, key string) error {
	at := windowKey{a.Account(), window}
	if found, err := a.importings.stop(at, key); found || key == "" {
		return err
	}
	// It has ended, or has yet to begin. While this is held none is kept.
	a.changing.Lock()
	defer a.changing.Unlock()
	kept, err := a.store.ReplyTo(ctx, a.Account(), key)
	if err != nil {
		return err
	}
	if kept != nil {
		return ErrImportKeeping
	}
	if found, err := a.importings.stop(at, key); found {
		return err
	}
	a.importings.refuse(at, key)
	return nil
}

// stop ends what is under way in a window under a key; found tells whether there is such.
func (under *importings) stop(at windowKey, key string) (found bool, err error) {
	under.mu.Lock()
	i := under.all[at]
	under.mu.Unlock()
	if i == nil || i.key != key {
		return false, nil
	}
	i.mu.Lock()
	defer i.mu.Unlock()
	if i.is.Stage == ImportKeeping {
		return true, ErrImportKeeping
	}
	i.stop(ErrImportStopped)
	under.refuse(at, key) // nor is it to begin when it is sent again
	return true, nil
}

// refuse notes that what comes under a key is not to begin.
func (under *importings) refuse(at windowKey, key string) {
	if key == "" {
		return
	}
	under.mu.Lock()
	defer under.mu.Unlock()
	if under.stopped == nil {
		under.stopped = map[windowKey]string{}
	}
	under.stopped[at] = key
}

// Stopped is why it goes no further: ErrImportStopped, or the error of its context.
func (i *Importing) Stopped() error {
	if i == nil {
		return nil
	}
	return context.Cause(i.ctx)
}

// enter begins a stage, unless it was stopped. None is gone back to.
func (i *Importing) enter(stage ImportStage, done, total int) error {
	if i == nil {
		return nil
	}
	i.mu.Lock()
	defer i.mu.Unlock()
	if i.is.Stage == ImportKeeping {
		return nil
	}
	if err := context.Cause(i.ctx); err != nil {
		return err
	}
	i.is = ImportProgress{stage, done, total}
	return nil
}

// each is told how many items of all have been worked out.
func (i *Importing) each(total int) func(done int) error {
	return func(done int) error {
		if done == total {
			return i.enter(ImportKeeping, done, total)
		}
		return i.enter(ImportWorking, done, total)
	}
}
