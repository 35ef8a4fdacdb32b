package store

import (
	"errors"
	"fmt"

	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"

	"tincup/internal/core/term"
)

// What can be wrong with a data file. Errors from this package wrap one of
// them where it applies.
var (
	ErrNotOurs  = term.Fail(term.Refused, "not a Tin Cup data file")
	ErrNewer    = term.Fail(term.Refused, "written by a newer version of Tin Cup")
	ErrReadOnly = term.Fail(term.Unavailable, "the data file is read-only")
	ErrFull     = term.Fail(term.NoSpace, "the disk is full")
	ErrBroken   = term.Fail(term.Unavailable, "the data file cannot be read or written")
	ErrHeld     = term.Fail(term.Conflict, "the data file is in use")
	// ErrGone: the file was taken away while it was open.
	ErrGone = term.Fail(term.Unavailable, "the data file is no longer the one that is open")
	// ErrDamaged: after a crash something is missing that should be there. A
	// *DamageError says what, and what can be done.
	ErrDamaged = term.Fail(term.Unavailable, "the data file is damaged")
)

// explain gives SQLite's result codes the meaning they have here.
func explain(err error) error {
	var se *sqlite.Error
	if err == nil || !errors.As(err, &se) {
		return err
	}
	switch se.Code() & 0xff {
	case sqlite3.SQLITE_FULL:
		return explained{ErrFull, err}
	case sqlite3.SQLITE_READONLY:
		return explained{ErrReadOnly, err}
	case sqlite3.SQLITE_NOTADB:
		return explained{ErrNotOurs, err}
	case sqlite3.SQLITE_IOERR, sqlite3.SQLITE_CORRUPT, sqlite3.SQLITE_CANTOPEN, sqlite3.SQLITE_BUSY:
		return fmt.Errorf("%w: %w", ErrBroken, err)
	}
	return err
}

// explained is an error of SQLite's whose meaning here says all: its own text, which some of its
// interfaces leave at "not an error", is not repeated.
type explained struct{ is, because error }

func (e explained) Error() string   { return e.is.Error() }
func (e explained) Unwrap() []error { return []error{e.is, e.because} }

// ErrNotKept is wrapped by each error of a write: nothing of the change is in the file.
var ErrNotKept = errors.New("the change was not kept")

// DamageError says what a crash, or a hand, has done to a data file, and what can
// be done. Nothing was changed.
type DamageError struct {
	Path string
	// What is wrong, as a sentence without its end.
	What string
	// Remedy is what can be done before, or in place of, opening with repair.
	Remedy string
}

func (e *DamageError) Error() string {
	return fmt.Sprintf("%s. %s, or start with --repair, which keeps a copy of what is there. Nothing was changed", e.What, e.Remedy)
}

func (e *DamageError) Unwrap() error { return ErrDamaged }
