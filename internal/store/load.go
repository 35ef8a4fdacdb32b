package store

import (
	"context"
	"database/sql"
	"fmt"

	"tincup/internal/core/book"
)

// Load reads the whole Book but for the text of notes.
func (s *Store) Load(ctx context.Context) (*book.Book, error) {
	rows := &book.Change{}
	var revision int64
	steps := []func() error{
		func() error {
			return s.read.QueryRowContext(ctx, "SELECT coalesce(max(seq), 0) FROM history").Scan(&revision)
		},
		func() error { return loadShelves(ctx, s.read, rows) },
		func() error { return loadLists(ctx, s.read, rows) },
		func() error { return loadSections(ctx, s.read, rows) },
		func() error { return loadTags(ctx, s.read, rows) },
		func() error { return loadPeople(ctx, s.read, rows) },
		func() error { return loadViews(ctx, s.read, rows) },
		func() error { return loadTodos(ctx, s.read, rows) },
	}
	for _, step := range steps {
		if err := step(); err != nil {
			return nil, fmt.Errorf("reading %s: %w", s.path, explain(err))
		}
	}
	b := book.New(s.CommandNotes())
	b.Load(revision, rows)
	return b, nil
}

// queryer is a pool of connections, or one of them.
type queryer interface {
	QueryContext(ctx context.Context, query string, args ...any) (*sql.Rows, error)
}

// each runs one query and scans every row of it.
func each(ctx context.Context, db queryer, query string, scan func(*sql.Rows) error, args ...any) error {
	rows, err := db.QueryContext(ctx, query, args...)
	if err != nil {
		return err
	}
	defer rows.Close()
	for rows.Next() {
		if err := scan(rows); err != nil {
			return err
		}
	}
	return rows.Err()
}

func loadShelves(ctx context.Context, db *sql.DB, into *book.Change) error {
	return each(ctx, db, "SELECT id, name, position, deleted, revision FROM shelves", func(r *sql.Rows) error {
		row := &book.Shelf{}
		into.Shelves = append(into.Shelves, book.Diff[book.Shelf]{After: row})
		return r.Scan((*id)(&row.ID), &row.Name, &row.Position, &row.Deleted, &row.Revision)
	})
}

func loadSections(ctx context.Context, db *sql.DB, into *book.Change) error {
	return each(ctx, db, "SELECT id, list, name, position, revision FROM sections", func(r *sql.Rows) error {
		row := &book.Section{}
		into.Sections = append(into.Sections, book.Diff[book.Section]{After: row})
		return r.Scan((*id)(&row.ID), (*id)(&row.List), &row.Name, &row.Position, &row.Revision)
	})
}

func loadLists(ctx context.Context, db *sql.DB, into *book.Change) error {
	const query = `SELECT id, shelf, name, colour, position, sorted, checklist, pinned, archived, template, deleted, revision FROM lists`
	return each(ctx, db, query, func(r *sql.Rows) error {
		row := &book.List{}
		into.Lists = append(into.Lists, book.Diff[book.List]{After: row})
		return r.Scan((*id)(&row.ID), (*id)(&row.Shelf), &row.Name, text{&row.Colour}, &row.Position, text{&row.Order},
			&row.Checklist, &row.Pinned, &row.Archived, text{&row.Template}, &row.Deleted, &row.Revision)
	})
}

func loadTags(ctx context.Context, db *sql.DB, into *book.Change) error {
	return each(ctx, db, "SELECT id, name, colour, revision FROM tags", func(r *sql.Rows) error {
		row := &book.Tag{}
		into.Tags = append(into.Tags, book.Diff[book.Tag]{After: row})
		return r.Scan((*id)(&row.ID), &row.Name, text{&row.Colour}, &row.Revision)
	})
}

func loadPeople(ctx context.Context, db *sql.DB, into *book.Change) error {
	return each(ctx, db, "SELECT id, name, email, phone, note, revision FROM people", func(r *sql.Rows) error {
		row := &book.Person{}
		into.People = append(into.People, book.Diff[book.Person]{After: row})
		return r.Scan((*id)(&row.ID), &row.Name, &row.Email, &row.Phone, &row.Note, &row.Revision)
	})
}

func loadViews(ctx context.Context, db *sql.DB, into *book.Change) error {
	const query = "SELECT id, name, question, icon, colour, position, pinned, counted, revision FROM views"
	return each(ctx, db, query, func(r *sql.Rows) error {
		row := &book.View{}
		into.Views = append(into.Views, book.Diff[book.View]{After: row})
		return r.Scan((*id)(&row.ID), &row.Name, &row.Question, &row.Icon, text{&row.Colour}, &row.Position, &row.Pinned, &row.Counted, &row.Revision)
	})
}
