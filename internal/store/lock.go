package store

import (
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"syscall"
)

// Holder is who has a data file open.
type Holder struct {
	// Address is where its server answers, host:port; "" for a process that
	// serves nothing or does not answer yet.
	Address string `json:"address"`
	PID     int    `json:"pid"`
}

// HeldError says that another process owns the data file.
type HeldError struct {
	Path   string
	Holder Holder
}

func (e *HeldError) Error() string {
	if e.Holder.Address == "" {
		return fmt.Sprintf("%s is in use by process %d", e.Path, e.Holder.PID)
	}
	return fmt.Sprintf("%s is in use by process %d, which serves it at http://%s", e.Path, e.Holder.PID, e.Holder.Address)
}

func (e *HeldError) Unwrap() error { return ErrHeld }

// Lock is the ownership of one data file, kept in a file beside it. The
// operating system releases it when the process ends, however that happens.
type Lock struct{ file *os.File }

// Acquire takes the lock of the data file at path, or returns a *HeldError.
func Acquire(path string) (*Lock, error) {
	f, err := os.OpenFile(path+".lock", os.O_RDWR|os.O_CREATE, 0o600)
	if errors.Is(err, syscall.ENOSPC) {
		return nil, fmt.Errorf("%w: %w", ErrFull, err)
	}
	if err != nil {
		return nil, fmt.Errorf("%w: its lock cannot be made: %w", ErrReadOnly, err)
	}
	if err := syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err != nil {
		held := &HeldError{Path: path}
		if errors.Is(err, syscall.EWOULDBLOCK) {
			// An unreadable record leaves the holder unnamed, which is the truth.
			_ = json.NewDecoder(f).Decode(&held.Holder)
		}
		return nil, errors.Join(held, f.Close())
	}
	l := &Lock{f}
	if err := l.Announce(""); err != nil {
		return nil, errors.Join(err, l.Release())
	}
	return l, nil
}

// Announce records where the holder answers.
func (l *Lock) Announce(address string) error {
	record, err := json.Marshal(Holder{Address: address, PID: os.Getpid()})
	if err != nil {
		return err
	}
	if err := l.file.Truncate(0); err != nil {
		return err
	}
	_, err = l.file.WriteAt(append(record, '\n'), 0)
	if errors.Is(err, syscall.ENOSPC) {
		return fmt.Errorf("%w: %w", ErrFull, err)
	}
	return err
}

// Release gives the data file up. The lock file itself stays: removing it
// would let two processes lock two files of one name.
func (l *Lock) Release() error { return l.file.Close() }
