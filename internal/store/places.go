package store

import (
	"context"
	"database/sql"
	"errors"

	"tincup/internal/core/book"
)

const deletePlace = "DELETE FROM places WHERE id = ?"

var (
	putPlace    = upsert("places", "id", "account", "name", "middle", "radius", "thing", "revision")
	putPresence = upsert("presence", "account", "state")
)

func savePlace(w writer, account id, d book.Diff[book.Place]) error {
	if d.After == nil {
		return w.exec(deletePlace, id(d.Before.ID))
	}
	p := d.After
	return w.exec(putPlace, id(p.ID), account, p.Name, p.Middle.String(), p.Radius, p.Thing, p.Revision)
}

func loadPlaces(ctx context.Context, db *sql.DB, into rowsByAccount) error {
	return each(ctx, db, "SELECT account, id, name, middle, radius, thing, revision FROM places", func(r *sql.Rows) error {
		row, account := &book.Place{}, book.ID{}
		err := r.Scan((*id)(&account), (*id)(&row.ID), &row.Name, text{&row.Middle}, &row.Radius, &row.Thing, &row.Revision)
		c := into.of(account)
		c.Places = append(c.Places, book.Diff[book.Place]{After: row})
		return err
	})
}

// Presence returns what SavePresence kept for an account, JSON; nil where nothing was.
func (s *Store) Presence(ctx context.Context, account book.ID) (state []byte, err error) {
	err = s.read.QueryRowContext(ctx, "SELECT state FROM presence WHERE account = ?", id(account)).Scan(&state)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, nil
	}
	return state, explain(err)
}

// SavePresence keeps at which places an account is, JSON. It is no change of the Book.
func (s *Store) SavePresence(ctx context.Context, account book.ID, state []byte) error {
	return s.transact(ctx, func(w writer) error { return w.exec(putPresence, id(account), string(state)) })
}
