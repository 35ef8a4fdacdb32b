// Package app runs the use cases: it holds the Book in memory, runs one
// command at a time, keeps each change on the disk before it takes effect, and
// tells listeners. It has no rules of its own.
package app

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"runtime"
	"sync"
	"sync/atomic"

	"github.com/google/uuid"

	"tincup/internal/clock"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
	"tincup/internal/core/term"
	"tincup/internal/store"
)

// Bodies makes the body of a reply again, by its Remake and of its change.
type Bodies func(remake string, change *book.Change) ([]byte, error)

// App is one open Book. It is safe for concurrent use.
type App struct {
	store    *store.Store
	clock    clock.Source
	settings Settings
	log      *slog.Logger

	// changing is held for a whole command: the Book is read, the file
	// written, the Book changed. Only its holder changes the Book.
	changing sync.Mutex
	// reading guards the Book in memory, for as long as no disk is waited for.
	reading sync.RWMutex
	book    *book.Book

	// force holds what is in force for each account.
	force sync.Map

	capacities capacities
	reads      reads
	slacks     slacks
	counts     counts
	preparing  preparations

	running     keys
	hub         hub
	bells       bells
	presences   presences
	windows     windows
	importings  importings
	desktop     desktop
	next        atomic.Int64 // when an answer next changes by time alone, Unix milliseconds
	nextTidying atomic.Int64 // when it is next tidied, Unix milliseconds
	nextCopy    atomic.Int64 // when it is next copied, Unix milliseconds
	// wake lets the scheduler look at what is due.
	wake    atomic.Pointer[context.CancelFunc]
	toIndex chan struct{}
	// readers has room for as many readers as there are processors. A change waits for those that
	// read when it is applied: twenty that share two processors would all be read to their ends
	// before it.
	readers chan struct{}
	bodies  Bodies
	stop    context.CancelFunc
	done    sync.WaitGroup
}

// The years in which Open begins: dates end with the year 9999 (RFC 5545), and what comes after today
// is looked for over centuries.
const (
	firstYear = 1900
	lastYear  = 9000
)

// ErrClock means that the clock stands where no date can be reckoned from.
var ErrClock = term.Fail(term.Refused, "the clock is wrong")

// Open opens the data file and loads the Book. The errors are the store's, ErrClock, or a
// *store.DamageError where rows contradict each other.
func Open(ctx context.Context, path string, source clock.Source, settings Settings, log *slog.Logger) (*App, error) {
	if now := source.Now(); now.Year() < firstYear || now.Year() > lastYear {
		return nil, fmt.Errorf("%w: it says %s, and a year from %d to %d is wanted. Set it, and start again", ErrClock, now.Format("2 January 2006"), firstYear, lastYear)
	}
	s, err := store.OpenWith(ctx, path, store.Options{Repair: settings.Repair})
	if err != nil {
		return nil, err
	}
	if settings.MaxPages > 0 {
		if err := s.LimitPages(ctx, settings.MaxPages); err != nil {
			return nil, errors.Join(err, s.Close())
		}
	}
	b, err := s.Load(ctx)
	if err != nil {
		return nil, errors.Join(err, s.Close())
	}
	loop, stop := context.WithCancel(context.WithoutCancel(ctx))
	a := &App{store: s, clock: source, settings: settings, log: log, book: b,
		hub: newHub(), toIndex: make(chan struct{}, 1), readers: make(chan struct{}, runtime.GOMAXPROCS(0)), stop: stop, desktop: desktop{changed: make(chan struct{}, 1)}}
	for _, s := range a.everyone() {
		a.settle(s.desk)
	}
	if err := a.mend(ctx); err != nil {
		stop()
		return nil, errors.Join(err, s.Close())
	}
	if err := a.tidy(ctx); err != nil {
		log.Warn("old history stays for now", "error", err)
	} else if err := s.Compact(ctx); err != nil {
		log.Warn("the data file keeps its size for now", "error", err)
	}
	a.openCalendars(loop)
	a.openPresences(ctx)
	a.renewBells()
	a.planNextChange()
	a.planTidying()
	a.planCopy()
	a.done.Go(func() { a.schedule(loop, a.sources()) })
	a.done.Go(func() { a.keepIndexed(loop) })
	if settings.Notifier != nil {
		a.done.Go(func() { a.keepDesktop(loop, settings.Notifier) })
	}
	return a, nil
}

// Close waits for the command that runs and closes the file.
func (a *App) Close() error {
	a.stop()
	a.done.Wait()
	a.hub.close()
	a.changing.Lock()
	defer a.changing.Unlock()
	return a.store.Close()
}

// RemakeWith says who makes bodies of replies again that were not kept. It is called
// before the first request.
func (a *App) RemakeWith(bodies Bodies) { a.bodies = bodies }

// Announce records where this process serves the file.
func (a *App) Announce(address string) error { return a.store.Announce(address) }

// Present reports whether the data file is still the one that is open; where it
// is not, the error wraps store.ErrGone and changes are refused.
func (a *App) Present() error { return a.store.Present() }

// MarkDemo marks the data file as one that may be thrown away.
func (a *App) MarkDemo(ctx context.Context) error { return a.store.MarkDemo(ctx) }

// NewID makes an id that sorts by when it was made (RFC 9562, UUIDv7).
func NewID() book.ID { return book.ID(uuid.Must(uuid.NewV7())) }

// Read lets f see the account's desk. f must not keep it, block or change anything. Where f asks
// which notes hold a text, and that is not in memory, it is read from the disk while
// nothing is held up, and f is called again: only its last call counts.
func (a *Session) Read(f func(*book.Desk, day.Clock)) {
	for range readTries {
		missing := a.readHeld(f)
		if len(missing) == 0 {
			return
		}
		for _, text := range missing {
			if _, err := a.store.Holding(text); err != nil {
				a.log.Warn("the notes cannot be looked through", "error", err)
				return // f has met the error too
			}
		}
	}
	a.reading.RLock()
	defer a.reading.RUnlock()
	f(a.desk, a.Clock())
}

// readTries is how often Read lets texts be forgotten again before it waits for the
// disk with the Book held.
const readTries = 5

func (a *Session) readHeld(f func(*book.Desk, day.Clock)) (missing []string) {
	notes := a.store.HeldNotes()
	a.readers <- struct{}{}
	defer func() { <-a.readers }()
	a.reading.RLock()
	defer a.reading.RUnlock()
	c := a.Clock()
	f(a.desk.With(notes, &lateSlack{session: a, clock: c}), c)
	return notes.Missing
}

// Check proves whether a filter can hold, of the lists, tags and people there are by
// now. Nothing waits for it.
func (a *Session) Check(f filter.Filter) filter.Answer {
	var places *book.Desk
	var clock day.Clock
	a.Read(func(b *book.Desk, c day.Clock) { places, clock = b.Arrangement(), c })
	return f.Check(places, clock)
}

// Note returns the text of a to-do's notes, for one who reads.
func (a *Session) Note(t *book.Todo) (string, error) {
	if t.NotesSize == 0 {
		return "", nil
	}
	return a.store.Note(t.ID)
}

// HangUp ends every listener's stream; new ones end at once.
func (a *App) HangUp() { a.hub.close() }
