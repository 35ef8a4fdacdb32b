// Package store keeps a Book in one SQLite file: its rows, the history that
// undo needs, and the replies that make retries safe. Every change is one
// transaction that is on the disk before Save returns.
package store

import (
	"context"
	"database/sql"
	"embed"
	"encoding/binary"
	"encoding/hex"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"
	"runtime"
	"sync/atomic"

	"github.com/pressly/goose/v3"
)

//go:embed migrations/*.sql
var migrations embed.FS

// applicationID marks our files in the SQLite header: "TCup".
const applicationID = 0x54437570

// Store is an open data file. Save is called by one goroutine at a time; the
// rest is safe for concurrent use.
type Store struct {
	// path is the data file's own, with no symbolic link left in it.
	path string
	// id names the data file, in hexadecimal digits.
	id       string
	lock     *Lock
	presence *presence
	// conn is the one connection that writes, with its statements: what a command
	// reads of the disk is read there too. read serves notes and history beside it,
	// and look what takes long: searches, and texts that are looked for in all notes. still
	// serves snapshots, which may stay open for long.
	write, read, look, still *sql.DB
	conn                     *sql.Conn
	statements               map[string]*sql.Stmt
	updates                  map[written]update
	// keys are those under which a reply is kept, with its number.
	keys      map[replyKey]int64
	lastReply int64
	held      held
	backlog   backlog
	back      *backWriter
	squeezer  *squeezer
	files     files
	names     names
	// due: words of some to-dos are not in the index yet.
	due atomic.Bool
	// indexed is how many to-dos were written into the index since it was last merged.
	indexed atomic.Int64
	// mergesNames: it is the turn of the index of names to be merged. nothingMerged counts
	// turns in a row in which there was nothing to merge.
	mergesNames   bool
	nothingMerged int
}

// Options are choices in opening a data file.
type Options struct {
	// Repair opens a data file also where a crash or a hand has damaged it, after
	// a copy of what is there.
	Repair bool
}

// Open is OpenWith with no options.
func Open(ctx context.Context, path string) (*Store, error) { return OpenWith(ctx, path, Options{}) }

// OpenWith takes the lock of the data file, makes the file where there is none,
// brings its schema up to date (after copying it aside) and opens it. Errors
// wrap ErrHeld, ErrNotOurs, ErrNewer, ErrReadOnly, ErrFull, ErrDamaged or
// ErrBroken.
func OpenWith(ctx context.Context, path string, options Options) (*Store, error) {
	if err := inspectName(path); err != nil {
		return nil, err
	}
	if err := inspectRemains(path, options); err != nil {
		return nil, err
	}
	lock, err := Acquire(path)
	if err != nil {
		return nil, err
	}
	s, err := open(ctx, path, lock, options)
	if err != nil {
		return nil, errors.Join(err, lock.Release())
	}
	return s, nil
}

func open(ctx context.Context, given string, lock *Lock, options Options) (*Store, error) {
	fresh, err := inspect(lock)
	if err == nil {
		err = inspectLog(lock, options)
	}
	if err != nil {
		return nil, err
	}
	path := lock.path
	sweepCopying(path)
	s := &Store{path: path, lock: lock, updates: map[written]update{}, backlog: newBacklog()}
	s.due.Store(true) // until search_due is found empty
	s.indexed.Store(mergeAfter)
	if fresh {
		if err := markOurs(ctx, path); err != nil {
			return nil, err
		}
	}
	if s.write, err = sql.Open("sqlite", source(path, "journal_mode(WAL)", "synchronous(FULL)", "foreign_keys(1)", fmt.Sprintf("wal_autocheckpoint(%d)", longestLog))); err != nil {
		return nil, explain(err)
	}
	s.write.SetMaxOpenConns(1)
	if s.read, err = sql.Open("sqlite", source(path, "query_only(1)")); err != nil {
		return nil, errors.Join(explain(err), s.write.Close())
	}
	s.read.SetMaxOpenConns(4)
	// 16 MB of pages: a search walks more of its index than SQLite's own 2 MB hold.
	if s.look, err = sql.Open("sqlite", source(path, "query_only(1)", "cache_size(-16000)")); err != nil {
		return nil, errors.Join(explain(err), s.write.Close(), s.read.Close())
	}
	// A processor is left for what does not search.
	s.look.SetMaxOpenConns(max(runtime.GOMAXPROCS(0)-1, 1))
	if s.still, err = sql.Open("sqlite", source(path, "query_only(1)")); err != nil {
		return nil, errors.Join(explain(err), s.write.Close(), s.read.Close(), s.look.Close())
	}
	s.still.SetMaxOpenConns(mostSnapshots)
	s.still.SetMaxIdleConns(1)
	for _, step := range []func() error{
		func() (err error) { s.squeezer, err = newSqueezer(); return err },
		// The log is made before the record says that it should be there.
		func() error { _, err := s.write.ExecContext(ctx, "BEGIN IMMEDIATE; ROLLBACK"); return err },
		func() error { return lock.Announce("") },
		func() error { return s.migrate(ctx, fresh) },
		func() (err error) { s.conn, err = s.write.Conn(ctx); return err },
		func() (err error) { s.statements, err = prepare(ctx, s.conn); return err },
		func() (err error) { s.presence, err = watch(lock); return err },
		func() error { return s.startWritingBack() },
		func() error { return s.readID(ctx) },
		func() error { return s.loadKeys(ctx) },
		func() error { return s.loadNames(ctx) },
		func() error { return s.resume(ctx) },
		func() error { return s.bringFiles(ctx, given) },
	} {
		if err := step(); err != nil {
			return nil, errors.Join(explain(err), s.abandon())
		}
	}
	return s, nil
}

// abandon closes a file that could not be opened to its end. What SQLite wrote is
// in the file or in its log; the record stays where the log does.
func (s *Store) abandon() error {
	err := errors.Join(s.back.close(), s.presence.close(), s.read.Close(), s.look.Close(), s.still.Close(), s.write.Close())
	if _, gone := os.Stat(logPath(s.path)); errors.Is(gone, fs.ErrNotExist) {
		err = errors.Join(err, s.lock.stopped())
	}
	return err
}

func (s *Store) readID(ctx context.Context) error {
	var raw []byte
	err := s.conn.QueryRowContext(ctx, "SELECT id FROM installation").Scan(&raw)
	s.id = hex.EncodeToString(raw)
	return err
}

func source(path string, pragmas ...string) string {
	q := url.Values{"_txlock": {"immediate"}, "_pragma": append(pragmas, "busy_timeout(2000)")}
	return "file:" + (&url.URL{Path: path}).EscapedPath() + "?" + q.Encode()
}

// inspectName refuses what cannot be a data file of ours, before it is opened.
func inspectName(path string) error {
	info, err := os.Stat(path)
	switch {
	case errors.Is(err, fs.ErrNotExist):
		return nil
	case err != nil:
		return fmt.Errorf("%w: %w", ErrBroken, err)
	case !info.Mode().IsRegular():
		return fmt.Errorf("%s: %w: it is not a file", path, ErrNotOurs)
	case info.Mode().Perm()&0o200 == 0:
		return fmt.Errorf("%s: %w", path, ErrReadOnly)
	}
	return nil
}

// inspect refuses a file that is not ours before SQLite may touch it. fresh is
// true for an empty one.
func inspect(lock *Lock) (fresh bool, err error) {
	if lock.info.Size() == 0 {
		return true, nil
	}
	header := make([]byte, 100)
	_, err = lock.file.ReadAt(header, 0)
	// The SQLite file format, section 1.3: magic at 0, application id at 68.
	if err != nil || string(header[:16]) != "SQLite format 3\x00" ||
		binary.BigEndian.Uint32(header[68:]) != applicationID {
		return false, fmt.Errorf("%s: %w; nothing in it was changed", lock.path, ErrNotOurs)
	}
	return false, nil
}

// markOurs writes our application id with a rollback journal, so that it stands
// in the file itself before the first byte of a write-ahead log exists.
func markOurs(ctx context.Context, path string) error {
	db, err := sql.Open("sqlite", source(path, "synchronous(FULL)"))
	if err != nil {
		return explain(err)
	}
	// Pages that are let go of can be given back to the disk a few at a time.
	_, err = db.ExecContext(ctx, fmt.Sprintf("PRAGMA auto_vacuum = INCREMENTAL; PRAGMA application_id = %d", applicationID))
	if err == nil {
		err = syncFolder(filepath.Dir(path))
	}
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
	// A table that others refer to is made anew (SQLite's documentation of ALTER TABLE,
	// section 7). Whether all that is referred to is there is looked at after each start.
	if _, err := s.write.ExecContext(ctx, "PRAGMA foreign_keys = OFF"); err != nil {
		return err
	}
	_, err = p.Up(ctx)
	_, on := s.write.ExecContext(ctx, "PRAGMA foreign_keys = ON")
	return errors.Join(err, on)
}

// copyAside keeps the file as it was before a migration, beside it.
func (s *Store) copyAside(ctx context.Context, version int64) error {
	aside := fmt.Sprintf("%s.schema-%d", s.path, version)
	if err := os.Remove(aside); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	return copyInto(ctx, s.write, aside)
}

// execer is a pool of connections, or one of them.
type execer interface {
	ExecContext(ctx context.Context, query string, args ...any) (sql.Result, error)
}

// copyInto writes a whole, consistent copy that only its owner can read.
func copyInto(ctx context.Context, db execer, path string) error {
	f, err := os.OpenFile(path, os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o600) // VACUUM INTO takes an empty file
	if err != nil {
		return err
	}
	if err := f.Close(); err != nil {
		return err
	}
	if _, err := db.ExecContext(ctx, "VACUUM INTO ?", path); err != nil {
		return errors.Join(err, os.Remove(path))
	}
	return syncFolder(filepath.Dir(path))
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

// Close closes the file and gives up its lock. Where all that was written is in
// the file itself, the record that it was open goes before its log does.
func (s *Store) Close() error {
	if s.Present() == nil {
		_ = s.writeRest(context.Background()) // what is left waits for the next start
	}
	// With a statement still open SQLite would leave the write-ahead log behind.
	var errs []error
	for _, statement := range s.statements {
		errs = append(errs, statement.Close())
	}
	errs = append(errs, s.back.close(), s.read.Close(), s.look.Close(), s.still.Close())
	if s.Present() == nil {
		whole, err := s.settle(context.Background())
		if errs = append(errs, err); whole {
			errs = append(errs, s.lock.stopped())
		}
	}
	errs = append(errs, s.presence.close(), s.conn.Close(), s.write.Close(), s.lock.Release())
	return errors.Join(errs...)
}
