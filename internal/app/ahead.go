package app

import (
	"context"
	"sync"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// prepared is a change worked out ahead of its turn, and what the history keeps of it.
type prepared struct {
	actor  book.ID
	ahead  *book.Ahead
	packed []byte
	// since are the changes of the actor that were applied while this one was being worked out;
	// nil once it is.
	since []*book.Change
	// today is the day that it was worked out for.
	today day.Date
	// stale: what came between has to do with it. since and stale are guarded by App.reading.
	stale bool
}

// mostSince is how many changes may come while another is worked out; more make it stale.
const mostSince = 1000

// holds reports whether nothing has come between that the change rests on, neither another
// change nor another day; p may be nil. It is asked when its turn has come.
func (p *prepared) holds(env book.Env) bool {
	return p != nil && !p.stale && p.today == env.Clock.Today()
}

// next is the change as the next one of the Book.
func (p *prepared) next(b *book.Desk, req *Request) *book.Change {
	req.packed = p.packed
	p.ahead.Change.At(b.Revision() + 1)
	return p.ahead.Change
}

// preparations are the changes that are worked out and wait for their turn.
type preparations struct {
	mu  sync.Mutex
	all map[*prepared]bool
}

// follow tells those that wait of a change that has just been applied.
func (p *preparations) follow(b *book.Book, c *book.Change) {
	p.mu.Lock()
	defer p.mu.Unlock()
	desk, err := b.Desk(c.Actor)
	if err != nil {
		return
	}
	for waiting := range p.all {
		switch {
		case waiting.stale || c.Actor != waiting.actor:
		case waiting.ahead == nil:
			waiting.since = append(waiting.since, c)
			waiting.stale = len(waiting.since) > mostSince
		case c != waiting.ahead.Change:
			waiting.stale = !waiting.ahead.Apart(desk, c)
		}
	}
}

func (p *preparations) add(one *prepared) {
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.all == nil {
		p.all = map[*prepared]bool{}
	}
	p.all[one] = true
}

// workOut works out a change of many to-dos while others still have their turn, at a still desk;
// nil where that fails: then it is met again, and told, when its turn comes. cmd is the command
// that it is the change of, nil for an undo. The caller lets go of it in the end.
func (a *Session) workOut(ctx context.Context, cmd book.Command, work func(*book.Desk) (*book.Change, error)) *prepared {
	a.caughtUp(ctx)
	notes, err := a.store.Snapshot(ctx)
	if err != nil {
		return nil
	}
	p := &prepared{actor: a.Account()}
	desk, c, err := a.stand(ctx, notes, func() { a.preparing.add(p) })
	var ahead *book.Ahead
	if err == nil {
		p.today = c.Today()
		var change *book.Change
		if change, err = work(desk); err == nil && !change.Empty() {
			ahead = desk.Ahead(change, cmd)
		}
	}
	if notes.Close() != nil || err != nil || ahead == nil {
		a.letGo(p)
		return nil
	}
	if p.packed, err = a.store.Packed(ahead.Change); err != nil {
		a.letGo(p)
		return nil
	}
	a.reading.RLock()
	defer a.reading.RUnlock()
	for _, c := range p.since {
		p.stale = p.stale || !ahead.Apart(a.desk, c)
	}
	p.ahead, p.since = ahead, nil
	return p
}

// letGo ends the waiting of a change, carried out or not; p may be nil.
func (a *App) letGo(p *prepared) {
	a.preparing.mu.Lock()
	defer a.preparing.mu.Unlock()
	delete(a.preparing.all, p)
}
