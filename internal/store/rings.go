package store

import (
	"context"
	"database/sql"

	"tincup/internal/core/book"
)

const deleteRing = "DELETE FROM rings WHERE id = ?"

var putRing = upsert("rings", "id", "account", "todo", "reminder", "due", "rang", "missed", "acknowledged", "later", "revision")

func saveRing(w writer, account id, d book.Diff[book.Ring]) error {
	if d.After == nil {
		return w.exec(deleteRing, id(d.Before.ID))
	}
	r := d.After
	return w.exec(putRing, id(r.ID), account, id(r.Todo), r.Reminder.String(), r.At.String(), r.Rang, r.Missed, r.Acknowledged, r.Later, r.Revision)
}

func loadRings(ctx context.Context, db *sql.DB, into rowsByAccount) error {
	const query = "SELECT account, id, todo, reminder, due, rang, missed, acknowledged, later, revision FROM rings"
	return each(ctx, db, query, func(r *sql.Rows) error {
		row, account := &book.Ring{}, book.ID{}
		err := r.Scan((*id)(&account), (*id)(&row.ID), (*id)(&row.Todo), text{&row.Reminder}, text{&row.At}, &row.Rang, &row.Missed,
			&row.Acknowledged, &row.Later, &row.Revision)
		c := into.of(account)
		c.Rings = append(c.Rings, book.Diff[book.Ring]{After: row})
		return err
	})
}
