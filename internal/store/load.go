package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"slices"

	"tincup/internal/core/book"
)

// rowsByAccount are the rows of each account, as one change that makes them.
type rowsByAccount map[book.ID]*book.Change

func (r rowsByAccount) of(account book.ID) *book.Change {
	c, ok := r[account]
	if !ok {
		c = &book.Change{Actor: account}
		r[account] = c
	}
	return c
}

// Load reads the whole Book but for the text of notes, once what waits is
// written. What is of no account that there
// is makes the file damaged.
func (s *Store) Load(ctx context.Context) (*book.Book, error) {
	if err := s.writeRest(ctx); err != nil {
		return nil, err
	}
	rows := rowsByAccount{}
	var revision int64
	accounts, err := s.accounts(ctx)
	steps := []func() error{
		func() error { return err },
		func() error {
			return s.read.QueryRowContext(ctx, "SELECT coalesce(max(seq), 0) FROM history").Scan(&revision)
		},
		func() error { return loadShelves(ctx, s.read, rows) },
		func() error { return loadLists(ctx, s.read, rows) },
		func() error { return loadSections(ctx, s.read, rows) },
		func() error { return loadTags(ctx, s.read, rows) },
		func() error { return loadPeople(ctx, s.read, rows) },
		func() error { return loadViews(ctx, s.read, rows) },
		func() error { return loadSettings(ctx, s.read, rows) },
		func() error { return loadCalendars(ctx, s.read, rows) },
		func() error { return loadPlaces(ctx, s.read, rows) },
		func() error { return loadTodos(ctx, s.read, rows) },
		func() error { return loadRings(ctx, s.read, rows) },
	}
	for _, step := range steps {
		if err := step(); err != nil {
			return nil, fmt.Errorf("reading %s: %w", s.path, explain(err))
		}
	}
	b := book.New(s.CommandNotes(), accounts...)
	b.Load(revision)
	for account, c := range rows {
		if !slices.Contains(accounts, account) {
			return nil, &DamageError{Path: s.path, What: fmt.Sprintf("%s holds rows of an account that is not in it (%s)", s.path, account),
				Remedy: "Put a copy of the file in its place"}
		}
		b.Load(revision, c)
	}
	return b, nil
}

// accounts returns the accounts of the file, the owner first.
func (s *Store) accounts(ctx context.Context) (accounts []book.ID, err error) {
	err = each(ctx, s.read, "SELECT id FROM accounts ORDER BY nth", func(r *sql.Rows) error {
		var account book.ID
		err := r.Scan((*id)(&account))
		accounts = append(accounts, account)
		return err
	})
	if err == nil && len(accounts) == 0 {
		err = &DamageError{Path: s.path, What: s.path + " has no account in it", Remedy: "Put a copy of the file in its place"}
	}
	return accounts, err
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

func loadShelves(ctx context.Context, db *sql.DB, into rowsByAccount) error {
	return each(ctx, db, "SELECT account, id, name, position, hours, deleted, revision FROM shelves", func(r *sql.Rows) error {
		row, account := &book.Shelf{}, book.ID{}
		err := r.Scan((*id)(&account), (*id)(&row.ID), &row.Name, &row.Position, text{&row.Hours}, &row.Deleted, &row.Revision)
		c := into.of(account)
		c.Shelves = append(c.Shelves, book.Diff[book.Shelf]{After: row})
		return err
	})
}

// loadSections reads sections, which are of their list's owner.
func loadSections(ctx context.Context, db *sql.DB, into rowsByAccount) error {
	const query = "SELECT coalesce(l.owner, (SELECT id FROM accounts WHERE nth = 1)), s.id, s.list, s.name, s.position, s.revision FROM sections s LEFT JOIN lists l ON l.id = s.list"
	return each(ctx, db, query, func(r *sql.Rows) error {
		row, owner := &book.Section{}, book.ID{}
		err := r.Scan((*id)(&owner), (*id)(&row.ID), (*id)(&row.List), &row.Name, &row.Position, &row.Revision)
		c := into.of(owner)
		c.Sections = append(c.Sections, book.Diff[book.Section]{After: row})
		return err
	})
}

func loadLists(ctx context.Context, db *sql.DB, into rowsByAccount) error {
	const query = `SELECT id, owner, name, colour, sorted, checklist, archived, due, outcome, person, template, deleted, revision, shelf, coalesce(position, ''), coalesce(pinned, 0)
		FROM lists LEFT JOIN list_places ON list = id AND account = owner`
	return each(ctx, db, query, func(r *sql.Rows) error {
		row := &book.List{}
		err := r.Scan((*id)(&row.ID), (*id)(&row.Owner), &row.Name, text{&row.Colour}, text{&row.Order}, &row.Checklist,
			&row.Archived, text{&row.Due}, &row.Outcome, (*id)(&row.With), text{&row.Template}, &row.Deleted, &row.Revision, (*id)(&row.Shelf), &row.Position, &row.Pinned)
		c := into.of(row.Owner)
		c.Lists = append(c.Lists, book.Diff[book.List]{After: row})
		return err
	})
}

func loadTags(ctx context.Context, db *sql.DB, into rowsByAccount) error {
	return each(ctx, db, "SELECT account, id, name, colour, unmade, revision FROM tags", func(r *sql.Rows) error {
		row, account := &book.Tag{}, book.ID{}
		err := r.Scan((*id)(&account), (*id)(&row.ID), &row.Name, text{&row.Colour}, &row.Unmade, &row.Revision)
		c := into.of(account)
		c.Tags = append(c.Tags, book.Diff[book.Tag]{After: row})
		return err
	})
}

func loadPeople(ctx context.Context, db *sql.DB, into rowsByAccount) error {
	return each(ctx, db, "SELECT account, id, name, email, phone, note, revision FROM people", func(r *sql.Rows) error {
		row, account := &book.Person{}, book.ID{}
		err := r.Scan((*id)(&account), (*id)(&row.ID), &row.Name, &row.Email, &row.Phone, &row.Note, &row.Revision)
		c := into.of(account)
		c.People = append(c.People, book.Diff[book.Person]{After: row})
		return err
	})
}

func loadViews(ctx context.Context, db *sql.DB, into rowsByAccount) error {
	const query = "SELECT account, id, name, question, icon, colour, position, pinned, counted, revision FROM views"
	return each(ctx, db, query, func(r *sql.Rows) error {
		row, account := &book.View{}, book.ID{}
		err := r.Scan((*id)(&account), (*id)(&row.ID), &row.Name, &row.Question, &row.Icon, text{&row.Colour}, &row.Position, &row.Pinned, &row.Counted, &row.Revision)
		c := into.of(account)
		c.Views = append(c.Views, book.Diff[book.View]{After: row})
		return err
	})
}

func loadCalendars(ctx context.Context, db *sql.DB, into rowsByAccount) error {
	const query = "SELECT account, id, name, colour, address, file, all_day_takes, revision FROM calendars"
	return each(ctx, db, query, func(r *sql.Rows) error {
		row, account := &book.Calendar{}, book.ID{}
		err := r.Scan((*id)(&account), (*id)(&row.ID), &row.Name, text{&row.Colour}, &row.Address, &row.File, &row.AllDayTakes, &row.Revision)
		c := into.of(account)
		c.Calendars = append(c.Calendars, book.Diff[book.Calendar]{After: row})
		return err
	})
}

func loadSettings(ctx context.Context, db *sql.DB, into rowsByAccount) error {
	return each(ctx, db, "SELECT account, chosen, revision FROM settings", func(r *sql.Rows) error {
		row := &book.Chosen{}
		var chosen []byte
		if err := r.Scan((*id)(&row.Account), &chosen, &row.Revision); err != nil {
			return err
		}
		c := into.of(row.Account)
		c.Settings = append(c.Settings, book.Diff[book.Chosen]{After: row})
		return json.Unmarshal(chosen, &row.Settings)
	})
}
