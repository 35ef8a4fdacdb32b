package app

import (
	"context"
	"errors"
	"io"
	"io/fs"
	"slices"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
	"tincup/internal/store"
)

// Everything is all that an account has, but for the bytes of attached files.
type Everything struct {
	Rows  *book.Change
	Items []exchange.Item
	World exchange.World
	// Done is what was done, the oldest first.
	Done []store.Past
	// Calendars are the texts of calendars as they were last read.
	Calendars map[book.ID][]byte
}

// Everything returns all that the account has, as of one moment but for what is read again: the
// history and calendars.
func (a *Session) Everything(ctx context.Context) (e Everything, err error) {
	e.World = a.World()
	e.World.Name = "Tin Cup"
	err = a.still(ctx, func(b *book.Desk, _ day.Clock) error {
		if e.Rows, err = b.Whole(); err == nil {
			e.Items, err = exchange.Take(b, exchange.Everything(b))
		}
		return err
	})
	if err != nil {
		return e, err
	}
	for before := int64(0); ; {
		past, err := a.store.History(ctx, a.Account(), before, MaxHistory, 0)
		if err != nil {
			return e, err
		}
		if len(past) == 0 {
			break
		}
		e.Done = append(e.Done, past...)
		before = past[len(past)-1].Seq
	}
	slices.Reverse(e.Done)
	e.Calendars = map[book.ID][]byte{}
	for _, d := range e.Rows.Calendars {
		feed, err := a.store.Feed(ctx, d.After.ID)
		if err != nil {
			return e, err
		}
		if feed != nil && len(feed.Text) > 0 {
			e.Calendars[d.After.ID] = feed.Text
		}
	}
	return e, nil
}

// OpenKept opens the bytes of an attached file by their hash; nil where they are lost.
func (a *App) OpenKept(hash string) (io.ReadCloser, error) {
	f, err := a.store.OpenFile(hash)
	if errors.Is(err, fs.ErrNotExist) || errors.Is(err, store.ErrAltered) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	return f, nil
}

// Luggage is what comes with rows that move in.
type Luggage interface {
	// Files are the hashes of attached files.
	Files() []string
	Open(hash string) (io.ReadCloser, error)
	// Calendar is the text of a calendar; nil for none.
	Calendar(book.ID) ([]byte, error)
}

// LookAtMoving works out whether rows can move in, and changes nothing. The error is a
// *book.RuleError.
func (a *Session) LookAtMoving(ctx context.Context, rows *book.Change) error {
	env := a.env()
	return a.still(ctx, func(b *book.Desk, _ day.Clock) error {
		_, err := b.Do(env, book.MoveIn{Rows: rows})
		return err
	})
}

// MoveIn takes everything of another installation into this one, which must be empty: one change,
// with one undo. Attached files are kept before it; where it fails they go again by themselves.
// progress may be nil; where it is stopped nothing is kept.
func (a *Session) MoveIn(ctx context.Context, req Request, rows *book.Change, with Luggage, respond Responder, progress *Importing) (*store.Reply, error) {
	cmd := book.MoveIn{Rows: rows}
	if err := a.LookAtMoving(ctx, rows); err != nil && req.Key == "" { // a retry finds it moved in
		return nil, err
	}
	var kept []store.File
	err := a.keepAll(with, &kept, progress)
	if err == nil {
		err = a.keepCalendars(ctx, rows, with)
	}
	var reply *store.Reply
	if err == nil {
		reply, err = a.Run(ctx, req, cmd, respond)
	}
	settled := err == nil
	for _, f := range kept {
		err = errors.Join(err, a.store.Settle(f, settled))
	}
	if err != nil {
		return nil, err
	}
	a.openCalendars(context.WithoutCancel(ctx))
	return reply, nil
}

func (a *App) keepAll(with Luggage, kept *[]store.File, progress *Importing) error {
	hashes := with.Files()
	told := progress.each(len(hashes))
	for i, hash := range hashes {
		if err := told(i); err != nil {
			return err
		}
		in, err := with.Open(hash)
		if err != nil {
			return err
		}
		f, err := a.store.PutFile(in, book.MaxAttachment)
		if err := errors.Join(err, in.Close()); err != nil {
			return err
		}
		*kept = append(*kept, f)
		if f.Hash != hash {
			return &book.RuleError{Field: "file", Reason: "An attached file has other bytes than its name says: files/" + hash + "."}
		}
	}
	return told(len(hashes))
}

// keepCalendars keeps the texts of calendars that move in, before their rows are there: what is of
// no calendar is swept.
func (a *Session) keepCalendars(ctx context.Context, rows *book.Change, with Luggage) error {
	a.changing.Lock()
	defer a.changing.Unlock()
	now := day.TimestampOf(a.clock.Now())
	for _, d := range rows.Calendars {
		text, err := with.Calendar(d.After.ID)
		if err != nil {
			return err
		}
		if text == nil {
			continue
		}
		if err := a.store.SaveFeed(context.WithoutCancel(ctx), &store.Feed{Calendar: d.After.ID, Text: text, Changed: now, Asked: now}); err != nil {
			return err
		}
	}
	return nil
}
