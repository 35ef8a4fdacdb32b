package store

import (
	"context"
	"database/sql"
	"encoding/json"
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
	// Reply answers retries; nil where the request carried no key.
	Reply *Reply
}

// Reply is an answer kept under its Idempotency-Key.
type Reply struct {
	Key         string
	Fingerprint []byte
	Status      int
	ETag        string
	Location    string
	Body        []byte
	At          day.Timestamp
}

// Save writes the entries in one transaction. When it returns nil they are on
// the disk; when it fails none of them is.
func (s *Store) Save(ctx context.Context, entries ...Entry) (err error) {
	tx, err := s.write.BeginTx(ctx, nil)
	if err != nil {
		return explain(err)
	}
	defer func() {
		if err != nil {
			err = explain(err)
			_ = tx.Rollback() // the first error is the one that matters
		}
	}()
	for _, e := range entries {
		if err := saveChange(ctx, tx, e.Change); err != nil {
			return err
		}
		if err := saveHistory(ctx, tx, e); err != nil {
			return err
		}
		if e.Reply != nil {
			if err := saveReply(ctx, tx, e.Reply); err != nil {
				return err
			}
		}
	}
	return tx.Commit()
}

// SaveReply keeps the answer to a request that changed nothing.
func (s *Store) SaveReply(ctx context.Context, r *Reply) error {
	tx, err := s.write.BeginTx(ctx, nil)
	if err != nil {
		return explain(err)
	}
	if err := saveReply(ctx, tx, r); err != nil {
		_ = tx.Rollback()
		return explain(err)
	}
	return explain(tx.Commit())
}

func saveChange(ctx context.Context, tx *sql.Tx, c *book.Change) error {
	for _, d := range c.Shelves {
		if err := saveShelf(ctx, tx, d); err != nil {
			return err
		}
	}
	for _, d := range c.Lists {
		if err := saveList(ctx, tx, d); err != nil {
			return err
		}
	}
	for _, d := range c.Tags {
		if err := saveTag(ctx, tx, d); err != nil {
			return err
		}
	}
	for _, d := range c.Todos {
		if err := saveTodo(ctx, tx, d); err != nil {
			return err
		}
	}
	for _, d := range c.Notes {
		if err := saveNote(ctx, tx, d); err != nil {
			return err
		}
	}
	return nil
}

func saveShelf(ctx context.Context, tx *sql.Tx, d book.Diff[book.Shelf]) error {
	if d.After == nil {
		return exec(ctx, tx, "DELETE FROM shelves WHERE id = ?", id(d.Before.ID))
	}
	return exec(ctx, tx, "REPLACE INTO shelves (id, name, position, revision) VALUES (?, ?, ?, ?)",
		id(d.After.ID), d.After.Name, d.After.Position, d.After.Revision)
}

func saveList(ctx context.Context, tx *sql.Tx, d book.Diff[book.List]) error {
	if d.After == nil {
		return exec(ctx, tx, "DELETE FROM lists WHERE id = ?", id(d.Before.ID))
	}
	l := d.After
	return exec(ctx, tx, "REPLACE INTO lists (id, shelf, name, colour, position, revision) VALUES (?, ?, ?, ?, ?, ?)",
		id(l.ID), id(l.Shelf), l.Name, l.Colour.String(), l.Position, l.Revision)
}

func saveTag(ctx context.Context, tx *sql.Tx, d book.Diff[book.Tag]) error {
	if d.After == nil {
		return exec(ctx, tx, "DELETE FROM tags WHERE id = ?", id(d.Before.ID))
	}
	return exec(ctx, tx, "REPLACE INTO tags (id, name, colour, revision) VALUES (?, ?, ?, ?)",
		id(d.After.ID), d.After.Name, d.After.Colour.String(), d.After.Revision)
}

func saveTodo(ctx context.Context, tx *sql.Tx, d book.Diff[book.Todo]) error {
	if d.After == nil {
		return exec(ctx, tx, "DELETE FROM todos WHERE id = ?", id(d.Before.ID))
	}
	t := d.After
	// An upsert, not REPLACE: that would delete first and take notes along.
	const upsert = `INSERT INTO todos (id, title, notes_size, list, position, status, priority, start, due, plan,
			created, changed, completed, deleted, revision)
		VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
		ON CONFLICT (id) DO UPDATE SET title = excluded.title, notes_size = excluded.notes_size,
			list = excluded.list, position = excluded.position, status = excluded.status,
			priority = excluded.priority, start = excluded.start, due = excluded.due, plan = excluded.plan,
			created = excluded.created, changed = excluded.changed, completed = excluded.completed,
			deleted = excluded.deleted, revision = excluded.revision`
	if err := exec(ctx, tx, upsert, id(t.ID), t.Title, t.NotesSize, id(t.List), t.Position, t.Status.String(),
		t.Priority.String(), t.Start.String(), t.Due.String(), t.Plan.String(),
		t.Created, t.Changed, t.Completed, t.Deleted, t.Revision); err != nil {
		return err
	}
	if d.Before != nil && sameTags(d.Before.Tags, t.Tags) {
		return nil
	}
	if err := exec(ctx, tx, "DELETE FROM todo_tags WHERE todo = ?", id(t.ID)); err != nil {
		return err
	}
	for nth, tag := range t.Tags {
		if err := exec(ctx, tx, "INSERT INTO todo_tags (todo, nth, tag) VALUES (?, ?, ?)",
			id(t.ID), nth, id(tag)); err != nil {
			return err
		}
	}
	return nil
}

func sameTags(a, b []book.ID) bool {
	if len(a) != len(b) {
		return false
	}
	for i := range a {
		if a[i] != b[i] {
			return false
		}
	}
	return true
}

func saveNote(ctx context.Context, tx *sql.Tx, d book.Diff[book.Note]) error {
	if d.After == nil {
		return exec(ctx, tx, "DELETE FROM notes WHERE todo = ?", id(d.Before.ID))
	}
	return exec(ctx, tx, "REPLACE INTO notes (todo, text) VALUES (?, ?)", id(d.After.ID), d.After.Text)
}

func saveHistory(ctx context.Context, tx *sql.Tx, e Entry) error {
	var rows any
	if !e.Final {
		packed, err := json.Marshal(e.Change)
		if err != nil {
			return fmt.Errorf("packing change %d: %w", e.Change.Revision, err)
		}
		rows = string(packed)
	}
	if err := exec(ctx, tx, "INSERT INTO history (seq, at, made_in, kind, says, rows) VALUES (?, ?, ?, ?, ?, ?)",
		e.Change.Revision, e.At, e.Window, string(e.Change.Kind), e.Change.Says, rows); err != nil {
		return err
	}
	if e.Turns == 0 {
		return nil
	}
	return exec(ctx, tx, "UPDATE history SET turned_by = ? WHERE seq = ?", e.Change.Revision, e.Turns)
}

func saveReply(ctx context.Context, tx *sql.Tx, r *Reply) error {
	return exec(ctx, tx, `INSERT INTO replies (key, fingerprint, status, etag, location, body, at)
		VALUES (?, ?, ?, ?, ?, ?, ?)`, r.Key, r.Fingerprint, r.Status, r.ETag, r.Location, r.Body, r.At)
}

func exec(ctx context.Context, tx *sql.Tx, query string, args ...any) error {
	_, err := tx.ExecContext(ctx, query, args...)
	return err
}
