package store

import (
	"bytes"
	"context"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
)

// inspectRemains refuses to begin anew where a data file is gone, or empty, and
// what it leaves behind says that there was one.
func inspectRemains(path string, options Options) error {
	if info, err := os.Stat(path); err == nil && info.Size() > 0 {
		return nil
	}
	path = resolved(path)
	left := ""
	for _, name := range []string{recordPath(path), logPath(path)} {
		if info, err := os.Stat(name); err == nil && info.Size() > 0 {
			left = name
		}
	}
	switch {
	case left == "":
		return inspectOthers(path)
	case !options.Repair:
		return &DamageError{Path: path,
			What:   fmt.Sprintf("%s is gone or empty, and %s tells that it was open when its process ended", path, left),
			Remedy: "Put the data file back beside it"}
	}
	for _, name := range []string{recordPath(path), logPath(path)} {
		if err := aside(name); err != nil {
			return err
		}
	}
	return nil
}

// sqlites are how files of SQLite's own begin that it keeps beside a data file, by what stands
// behind its name: the journal, whose header is zeros once it is over (the SQLite file format,
// section 3), and the index of the log, in either byte order (its WAL-mode file format, section
// 2.1), or before it is written.
var sqlites = map[string][]string{
	"-journal": {"\xd9\xd5\x05\xf9", "\x00\x00\x00\x00"},
	"-shm":     {"\x18\xe2\x2d\x00", "\x00\x2d\xe2\x18", "\x00\x00\x00\x00"},
}

// inspectOthers refuses to make a new data file where a file that is not SQLite's has one of the
// names that SQLite would take for its own and remove.
func inspectOthers(path string) error {
	for behind, begins := range sqlites {
		f, err := os.Open(path + behind)
		if err != nil {
			continue
		}
		head := make([]byte, 4)
		n, _ := io.ReadFull(f, head)
		if err := f.Close(); err != nil {
			return fmt.Errorf("%w: %w", ErrBroken, err)
		}
		if n > 0 && !slices.Contains(begins, string(head[:n])) {
			return fmt.Errorf("%s: %w: it would be made anew, and %s, which lies beside it and is of something else, would be removed. Move that away, or give the data file another name",
				path, ErrNotOurs, path+behind)
		}
	}
	return nil
}

// inspectLog refuses a file that a crash left open and whose write-ahead log is
// not beside it: the last changes are in there.
func inspectLog(lock *Lock, options Options) error {
	if lock.info.Size() == 0 {
		return nil
	}
	if other := lock.openedAs(); other != "" {
		return &DamageError{Path: lock.path,
			What:   fmt.Sprintf("%s is the same file as %s, which was not closed in good order by that name", lock.path, other),
			Remedy: "Open it by that name once"}
	}
	log, err := os.Stat(logPath(lock.path))
	// While the log is written back into the file, that is shorter than its header says.
	if short := lock.info.Size() < lock.headerSize(); short && (err != nil || log.Size() == 0) {
		return fmt.Errorf("%s: %w: it was cut short, to %d of its %d bytes", lock.path, ErrBroken, lock.info.Size(), lock.headerSize())
	}
	missing := ""
	switch {
	case !lock.crashed:
		return nil
	case err != nil:
		missing = "is gone"
	case log.Size() < indexedLog(lock.path), holed(lock.path):
		missing = "was cut short"
	default:
		return nil
	}
	if !options.Repair {
		return &DamageError{Path: lock.path,
			What:   fmt.Sprintf("%s was not closed in good order, and its write-ahead log %s %s, with the last changes in it", lock.path, logPath(lock.path), missing),
			Remedy: "Put the log back beside it"}
	}
	return lock.copyBytes()
}

// indexedLog is how long the log is by its index, which the process left that was
// killed: the header and the frames up to the last one committed (SQLite's WAL-mode file
// format, sections 2.1 and 4); 0 where the index does not tell.
func indexedLog(path string) int64 {
	content, err := os.ReadFile(path + "-shm")
	// The header stands there twice, lest one is read while it is written.
	if err != nil || len(content) < 96 || !bytes.Equal(content[:48], content[48:96]) || content[12] == 0 {
		return 0
	}
	page := int64(binary.NativeEndian.Uint16(content[14:]))
	if page == 1 {
		page = 1 << 16
	}
	return 32 + int64(binary.NativeEndian.Uint32(content[16:]))*(24+page)
}

// holed reports whether a frame that the log's index counts is none of the log: it was cut
// short, and grew again when the process wrote on behind the cut. SQLite would take what
// stands before the hole for all there is.
func holed(path string) bool {
	size := indexedLog(path)
	log, err := os.Open(logPath(path))
	if err != nil {
		return false
	}
	defer log.Close()
	var header [32]byte
	if _, err := log.ReadAt(header[:], 0); err != nil {
		return false // it is empty, or too short for a frame
	}
	frame := 24 + int64(binary.BigEndian.Uint32(header[8:]))
	for at := int64(len(header)); at+frame <= size; at += frame {
		var head [24]byte
		if _, err := log.ReadAt(head[:], at); err != nil {
			return true
		}
		if binary.BigEndian.Uint32(head[:]) == 0 || [8]byte(head[8:16]) != [8]byte(header[16:24]) {
			return true
		}
	}
	return false
}

// openedAs returns another name of the file in its folder (a hard link) by which
// it was open when its process ended.
func (l *Lock) openedAs() string {
	for _, name := range otherNames(l.path, l.info) {
		log, err := os.Stat(logPath(name))
		if _, open := os.Stat(recordPath(name)); open == nil || err == nil && log.Size() > 0 {
			return name
		}
	}
	return ""
}

// otherNames returns the other names of a file in its folder.
func otherNames(path string, info os.FileInfo) (names []string) {
	folder := filepath.Dir(path)
	entries, err := os.ReadDir(folder)
	if links(info) < 2 || err != nil {
		return nil
	}
	for _, e := range entries {
		name := filepath.Join(folder, e.Name())
		if other, err := e.Info(); err == nil && name != path && os.SameFile(other, info) {
			names = append(names, name)
		}
	}
	return names
}

// copyBytes keeps the file as it is, byte for byte, beside it.
func (l *Lock) copyBytes() error {
	name, err := freeName(l.path + ".before-repair")
	if err != nil {
		return err
	}
	out, err := os.OpenFile(name, os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o600)
	if err != nil {
		return err
	}
	_, err = io.Copy(out, io.NewSectionReader(l.file, 0, l.info.Size()))
	if err == nil {
		err = out.Sync()
	}
	return errors.Join(err, out.Close(), syncFolder(filepath.Dir(name)))
}

// CopyAside keeps a copy of the data file as it is now, beside it, and returns
// where.
func (s *Store) CopyAside(ctx context.Context) (string, error) {
	name, err := freeName(s.path + ".before-repair")
	if err != nil {
		return "", err
	}
	return name, explain(copyInto(ctx, s.conn, name))
}

// aside gives a file another name, under which nothing takes it for its own.
func aside(path string) error {
	name, err := freeName(path + ".left")
	if err != nil {
		return err
	}
	return gone(os.Rename(path, name))
}

// freeName returns the name, numbered where it is taken.
func freeName(name string) (string, error) {
	next := name
	for n := 2; ; n++ {
		if _, err := os.Lstat(next); errors.Is(err, fs.ErrNotExist) {
			return next, nil
		} else if err != nil {
			return "", err
		}
		next = fmt.Sprintf("%s-%d", name, n)
	}
}

// gone is an error but for a file that is not there.
func gone(err error) error {
	if errors.Is(err, fs.ErrNotExist) {
		return nil
	}
	return err
}

// resolved takes the symbolic links out of the path of a file that may be missing.
func resolved(path string) string {
	if real, err := filepath.EvalSymlinks(path); err == nil {
		return real
	}
	if to, err := os.Readlink(path); err == nil {
		if !filepath.IsAbs(to) {
			to = filepath.Join(filepath.Dir(path), to)
		}
		path = to
	}
	if folder, err := filepath.EvalSymlinks(filepath.Dir(path)); err == nil {
		return filepath.Join(folder, filepath.Base(path))
	}
	return path
}

// Remove takes a data file away with all that belongs to it. The file must be
// closed.
func Remove(path string) error {
	s, err := Open(context.Background(), path)
	if err != nil {
		return err
	}
	ours, err := s.ownFolder()
	if err := s.Close(); err != nil {
		return err
	}
	if ours && err == nil {
		err = os.RemoveAll(s.folder())
	} else {
		err = nil // a folder that is not ours stays
	}
	for _, name := range []string{s.path, logPath(s.path), s.path + "-shm", recordPath(s.path)} {
		err = errors.Join(err, gone(os.Remove(name)))
	}
	return err
}
