package app

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"sync"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
	"tincup/internal/store"
)

// Request is what comes with a command.
type Request struct {
	// Window is where it was made; undo goes by window.
	Window string
	// Key makes retries safe; "" for none. Fingerprint tells whether a retry
	// asks for the same.
	Key         string
	Fingerprint []byte
	// Expect, if set, is the state of the row the person saw.
	Expect *Expect
	// final changes cannot be turned round.
	final bool
	// turns is the change this one undoes or redoes.
	turns int64
	// packed is what the history keeps of the change, where that is known already.
	packed []byte
}

// Expect is a row as the person saw it. A Revision of AnyRevision stands for
// whatever it is now.
type Expect struct {
	Kind     book.RowKind
	ID       book.ID
	Revision int64
}

// AnyRevision is the If-Match of "*".
const AnyRevision = -1

// Outcome is a command carried out, for the one who writes the reply.
type Outcome struct {
	Change *book.Change
	Desk   *book.Desk // as it was before
	app    *App
}

// Note returns the notes of a to-do as they are after the change.
func (o *Outcome) Note(t *book.Todo) (string, error) {
	for _, d := range o.Change.Notes {
		if d.After != nil && d.After.ID == t.ID {
			return d.After.Text, nil
		}
	}
	return o.Desk.Note(t)
}

// Responder makes the reply, before anything is kept. It may be nil.
type Responder func(*Outcome) (*store.Reply, error)

// Reasons for which a request is not carried out.
var (
	ErrRunning = term.Fail(term.Conflict, "a request with this Idempotency-Key is still running")
	ErrReused  = term.Fail(term.Refused, "this Idempotency-Key was used with another request")
)

// StaleError says that a row is no longer as the person saw it.
type StaleError struct {
	Kind     book.RowKind
	ID       book.ID
	Revision int64 // what it is now
	// Note is the text of a to-do's notes.
	Note string
	// Changed names the fields altered since.
	Changed []string
}

// Class is Stale.
func (e *StaleError) Class() term.Class { return term.Stale }

func (e *StaleError) Error() string {
	return "the " + string(e.Kind) + " has changed since it was read"
}

// Run carries a command out: it is on the disk, with its reply, before Run
// returns, and in memory and told to listeners after that. A retry gets the
// first reply. Errors are the command's, *StaleError, ErrRunning, ErrReused or
// the store's; then nothing has changed.
func (a *Session) Run(ctx context.Context, req Request, cmd book.Command, respond Responder) (*store.Reply, error) {
	var early *prepared
	if book.WorthPreparing(cmd) {
		early = a.workOut(ctx, cmd, func(b *book.Desk) (*book.Change, error) { return b.Do(a.env(), cmd) })
		defer a.letGo(early)
	}
	return a.carryOut(ctx, req, respond, func(env book.Env, req *Request) (*book.Change, error) {
		if early.holds(env) {
			return early.next(a.desk, req), nil
		}
		return a.desk.Do(env, cmd)
	})
}

func (a *Session) carryOut(ctx context.Context, req Request, respond Responder,
	work func(book.Env, *Request) (*book.Change, error)) (*store.Reply, error) {
	if !a.running.start(a.Account(), req.Key) {
		return nil, ErrRunning
	}
	defer a.running.end(a.Account(), req.Key)
	a.changing.Lock()
	defer a.changing.Unlock()
	// From here on the work is finished even if the client has gone.
	ctx = context.WithoutCancel(ctx)

	if req.Key != "" {
		kept, err := a.store.ReplyTo(ctx, a.Account(), req.Key)
		if err != nil {
			return nil, err
		}
		if kept != nil && !bytes.Equal(kept.Fingerprint, req.Fingerprint) {
			return nil, ErrReused
		}
		if kept != nil && kept.Remake != "" {
			return kept, a.remake(ctx, kept)
		}
		if kept != nil {
			return kept, nil
		}
	}
	if req.Expect != nil {
		if err := a.expect(ctx, *req.Expect); err != nil {
			return nil, err
		}
	}
	if err := a.ringDue(ctx); err != nil { // what came before the command rings before it
		return nil, err
	}
	env := a.env()
	change, err := work(env, &req)
	if err != nil {
		return nil, err
	}
	var reply *store.Reply
	if respond != nil {
		if reply, err = respond(&Outcome{change, a.desk, a.App}); err != nil {
			return nil, fmt.Errorf("writing the reply: %w", err)
		}
		reply.Account, reply.Key, reply.Fingerprint, reply.At = a.Account(), req.Key, req.Fingerprint, day.TimestampOf(env.Clock.Now)
	}
	return reply, a.keep(ctx, req, change, reply)
}

// remake makes the body of a reply again of what the history has of its change.
func (a *Session) remake(ctx context.Context, kept *store.Reply) error {
	change, err := a.store.ChangeAt(ctx, kept.Revision)
	if err == nil {
		kept.Body, err = a.bodies(kept.Remake, change)
	}
	return err
}

// keep writes the change and makes it take effect.
func (a *Session) keep(ctx context.Context, req Request, change *book.Change, reply *store.Reply) error {
	kept := reply
	if req.Key == "" {
		kept = nil
	}
	if change.Empty() {
		if kept == nil {
			return nil
		}
		return a.store.SaveReply(ctx, kept)
	}
	entry := store.Entry{Change: change, At: day.TimestampOf(a.clock.Now()),
		Window: req.Window, Turns: req.turns, Final: req.final, Reply: kept, Packed: req.packed}
	if err := a.store.Save(ctx, entry); err != nil && !a.committed(ctx, entry, err) {
		return err
	}
	a.apply(change)
	if a.store.Indexing() || a.store.Merging() {
		a.wakeIndexer()
	}
	event := eventOf(change)
	event.Rings = aboutRings(a.desk, change)
	a.hub.send(a.Account(), event)
	if event.Rings {
		a.desktop.signal()
	}
	if len(change.Calendars) > 0 {
		a.reads.version.Add(1)
		a.reads.soon()
		a.look()
	}
	if len(change.Settings) > 0 { // what day it is may follow from them, and so every answer
		a.planNextChange()
		a.planTidying()
		a.reads.soon() // times of events may be others in another zone
		a.look()
		a.hub.send(a.Account(), Event{Kind: TimePassed, Revision: change.Revision})
	}
	return nil
}

func (a *App) apply(change *book.Change) {
	a.reading.Lock()
	defer a.reading.Unlock()
	a.book.Apply(change)
	a.preparing.follow(a.book, change)
	a.dueSooner(change)
	desk, err := a.book.Desk(change.Actor)
	if err != nil {
		return
	}
	a.counts.follow(desk, change)
	if len(change.Settings) > 0 {
		a.settle(desk)
		a.bells.renew(desk, a.terms(change.Actor))
	} else {
		a.bells.follow(desk, a.terms(change.Actor), change)
	}
}

// committed asks the file whether a write that reported an error is there all the
// same, so that memory never disagrees with it. A file that is gone is not asked:
// it is still open, and would say so.
func (a *App) committed(ctx context.Context, entry store.Entry, err error) bool {
	if errors.Is(err, store.ErrGone) {
		return false
	}
	kept, err := a.store.Kept(ctx, entry)
	return err == nil && kept
}

func (a *Session) expect(ctx context.Context, want Expect) error {
	is, err := a.desk.RevisionOf(want.Kind, want.ID)
	if err != nil || want.Revision == AnyRevision || is == want.Revision {
		return err
	}
	stale := &StaleError{Kind: want.Kind, ID: want.ID, Revision: is}
	if t, err := a.desk.Todo(want.ID); err == nil {
		if stale.Note, err = a.desk.Note(t); err != nil {
			return err
		}
	}
	stale.Changed, err = a.changedSince(ctx, want)
	if err != nil {
		return err
	}
	return stale
}

func (a *Session) changedSince(ctx context.Context, seen Expect) ([]string, error) {
	oldest, err := a.store.OldestChange(ctx)
	if err != nil {
		return nil, err
	}
	changes, err := a.store.ChangesSince(ctx, a.Account(), seen.Revision, catchUp+1)
	if err != nil {
		return nil, err
	}
	if seen.Revision+1 < oldest || seen.Revision > a.book.Revision() || len(changes) > catchUp {
		return book.FieldNamesOf(seen.Kind), nil // the history does not reach back far enough
	}
	fields := []string{}
	known := map[string]bool{}
	for _, c := range changes {
		for _, f := range c.FieldsOf(seen.Kind, seen.ID) {
			if !known[f] {
				known[f] = true
				fields = append(fields, f)
			}
		}
	}
	return fields, nil
}

// keys is the set of Idempotency-Keys of requests that run now. A key of one account is
// not another's.
type keys struct {
	mu   sync.Mutex
	held map[accountKey]bool
}

type accountKey struct {
	account book.ID
	key     string
}

func (k *keys) start(account book.ID, key string) bool {
	if key == "" {
		return true
	}
	k.mu.Lock()
	defer k.mu.Unlock()
	if k.held[accountKey{account, key}] {
		return false
	}
	if k.held == nil {
		k.held = map[accountKey]bool{}
	}
	k.held[accountKey{account, key}] = true
	return true
}

func (k *keys) end(account book.ID, key string) {
	k.mu.Lock()
	defer k.mu.Unlock()
	delete(k.held, accountKey{account, key})
}
