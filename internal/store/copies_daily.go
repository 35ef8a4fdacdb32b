package store

import (
	"context"
	"errors"
	"os"
	"path/filepath"
	"regexp"
	"slices"

	"tincup/internal/core/day"
)

// CopyFolder is where the daily copies of a data file lie.
func CopyFolder(path string) string { return path + "-copies" }

// dailyName is the name of a daily copy: its date.
var dailyName = regexp.MustCompile(`^\d{4}-\d\d-\d\d\.db$`)

// DailyCopies are the paths of a data file's daily copies, the newest first. None of them is
// looked into.
func DailyCopies(path string) (paths []string, err error) {
	entries, err := os.ReadDir(CopyFolder(path))
	for _, e := range slices.Backward(entries) { // ReadDir sorts them
		if dailyName.MatchString(e.Name()) {
			paths = append(paths, filepath.Join(CopyFolder(path), e.Name()))
		}
	}
	return paths, gone(err)
}

// NewestCopy finds the newest daily copy that Check finds good.
func NewestCopy(ctx context.Context, path string) (Copied, bool) {
	paths, err := DailyCopies(path)
	if err != nil {
		return Copied{}, false // there is none that can be read
	}
	for _, copied := range paths {
		if c, err := Check(ctx, copied); err == nil {
			return c, true
		}
	}
	return Copied{}, false
}

// CopyDaily writes the copy of a day, and lets go of the oldest where there are more than keep.
// made is false where there is one of that day already, or the newest is of the same revision.
func (s *Store) CopyDaily(ctx context.Context, on day.Date, revision int64, keep int) (c Copied, made bool, err error) {
	folder := CopyFolder(s.path)
	paths, err := DailyCopies(s.path)
	if err != nil {
		return c, false, explainFile(err)
	}
	to := filepath.Join(folder, on.String()+".db")
	if len(paths) > 0 && keep > 0 {
		if c, err := Check(ctx, paths[0]); err == nil && (paths[0] == to || c.Revision == revision) {
			return c, false, nil
		}
	}
	if keep > 0 {
		if err := os.MkdirAll(folder, 0o700); err != nil {
			return c, false, explainFile(err)
		}
		if i := slices.Index(paths, to); i >= 0 { // of this day, and damaged
			if err := forget(to); err != nil {
				return c, false, err
			}
			paths = slices.Delete(paths, i, i+1)
		}
		if c, err = Copy(ctx, s.path, to, true); err != nil {
			return c, false, err
		}
		paths = append([]string{to}, paths...)
	}
	for _, old := range paths[min(keep, len(paths)):] {
		err = errors.Join(err, forget(old))
	}
	return c, keep > 0, err
}

// forget removes a copy with its attached files.
func forget(path string) error {
	return explainFile(errors.Join(gone(os.Remove(path)), os.RemoveAll(filesOf(path))))
}
