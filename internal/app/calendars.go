package app

import (
	"context"
	"maps"
	"slices"
	"sync"
	"sync/atomic"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/store"
)

// Calendars is where calendars of other programs are read. Errors are sentences for the
// person. It is safe for concurrent use.
type Calendars interface {
	// Fetch asks an address for a calendar, unless it is unchanged since what is known.
	Fetch(ctx context.Context, address string, known Validators) (Fetched, error)
	// Read reads the text of a calendar (RFC 5545).
	Read(text []byte, w Window) (Contents, error)
}

// Validators tell whether what an address serves has changed (RFC 9110 section 8.8).
type Validators struct{ ETag, Modified string }

// Fetched is what an address served.
type Fetched struct {
	// Unchanged: it is what it was, and there is no Text.
	Unchanged bool
	Text      []byte
	Validators
}

// Window is the time whose events are wanted, and the zone of times that name none.
type Window struct {
	Local    *time.Location
	From, To time.Time
}

// Contents is what a calendar holds.
type Contents struct {
	// Name is what the calendar calls itself; "" where it does not.
	Name string
	// Events are in the order of their starts.
	Events []plan.Event
	// Problems are sentences about what was not read as it stands; LeftOut is how many
	// events are missing for that.
	Problems []string
	LeftOut  int
}

// CalendarState is what is known of a calendar by now.
type CalendarState struct {
	Contents
	// Changed is when the text was new, Asked when it was last asked for; zero is never.
	Changed, Asked day.Timestamp
	// Problem is what was wrong when it was last asked for; what was read before stands.
	Problem string
	// Asking: an answer is waited for.
	Asking bool
}

const (
	// refreshEvery is how often an address is asked.
	refreshEvery = 15 * time.Minute
	// askedAtOnce is how many addresses are asked at the same time.
	askedAtOnce = 4
	// pastDays is for how many days that are over events are kept.
	pastDays = 35
)

// reads is what was read of all calendars.
type reads struct {
	mu     sync.Mutex
	states map[book.ID]*readState
	// version counts what changes the events of any day.
	version atomic.Int64
	// next is when an address is next to be asked, in Unix milliseconds.
	next atomic.Int64
}

type readState struct {
	CalendarState
	// in and today are the zone and the day for which the text was read; nil where it was not.
	in    *time.Location
	today day.Date
	known Validators
}

// state returns what is known of a calendar; what is nothing yet is begun. The caller holds mu.
func (r *reads) state(calendar book.ID) *readState {
	s := r.states[calendar]
	if s == nil {
		if r.states == nil {
			r.states = map[book.ID]*readState{}
		}
		s = &readState{}
		r.states[calendar] = s
	}
	return s
}

// soon lets what is due be looked for at the next occasion.
func (r *reads) soon() { r.next.Store(0) }

// CalendarState is what is known of a calendar by now.
func (a *Session) CalendarState(calendar book.ID) CalendarState {
	a.reads.mu.Lock()
	defer a.reads.mu.Unlock()
	if s := a.reads.states[calendar]; s != nil {
		return s.CalendarState
	}
	return CalendarState{}
}

// openCalendars reads what is kept of all calendars.
func (a *App) openCalendars(ctx context.Context) {
	if a.settings.Calendars == nil {
		return
	}
	for _, s := range a.everyone() {
		for _, c := range s.calendars() {
			s.openCalendar(ctx, c)
		}
	}
}

// readDue reads what is due and returns when the next is.
func (a *App) readDue(ctx context.Context) time.Time {
	now := a.clock.Now()
	next := now.Add(refreshEvery)
	var work sync.WaitGroup
	slots := make(chan struct{}, askedAtOnce)
	for _, s := range a.everyone() {
		for _, c := range s.calendars() {
			due := s.openCalendar(ctx, c)
			if c.Address == "" {
				continue
			}
			// A clock that was set back is no reason to wait for longer.
			if due.After(now) && due.Before(now.Add(refreshEvery+time.Second)) {
				next = earlier(next, due)
				continue
			}
			slots <- struct{}{}
			work.Go(func() {
				defer func() { <-slots }()
				if err := s.ask(ctx, c); err != nil {
					a.log.Warn("what was read of a calendar could not be kept", "calendar", c.ID, "error", err)
				}
			})
		}
	}
	work.Wait()
	return next
}

func earlier(a, b time.Time) time.Time {
	if b.Before(a) {
		return b
	}
	return a
}

// calendars are copies of the account's rows.
func (a *Session) calendars() (rows []book.Calendar) {
	a.reading.RLock()
	defer a.reading.RUnlock()
	for _, c := range a.desk.Calendars() {
		rows = append(rows, *c)
	}
	return rows
}

// window is the time whose events are kept, as the account's clock has it.
func (a *Session) window() (Window, day.Date) {
	c := a.Clock()
	today := c.Today()
	return Window{c.Zone, c.StartOf(today.AddDays(-pastDays)), c.StartOf(today.AddDays(ahead + 1))}, today
}

// openCalendar reads what is kept of a calendar where that has not been done for this zone
// and day, and returns when it is to be asked for next.
func (a *Session) openCalendar(ctx context.Context, c book.Calendar) time.Time {
	w, today := a.window()
	a.reads.mu.Lock()
	s := a.reads.state(c.ID)
	due := func() time.Time { return s.Asked.Time().Add(refreshEvery) }
	current := s.in != nil && s.in.String() == w.Local.String() && s.today == today
	a.reads.mu.Unlock()
	if !current {
		feed, err := a.store.Feed(ctx, c.ID)
		if err != nil {
			a.log.Warn("what was read of a calendar cannot be opened", "calendar", c.ID, "error", err)
			return a.clock.Now().Add(refreshEvery)
		}
		if feed == nil {
			feed = &store.Feed{Calendar: c.ID}
		}
		var contents Contents
		if len(feed.Text) > 0 {
			if contents, err = a.settings.Calendars.Read(feed.Text, w); err != nil {
				feed.Problem = err.Error()
			}
		}
		a.know(feed, contents, w, today)
		a.tellEvents()
	}
	a.reads.mu.Lock()
	defer a.reads.mu.Unlock()
	return due()
}

// know takes what was read into memory.
func (a *App) know(f *store.Feed, contents Contents, w Window, today day.Date) {
	a.reads.mu.Lock()
	defer a.reads.mu.Unlock()
	s := a.reads.state(f.Calendar)
	s.Contents, s.in, s.today = contents, w.Local, today
	s.Changed, s.Asked, s.Problem = f.Changed, f.Asked, f.Problem
	s.known = Validators{f.ETag, f.Modified}
	a.reads.version.Add(1)
}

// tellEvents tells the windows that answers have changed without a change of rows.
func (a *Session) tellEvents() {
	a.hub.send(a.Account(), Event{Kind: TimePassed, Revision: a.Revision()})
}

// Refresh asks for a calendar now. The error is a *book.NotFoundError, or what the disk
// says; what is wrong with the calendar is said by its state.
func (a *Session) Refresh(ctx context.Context, calendar book.ID) error {
	for _, c := range a.calendars() {
		if c.ID == calendar {
			if c.Address == "" {
				return &book.RuleError{Field: "id", Reason: "“" + c.Name + "” came from a file and has no address to ask. Add the file anew."}
			}
			a.openCalendar(ctx, c)
			return a.ask(ctx, c)
		}
	}
	return &book.NotFoundError{Kind: "calendar", ID: calendar}
}

// ask asks the address of a calendar, and keeps what it says. One that is being asked is
// not asked again.
func (a *Session) ask(ctx context.Context, c book.Calendar) error {
	a.reads.mu.Lock()
	s := a.reads.state(c.ID)
	busy, known := s.Asking, s.known
	s.Asking = true
	if s.Changed.IsZero() {
		known = Validators{}
	}
	a.reads.mu.Unlock()
	if busy {
		return nil
	}
	defer func() {
		a.reads.mu.Lock()
		s.Asking = false
		a.reads.mu.Unlock()
	}()
	fetched, err := a.settings.Calendars.Fetch(ctx, c.Address, known)
	w, today := a.window()
	var contents Contents
	if err == nil && !fetched.Unchanged {
		contents, err = a.settings.Calendars.Read(fetched.Text, w)
	}
	if ctx.Err() != nil {
		return nil // the program ends, or who asked has gone: nothing is known
	}
	now := day.TimestampOf(a.clock.Now())
	feed := &store.Feed{Calendar: c.ID, ETag: known.ETag, Modified: known.Modified, Asked: now}
	switch {
	case err != nil:
		feed.Problem = err.Error()
		a.log.Warn("a calendar could not be read; what was read before stands", "calendar", c.ID, "problem", err)
	case !fetched.Unchanged:
		feed.Text, feed.Changed = fetched.Text, now
		feed.ETag, feed.Modified = fetched.ETag, fetched.Modified
	}
	return a.keepFeed(ctx, c, feed, contents, w, today)
}

// keepFeed writes what was read to the disk, and then lets it count. A calendar that was
// removed while it was asked keeps what it had.
func (a *Session) keepFeed(ctx context.Context, c book.Calendar, f *store.Feed, contents Contents, w Window, today day.Date) error {
	a.changing.Lock()
	defer a.changing.Unlock()
	if _, err := a.desk.Calendar(c.ID); err != nil {
		return nil
	}
	if err := a.store.SaveFeed(ctx, f); err != nil {
		return err
	}
	if f.Text != nil {
		a.know(f, contents, w, today)
	} else {
		a.reads.mu.Lock()
		s := a.reads.state(c.ID)
		s.Asked, s.Problem = f.Asked, f.Problem
		a.reads.mu.Unlock()
	}
	a.tellEvents()
	return nil
}

// events are those of an account's calendars, for one who reads its desk, and a number that
// is another once they have changed.
func (a *Session) events(desk *book.Desk) (all []plan.Event, version int64) {
	version = a.reads.version.Load()
	a.reads.mu.Lock()
	defer a.reads.mu.Unlock()
	for _, c := range desk.Calendars() {
		s := a.reads.states[c.ID]
		if s == nil {
			continue
		}
		at := len(all)
		all = append(all, s.Events...)
		for i := range all[at:] {
			e := &all[at+i]
			e.Calendar = c.ID
			e.Busy = e.Busy && (!e.AllDay || c.AllDayTakes)
		}
	}
	slices.SortStableFunc(all, func(a, b plan.Event) int { return a.From.Compare(b.From) })
	return all, version
}

// sweepFeeds lets go of what was read of calendars that are gone for good.
func (a *App) sweepFeeds(ctx context.Context, upTo time.Time) error {
	a.changing.Lock()
	defer a.changing.Unlock()
	there := map[book.ID]bool{}
	for _, s := range a.everyone() {
		for _, c := range s.desk.Calendars() {
			there[c.ID] = true
		}
	}
	a.reads.mu.Lock()
	maps.DeleteFunc(a.reads.states, func(id book.ID, _ *readState) bool { return !there[id] })
	a.reads.mu.Unlock()
	return a.store.SweepFeeds(ctx, day.TimestampOf(upTo.AddDate(0, 0, -book.BinDays)))
}
