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
	// fileSize and logSize are lengths as last seen. SQLite makes the file shorter only
	// where pages are given back, and the log never, unless it is asked to: it writes it
	// anew from its start. (The length in the file's header says less: a log that is
	// written back in part can leave a file shorter than its first page tells.)
	fileSize, logSize int64
	// givenBack is how short the file may become, however long it is seen to be, since pages
	// were given back; 0 where the file has been cut since. SQLite cuts it only once the
	// whole log is written back, many changes later or when the last reader is done.
	givenBack int64
	logFile   *os.File
	lost      error // once set, it stays until the process ends
}

func logPath(path string) string { return path + "-wal" }

// watch begins once SQLite has made its log.
func watch(lock *Lock) (*presence, error) {
	file, err := lock.file.Stat()
	if err != nil {
		return nil, fmt.Errorf("%w: %w", ErrBroken, err)
	}
	log, err := os.Stat(logPath(lock.path))
	if err != nil {
		return nil, fmt.Errorf("%w: %w", ErrBroken, err)
	}
	// SQLite takes no locks on its log, so that it may be opened beside it.
	logFile, err := os.Open(logPath(lock.path))
	if err != nil {
		return nil, fmt.Errorf("%w: %w", ErrBroken, err)
	}
	return &presence{lock: lock, log: log, logFile: logFile, fileSize: file.Size(), logSize: log.Size()}, nil
}

// close ends the watch.
func (p *presence) close() error {
	if p == nil {
		return nil
	}
	return p.logFile.Close()
}

// check returns an error that wraps ErrGone where the data file or its log is no
// longer what SQLite has open, from then on. It costs two looks at names.
func (p *presence) check() error {
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.lost == nil {
		p.lost = p.look()
	}
	return p.lost
}

// checkWritten is check once something has been written: a log that was cut short just
// before is as long as ever again, with nothing where it was cut. Only one who writes may
// ask, between two transactions.
func (p *presence) checkWritten() error {
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.lost == nil && p.hollow() {
		p.lost = fmt.Errorf("%s: %w: it was cut short", logPath(p.lock.path), ErrGone)
	}
	if p.lost == nil {
		p.lost = p.look()
	}
	return p.lost
}

// hollow reports whether what was the log before the last transaction has a hole: its first
// frame is not of its header, or its last one is of no page (SQLite file format, sections
// 4.1 and 4.2).
func (p *presence) hollow() bool {
	var header [32]byte
	if _, err := p.logFile.ReadAt(header[:], 0); err != nil {
		return false // it is empty, or look finds what it is
	}
	page := int64(binary.BigEndian.Uint32(header[8:]))
	frames := (p.logSize - int64(len(header))) / (24 + page)
	if page == 0 || frames < 1 {
		return false
	}
	var first, last [24]byte
	_, err := p.logFile.ReadAt(first[:], int64(len(header)))
	_, err2 := p.logFile.ReadAt(last[:], int64(len(header))+(frames-1)*(24+page))
	if err != nil || err2 != nil {
		return false
	}
	return [8]byte(first[8:16]) != [8]byte(header[16:24]) || binary.BigEndian.Uint32(last[:]) == 0
}

// least is how short the file may be.
func (p *presence) least() int64 {
	if p.givenBack > 0 {
		return min(p.fileSize, p.givenBack)
	}
	return p.fileSize
}

func (p *presence) look() error {
	path := p.lock.path
	file, err := os.Stat(path)
	if err != nil || !os.SameFile(file, p.lock.info) {
		return fmt.Errorf("%s: %w: it was removed, moved or replaced", path, ErrGone)
	}
	if file.Size() < p.least() {
		return fmt.Errorf("%s: %w: it was cut short", path, ErrGone)
	}
	log, err := os.Stat(logPath(path))
	if err != nil || !os.SameFile(log, p.log) {
		return fmt.Errorf("%s: %w: it was removed or replaced", logPath(path), ErrGone)
	}
	if log.Size() < p.logSize {
		return fmt.Errorf("%s: %w: it was cut short", logPath(path), ErrGone)
	}
	p.fileSize, p.logSize = file.Size(), log.Size()
	return nil
}

// shorter is told how short the file may be once pages have been given back, of 1 byte on.
func (p *presence) shorter(bytes int64) {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.givenBack = bytes
}

// awaitsCut reports whether pages have been given back since the file was last cut.
func (p *presence) awaitsCut() bool {
	p.mu.Lock()
	defer p.mu.Unlock()
	return p.givenBack > 0
}

// cut is told that the whole log is written back: from now on the file does not get shorter.
func (p *presence) cut() error {
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.lost == nil {
		p.lost = p.look()
	}
	p.givenBack = 0
	return p.lost
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
