package store

import (
	"context"
	"database/sql"
	"errors"

	"tincup/internal/core/book"
)

// mostSnapshots is how many snapshots are open at the same time; who wants one more waits.
const mostSnapshots = 4

// Snapshot is the data file as it was when the Snapshot began, for one who reads for long: what is
// saved meanwhile waits for nothing, and does not reach it. It implements book.Notes.
type Snapshot struct {
	store *Store
	conn  *sql.Conn
	note  *sql.Stmt
	// waiting are notes that had not been written when it began.
	waiting map[book.ID]string
}

// Snapshot takes a connection for a Snapshot, and waits until one of a few is free. The caller
// closes it.
func (s *Store) Snapshot(ctx context.Context) (*Snapshot, error) {
	conn, err := s.still.Conn(ctx)
	if err != nil {
		return nil, explain(err)
	}
	return &Snapshot{store: s, conn: conn}, nil
}

// Begin fixes what the Snapshot holds. It must be called once, before anything is read, and while
// nothing is saved: then the Snapshot holds what the Book holds.
func (n *Snapshot) Begin(ctx context.Context) error {
	if _, err := n.conn.ExecContext(ctx, "BEGIN"); err != nil {
		return explain(err)
	}
	n.waiting = n.store.backlog.texts()
	var seq int64 // the first that is read fixes the rest (SQLite's documentation, "Isolation In SQLite")
	err := n.conn.QueryRowContext(ctx, "SELECT tidied FROM installation").Scan(&seq)
	return explain(err)
}

// Note implements book.Notes.
func (n *Snapshot) Note(todo book.ID) (text string, err error) {
	if text, ok := n.waiting[todo]; ok {
		return text, nil
	}
	ctx := context.Background()
	if n.note == nil {
		if n.note, err = n.conn.PrepareContext(ctx, selectNote); err != nil {
			return "", explain(err)
		}
	}
	err = n.note.QueryRowContext(ctx, id(todo)).Scan(&text)
	if errors.Is(err, sql.ErrNoRows) {
		return "", nil
	}
	return text, explain(err)
}

// Holding implements book.Notes.
func (n *Snapshot) Holding(text string) (map[book.ID]bool, error) {
	return holding(n.conn, text, n.waiting)
}

// Close ends the Snapshot and gives its connection back.
func (n *Snapshot) Close() error {
	var err error
	if n.note != nil {
		err = n.note.Close()
	}
	// Without a transaction, as where Begin failed or was not called, this is an error of no matter.
	_, _ = n.conn.ExecContext(context.Background(), "ROLLBACK")
	return errors.Join(err, n.conn.Close())
}
