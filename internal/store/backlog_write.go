package store

import (
	"context"
	"database/sql"
	"errors"
	"slices"
	"syscall"
	"time"

	"tincup/internal/core/book"
)

// writeSome writes some of the rows that wait, for about as long as indexingTurn, and reports
// whether more do.
func (s *Store) writeSome(ctx context.Context) (more bool, err error) {
	b := &s.backlog
	begun := time.Now()
	next := b.next
	err = s.transact(ctx, func(w writer) error {
		for {
			var some []int
			if some, next = b.some(next, b.atOnce); len(some) == 0 {
				return b.finish(w)
			}
			if err := b.write(w, some); err != nil || time.Since(begun) >= b.turn {
				return err
			}
		}
	})
	b.ended(err)
	if err == nil && b.change != nil {
		b.next = next
	}
	return b.change != nil, err
}

// writeRest writes all that waits.
func (s *Store) writeRest(ctx context.Context) error {
	if s.backlog.empty() {
		return nil
	}
	err := s.transact(ctx, s.backlog.rest)
	s.backlog.ended(err)
	return err
}

// resume writes what waited when the file was last closed, of what the history has of it. A row
// that is of the change's revision or a later one was written then.
func (s *Store) resume(ctx context.Context) error {
	var seq int64
	err := s.conn.QueryRowContext(ctx, "SELECT seq FROM backlog").Scan(&seq)
	if errors.Is(err, sql.ErrNoRows) {
		return nil
	}
	if err != nil {
		return err
	}
	c, err := s.ChangeAt(ctx, seq)
	if err != nil {
		return err
	}
	todos := c.Todos
	c.Todos = nil
	left := map[book.ID]bool{}
	for _, d := range todos {
		now, err := s.rowOf(ctx, todoOf(d))
		switch {
		case err != nil:
			return err
		case now != nil && now.Revision >= seq, now == nil && d.Before != nil:
			continue
		case now != nil && d.Before != nil && d.After != nil:
			d = book.Diff[book.Todo]{Before: now, After: book.Redone(now, d)}
		}
		left[todoOf(d)] = true
		c.Todos = append(c.Todos, d)
	}
	c.Notes = slices.DeleteFunc(c.Notes, func(d book.Diff[book.Note]) bool { return !left[noteOf(d)] })
	s.backlog.add(c)
	return s.writeRest(ctx)
}

// rowOf reads the row of a to-do; nil where there is none.
func (s *Store) rowOf(ctx context.Context, todo book.ID) (*book.Todo, error) {
	var found *book.Todo
	err := eachTodo(ctx, s.conn, selectTodos+" WHERE id = ?", func(_ book.ID, t *book.Todo) { found = t }, id(todo))
	return found, err
}

// Rows of a to-do take about todoBytes beside its texts, which are in its row, in the index and in the
// index of names; spareBytes is left on the disk for what else is written there.
const (
	todoBytes  = 1 << 10
	textTimes  = 4
	spareBytes = 32 << 20
)

// hasRoomFor reports whether the rows of a change will find room in the file and on the disk, so that
// it is not acknowledged before it is known to be kept. It estimates, and rather too much.
func (s *Store) hasRoomFor(ctx context.Context, c *book.Change) bool {
	need := int64(len(c.Todos)) * todoBytes
	for _, d := range c.Todos {
		if d.After != nil {
			need += textTimes * int64(len(d.After.Title)+len(d.After.Outcome)+len(d.After.Place))
		}
	}
	for _, d := range c.Notes {
		if d.After != nil {
			need += textTimes * int64(len(d.After.Text))
		}
	}
	pages, free, _, err := s.pages(ctx)
	if err != nil {
		return false
	}
	var most int64
	if err := s.conn.QueryRowContext(ctx, "PRAGMA max_page_count").Scan(&most); err != nil || need > (most-pages+free)*pageSize {
		return false
	}
	// A page is in the log before it is in the file.
	available, err := availableBytes(s.path)
	return err == nil && available > 2*need+spareBytes
}

// availableBytes is how many more bytes the disk takes that a file is on.
func availableBytes(path string) (int64, error) {
	var disk syscall.Statfs_t
	if err := syscall.Statfs(path, &disk); err != nil {
		return 0, err
	}
	return int64(disk.Bavail) * int64(disk.Bsize), nil
}
