package app

import (
	"context"
	"sync"

	"tincup/internal/core/book"
)

// EventKind tells listeners what happened.
type EventKind string

// The kinds of events.
const (
	// Changed: rows changed; Revision and Todos say which.
	Changed EventKind = "change"
	// TimePassed: the answers changed because the clock did.
	TimePassed EventKind = "time"
	// Moved: the person came to a place, or left one.
	Moved EventKind = "moved"
	// Reset: what was missed cannot be told any more; read everything again.
	Reset EventKind = "reset"
)

// Event is told to every listener.
type Event struct {
	Kind EventKind
	// Revision is the Book's after the event.
	Revision int64
	// Todos are those that a change touched.
	Todos []book.ID
	// Arranged: lists, shelves or tags changed as well.
	Arranged bool
	// Rings: what rings or has rung may have changed.
	Rings bool
}

func eventOf(c *book.Change) Event {
	e := Event{Kind: Changed, Revision: c.Revision, Arranged: c.Arranges()}
	for _, d := range c.Todos {
		if d.After != nil {
			e.Todos = append(e.Todos, d.After.ID)
		} else {
			e.Todos = append(e.Todos, d.Before.ID)
		}
	}
	return e
}

// catchUp is how many missed changes are told one by one.
const catchUp = 500

// Subscribe returns what happened after revision since (all of it, or a Reset)
// and a channel with what happens from now on. The channel is closed when the
// listener falls too far behind or the App closes; the listener then
// subscribes again. A negative since catches up on nothing. cancel must be
// called once.
func (a *Session) Subscribe(ctx context.Context, since int64) (missed []Event, coming <-chan Event, cancel func(), err error) {
	// No command runs while it is fixed with which revision to begin.
	a.changing.Lock()
	listener := a.hub.join(a.Account())
	current := a.book.Revision()
	a.changing.Unlock()

	missed, err = a.missed(ctx, since, current)
	if err != nil {
		a.hub.leave(listener)
		return nil, nil, nil, err
	}
	return missed, listener, func() { a.hub.leave(listener) }, nil
}

func (a *Session) missed(ctx context.Context, since, current int64) ([]Event, error) {
	if since < 0 || since == current {
		return nil, nil
	}
	reset := []Event{{Kind: Reset, Revision: current}}
	oldest, err := a.store.OldestChange(ctx)
	if err != nil {
		return nil, err
	}
	if since > current || since+1 < oldest {
		return reset, nil
	}
	changes, err := a.store.ChangesSince(ctx, a.Account(), since, catchUp+1)
	if err != nil {
		return nil, err
	}
	if len(changes) > catchUp {
		return reset, nil
	}
	var events []Event
	for _, c := range changes {
		if c.Revision <= current { // what came after is told by the listener
			e := eventOf(c)
			e.Rings = true // what of the desk has to do with it was another then
			events = append(events, e)
		}
	}
	return events, nil
}

// hub hands events to listeners and never waits for a slow one.
type hub struct {
	mu sync.Mutex
	// listeners are of an account each.
	listeners map[chan Event]book.ID
	closed    bool
}

func newHub() hub { return hub{listeners: map[chan Event]book.ID{}} }

func (h *hub) join(account book.ID) chan Event {
	h.mu.Lock()
	defer h.mu.Unlock()
	ch := make(chan Event, 256)
	if h.closed {
		close(ch)
		return ch
	}
	h.listeners[ch] = account
	return ch
}

func (h *hub) leave(ch chan Event) {
	h.mu.Lock()
	defer h.mu.Unlock()
	h.end(ch)
}

// end closes a listener's channel, once. The caller holds mu.
func (h *hub) end(ch chan Event) {
	if _, listens := h.listeners[ch]; listens {
		delete(h.listeners, ch)
		close(ch)
	}
}

// send tells the listeners of an account.
func (h *hub) send(account book.ID, e Event) {
	h.tell(e, func(listener book.ID) bool { return listener == account })
}

// sendAll tells every listener, of what is no account's own.
func (h *hub) sendAll(e Event) { h.tell(e, func(book.ID) bool { return true }) }

func (h *hub) tell(e Event, concerns func(account book.ID) bool) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for ch, account := range h.listeners {
		if !concerns(account) {
			continue
		}
		select {
		case ch <- e:
		default:
			h.end(ch)
		}
	}
}

func (h *hub) close() {
	h.mu.Lock()
	defer h.mu.Unlock()
	h.closed = true
	for ch := range h.listeners {
		h.end(ch)
	}
}
