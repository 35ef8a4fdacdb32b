package store

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"syscall"
	"time"
)

// ErrTooLarge means that a file has more bytes than were allowed.
var ErrTooLarge = errors.New("the file is too large")

// File tells of bytes that are kept.
type File struct {
	Hash string // SHA-256, 64 hexadecimal digits
	Size int64
	Head []byte // the first 512 bytes, or fewer
}

// folder holds the attachments' bytes, beside the data file.
func (s *Store) folder() string { return strings.TrimSuffix(s.path, ".db") + "-files" }

func (s *Store) filePath(hash string) string { return filepath.Join(s.folder(), hash[:2], hash) }

// PutFile keeps the bytes of r, which are most at most, under their hash. The
// same bytes are kept once. They are on the disk when it returns nil.
func (s *Store) PutFile(r io.Reader, most int64) (f File, err error) {
	if err := os.MkdirAll(s.folder(), 0o700); err != nil {
		return f, explainFile(err)
	}
	temp, err := os.CreateTemp(s.folder(), "coming-*")
	if err != nil {
		return f, explainFile(err)
	}
	defer func() { _ = os.Remove(temp.Name()) }() // gone already where all went well
	sum := sha256.New()
	head := &headKeeper{}
	f.Size, err = io.Copy(io.MultiWriter(temp, sum, head), io.LimitReader(r, most+1))
	if err == nil && f.Size > most {
		err = ErrTooLarge
	}
	if err == nil {
		err = temp.Sync()
	}
	if closing := temp.Close(); err == nil {
		err = closing
	}
	if err != nil {
		return f, explainFile(err)
	}
	f.Hash, f.Head = hex.EncodeToString(sum.Sum(nil)), head.bytes
	path := s.filePath(f.Hash)
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return f, explainFile(err)
	}
	if err := os.Rename(temp.Name(), path); err != nil {
		return f, explainFile(err)
	}
	return f, explainFile(syncFolder(filepath.Dir(path)))
}

// headKeeper keeps the first bytes that are written to it.
type headKeeper struct{ bytes []byte }

const headSize = 512

func (h *headKeeper) Write(p []byte) (int, error) {
	h.bytes = append(h.bytes, p[:min(len(p), headSize-len(h.bytes))]...)
	return len(p), nil
}

func syncFolder(path string) error {
	d, err := os.Open(path)
	if err != nil {
		return err
	}
	return errors.Join(d.Sync(), d.Close())
}

func explainFile(err error) error {
	switch {
	case err == nil, errors.Is(err, ErrTooLarge):
		return err
	case errors.Is(err, fs.ErrPermission):
		return fmt.Errorf("%w: %w", ErrReadOnly, err)
	case errors.Is(err, syscall.ENOSPC):
		return fmt.Errorf("%w: %w", ErrFull, err)
	}
	return fmt.Errorf("keeping a file: %w", err)
}

// OpenFile opens kept bytes by their hash; it fails with fs.ErrNotExist where
// there are none.
func (s *Store) OpenFile(hash string) (*os.File, error) {
	if raw, err := hex.DecodeString(hash); err != nil || len(raw) != sha256.Size {
		return nil, fs.ErrNotExist
	}
	return os.Open(s.filePath(hash))
}

// SweepFiles removes files that nothing refers to: no to-do, as used tells, and
// no change that could be undone. Files younger than a day stay, since a change
// that names them may be about to be kept.
func (s *Store) SweepFiles(ctx context.Context, used func(hash string) bool, now time.Time) error {
	return filepath.WalkDir(s.folder(), func(path string, d fs.DirEntry, err error) error {
		if errors.Is(err, fs.ErrNotExist) {
			return nil
		}
		if err != nil || d.IsDir() || used(d.Name()) {
			return err
		}
		info, err := d.Info()
		if err != nil || now.Sub(info.ModTime()) < 24*time.Hour {
			return nil // gone meanwhile, or too young
		}
		var named bool
		err = s.read.QueryRowContext(ctx, "SELECT EXISTS (SELECT 1 FROM history WHERE instr(rows, ?) > 0)", d.Name()).Scan(&named)
		if err != nil || named {
			return explain(err)
		}
		return os.Remove(path)
	})
}
