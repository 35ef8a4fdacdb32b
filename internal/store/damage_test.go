package store_test

import (
	"errors"
	"fmt"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/store"
)

// crashed leaves a data file as a process leaves it that is killed: copied, with
// all that lies beside it, while it is open.
func crashed(t *testing.T, path string) (copied string) {
	t.Helper()
	folder := t.TempDir()
	beside, err := filepath.Glob(path + "*")
	if err != nil {
		t.Fatal(err)
	}
	for _, name := range beside {
		content, err := os.ReadFile(name)
		if err == nil {
			err = os.WriteFile(filepath.Join(folder, filepath.Base(name)), content, 0o600)
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	return filepath.Join(folder, filepath.Base(path))
}

// One file has one owner, by whatever name it is opened, and whatever is deleted
// beside it.
func TestOneOwnerByAnyName(t *testing.T) {
	folder := t.TempDir()
	path := filepath.Join(folder, "book.db")
	s := open(t, path)
	if err := s.Announce("127.0.0.1:7420"); err != nil {
		t.Fatal(err)
	}
	link, hard := filepath.Join(folder, "link.db"), filepath.Join(folder, "hard.db")
	if err := errors.Join(os.Symlink(path, link), os.Link(path, hard)); err != nil {
		t.Fatal(err)
	}
	for _, name := range []string{path, link, hard} {
		_, err := store.Open(t.Context(), name)
		var held *store.HeldError
		if !errors.As(err, &held) || held.Holder.PID != os.Getpid() || held.Holder.Address != "127.0.0.1:7420" {
			t.Errorf("%s: %v", name, err)
		}
		// As another process would find it.
		if out, err := exec.Command("flock", "--nonblock", name, "true").CombinedOutput(); err == nil {
			t.Errorf("%s: another process can take the lock: %s", name, out)
		}
	}
	if err := errors.Join(os.Remove(path+"-open"), os.WriteFile(path+".lock", nil, 0o600), os.Remove(path+".lock")); err != nil {
		t.Fatal(err)
	}
	if _, err := store.Open(t.Context(), path); !errors.Is(err, store.ErrHeld) {
		t.Errorf("without the record beside it: %v", err)
	}
	shut(t, s)
	for _, name := range []string{link, hard, path} {
		shut(t, open(t, name))
	}
}

// SQLite's own locks stand while the file is open: a second try in the process
// does not drop them.
func TestSQLiteKeepsItsLocks(t *testing.T) {
	p := newPen(t, filepath.Join(t.TempDir(), "book.db"))
	p.do("w", book.Capture{Title: "a"})
	if _, err := store.Open(t.Context(), p.store.Path()); !errors.Is(err, store.ErrHeld) {
		t.Fatal(err)
	}
	locks, err := os.ReadFile("/proc/locks")
	if err != nil {
		t.Fatal(err)
	}
	posix, pid := 0, fmt.Sprintf(" %d ", os.Getpid())
	for line := range strings.Lines(string(locks)) {
		if strings.Contains(line, "POSIX") && strings.Contains(line, pid) {
			posix++
		}
	}
	if posix == 0 {
		t.Error("no POSIX lock of this process is left")
	}
	shut(t, p.store)
}

func TestTheFileIsGone(t *testing.T) {
	for name, harm := range map[string]func(path string) error{
		"removed":   os.Remove,
		"moved":     func(path string) error { return os.Rename(path, path+".away") },
		"cut short": func(path string) error { return os.Truncate(path, 4096) },
		"emptied":   func(path string) error { return os.Truncate(path, 0) },
		"replaced": func(path string) error {
			return errors.Join(os.Rename(path, path+".a"), os.WriteFile(path, nil, 0o600))
		},
		"its log removed": func(path string) error { return os.Remove(path + "-wal") },
		"its log emptied": func(path string) error { return os.Truncate(path+"-wal", 0) },
		// As it is where a transaction that had begun goes on writing behind the cut.
		"its log cut short behind its header, and grown again": cutAndGrown(func(int64) int64 { return 40 }),
		"its log cut in half, and grown again":                 cutAndGrown(func(size int64) int64 { return size / 2 }),
	} {
		t.Run(name, func(t *testing.T) {
			path := filepath.Join(t.TempDir(), "book.db")
			shut(t, open(t, path)) // its tables are in the file itself from here on
			p := newPen(t, path)
			p.do("w", book.Capture{Title: "before"})
			if err := p.store.Present(); err != nil {
				t.Fatal(err)
			}
			if err := harm(path); err != nil {
				t.Fatal(err)
			}
			c, err := p.desk.Do(p.env(), book.Capture{Title: "after"})
			if err != nil {
				t.Fatal(err)
			}
			if err := p.store.Save(t.Context(), store.Entry{Change: c}); !errors.Is(err, store.ErrGone) {
				t.Errorf("a change is acknowledged: %v", err)
			}
			if _, err := p.store.PutFile(strings.NewReader("x"), 9); !errors.Is(err, store.ErrGone) {
				t.Errorf("a file is kept: %v", err)
			}
			_ = p.store.Close() // it cannot end well
		})
	}
}

// cutAndGrown cuts a log short and lets it be as long as before, with a hole in it.
func cutAndGrown(to func(size int64) int64) func(path string) error {
	return func(path string) error {
		log, err := os.Stat(path + "-wal")
		if err != nil {
			return err
		}
		return errors.Join(os.Truncate(path+"-wal", to(log.Size())), os.Truncate(path+"-wal", log.Size()))
	}
}

func TestAfterACrash(t *testing.T) {
	path := filepath.Join(t.TempDir(), "book.db")
	p := newPen(t, path)
	defer shut(t, p.store)
	p.do("w", book.Capture{Title: "kept"})
	none := func(string) error { return nil }
	for _, c := range []struct {
		name string
		harm func(path string) error
		says string // "" where it opens
		left int    // to-dos after repair
	}{
		{"nothing is missing", none, "", 1},
		{"the log is missing", func(path string) error { return os.Remove(path + "-wal") }, "write-ahead log", 0},
		{"the log is cut short", func(path string) error { return os.Truncate(path+"-wal", 40) }, "was cut short", 0},
		{"the log was cut short, and grew again", cutAndGrown(func(int64) int64 { return 40 }), "was cut short", 0},
		{"the file is missing", os.Remove, "is gone or empty", 0},
		{"the file is empty", func(path string) error { return os.Truncate(path, 0) }, "is gone or empty", 0},
	} {
		t.Run(c.name, func(t *testing.T) {
			path := crashed(t, path)
			if err := c.harm(path); err != nil {
				t.Fatal(err)
			}
			before, _ := os.ReadFile(path)
			log, _ := os.ReadFile(path + "-wal")
			s, err := store.Open(t.Context(), path)
			if c.says == "" {
				if err != nil {
					t.Fatal(err)
				}
			} else {
				var damage *store.DamageError
				if !errors.As(err, &damage) || !strings.Contains(err.Error(), c.says) || !strings.Contains(err.Error(), "--repair") {
					t.Fatalf("it says %v", err)
				}
				after, _ := os.ReadFile(path)
				logAfter, _ := os.ReadFile(path + "-wal")
				if string(after) != string(before) || string(logAfter) != string(log) {
					t.Error("something was changed unasked")
				}
				if s, err = store.OpenWith(t.Context(), path, store.Options{Repair: true}); err != nil {
					t.Fatal(err)
				}
			}
			b, err := loadDesk(t.Context(), s)
			if err != nil || b.Len() != c.left {
				t.Errorf("%d to-dos are left, %v; want %d", b.Len(), err, c.left)
			}
			shut(t, s)
			shut(t, open(t, path)) // closed in good order, it opens unasked
		})
	}
	t.Run("by another name", func(t *testing.T) {
		path := crashed(t, path)
		hard := filepath.Join(filepath.Dir(path), "hard.db")
		if err := os.Link(path, hard); err != nil {
			t.Fatal(err)
		}
		if _, err := store.Open(t.Context(), hard); err == nil || !strings.Contains(err.Error(), path) {
			t.Errorf("it opens without its log: %v", err)
		}
	})
}

// A folder that bears the name is not ours for that.
func TestFilesOfThePersonStay(t *testing.T) {
	folder := t.TempDir()
	path := filepath.Join(folder, "thesis.db")
	old := time.Now().AddDate(0, 0, -9)
	var theirs []string
	for _, name := range []string{"thesis-files/chapter1.txt", "thesis-files/figures/lens.png", "thesis-files/ab/notes.txt",
		"thesis.db-files/draft.txt", "thesis.db-files/" + strings.Repeat("ab", 32), "thesis.db-files/cd/" + strings.Repeat("ab", 32)} {
		name = filepath.Join(folder, name)
		if err := errors.Join(os.MkdirAll(filepath.Dir(name), 0o700), os.WriteFile(name, []byte("mine"), 0o600), os.Chtimes(name, old, old)); err != nil {
			t.Fatal(err)
		}
		theirs = append(theirs, name)
	}
	s := open(t, path)
	defer shut(t, s)
	if err := s.SweepFiles(t.Context(), func(string) bool { return false }, time.Now()); !errors.Is(err, store.ErrFolder) ||
		!strings.Contains(err.Error(), path+"-files") {
		t.Errorf("the sweep says %v", err)
	}
	if _, err := s.PutFile(strings.NewReader("x"), 9); !errors.Is(err, store.ErrFolder) || !strings.Contains(err.Error(), path+"-files") {
		t.Errorf("keeping a file says %v", err)
	}
	for _, name := range theirs {
		if _, err := os.Stat(name); err != nil {
			t.Error(err)
		}
	}
}

func TestSweepOfOurOwn(t *testing.T) {
	path := filepath.Join(t.TempDir(), "book.db")
	s := open(t, path)
	put := func(text string) store.File {
		f, err := s.PutFile(strings.NewReader(text), 99)
		if err != nil {
			t.Fatal(err)
		}
		return f
	}
	used, unnamed, refused := put("used"), put("unnamed"), put("refused")
	if err := errors.Join(s.Settle(used, true), s.Settle(unnamed, true), s.Settle(refused, false)); err != nil {
		t.Fatal(err)
	}
	there := func(f store.File) bool {
		_, err := os.Stat(filepath.Join(path+"-files", f.Hash[:2], f.Hash))
		return err == nil
	}
	if there(refused) || !there(unnamed) {
		t.Error("refused bytes are gone at once, others are not")
	}
	if again := put("used"); s.Settle(again, false) != nil || !there(used) {
		t.Error("bytes that were kept before are gone with the second try")
	}
	theirs := filepath.Join(path+"-files", "readme.txt")
	if err := os.WriteFile(theirs, nil, 0o600); err != nil {
		t.Fatal(err)
	}
	sweep := func(days int) {
		t.Helper()
		if err := s.SweepFiles(t.Context(), func(hash string) bool { return hash == used.Hash }, time.Now().AddDate(0, 0, days)); err != nil {
			t.Fatal(err)
		}
	}
	sweep(2)
	if !there(unnamed) {
		t.Error("what came in this process was swept")
	}
	shut(t, s)
	s = open(t, path)
	defer shut(t, s)
	sweep(0)
	if !there(unnamed) {
		t.Error("a young file was swept")
	}
	sweep(2)
	if there(unnamed) || !there(used) {
		t.Error("of two files the one that nothing names goes")
	}
	if _, err := os.Stat(theirs); err != nil {
		t.Error("a file of the person's went too")
	}
	if err := os.WriteFile(filepath.Join(path+"-files", used.Hash[:2], used.Hash), []byte("else"), 0o600); err != nil {
		t.Fatal(err)
	}
	if _, err := s.OpenFile(used.Hash); !errors.Is(err, store.ErrAltered) {
		t.Errorf("altered bytes are handed out: %v", err)
	}
}

// An installation of before keeps its files, also where two shared one folder.
func TestTheOldFolderIsBroughtOver(t *testing.T) {
	folder := t.TempDir()
	attached := func(path string) string {
		p := newPen(t, path)
		f, err := p.store.PutFile(strings.NewReader("bytes of "+path), 999)
		if err != nil {
			t.Fatal(err)
		}
		id := p.do("w", book.Capture{Title: "a"}).Todo().ID
		p.do("w", book.Attach{ID: id, File: book.Attachment{Name: "a.txt", Hash: f.Hash, Size: f.Size, Type: "text/plain"}})
		shut(t, p.store)
		return f.Hash
	}
	one, two := filepath.Join(folder, "x.db"), filepath.Join(folder, "x")
	hashes := map[string]string{one: attached(one), two: attached(two)}
	// Both as the version before had them, and a file of the person's between.
	shared := filepath.Join(folder, "x-files")
	if err := errors.Join(os.Rename(filepath.Join(one+"-files", hashes[one][:2]), filepath.Join(shared, hashes[one][:2])),
		os.RemoveAll(one+"-files"), os.Remove(filepath.Join(shared, "tincup-files.json"))); err != nil {
		t.Fatal(err)
	}
	for path, hash := range hashes {
		s := open(t, path)
		f, err := s.OpenFile(hash)
		if err != nil {
			t.Errorf("%s has lost its file: %v", path, err)
			continue
		}
		f.Close()
		if _, err := s.PutFile(strings.NewReader("new"), 9); err != nil {
			t.Errorf("%s: %v", path, err)
		}
		shut(t, s)
	}
}

func TestModes(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "new", "folder")
	if err := store.MakeFolder(folder); err != nil {
		t.Fatal(err)
	}
	path := filepath.Join(folder, "book.db")
	if err := store.MakeAtSchema(t.Context(), path, 1); err != nil {
		t.Fatal(err)
	}
	if err := os.Chmod(path, 0o644); err != nil {
		t.Fatal(err)
	}
	before := newPen(t, path)
	before.do("w", book.Capture{Title: "a"})
	left := crashed(t, path)
	shut(t, before.store)
	for _, ending := range []string{"", "-wal", "-shm"} { // as an earlier version left them
		if err := errors.Join(os.Rename(left+ending, path+ending), os.Chmod(path+ending, 0o644)); err != nil {
			t.Fatal(err)
		}
	}
	p := newPen(t, path)
	defer shut(t, p.store)
	p.do("w", book.Capture{Title: "b"})
	if _, err := p.store.CopyAside(t.Context()); err != nil {
		t.Fatal(err)
	}
	if _, err := p.store.PutFile(strings.NewReader("x"), 9); err != nil {
		t.Fatal(err)
	}
	seen := 0
	if err := filepath.WalkDir(folder, func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		info, err := d.Info()
		if err == nil && info.Mode().Perm()&0o077 != 0 {
			t.Errorf("%s has mode %v", path, info.Mode())
		}
		seen++
		return err
	}); err != nil || seen < 10 {
		t.Errorf("%d names seen, %v", seen, err)
	}
}

// A write that reported an error is known by what it wrote, not by its number.
func TestKeptIsKnownByItsContent(t *testing.T) {
	p := newPen(t, filepath.Join(t.TempDir(), "book.db"))
	defer shut(t, p.store)
	c, err := p.desk.Do(p.env(), book.Capture{Title: "mine"})
	if err != nil {
		t.Fatal(err)
	}
	mine := store.Entry{Change: c, Window: "w", At: day.Timestamp(1)}
	other := p.do("w", book.Capture{Title: "another's"})
	if kept, err := p.store.Kept(t.Context(), mine); kept || err != nil || other.Revision != c.Revision {
		t.Errorf("a change is taken for another with its number: %v, %v", kept, err)
	}
	if kept, err := p.store.Kept(t.Context(), store.Entry{Change: other, Window: "w", At: day.TimestampOf(p.env().Clock.Now)}); !kept || err != nil {
		t.Errorf("a change that is there is not found: %v, %v", kept, err)
	}
}

// A file of something else that has a name which SQLite would take and remove keeps a new data file
// from being made, and stays as it is; what SQLite itself left does not.
func TestFilesOfOthersBesideANewOne(t *testing.T) {
	for _, c := range []struct {
		behind, text string
		refused      bool
	}{
		{"-journal", "Monday: rang the framer\n", true}, {"-shm", "shared memos", true}, {"-journal", "x", true},
		{"-journal", "", false}, {"-journal", "\x00\x00\x00\x00 and more", false}, {"-shm", "", false},
	} {
		path := filepath.Join(t.TempDir(), "book.db")
		if err := os.WriteFile(path+c.behind, []byte(c.text), 0o600); err != nil {
			t.Fatal(err)
		}
		s, err := store.Open(t.Context(), path)
		if err == nil {
			err = s.Close()
		}
		if !c.refused {
			if err != nil {
				t.Errorf("%s with %q: %v", c.behind, c.text, err)
			}
			continue
		}
		if !errors.Is(err, store.ErrNotOurs) || !strings.Contains(err.Error(), path+c.behind+", which lies beside it") {
			t.Errorf("%s with %q: %v", c.behind, c.text, err)
		}
		if is, err := os.ReadFile(path + c.behind); err != nil || string(is) != c.text {
			t.Errorf("%s was %q, and is %q, %v", c.behind, c.text, is, err)
		}
	}
}
