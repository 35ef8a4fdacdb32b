package store

import (
	"crypto/rand"
	"errors"
	"os"
	"path/filepath"
	"strings"
	"syscall"
)

// A copying record stands beside a data file while a copy of it is made. It holds the path of the
// copy, and the maker of the copy holds a lock on it, which the operating system releases when the
// process ends. A record that nobody holds tells of a copy whose maker was killed.
const copyingRecord = "-copying-"

// noteCopying writes a copying record and returns a function that takes it away. Where there may be
// no such file, as in a folder that is read-only, the copy is made all the same, without a record.
func noteCopying(from, to string) (done func()) {
	to, err := filepath.Abs(to)
	if err != nil {
		return func() {}
	}
	name := from + copyingRecord + rand.Text()
	f, err := os.OpenFile(name, os.O_RDWR|os.O_CREATE|os.O_EXCL, 0o600)
	if err != nil {
		return func() {}
	}
	err = syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB)
	if err == nil {
		_, err = f.WriteString(to)
	}
	if err != nil {
		_, _ = os.Remove(name), f.Close()
		return func() {}
	}
	return func() { _, _ = os.Remove(name), f.Close() }
}

// sweepCopying removes what is left of copies of a data file whose makers were killed, as far as
// that can be removed.
func sweepCopying(from string) {
	records, _ := filepath.Glob(escaped(from) + copyingRecord + "*") // the pattern is well formed
	for _, record := range records {
		f, err := os.OpenFile(record, os.O_RDWR, 0)
		if err != nil {
			continue
		}
		if syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB) == nil {
			to, err := os.ReadFile(record)
			if err == nil && filepath.IsAbs(string(to)) {
				err = removePart(string(to))
			}
			if err == nil {
				_ = os.Remove(record)
			}
		}
		_ = f.Close()
	}
}

// removePart removes what a copy had been made of before it was whole.
func removePart(to string) error {
	part := partOf(to)
	return errors.Join(gone(os.Remove(part)), gone(os.Remove(part+"-journal")), os.RemoveAll(filesOf(part)))
}

// escaped is a path as a pattern of filepath.Glob that matches it alone.
func escaped(path string) string {
	return strings.NewReplacer(`\`, `\\`, "*", `\*`, "?", `\?`, "[", `\[`).Replace(path)
}
