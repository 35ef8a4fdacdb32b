package store

import (
	"context"
	"database/sql"
	"fmt"
	"sync"
	"sync/atomic"
	"time"
)

// The log is written back into the file after about writeBackAfter statements, each of which puts a
// page or a few into it, on a connection of its own: a change that did it by the way would take as
// long as all the pages that have come together, which are many where an export or a copy has read
// the file as it was. Where that does not help, since the log is longer than longestLog pages, the
// next change does it.
const (
	writeBackAfter = 1000
	longestLog     = 50_000
	// Where not all of it could be written back, it is tried so often, with so long a rest.
	writeBackTries = 10
	writeBackRest  = 100 * time.Millisecond
)

// backWriter writes the log back beside the changes that go into it.
type backWriter struct {
	db     *sql.DB
	writes atomic.Int64 // since it last did
	wake   chan struct{}
	stop   context.CancelFunc
	done   sync.WaitGroup
}

func (s *Store) startWritingBack() error {
	db, err := sql.Open("sqlite", source(s.path, "wal_autocheckpoint(0)"))
	if err != nil {
		return err
	}
	db.SetMaxOpenConns(1)
	ctx, stop := context.WithCancel(context.Background())
	b := &backWriter{db: db, wake: make(chan struct{}, 1), stop: stop}
	s.back = b
	b.done.Go(func() {
		for {
			select {
			case <-ctx.Done():
				return
			case <-b.wake:
			}
			b.writes.Store(0)
			// Only once all of it is written back the log begins anew. What has come meanwhile, or is held
			// by one who reads, is tried again; and in the end with later changes.
			for range writeBackTries {
				if s.Present() != nil {
					break
				}
				if whole, err := writeBack(ctx, b.db, "PASSIVE"); whole || err != nil {
					break
				}
				select {
				case <-ctx.Done():
				case <-time.After(writeBackRest):
				}
			}
		}
	})
	return nil
}

// wrote counts a statement that wrote something.
func (b *backWriter) wrote() {
	if b.writes.Add(1) >= writeBackAfter {
		select {
		case b.wake <- struct{}{}:
		default:
		}
	}
}

func (b *backWriter) close() error {
	if b == nil {
		return nil
	}
	b.stop()
	b.done.Wait()
	return b.db.Close()
}

// settle writes the log back into the file and empties it; whole is false where
// that could not be done to the end.
func (s *Store) settle(ctx context.Context) (whole bool, err error) {
	if whole, err = writeBack(ctx, s.conn, "TRUNCATE"); whole {
		s.presence.emptied()
	}
	return whole, err
}

// writeBack writes the log back into the file, as SQLite's PRAGMA wal_checkpoint has it;
// whole tells whether all of it is.
func writeBack(ctx context.Context, db queryRower, mode string) (whole bool, err error) {
	var busy, pages, moved int
	err = db.QueryRowContext(ctx, fmt.Sprintf("PRAGMA wal_checkpoint(%s)", mode)).Scan(&busy, &pages, &moved)
	return err == nil && busy == 0 && pages == moved, explain(err)
}
