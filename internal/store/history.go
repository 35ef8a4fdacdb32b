package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// ErrNothing means that there is nothing to turn round.
var ErrNothing = term.Fail(term.Conflict, "nothing to undo or redo")

// passedOver are the kinds of changes that undo in a window passes over, for a list of SQL.
var passedOver = func() string {
	var kinds []string
	for _, k := range book.Aside() {
		kinds = append(kinds, "'"+string(k)+"'")
	}
	return strings.Join(kinds, ", ")
}()

// LastUndoable returns the revision of the latest change that an account made in a window
// and that is not undone, and is none of those that are passed over.
func (s *Store) LastUndoable(ctx context.Context, account book.ID, window string, passing ...int64) (int64, error) {
	over, err := json.Marshal(append([]int64{}, passing...)) // and not null
	if err != nil {
		return 0, err
	}
	return s.revision(ctx, `SELECT seq FROM history WHERE account = ? AND made_in = ? AND kind NOT IN ('undo', `+passedOver+`)
		AND turned_by IS NULL AND rows IS NOT NULL AND seq NOT IN (SELECT value FROM json_each(?)) ORDER BY seq DESC LIMIT 1`, id(account), window, string(over))
}

// LastRedoable returns the revision of the latest undo that an account made in a window
// and that is not redone, unless the window has made a new change since.
func (s *Store) LastRedoable(ctx context.Context, account book.ID, window string) (int64, error) {
	return s.revision(ctx, `SELECT seq FROM history WHERE account = ?2 AND made_in = ?1 AND kind = 'undo'
		AND turned_by IS NULL AND rows IS NOT NULL
		AND seq > (SELECT coalesce(max(seq), 0) FROM history WHERE account = ?2 AND made_in = ?1 AND kind NOT IN ('undo', 'redo', `+passedOver+`))
		ORDER BY seq DESC LIMIT 1`, window, id(account))
}

// Undoable returns the revision it is given, if that change is the account's, can be
// undone and is not.
func (s *Store) Undoable(ctx context.Context, account book.ID, revision int64) (int64, error) {
	return s.revision(ctx, `SELECT seq FROM history WHERE seq = ? AND account = ? AND kind != 'undo'
		AND turned_by IS NULL AND rows IS NOT NULL`, revision, id(account))
}

func (s *Store) revision(ctx context.Context, query string, args ...any) (seq int64, err error) {
	err = s.read.QueryRowContext(ctx, query, args...).Scan(&seq)
	if errors.Is(err, sql.ErrNoRows) {
		return 0, ErrNothing
	}
	return seq, explain(err)
}

// ChangeAt returns the change with a revision, whatever became of it since.
func (s *Store) ChangeAt(ctx context.Context, revision int64) (*book.Change, error) {
	var rows []byte
	var account book.ID
	err := s.read.QueryRowContext(ctx, "SELECT account, rows FROM history WHERE seq = ? AND rows IS NOT NULL", revision).Scan((*id)(&account), &rows)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, ErrNothing
	}
	if err != nil {
		return nil, explain(err)
	}
	return s.unpack(account, revision, rows)
}

// unpack reads what is kept of the change of a revision. The rows are kept as they were
// worked out, which may have been ahead of the change's turn: their own revisions do
// not count.
func (s *Store) unpack(account book.ID, revision int64, rows []byte) (*book.Change, error) {
	c := &book.Change{}
	plain, err := s.squeezer.unsqueeze(rows)
	if err == nil {
		err = json.Unmarshal(plain, c)
	}
	if err != nil {
		return nil, fmt.Errorf("a change kept in the history: %w", err)
	}
	c.By(account)
	c.At(revision)
	return c, nil
}

// ChangesSince returns an account's changes after a revision, oldest first, at most
// limit of them. Those without rows come with their revision and kind alone.
func (s *Store) ChangesSince(ctx context.Context, account book.ID, revision int64, limit int) ([]*book.Change, error) {
	rows, err := s.read.QueryContext(ctx,
		"SELECT seq, kind, rows FROM history WHERE seq > ? AND account = ? ORDER BY seq LIMIT ?", revision, id(account), limit)
	if err != nil {
		return nil, explain(err)
	}
	defer rows.Close()
	var changes []*book.Change
	for rows.Next() {
		var seq int64
		var kind string
		var packed []byte
		if err := rows.Scan(&seq, &kind, &packed); err != nil {
			return nil, explain(err)
		}
		c := &book.Change{Revision: seq, Actor: account, Kind: book.Kind(kind)}
		if packed != nil {
			if c, err = s.unpack(account, seq, packed); err != nil {
				return nil, err
			}
		}
		changes = append(changes, c)
	}
	return changes, explain(rows.Err())
}

// Past is one entry of the history.
type Past struct {
	Seq      int64
	At       day.Timestamp
	Window   string
	Kind     book.Kind
	Says     string
	TurnedBy int64        // the seq that undid or redid it, or 0
	Change   *book.Change // nil where it cannot be turned round
	// Untried: there is a change, and it was left out for its size.
	Untried bool
}

// History returns an account's entries before a seq, the newest first; 0 begins with the newest of
// all. Changes beyond most bytes, as they are kept, are left out of them.
func (s *Store) History(ctx context.Context, account book.ID, before int64, limit, most int) ([]Past, error) {
	rows, err := s.read.QueryContext(ctx, `WITH some AS (SELECT * FROM history WHERE account = ?4 AND (?1 = 0 OR seq < ?1) ORDER BY seq DESC LIMIT ?2)
		SELECT seq, at, made_in, kind, says, CASE WHEN sum(length(rows)) OVER (ORDER BY seq DESC) <= ?3 THEN rows END,
			rows IS NOT NULL, coalesce(turned_by, 0) FROM some ORDER BY seq DESC`, before, limit, most, id(account))
	if err != nil {
		return nil, explain(err)
	}
	defer rows.Close()
	var past []Past
	for rows.Next() {
		var p Past
		var packed []byte
		if err := rows.Scan(&p.Seq, &p.At, &p.Window, &p.Kind, &p.Says, &packed, &p.Untried, &p.TurnedBy); err != nil {
			return nil, explain(err)
		}
		if packed != nil {
			p.Untried = false
			if p.Change, err = s.unpack(account, p.Seq, packed); err != nil {
				return nil, err
			}
		}
		past = append(past, p)
	}
	return past, explain(rows.Err())
}

// OldestChange returns the revision of the oldest change kept, or 0.
func (s *Store) OldestChange(ctx context.Context) (int64, error) {
	var seq int64
	err := s.read.QueryRowContext(ctx, "SELECT coalesce(min(seq), 0) FROM history").Scan(&seq)
	return seq, explain(err)
}

// replyKey is what an answer is kept under.
type replyKey struct {
	account book.ID
	key     string
}

// ReplyTo returns the answer kept under a key of an account, or nil. Like Save it is
// called by one goroutine at a time.
func (s *Store) ReplyTo(ctx context.Context, account book.ID, key string) (*Reply, error) {
	seq, known := s.keys[replyKey{account, key}]
	if !known {
		return nil, nil
	}
	r := &Reply{Account: account, Key: key}
	err := s.conn.QueryRowContext(ctx,
		"SELECT fingerprint, status, etag, location, remake, revision, body, at FROM replies WHERE seq = ? AND account = ? AND key = ?", seq, id(account), key).
		Scan(&r.Fingerprint, &r.Status, &r.ETag, &r.Location, &r.Remake, &r.Revision, &r.Body, &r.At)
	if errors.Is(err, sql.ErrNoRows) { // it was about to be kept when the write failed
		return nil, nil
	}
	if err == nil {
		r.Body, err = s.squeezer.unsqueeze(r.Body)
	}
	return r, explain(err)
}

// loadKeys reads which keys have an answer: nearly every command asks for one
// that has none, and need not wait for the file to say so.
func (s *Store) loadKeys(ctx context.Context) error {
	s.keys = map[replyKey]int64{}
	return explain(each(ctx, s.conn, "SELECT seq, account, key FROM replies", func(r *sql.Rows) error {
		var seq int64
		var key replyKey
		err := r.Scan(&seq, (*id)(&key.account), &key.key)
		s.keys[key] = seq
		s.lastReply = max(s.lastReply, seq)
		return err
	}))
}

// Prune forgets history and replies from before the given instants. The newest
// change always stays. Like Save it is called by one goroutine at a time.
func (s *Store) Prune(ctx context.Context, history, replies day.Timestamp) error {
	if err := s.writeRest(ctx); err != nil { // of which the history may be what is let go
		return err
	}
	err := s.transact(ctx, func(w writer) error {
		if err := w.exec("DELETE FROM replies WHERE at < ?", replies); err != nil {
			return err
		}
		return w.exec("DELETE FROM history WHERE at < ? AND seq < (SELECT max(seq) FROM history)", history)
	})
	if err != nil {
		return err
	}
	return s.loadKeys(ctx)
}

// Tidied returns up to when what is kept for a time has been let go; zero for
// never.
func (s *Store) Tidied(ctx context.Context) (day.Timestamp, error) {
	var at day.Timestamp
	err := s.read.QueryRowContext(ctx, "SELECT tidied FROM installation").Scan(&at)
	return at, explain(err)
}

// SetTidied keeps what Tidied returns. Like Save it is called by one goroutine at
// a time.
func (s *Store) SetTidied(ctx context.Context, at day.Timestamp) error {
	return s.transact(ctx, func(w writer) error { return w.exec("UPDATE installation SET tidied = ?", at) })
}

// Kept reports whether the entry's change is in the file, by all that the history
// has of it. It answers for a write that reported an error and may have come
// through all the same.
func (s *Store) Kept(ctx context.Context, e Entry) (bool, error) {
	rows, err := s.historyRows(e)
	if err != nil {
		return false, err
	}
	var kept bool
	err = s.conn.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM history
		WHERE seq = ? AND account = ? AND at = ? AND made_in = ? AND kind = ? AND says = ? AND rows IS ?)`,
		e.Change.Revision, id(e.Change.Actor), e.At, e.Window, string(e.Change.Kind), e.Change.Says, rows).Scan(&kept)
	return kept, explain(err)
}
