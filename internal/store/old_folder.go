package store

import (
	"context"
	"errors"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
)

// bringFiles gives a data file of an earlier version the folder of files that it
// has now. Before, it was named after the data file without ".db", had no mark,
// and could be shared by two data files, or be a person's own.
func (s *Store) bringFiles(ctx context.Context, given string) error {
	if _, err := os.Stat(s.folder()); !errors.Is(err, fs.ErrNotExist) {
		return s.adopt(ctx)
	}
	named, err := s.namedFiles(ctx)
	if err != nil || len(named) == 0 {
		return err
	}
	old := ""
	for _, path := range []string{given, s.path} {
		folder := strings.TrimSuffix(path, ".db") + "-files"
		if info, err := os.Stat(folder); err == nil && info.IsDir() {
			old = folder
		}
	}
	if old == "" {
		return nil
	}
	next := s.folder() + ".next" // what a crash left of it is made anew
	if err := os.RemoveAll(next); err != nil {
		return explainFile(err)
	}
	for hash := range named {
		from := filepath.Join(old, hash[:2], hash)
		if _, err := os.Stat(from); errors.Is(err, fs.ErrNotExist) {
			continue
		}
		to := filepath.Join(next, hash[:2], hash)
		err := MakeFolder(filepath.Dir(to))
		if err == nil {
			err = linkOrCopy(from, to)
		}
		if err == nil {
			err = syncFolder(filepath.Dir(to))
		}
		if err != nil {
			return explainFile(err)
		}
	}
	err = MakeFolder(next)
	if err == nil {
		err = s.markFolder(next)
	}
	if err == nil {
		err = os.Rename(next, s.folder())
	}
	if err == nil {
		err = syncFolder(filepath.Dir(s.folder()))
	}
	if err == nil && !s.shared() {
		err = leave(old, named)
	}
	return explainFile(err)
}

// adopt marks an unmarked folder that has been this data file's all along: one
// whose name did not change, with nothing in it but files of ours, and among them
// one that the data file names.
func (s *Store) adopt(ctx context.Context) error {
	folder := s.folder()
	if strings.HasSuffix(s.path, ".db") {
		return nil
	}
	if _, err := os.Stat(filepath.Join(folder, markName)); !errors.Is(err, fs.ErrNotExist) {
		return nil
	}
	named, err := s.namedFiles(ctx)
	if err != nil {
		return err
	}
	ours, one := true, false
	err = filepath.WalkDir(folder, func(path string, d fs.DirEntry, err error) error {
		name := filepath.Base(path)
		switch {
		case err != nil || path == folder:
		case d.IsDir():
			ours = ours && len(name) == 2 && filepath.Dir(path) == folder
		default:
			ours = ours && (hashName.MatchString(name) || strings.HasPrefix(name, comingPrefix))
			one = one || named[name]
		}
		return err
	})
	if err != nil || !ours || !one {
		return nil // not a folder, or not ours: it is refused by name when it is wanted
	}
	return explainFile(s.markFolder(folder))
}

// namedFiles returns the hashes that to-dos or the history name.
func (s *Store) namedFiles(ctx context.Context) (map[string]bool, error) {
	return s.hashesIn(ctx, "SELECT attachments FROM todos WHERE attachments <> ''", filesOfHistory)
}

// shared reports whether another data file had the same folder before.
func (s *Store) shared() bool {
	other, found := strings.CutSuffix(s.path, ".db")
	if !found {
		other = s.path + ".db"
	}
	_, err := os.Stat(other)
	return err == nil
}

// leave takes files that have been brought over out of the old folder, and the
// folders that are empty then.
func leave(old string, named map[string]bool) error {
	for hash := range named {
		if err := os.Remove(filepath.Join(old, hash[:2], hash)); err != nil && !errors.Is(err, fs.ErrNotExist) {
			return err
		}
		_ = os.Remove(filepath.Join(old, hash[:2])) // where it is empty
	}
	_ = os.Remove(old)
	return nil
}

// linkOrCopy puts a file under a second name, or a copy of it where the two names
// cannot be of one file.
func linkOrCopy(from, to string) error {
	if os.Link(from, to) == nil {
		return nil
	}
	return copyOut(from, to)
}
