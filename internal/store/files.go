package store

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"sync"
	"syscall"
	"time"

	"tincup/internal/core/term"
)

// What can be wrong with attached files.
var (
	// ErrTooLarge: a file has more bytes than were allowed.
	ErrTooLarge = term.Fail(term.TooLarge, "the file is too large")
	// ErrFolder: what stands in the place of the folder of files is not ours.
	ErrFolder = term.Fail(term.Unavailable, "is in the place where attached files are kept, and is not Tin Cup's")
	// ErrAltered: the bytes are no longer those that were kept.
	ErrAltered = term.Fail(term.Conflict, "the file has been altered since it was attached")
	// ErrComing: the bytes of a file stopped coming.
	ErrComing = term.Fail(term.Incomplete, "the file did not arrive whole")
)

// File tells of bytes that are kept.
type File struct {
	Hash string // SHA-256, 64 hexadecimal digits
	Size int64
	Head []byte // the first 512 bytes, or fewer
	// fresh: nothing was kept under the hash before.
	fresh bool
}

// files is what a Store remembers of the bytes it keeps.
type files struct {
	mu sync.Mutex
	// coming counts, by hash, the puts that no change names yet.
	coming map[string]int
	// settled are hashes that came in this process and that a change names.
	settled map[string]bool
	// whole are files whose bytes were found to have their hash.
	whole map[string]stamp
}

// stamp tells whether a file is as it was when it was last read whole.
type stamp struct {
	size     int64
	modified time.Time
}

const (
	// markName is the file that makes a folder ours.
	markName = "tincup-files.json"
	// comingPrefix begins the names of files whose bytes are still coming.
	comingPrefix = "coming-"
)

// mark names the data file that a folder of files belongs to.
type mark struct {
	Keeps    string `json:"keeps"`
	DataFile string `json:"dataFile"`
}

var hashName = regexp.MustCompile(`^[0-9a-f]{64}$`)

// folder holds the attachments' bytes, beside the data file.
func (s *Store) folder() string { return s.path + "-files" }

func (s *Store) filePath(hash string) string { return filepath.Join(s.folder(), hash[:2], hash) }

// markFolder makes a folder ours.
func (s *Store) markFolder(folder string) error {
	content, err := json.MarshalIndent(mark{"attached files of a Tin Cup data file; what is not named by it is removed", s.id}, "", "  ")
	if err != nil {
		return err
	}
	return writeFile(filepath.Join(folder, markName), append(content, '\n'))
}

// ownFolder reports whether the folder of files is there and ours. What is there
// and not ours is an error that wraps ErrFolder and names it.
func (s *Store) ownFolder() (bool, error) {
	folder := s.folder()
	info, err := os.Stat(folder)
	switch {
	case errors.Is(err, fs.ErrNotExist):
		return false, nil
	case err != nil:
		return false, explainFile(err)
	case !info.IsDir():
		return false, fmt.Errorf("the file %s %w", folder, ErrFolder)
	}
	content, err := os.ReadFile(filepath.Join(folder, markName))
	var m mark
	if err == nil {
		err = json.Unmarshal(content, &m)
	}
	if err != nil || m.DataFile != s.id {
		return false, fmt.Errorf("the folder %s %w", folder, ErrFolder)
	}
	return true, nil
}

// PutFile keeps the bytes of r, which are most at most, under their hash. The
// same bytes are kept once. They are on the disk when it returns nil; the caller
// then says with Settle what becomes of them. Errors wrap ErrTooLarge, ErrFolder,
// ErrFull, ErrReadOnly or ErrComing; then nothing is left of them.
func (s *Store) PutFile(r io.Reader, most int64) (f File, err error) {
	if err := s.Present(); err != nil {
		return f, err
	}
	there, err := s.ownFolder()
	if err == nil && !there {
		// It comes into its place with its mark: one that a kill left without is nobody's.
		next := s.folder() + ".next"
		if err = MakeFolder(next); err == nil {
			err = s.markFolder(next)
		}
		if err == nil {
			err = os.Rename(next, s.folder())
		}
		if err == nil {
			err = syncFolder(filepath.Dir(next))
		}
	}
	if err != nil {
		return f, explainFile(err)
	}
	temp, err := os.CreateTemp(s.folder(), comingPrefix+"*")
	if err != nil {
		return f, explainFile(err)
	}
	defer func() { _ = os.Remove(temp.Name()) }() // gone already where all went well
	sum := sha256.New()
	head := &headKeeper{}
	f.Size, err = io.Copy(io.MultiWriter(temp, sum, head), coming{io.LimitReader(r, most+1)})
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
	if err := MakeFolder(filepath.Dir(path)); err != nil {
		return f, explainFile(err)
	}
	s.files.mu.Lock()
	defer s.files.mu.Unlock()
	_, err = os.Stat(path)
	f.fresh = errors.Is(err, fs.ErrNotExist)
	if err := os.Rename(temp.Name(), path); err != nil {
		return f, explainFile(err)
	}
	if err := syncFolder(filepath.Dir(path)); err != nil {
		return f, explainFile(err)
	}
	if s.files.coming == nil {
		s.files.coming = map[string]int{}
	}
	s.files.coming[f.Hash]++
	return f, nil
}

// coming tells an error of the sender from one of the disk.
type coming struct{ from io.Reader }

func (c coming) Read(p []byte) (int, error) {
	n, err := c.from.Read(p)
	if err != nil && err != io.EOF {
		err = fmt.Errorf("%w: %w", ErrComing, err)
	}
	return n, err
}

// Settle says what became of bytes that were put: a change names them by now, or
// they were refused. Refused ones go at once, unless they were kept before.
func (s *Store) Settle(f File, named bool) error {
	s.files.mu.Lock()
	defer s.files.mu.Unlock()
	if s.files.coming[f.Hash]--; s.files.coming[f.Hash] <= 0 {
		delete(s.files.coming, f.Hash)
	}
	if named {
		if s.files.settled == nil {
			s.files.settled = map[string]bool{}
		}
		s.files.settled[f.Hash] = true
		return nil
	}
	if !f.fresh || s.files.settled[f.Hash] || s.files.coming[f.Hash] > 0 {
		return nil
	}
	return os.Remove(s.filePath(f.Hash))
}

// headKeeper keeps the first bytes that are written to it.
type headKeeper struct{ bytes []byte }

const headSize = 512

func (h *headKeeper) Write(p []byte) (int, error) {
	h.bytes = append(h.bytes, p[:min(len(p), headSize-len(h.bytes))]...)
	return len(p), nil
}

func explainFile(err error) error {
	switch {
	case err == nil, errors.Is(err, ErrTooLarge), errors.Is(err, ErrFolder), errors.Is(err, ErrComing):
		return err
	case errors.Is(err, fs.ErrPermission), errors.Is(err, syscall.EROFS):
		return fmt.Errorf("%w: %w", ErrReadOnly, err)
	case errors.Is(err, syscall.ENOSPC):
		return fmt.Errorf("%w: %w", ErrFull, err)
	}
	return fmt.Errorf("%w: keeping a file: %w", ErrBroken, err)
}

// OpenFile opens kept bytes by their hash. It fails with fs.ErrNotExist where
// there are none, and with ErrAltered where they have another hash by now.
func (s *Store) OpenFile(hash string) (*os.File, error) {
	if !hashName.MatchString(hash) {
		return nil, fs.ErrNotExist
	}
	f, err := os.Open(s.filePath(hash))
	if err != nil {
		return nil, err
	}
	if err := s.verify(f, hash); err != nil {
		return nil, errors.Join(err, f.Close())
	}
	return f, nil
}

// verify reads a file through, unless it is as it was when that was last done.
func (s *Store) verify(f *os.File, hash string) error {
	info, err := f.Stat()
	if err != nil {
		return err
	}
	now := stamp{info.Size(), info.ModTime()}
	s.files.mu.Lock()
	known := s.files.whole[hash] == now
	s.files.mu.Unlock()
	if known {
		return nil
	}
	sum := sha256.New()
	if _, err := io.Copy(sum, f); err != nil {
		return err
	}
	if hex.EncodeToString(sum.Sum(nil)) != hash {
		return ErrAltered
	}
	s.files.mu.Lock()
	if s.files.whole == nil {
		s.files.whole = map[string]stamp{}
	}
	s.files.whole[hash] = now
	s.files.mu.Unlock()
	_, err = f.Seek(0, io.SeekStart)
	return err
}

// SweepFiles removes kept bytes that nothing refers to: no to-do, as used tells
// at any time, and no change that could be undone. It touches nothing but files
// with names of ours in a folder of ours, and of those none younger than a day by
// the clock given. It may run beside anything else.
func (s *Store) SweepFiles(ctx context.Context, used func(hash string) bool, now time.Time) error {
	if ours, err := s.ownFolder(); err != nil || !ours {
		return err
	}
	old, err := s.unused(used, now)
	if err != nil || len(old) == 0 {
		return err
	}
	// A change that lets go of a file puts it in the history. So what no to-do used
	// before the history was read, and the history does not name, is named nowhere.
	named, err := s.filesInHistory(ctx)
	if err != nil {
		return err
	}
	for _, path := range old {
		if err := s.removeUnless(path, func(hash string) bool { return named[hash] || used(hash) }); err != nil {
			return explainFile(err)
		}
	}
	return nil
}

// unused finds the files of ours that may go.
func (s *Store) unused(used func(string) bool, now time.Time) (paths []string, err error) {
	consider := func(path string, d fs.DirEntry) {
		info, err := d.Info()
		if err == nil && info.Mode().IsRegular() && now.Sub(info.ModTime()) >= 24*time.Hour && !used(d.Name()) {
			paths = append(paths, path)
		}
	}
	entries, err := os.ReadDir(s.folder())
	if err != nil {
		return nil, explainFile(err)
	}
	for _, e := range entries {
		switch {
		case strings.HasPrefix(e.Name(), comingPrefix):
			consider(filepath.Join(s.folder(), e.Name()), e)
		case e.IsDir() && len(e.Name()) == 2:
			files, err := os.ReadDir(filepath.Join(s.folder(), e.Name()))
			if err != nil {
				return nil, explainFile(err)
			}
			for _, f := range files {
				if hashName.MatchString(f.Name()) && f.Name()[:2] == e.Name() {
					consider(filepath.Join(s.folder(), e.Name(), f.Name()), f)
				}
			}
		}
	}
	return paths, nil
}

func (s *Store) removeUnless(path string, named func(string) bool) error {
	s.files.mu.Lock()
	defer s.files.mu.Unlock()
	hash := filepath.Base(path)
	if s.files.coming[hash] > 0 || s.files.settled[hash] || named(hash) {
		return nil
	}
	err := os.Remove(path)
	if errors.Is(err, fs.ErrNotExist) {
		return nil
	}
	return err
}

var hashInJSON = regexp.MustCompile(`"Hash":"([0-9a-f]{64})"`)

// filesInHistory returns the hashes that changes name, read in one pass.
func (s *Store) filesInHistory(ctx context.Context) (map[string]bool, error) {
	return s.hashesIn(ctx, filesOfHistory)
}

const filesOfHistory = "SELECT rows FROM history WHERE files AND rows IS NOT NULL"

func (s *Store) hashesIn(ctx context.Context, queries ...string) (map[string]bool, error) {
	named := map[string]bool{}
	for _, query := range queries {
		err := each(ctx, s.read, query, func(r *sql.Rows) error {
			var kept []byte
			if err := r.Scan(&kept); err != nil {
				return err
			}
			plain, err := s.squeezer.unsqueeze(kept)
			for _, found := range hashInJSON.FindAllSubmatch(plain, -1) {
				named[string(found[1])] = true
			}
			return err
		})
		if err != nil {
			return nil, explain(err)
		}
	}
	return named, nil
}
