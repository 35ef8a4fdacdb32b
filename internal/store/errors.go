package store

import (
	"errors"
	"fmt"

	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"
)

// What can be wrong with a data file. Errors from this package wrap one of
// them where it applies.
var (
	ErrNotOurs  = errors.New("not a Tin Cup data file")
	ErrNewer    = errors.New("written by a newer version of Tin Cup")
	ErrReadOnly = errors.New("the data file is read-only")
	ErrFull     = errors.New("the disk is full")
	ErrBroken   = errors.New("the data file cannot be read or written")
	ErrHeld     = errors.New("the data file is in use")
)

// explain gives SQLite's result codes the meaning they have here.
func explain(err error) error {
	var se *sqlite.Error
	if err == nil || !errors.As(err, &se) {
		return err
	}
	switch se.Code() & 0xff {
	case sqlite3.SQLITE_FULL:
		return fmt.Errorf("%w: %w", ErrFull, err)
	case sqlite3.SQLITE_READONLY:
		return fmt.Errorf("%w: %w", ErrReadOnly, err)
	case sqlite3.SQLITE_NOTADB:
		return fmt.Errorf("%w: %w", ErrNotOurs, err)
	case sqlite3.SQLITE_IOERR, sqlite3.SQLITE_CORRUPT, sqlite3.SQLITE_CANTOPEN, sqlite3.SQLITE_BUSY:
		return fmt.Errorf("%w: %w", ErrBroken, err)
	}
	return err
}
