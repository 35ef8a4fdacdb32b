package store

import (
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"sync"
	"syscall"
)

// Holder is who has a data file open.
type Holder struct {
	// Address is where its server answers, host:port; "" for a process that
	// serves nothing or does not answer yet.
	Address string `json:"address"`
	PID     int    `json:"pid"` // 0 where it is not known
}

// HeldError says that another process owns the data file.
type HeldError struct {
	Path   string
	Holder Holder
}

func (e *HeldError) Error() string {
	switch {
	case e.Holder.PID == 0:
		return fmt.Sprintf("%s is in use by another process", e.Path)
	case e.Holder.Address == "":
		return fmt.Sprintf("%s is in use by process %d", e.Path, e.Holder.PID)
	}
	return fmt.Sprintf("%s is in use by process %d, which serves it at http://%s", e.Path, e.Holder.PID, e.Holder.Address)
}

func (e *HeldError) Unwrap() error { return ErrHeld }

// Lock is the ownership of one data file: flock(2) on a descriptor of the file
// itself, so that it holds by whatever name the file is opened. The operating
// system releases it when the process ends, however that happens.
//
// SQLite's own locks are POSIX locks, and a process loses all of those it has on
// a file when it closes any descriptor of that file (fcntl(2)). The descriptor
// here therefore stays open until SQLite has closed, and while it is open nothing
// else in this process may open the file but SQLite.
type Lock struct {
	file *os.File
	// path is the data file's own, with no symbolic link left in it.
	path string
	info os.FileInfo
	// crashed: the one who held the file before did not stop in good order.
	crashed bool
}

// mine are the data files that this process holds. Looking there first keeps it
// from opening a file a second time only to find it locked.
var mine struct {
	sync.Mutex
	held map[inode]string // its path
}

type inode struct{ device, number uint64 }

// links is how many names a file has.
func links(info os.FileInfo) uint64 { return uint64(info.Sys().(*syscall.Stat_t).Nlink) }

func inodeOf(info os.FileInfo) inode {
	stat := info.Sys().(*syscall.Stat_t)
	return inode{uint64(stat.Dev), stat.Ino}
}

// Acquire takes the lock of the data file at path, making an empty file where
// there is none. It fails with a *HeldError, or an error that wraps ErrReadOnly,
// ErrFull or ErrNotOurs.
func Acquire(path string) (*Lock, error) {
	// A file that is put in the place of the one just opened is tried in turn.
	for range 10 {
		l, err := acquire(path)
		if err != nil || l != nil {
			return l, err
		}
	}
	return nil, fmt.Errorf("%s: %w: it is replaced again and again", path, ErrBroken)
}

// acquire returns nil where the file at the path is another by now.
func acquire(path string) (*Lock, error) {
	mine.Lock()
	defer mine.Unlock()
	if info, err := os.Stat(path); err == nil {
		if held, ok := mine.held[inodeOf(info)]; ok {
			return nil, &HeldError{Path: path, Holder: holderOf(held)}
		}
	}
	f, err := os.OpenFile(path, os.O_RDWR|os.O_CREATE, 0o600)
	switch {
	case errors.Is(err, syscall.ENOSPC):
		return nil, fmt.Errorf("%w: %w", ErrFull, err)
	case err != nil:
		return nil, fmt.Errorf("%w: it cannot be opened for writing: %w", ErrReadOnly, err)
	}
	l := &Lock{file: f}
	if l.path, err = filepath.EvalSymlinks(path); err == nil {
		l.path, err = filepath.Abs(l.path)
	}
	if err == nil {
		l.info, err = f.Stat()
	}
	if err != nil {
		return nil, errors.Join(fmt.Errorf("%w: %w", ErrBroken, err), f.Close())
	}
	if err := syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err != nil {
		held := &HeldError{Path: path}
		if errors.Is(err, syscall.EWOULDBLOCK) {
			held.Holder = holderOf(append(otherNames(l.path, l.info), l.path)...)
		}
		return nil, errors.Join(held, f.Close())
	}
	if now, err := os.Stat(path); err != nil || !os.SameFile(now, l.info) {
		return nil, f.Close()
	}
	if err := l.oldLock(); err != nil {
		return nil, errors.Join(err, f.Close())
	}
	if err := l.closeToOthers(); err != nil {
		return nil, errors.Join(fmt.Errorf("%w: %w", ErrReadOnly, err), f.Close())
	}
	_, err = os.Stat(recordPath(l.path))
	l.crashed = err == nil
	if mine.held == nil {
		mine.held = map[inode]string{}
	}
	mine.held[inodeOf(l.info)] = l.path
	return l, nil
}

// closeToOthers lets nobody but the owner read the file, nor its log and the log's index
// where a crash left them.
func (l *Lock) closeToOthers() error {
	for _, name := range []string{l.path, logPath(l.path), l.path + "-shm"} {
		if info, err := os.Stat(name); err == nil && info.Mode().Perm()&0o077 != 0 {
			if err := os.Chmod(name, 0o600); err != nil {
				return err
			}
		}
	}
	return nil
}

// oldLock takes and removes the lock that versions before kept in a file of its
// own, so that one of those that still runs is not overlooked.
func (l *Lock) oldLock() error {
	name := l.path + ".lock"
	f, err := os.OpenFile(name, os.O_RDWR, 0)
	if errors.Is(err, fs.ErrNotExist) {
		return nil
	}
	if err != nil {
		return fmt.Errorf("%w: %w", ErrReadOnly, err)
	}
	defer f.Close()
	if err := syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err != nil {
		held := &HeldError{Path: l.path}
		_ = json.NewDecoder(f).Decode(&held.Holder) // unnamed where it cannot be read
		return held
	}
	return os.Remove(name)
}

// recordPath is the small file that says who has a data file open. It is there
// from the first write to the clean stop, so that finding it beside a file that
// nobody holds tells of a crash.
func recordPath(path string) string { return path + "-open" }

// holderOf reads who has a file of these names open; what cannot be read leaves the holder
// unnamed, which is the truth.
func holderOf(names ...string) (h Holder) {
	for _, path := range names {
		if content, err := os.ReadFile(recordPath(path)); err == nil && json.Unmarshal(content, &h) == nil {
			return h
		}
	}
	return Holder{}
}

// Announce records where the holder answers. The record is on the disk when it
// returns nil.
func (l *Lock) Announce(address string) error {
	record, err := json.Marshal(Holder{Address: address, PID: os.Getpid()})
	if err != nil {
		return err
	}
	err = writeFile(recordPath(l.path), append(record, '\n'))
	if errors.Is(err, syscall.ENOSPC) {
		return fmt.Errorf("%w: %w", ErrFull, err)
	}
	return err
}

// stopped takes the record away: all that was written is in the file itself.
func (l *Lock) stopped() error {
	err := os.Remove(recordPath(l.path))
	if errors.Is(err, fs.ErrNotExist) {
		return nil
	}
	return err
}

// Release gives the data file up.
func (l *Lock) Release() error {
	mine.Lock()
	defer mine.Unlock()
	delete(mine.held, inodeOf(l.info))
	return l.file.Close()
}
