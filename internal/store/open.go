// Package store keeps a Book in one SQLite file: its rows, the history that
// undo needs, and the replies that make retries safe. Every change is one
// transaction that is on the disk before Save returns.
package store

import (
	"context"
	"database/sql"
	"embed"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net/url"
	"os"

	"github.com/pressly/goose/v3"

	"tincup/internal/core/book"
)

//go:embed migrations/*.sql
var migrations embed.FS

// applicationID marks our files in the SQLite header: "TCup".
const applicationID = 0x54437570

// Store is an open data file. Save is called by one goroutine at a time; the
// rest is safe for concurrent use.
type Store struct {
	path string
	lock *Lock
	// conn is the one connection that writes, with its statements; read serves
	// notes and history beside it.
	write, read *sql.DB
	conn        *sql.Conn
	statements  map[string]*sql.Stmt
	updates     map[book.Fields]update
	// keys are those under which a reply is kept.
	keys map[string]bool
	held held
}

// Open takes the lock of the data file, makes the file where there is none,
// brings its schema up to date (after copying it aside) and opens it. Errors
// wrap ErrHeld, ErrNotOurs, ErrNewer, ErrReadOnly, ErrFull or ErrBroken.
func Open(ctx context.Context, path string) (*Store, error) {
	lock, err := Acquire(path)
	if err != nil {
		return nil, err
	}
	s, err := open(ctx, path, lock)
	if err != nil {
		return nil, errors.Join(err, lock.Release())
	}
	return s, nil
}

func open(ctx context.Context, path string, lock *Lock) (*Store, error) {
	fresh, err := inspect(path)
	if err != nil {
		return nil, err
	}
	s := &Store{path: path, lock: lock, updates: map[book.Fields]update{}}
	if fresh {
		if err := mark(ctx, path); err != nil {
			return nil, err
		}
	}
	if s.write, err = sql.Open("sqlite", source(path, "journal_mode(WAL)", "synchronous(FULL)", "foreign_keys(1)")); err != nil {
		return nil, explain(err)
	}
	s.write.SetMaxOpenConns(1)
	// 16 MB of pages: a search walks more of its index than SQLite's own 2 MB hold.
	if s.read, err = sql.Open("sqlite", source(path, "query_only(1)", "cache_size(-16000)")); err != nil {
		return nil, errors.Join(explain(err), s.write.Close())
	}
	s.read.SetMaxOpenConns(4)
	if err = s.migrate(ctx, fresh); err == nil {
		s.conn, err = s.write.Conn(ctx)
	}
	if err == nil {
		s.statements, err = prepare(ctx, s.conn)
	}
	if err == nil {
		err = s.loadKeys(ctx)
	}
	if err != nil {
		return nil, errors.Join(explain(err), s.write.Close(), s.read.Close())
	}
	return s, nil
}

func source(path string, pragmas ...string) string {
	q := url.Values{"_txlock": {"immediate"}, "_pragma": append(pragmas, "busy_timeout(2000)")}
	return "file:" + (&url.URL{Path: path}).EscapedPath() + "?" + q.Encode()
}

// inspect refuses a file that is not ours before SQLite may touch it. fresh is
// true where there is no file, or an empty one.
func inspect(path string) (fresh bool, err error) {
	info, err := os.Stat(path)
	if errors.Is(err, fs.ErrNotExist) {
		return true, nil
	}
	if err != nil {
		return false, fmt.Errorf("%w: %w", ErrBroken, err)
	}
	if !info.Mode().IsRegular() {
		return false, fmt.Errorf("%s: %w: it is not a file", path, ErrNotOurs)
	}
	if info.Mode().Perm()&0o200 == 0 {
		return false, fmt.Errorf("%s: %w", path, ErrReadOnly)
	}
	f, err := os.OpenFile(path, os.O_RDWR, 0)
	if err != nil {
		return false, fmt.Errorf("%w: %w", ErrReadOnly, err)
	}
	header := make([]byte, 100)
	n, err := io.ReadFull(f, header)
	if closing := f.Close(); closing != nil {
		return false, closing
	}
	if n == 0 {
		return true, nil
	}
	// The SQLite file format, section 1.3: magic at 0, application id at 68.
	if err != nil || string(header[:16]) != "SQLite format 3\x00" ||
		binary.BigEndian.Uint32(header[68:]) != applicationID {
		return false, fmt.Errorf("%s: %w; nothing in it was changed", path, ErrNotOurs)
	}
	return false, nil
}

// mark writes our application id with a rollback journal, so that it stands in
// the file itself before the first byte of a write-ahead log exists.
func mark(ctx context.Context, path string) error {
	db, err := sql.Open("sqlite", source(path, "synchronous(FULL)"))
	if err != nil {
		return explain(err)
	}
	_, err = db.ExecContext(ctx, fmt.Sprintf("PRAGMA application_id = %d", applicationID))
	return errors.Join(explain(err), db.Close())
}

func (s *Store) migrate(ctx context.Context, fresh bool) error {
	sub, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, s.write, sub)
	if err != nil {
		return err
	}
	sources := p.ListSources()
	newest := sources[len(sources)-1].Version
	version := int64(0)
	if !fresh {
		if version, err = p.GetDBVersion(ctx); err != nil {
			return err
		}
	}
	if version > newest {
		return fmt.Errorf("%s: %w: it has schema %d, this version knows up to %d", s.path, ErrNewer, version, newest)
	}
	if version > 0 && version < newest {
		if err := s.copyAside(ctx, version); err != nil {
			return err
		}
	}
	_, err = p.Up(ctx)
	return err
}

// copyAside keeps the file as it was before a migration, beside it.
func (s *Store) copyAside(ctx context.Context, version int64) error {
	aside := fmt.Sprintf("%s.schema-%d", s.path, version)
	if err := os.Remove(aside); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	_, err := s.write.ExecContext(ctx, "VACUUM INTO ?", aside)
	return err
}

// demoVersion in the header's user_version marks a file made by the demo, which
// may be thrown away.
const demoVersion = 1

// MarkDemo marks the file as one made by the demo.
func (s *Store) MarkDemo(ctx context.Context) error {
	_, err := s.conn.ExecContext(ctx, fmt.Sprintf("PRAGMA user_version = %d", demoVersion))
	return explain(err)
}

// IsDemo reports whether the file was made by the demo.
func (s *Store) IsDemo(ctx context.Context) (bool, error) {
	var version int
	err := s.read.QueryRowContext(ctx, "PRAGMA user_version").Scan(&version)
	return version == demoVersion, explain(err)
}

// LimitPages lets the file take no more than so many pages of 4096 bytes; a
// change beyond that fails with ErrFull.
func (s *Store) LimitPages(ctx context.Context, pages int) error {
	_, err := s.conn.ExecContext(ctx, fmt.Sprintf("PRAGMA max_page_count = %d", pages))
	return explain(err)
}

// Announce records the address at which this process serves the file.
func (s *Store) Announce(address string) error { return s.lock.Announce(address) }

// Path returns where the data file is.
func (s *Store) Path() string { return s.path }

// Close closes the file and gives up its lock.
func (s *Store) Close() error {
	// With a statement still open SQLite would leave the write-ahead log behind.
	var errs []error
	for _, statement := range s.statements {
		errs = append(errs, statement.Close())
	}
	errs = append(errs, s.read.Close(), s.conn.Close(), s.write.Close(), s.lock.Release())
	return errors.Join(errs...)
}
