package store

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"database/sql/driver"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"
	"time"

	"modernc.org/sqlite"

	"tincup/internal/core/term"
)

// ErrCopy marks a copy that cannot be relied on, or cannot be made.
var ErrCopy = term.Fail(term.Refused, "no good copy")

// A Copied is what a copy of a data file holds.
type Copied struct {
	Path string
	// Taken is when it was written.
	Taken time.Time
	// Revision is that of the last change in it; Todos counts its to-dos, Files its attached files.
	Revision     int64
	Todos, Files int
	// Bytes is its size, attached files included.
	Bytes int64
}

// filesOf is the folder of a data file's attached files.
func filesOf(path string) string { return path + "-files" }

// partOf is where a copy comes together; what is found there is what was left of one.
func partOf(path string) string { return path + ".part" }

// Copy writes a copy of the data file at from with its attached files, which may be open and
// written to meanwhile: to holds every change that was acknowledged before Copy was called, and the
// folder beside it the files. It is a data file like any other. link lets attached files share
// their place on the disk where that can be. There is no file at to before the copy is whole, on
// the disk, and looked through. The error is of what is in the way; then nothing is left of the copy.
func Copy(ctx context.Context, from, to string, link bool) (Copied, error) {
	if _, err := os.Lstat(to); !errors.Is(err, fs.ErrNotExist) {
		return Copied{}, fmt.Errorf("%s: %w: there is something by that name already", to, ErrCopy)
	}
	part := partOf(to)
	clean := func() error { return removePart(to) }
	if err := clean(); err != nil {
		return Copied{}, err
	}
	sweepCopying(from)
	defer noteCopying(from, to)()
	err := copyData(ctx, from, part)
	if err == nil {
		err = copyFiles(ctx, filesOf(from), filesOf(part), link)
	}
	var copied Copied
	if err == nil {
		copied, err = Check(ctx, part)
	}
	if err != nil {
		return Copied{}, errors.Join(err, clean())
	}
	// The files come first: a data file that is there has them.
	if _, missing := os.Lstat(filesOf(part)); missing == nil {
		if err := os.Rename(filesOf(part), filesOf(to)); err != nil {
			return Copied{}, errors.Join(explainFile(err), clean())
		}
	}
	if err := os.Rename(part, to); err != nil {
		return Copied{}, errors.Join(explainFile(err), clean(), os.RemoveAll(filesOf(to)))
	}
	copied.Path = to
	return copied, syncFolder(filepath.Dir(to))
}

// onlyRead is the source of a data file that is not written to; still is one that nobody writes to.
func onlyRead(path string, still bool) string {
	q := url.Values{"mode": {"ro"}, "_pragma": {"busy_timeout(2000)"}}
	if still {
		q.Set("immutable", "1")
	}
	return "file:" + (&url.URL{Path: path}).EscapedPath() + "?" + q.Encode()
}

// stepPages is how many pages of a copy are written at a time, before they are brought to the disk:
// written back all at once they would keep the disk from others that commit meanwhile.
const stepPages = 256

// copyData writes a copy of the data file by SQLite's online backup, in one read transaction and so
// of one moment: with a write-ahead log nobody waits for it.
func copyData(ctx context.Context, from, to string) error {
	out, err := os.OpenFile(to, os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o600)
	if err == nil {
		err = out.Close()
	}
	if err != nil {
		return explainFile(err)
	}
	db, err := sql.Open("sqlite", onlyRead(from, false))
	if err != nil {
		return explain(err)
	}
	defer db.Close()
	conn, err := db.Conn(ctx)
	if err != nil {
		return explain(err)
	}
	defer conn.Close()
	// Within a transaction the backup goes on after each step; without one it would begin anew
	// whenever something was written between.
	var mark int64
	if _, err = conn.ExecContext(ctx, "BEGIN"); err == nil {
		err = conn.QueryRowContext(ctx, "SELECT count(*) FROM sqlite_schema").Scan(&mark)
	}
	if err != nil {
		return explain(err)
	}
	err = conn.Raw(func(c any) error {
		backup, err := c.(interface {
			NewBackup(uri string) (*sqlite.Backup, error)
		}).NewBackup("file:" + (&url.URL{Path: to}).EscapedPath())
		if err != nil {
			return err
		}
		for more := true; more && err == nil; {
			if more, err = backup.Step(stepPages); err == nil {
				err = errors.Join(syncFile(to), ctx.Err())
			}
		}
		if err != nil {
			_ = backup.Finish() // which says the same once more
			return err
		}
		copied, err := backup.Commit()
		if err != nil {
			return err
		}
		// It is on the disk when it is closed: nothing of it is in a log of its own.
		return errors.Join(exec(ctx, copied, "PRAGMA journal_mode = DELETE"), copied.Close())
	})
	return errors.Join(explain(err), syncFile(to))
}

func exec(ctx context.Context, conn driver.Conn, query string) error {
	_, err := conn.(driver.ExecerContext).ExecContext(ctx, query, nil)
	return err
}

func syncFile(path string) error {
	f, err := os.OpenFile(path, os.O_RDWR, 0)
	if err != nil {
		return explainFile(err)
	}
	return explainFile(errors.Join(f.Sync(), f.Close()))
}

// copyFiles copies a folder of attached files, or links them.
func copyFiles(ctx context.Context, from, to string, link bool) error {
	var made []string
	err := filepath.WalkDir(from, func(path string, d fs.DirEntry, err error) error {
		if errors.Is(err, fs.ErrNotExist) {
			return nil // no file was ever attached, or one went meanwhile
		}
		if err == nil {
			err = ctx.Err()
		}
		if err != nil {
			return err
		}
		inside, err := filepath.Rel(from, path)
		if err != nil {
			return err
		}
		name := filepath.Base(path)
		switch {
		case d.IsDir() && (inside == "." || len(inside) == 2):
			made = append(made, filepath.Join(to, inside))
			return os.Mkdir(filepath.Join(to, inside), 0o700)
		case d.IsDir():
			return fs.SkipDir
		case inside == markName:
			return copyOut(path, filepath.Join(to, inside))
		case hashName.MatchString(name) && filepath.Dir(inside) == name[:2]:
			if link {
				return gone(linkOrCopy(path, filepath.Join(to, inside)))
			}
			return gone(copyOut(path, filepath.Join(to, inside)))
		}
		return nil
	})
	for _, folder := range made {
		err = errors.Join(err, syncFolder(folder))
	}
	return explainFile(err)
}

// copyOut copies a file to the disk, where there must be none.
func copyOut(from, to string) error {
	in, err := os.Open(from)
	if err != nil {
		return err
	}
	defer in.Close()
	out, err := os.OpenFile(to, os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o600)
	if err != nil {
		return err
	}
	_, err = io.Copy(out, in)
	if err == nil {
		err = out.Sync()
	}
	return errors.Join(err, out.Close())
}

// Check looks through a copy: that it is a data file of ours that this version knows, whole, and
// with every attached file that its to-dos name, byte for byte. The error wraps ErrNotOurs,
// ErrNewer or ErrCopy and says what is wrong.
func Check(ctx context.Context, path string) (c Copied, err error) {
	info, err := os.Stat(path)
	if err != nil {
		return c, fmt.Errorf("%w: %w", ErrCopy, err)
	}
	if !info.Mode().IsRegular() {
		return c, fmt.Errorf("%s: %w: it is not a file", path, ErrNotOurs)
	}
	c = Copied{Path: path, Taken: info.ModTime(), Bytes: info.Size()}
	db, err := sql.Open("sqlite", onlyRead(path, true))
	if err != nil {
		return c, explain(err)
	}
	defer db.Close()
	var mark, schema int64
	var whole string
	named := map[string]bool{}
	for _, look := range []func() error{
		func() error { return db.QueryRowContext(ctx, "PRAGMA application_id").Scan(&mark) },
		func() error {
			if mark != applicationID {
				return ErrNotOurs
			}
			return db.QueryRowContext(ctx, "SELECT coalesce(max(version_id), 0) FROM goose_db_version WHERE is_applied").Scan(&schema)
		},
		func() error {
			if newest, err := newestSchema(); err != nil || schema > newest {
				return errors.Join(err, ErrNewer)
			}
			return db.QueryRowContext(ctx, "PRAGMA integrity_check(1)").Scan(&whole)
		},
		func() error {
			if whole != "ok" {
				return fmt.Errorf("%w: it is damaged (%s)", ErrCopy, whole)
			}
			return db.QueryRowContext(ctx, "SELECT coalesce(max(seq), 0) FROM history").Scan(&c.Revision)
		},
		func() error { return db.QueryRowContext(ctx, "SELECT count(*) FROM todos").Scan(&c.Todos) },
		func() error {
			return each(ctx, db, "SELECT attachments FROM todos WHERE attachments <> ''", func(r *sql.Rows) error {
				var kept []byte
				err := r.Scan(&kept)
				for _, found := range hashInJSON.FindAllSubmatch(kept, -1) {
					named[string(found[1])] = true
				}
				return err
			})
		},
	} {
		if err := look(); err != nil {
			if errors.Is(explain(err), ErrBroken) {
				err = fmt.Errorf("%w: it is damaged: %w", ErrCopy, err)
			}
			return c, fmt.Errorf("%s: %w", path, explain(err))
		}
	}
	for hash := range named {
		size, err := checkFile(filepath.Join(filesOf(path), hash[:2], hash), hash)
		if err != nil {
			return c, fmt.Errorf("%s: %w: an attached file is missing or altered: %w", path, ErrCopy, err)
		}
		c.Files++
		c.Bytes += size
	}
	return c, nil
}

func checkFile(path, hash string) (int64, error) {
	f, err := os.Open(path)
	if err != nil {
		return 0, err
	}
	defer f.Close()
	sum := sha256.New()
	n, err := io.Copy(sum, f)
	if err == nil && hex.EncodeToString(sum.Sum(nil)) != hash {
		err = fmt.Errorf("%s: %w", path, ErrAltered)
	}
	return n, err
}

// Restore puts a copy in the place of the data file at to, which nobody may have open. What was
// there, with its attached files, is kept beside it under the name that is returned, "" for none.
// The error wraps ErrHeld, or is that of Check or of writing; then what was there is there still.
func Restore(ctx context.Context, from, to string) (aside string, err error) {
	if _, err := Check(ctx, from); err != nil {
		return "", err
	}
	part := to + ".coming"
	if err := errors.Join(gone(os.Remove(part)), os.RemoveAll(filesOf(part))); err != nil {
		return "", err
	}
	if _, err := Copy(ctx, from, part, false); err != nil {
		return "", err
	}
	defer func() {
		if err != nil {
			err = errors.Join(err, gone(os.Remove(part)), os.RemoveAll(filesOf(part)))
		}
	}()
	lock, err := Acquire(to) // makes an empty file where there is none
	if err != nil {
		return "", err
	}
	defer func() { err = errors.Join(err, lock.Release()) }()
	if lock.info.Size() > 0 {
		if aside, err = freeName(to + ".before-restore"); err != nil {
			return "", err
		}
		for _, end := range []string{"-wal", "-shm", "-files", ""} {
			if err := gone(os.Rename(to+end, aside+end)); err != nil {
				return aside, explainFile(err)
			}
		}
	}
	if err := gone(os.Rename(filesOf(part), filesOf(to))); err != nil {
		return aside, explainFile(err)
	}
	if err := os.Rename(part, to); err != nil {
		return aside, explainFile(err)
	}
	return aside, errors.Join(gone(os.Remove(recordPath(to))), syncFolder(filepath.Dir(to)))
}

// newestSchema is the number of the newest migration.
func newestSchema() (int64, error) {
	entries, err := migrations.ReadDir("migrations")
	if err != nil || len(entries) == 0 {
		return 0, errors.Join(err, errors.New("there are no migrations"))
	}
	var newest int64
	_, err = fmt.Sscanf(entries[len(entries)-1].Name(), "%d", &newest)
	return newest, err
}
