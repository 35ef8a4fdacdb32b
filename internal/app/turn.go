package app

import (
	"context"
	"fmt"

	"tincup/internal/core/book"
	"tincup/internal/store"
)

// Undo turns round the latest change made in the request's window, or the one
// with the given revision when it is not 0; those that are passed over are no latest
// change. It fails with store.ErrNothing, or a *BlockedError around a *book.ConflictError.
func (a *Session) Undo(ctx context.Context, req Request, revision int64, respond Responder, passing ...int64) (*store.Reply, error) {
	return a.turn(ctx, req, respond, book.Undo, func() (int64, error) {
		if revision != 0 {
			return a.store.Undoable(ctx, a.Account(), revision)
		}
		return a.store.LastUndoable(ctx, a.Account(), req.Window, passing...)
	})
}

// BlockedError is a change that cannot be turned round as things stand now.
type BlockedError struct {
	// Revision is that of the change, and Says what History says of it.
	Revision int64
	Says     string
	// Err is what stands in its way.
	Err error
}

func (e *BlockedError) Error() string {
	return fmt.Sprintf("“%s” is not undone: %s", e.Says, e.Err)
}

// Unwrap returns what stands in its way.
func (e *BlockedError) Unwrap() error { return e.Err }

// Redo turns round the latest undo made in the request's window.
func (a *Session) Redo(ctx context.Context, req Request, respond Responder) (*store.Reply, error) {
	return a.turn(ctx, req, respond, book.Redo, func() (int64, error) {
		return a.store.LastRedoable(ctx, a.Account(), req.Window)
	})
}

// turn turns round what find says. The change is read before anything is held up, and a
// large one turned round; again only where what came between has to do with it.
func (a *Session) turn(ctx context.Context, req Request, respond Responder, kind book.Kind, find func() (int64, error)) (*store.Reply, error) {
	var early *book.Change
	var turned *prepared
	if revision, err := find(); err == nil {
		if early, err = a.store.ChangeAt(ctx, revision); err != nil {
			early = nil // it is met again below
		}
	}
	if early != nil && early.WorthPreparing() {
		turned = a.workOut(ctx, nil, func(b *book.Desk) (*book.Change, error) { return b.Invert(a.env(), early, kind) })
		defer a.letGo(turned)
	}
	return a.carryOut(ctx, req, respond, func(env book.Env, req *Request) (*book.Change, error) {
		revision, err := find()
		if err != nil {
			return nil, err
		}
		change := early
		if change == nil || change.Revision != revision {
			if change, err = a.store.ChangeAt(ctx, revision); err != nil {
				return nil, err
			}
		}
		req.turns = change.Revision
		if change == early && turned.holds(env) {
			return turned.next(a.desk, req), nil
		}
		next, err := a.desk.Invert(env, change, kind)
		if err != nil && kind == book.Undo {
			err = &BlockedError{Revision: change.Revision, Says: change.Says, Err: err}
		}
		return next, err
	})
}
