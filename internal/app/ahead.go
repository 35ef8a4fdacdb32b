package app

import (
	"sync"

	"tincup/internal/core/book"
)

// prepared is a change worked out ahead of its turn, and what the history keeps of it.
type prepared struct {
	ahead  *book.Ahead
	packed []byte
	// stale: what came between has to do with it. Guarded by App.reading.
	stale bool
}

// holds reports whether nothing has come between that the change rests on; p may be
// nil. It is asked when its turn has come.
func (p *prepared) holds() bool { return p != nil && !p.stale }

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
		if !waiting.stale && c != waiting.ahead.Change && c.Actor == waiting.ahead.Change.Actor {
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

// workOut works out a change of many to-dos while others still have their turn; nil
// where that fails: then it is met again, and told, when its turn comes. cmd is the
// command that it is the change of, nil for an undo. The caller lets go of it in the end.
func (a *Session) workOut(cmd book.Command, change func(*book.Desk) (*book.Change, error)) *prepared {
	p := &prepared{}
	made := func() bool {
		a.reading.RLock()
		defer a.reading.RUnlock()
		b := a.desk.With(a.store.HeldNotes(), nil)
		c, err := change(b)
		if err != nil || c.Empty() {
			return false
		}
		p.ahead = b.Ahead(c, cmd)
		a.preparing.add(p) // before anything else can be applied
		return true
	}
	if !made() {
		return nil
	}
	var err error
	if p.packed, err = a.store.Packed(p.ahead.Change); err != nil {
		a.letGo(p)
		return nil
	}
	return p
}

// letGo ends the waiting of a change, carried out or not; p may be nil.
func (a *App) letGo(p *prepared) {
	a.preparing.mu.Lock()
	defer a.preparing.mu.Unlock()
	delete(a.preparing.all, p)
}
