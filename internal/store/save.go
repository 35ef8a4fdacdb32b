package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// Entry is one change with what the history keeps of it.
type Entry struct {
	Change *book.Change
	At     day.Timestamp
	// Window is where it was made.
	Window string
	// Turns is the seq of the entry this one undoes or redoes, else 0.
	Turns int64
	// Final: it cannot be turned round, so its rows are not kept.
	Final bool
	// Packed is what Store.Packed returned for the change; nil where it was not asked.
	Packed []byte
	// Reply answers retries; nil where the request carried no key.
	Reply *Reply
}

// Reply is an answer kept under its Idempotency-Key.
type Reply struct {
	// Account is whose request it answers: a key of one is not another's.
	Account     book.ID
	Key         string
	Fingerprint []byte
	Status      int
	ETag        string
	Location    string
	Body        []byte
	At          day.Timestamp
	// Remake, if set, says what the body can be made of again, with the change of
	// the Revision; then it is not kept, and ReplyTo returns none.
	Remake   string
	Revision int64
}

// Save writes the entries in one transaction. When it returns nil they are on
// the disk, though the rows of a change of many to-dos may have to be found in its
// history; when it fails none of them is.
func (s *Store) Save(ctx context.Context, entries ...Entry) error {
	deferred := len(entries) == 1 && s.backlog.defers(entries[0]) && s.hasRoomFor(ctx, entries[0].Change)
	err := s.transact(ctx, func(w writer) error {
		for _, e := range entries {
			if err := s.backlog.before(w, e); err != nil {
				return err
			}
			save := saveChange
			if deferred {
				save = saveFirst
			}
			if err := save(w, e.Change); err != nil {
				return err
			}
			if err := saveHistory(w, e); err != nil {
				return err
			}
			if e.Reply == nil {
				continue
			}
			if err := s.saveReply(w, e.Reply); err != nil {
				return err
			}
		}
		return nil
	})
	s.backlog.ended(err)
	if err != nil {
		s.held.forget()
		return errors.Join(err, s.loadNames(ctx))
	}
	if deferred {
		s.backlog.add(entries[0].Change)
	}
	for _, e := range entries {
		s.held.follow(e.Change.Notes)
	}
	return nil
}

// SaveReply keeps the answer to a request that changed nothing.
func (s *Store) SaveReply(ctx context.Context, r *Reply) error {
	return s.transact(ctx, func(w writer) error { return s.saveReply(w, r) })
}

// transact runs work within one transaction, or none of it. Before and after, the
// file is still the one at its path: what is written into another is lost.
func (s *Store) transact(ctx context.Context, work func(writer) error) error {
	if err := s.Present(); err != nil {
		return notKept(err)
	}
	if err := ctx.Err(); err != nil {
		return err
	}
	// The end of the context ends the work, and never beginning and ending it: a transaction
	// that outlived it would be in the way of the next.
	whole := writer{context.WithoutCancel(ctx), s}
	if err := whole.exec(begin); err != nil {
		return notKept(explain(err))
	}
	err := work(writer{ctx, s})
	if err == nil {
		if err = whole.exec(commit); err == nil {
			return notKept(s.presence.checkWritten())
		}
	}
	// SQLite has rolled back by itself after some errors, such as a full disk; the first error
	// is the one that matters.
	_ = whole.exec(rollback)
	return notKept(explain(err))
}

// notKept says of an error that it is one of writing; nil stays nil.
func notKept(err error) error {
	if err == nil {
		return nil
	}
	return fmt.Errorf("%w: %w", ErrNotKept, err)
}

// writer runs prepared statements on the connection that writes.
type writer struct {
	ctx   context.Context
	store *Store
}

func (w writer) exec(query string, args ...any) error {
	statement, err := w.prepared(query)
	if err == nil {
		_, err = statement.ExecContext(w.ctx, args...)
		w.store.back.wrote()
	}
	return err
}

// one runs a query for one row.
func (w writer) one(query string, args []any, into ...any) error {
	statement, err := w.prepared(query)
	if err == nil {
		err = statement.QueryRowContext(w.ctx, args...).Scan(into...)
	}
	return err
}

func (w writer) prepared(query string) (*sql.Stmt, error) {
	statement, ok := w.store.statements[query]
	if ok {
		return statement, nil
	}
	statement, err := w.store.conn.PrepareContext(w.ctx, query)
	if err == nil {
		w.store.statements[query] = statement
	}
	return statement, err
}

func saveChange(w writer, c *book.Change) error {
	for _, save := range []func() error{
		func() error { return saveEach(w, c.Actor, c.Shelves, saveShelf) },
		func() error { return saveEach(w, c.Actor, c.Lists, saveList) },
		func() error { return saveEach(w, c.Actor, c.Sections, saveSection) },
		func() error { return saveEach(w, c.Actor, c.Tags, freeTagName) },
		func() error { return saveEach(w, c.Actor, c.Tags, saveTag) },
		func() error { return saveEach(w, c.Actor, c.People, savePerson) },
		func() error { return saveEach(w, c.Actor, c.Views, saveView) },
		func() error { return saveEach(w, c.Actor, c.Settings, saveSettings) },
		func() error { return saveEach(w, c.Actor, c.Calendars, saveCalendar) },
		func() error { return saveEach(w, c.Actor, c.Places, savePlace) },
		func() error { return saveTodos(w, c.Actor, c.Todos) },
		func() error { return saveEach(w, c.Actor, c.Rings, saveRing) },
		func() error { return saveEach(w, c.Actor, c.Notes, saveNote) },
		func() error { return saveWords(w, c) },
	} {
		if err := save(); err != nil {
			return err
		}
	}
	return nil
}

// saveEach saves rows of one kind, as the account changed them.
func saveEach[T any](w writer, account book.ID, diffs []book.Diff[T], save func(writer, id, book.Diff[T]) error) error {
	for _, d := range diffs {
		if err := save(w, id(account), d); err != nil {
			return err
		}
	}
	return nil
}

func saveShelf(w writer, account id, d book.Diff[book.Shelf]) error {
	if d.After == nil {
		return w.exec(deleteShelf, id(d.Before.ID))
	}
	s := d.After
	return w.exec(putShelf, id(s.ID), account, s.Name, s.Position, s.Hours.String(), s.Deleted, s.Revision)
}

func saveList(w writer, account id, d book.Diff[book.List]) error {
	if d.After == nil {
		return w.exec(deleteList, id(d.Before.ID))
	}
	l := d.After
	if err := w.exec(putList, id(l.ID), id(l.Owner), l.Name, l.Colour.String(), l.Order.String(), l.Checklist,
		l.Archived, l.Due.String(), l.Outcome, id(l.With), l.Template.String(), l.Deleted, l.Revision); err != nil {
		return err
	}
	return w.exec(putListPlace, id(l.ID), account, id(l.Shelf), l.Position, l.Pinned)
}

func saveSection(w writer, _ id, d book.Diff[book.Section]) error {
	if d.After == nil {
		return w.exec(deleteSection, id(d.Before.ID))
	}
	s := d.After
	return w.exec(putSection, id(s.ID), id(s.List), s.Name, s.Position, s.Revision)
}

// freeTagName lets go of the name of a tag that gets another: it may be a third
// one's new name, and names are unique at every moment.
func freeTagName(w writer, _ id, d book.Diff[book.Tag]) error {
	if d.Before == nil || d.After == nil || d.Before.Name == d.After.Name {
		return nil
	}
	return w.exec("UPDATE tags SET name = hex(id) WHERE id = ?", id(d.Before.ID))
}

func saveTag(w writer, account id, d book.Diff[book.Tag]) error {
	if d.After == nil {
		return w.exec(deleteTag, id(d.Before.ID))
	}
	return w.exec(putTag, id(d.After.ID), account, d.After.Name, d.After.Colour.String(), d.After.Unmade, d.After.Revision)
}

func savePerson(w writer, account id, d book.Diff[book.Person]) error {
	if d.After == nil {
		return w.exec(deletePerson, id(d.Before.ID))
	}
	p := d.After
	return w.exec(putPerson, id(p.ID), account, p.Name, p.Email, p.Phone, p.Note, p.Revision)
}

func saveView(w writer, account id, d book.Diff[book.View]) error {
	if d.After == nil {
		return w.exec(deleteView, id(d.Before.ID))
	}
	v := d.After
	return w.exec(putView, id(v.ID), account, v.Name, v.Question, v.Icon, v.Colour.String(), v.Position, v.Pinned, v.Counted, v.Revision)
}

func saveCalendar(w writer, account id, d book.Diff[book.Calendar]) error {
	if d.After == nil {
		return w.exec(deleteCalendar, id(d.Before.ID))
	}
	c := d.After
	return w.exec(putCalendar, id(c.ID), account, c.Name, c.Colour.String(), c.Address, c.File, c.AllDayTakes, c.Revision)
}

func saveSettings(w writer, account id, d book.Diff[book.Chosen]) error {
	if d.After == nil {
		return w.exec(deleteSettings, account)
	}
	chosen, err := json.Marshal(d.After.Settings)
	if err != nil {
		return err
	}
	return w.exec(putSettings, account, string(chosen), d.After.Revision)
}

func saveNote(w writer, _ id, d book.Diff[book.Note]) error {
	if d.After == nil {
		return w.exec(deleteNote, id(d.Before.ID))
	}
	return w.exec(putNote, id(d.After.ID), d.After.Text)
}

// historyRows is what the history keeps of a change's rows; nil where it cannot be
// turned round.
func (s *Store) historyRows(e Entry) (any, error) {
	switch {
	case e.Final:
		return nil, nil
	case e.Packed != nil:
		return e.Packed, nil
	}
	return s.Packed(e.Change)
}

// Packed is what the history keeps of a change's rows. It may be asked before the
// change's turn to be saved.
func (s *Store) Packed(c *book.Change) ([]byte, error) {
	packed, err := c.Slim().Pack()
	if err != nil {
		return nil, fmt.Errorf("packing change %d: %w", c.Revision, err)
	}
	return s.squeezer.squeeze(packed), nil
}

func saveHistory(w writer, e Entry) error {
	rows, err := w.store.historyRows(e)
	if err != nil {
		return err
	}
	if err := w.exec(putHistory,
		e.Change.Revision, id(e.Change.Actor), e.At, e.Window, string(e.Change.Kind), e.Change.Says, rows, namesFiles(e.Change)); err != nil {
		return err
	}
	if e.Turns == 0 {
		return nil
	}
	return w.exec(turnHistory, e.Change.Revision, e.Turns)
}

// namesFiles reports whether turning a change round needs the bytes of files.
func namesFiles(c *book.Change) bool {
	for _, d := range c.Todos {
		if d.Before != nil && len(d.Before.Attachments) > 0 || d.After != nil && len(d.After.Attachments) > 0 {
			return true
		}
	}
	return false
}

func (s *Store) saveReply(w writer, r *Reply) error {
	s.lastReply++
	s.keys[replyKey{r.Account, r.Key}] = s.lastReply // to look for, whatever comes of the commit
	body := []byte{}
	if r.Remake == "" {
		body = s.squeezer.squeeze(r.Body)
	}
	return w.exec(putReply, s.lastReply, id(r.Account), r.Key, r.Fingerprint, r.Status, r.ETag, r.Location, r.Remake, r.Revision, body, r.At)
}
