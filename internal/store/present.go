package store

import (
	"encoding/binary"
	"fmt"
	"os"
	"sync"
)

// presence watches over the files that SQLite has open. SQLite goes on writing
// into a file that was removed, replaced or cut short, and reports success; what
// it writes is then lost when the process ends.
type presence struct {
	mu   sync.Mutex
	lock *Lock
	log  os.FileInfo // the write-ahead log, as it was made
	// logSize is the log's length as last seen. SQLite writes it anew from its
	// start, and never makes it shorter unless it is asked to.
	logSize int64
	lost    error // once set, it stays until the process ends
}

func logPath(path string) string { return path + "-wal" }

// watch begins once SQLite has made its log.
func watch(lock *Lock) (*presence, error) {
	info, err := os.Stat(logPath(lock.path))
	if err != nil {
		return nil, fmt.Errorf("%w: %w", ErrBroken, err)
	}
	return &presence{lock: lock, log: info, logSize: info.Size()}, nil
}

// check returns an error that wraps ErrGone where the data file or its log is no
// longer what SQLite has open, from then on. It costs two looks at names and one
// read of the header, on the descriptor that is open anyway.
func (p *presence) check() error {
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.lost == nil {
		p.lost = p.look()
	}
	return p.lost
}

func (p *presence) look() error {
	path := p.lock.path
	file, err := os.Stat(path)
	if err != nil || !os.SameFile(file, p.lock.info) {
		return fmt.Errorf("%s: %w: it was removed, moved or replaced", path, ErrGone)
	}
	if file.Size() < p.lock.headerSize() {
		return fmt.Errorf("%s: %w: it was cut short", path, ErrGone)
	}
	log, err := os.Stat(logPath(path))
	if err != nil || !os.SameFile(log, p.log) {
		return fmt.Errorf("%s: %w: it was removed or replaced", logPath(path), ErrGone)
	}
	if log.Size() < p.logSize {
		return fmt.Errorf("%s: %w: it was cut short", logPath(path), ErrGone)
	}
	p.logSize = log.Size()
	return nil
}

// emptied is told that the log was made empty by ourselves.
func (p *presence) emptied() {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.logSize = 0
}

// Present reports whether the data file is still the one that is open, as an
// error that wraps ErrGone where it is not. Changes are refused from then on.
func (s *Store) Present() error { return s.presence.check() }

// headerSize is the length in bytes that the file's header gives it (SQLite file
// format, sections 1.3.2 and 1.3.7), or 1 where the header cannot be read.
func (l *Lock) headerSize() int64 {
	var header [32]byte
	if _, err := l.file.ReadAt(header[:], 0); err != nil {
		return 1
	}
	page := int64(binary.BigEndian.Uint16(header[16:]))
	if page == 1 {
		page = 1 << 16
	}
	return page * int64(binary.BigEndian.Uint32(header[28:]))
}
