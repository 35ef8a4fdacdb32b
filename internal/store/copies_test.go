package store_test

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"syscall"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/store"
)

// attach makes a to-do with an attached file and returns the path of its bytes.
func (p *pen) attach(path, text string) string {
	p.t.Helper()
	f, err := p.store.PutFile(strings.NewReader(text), 999)
	if err != nil {
		p.t.Fatal(err)
	}
	id := p.do("w", book.Capture{Title: "With a file"}).Todo().ID
	p.do("w", book.Attach{ID: id, File: book.Attachment{Name: "a.txt", Hash: f.Hash, Size: f.Size, Type: "text/plain"}})
	return filepath.Join(path+"-files", f.Hash[:2], f.Hash)
}

// A copy is taken while the file is open and written to, is a data file of its own, and goes back
// into the place of the other.
func TestCopyAndRestore(t *testing.T) {
	folder := t.TempDir()
	path, to := filepath.Join(folder, "book.db"), filepath.Join(folder, "away", "copy.db")
	p := newPen(t, path)
	p.do("w", book.Capture{Title: "Count the lamps", Notes: "all of them"})
	bytesOf := p.attach(path, "the plan")
	if _, err := store.Copy(t.Context(), path, to, false); err == nil {
		t.Error("it is copied into a folder that is not there")
	}
	if err := os.Mkdir(filepath.Dir(to), 0o700); err != nil {
		t.Fatal(err)
	}
	for _, link := range []bool{false, true} {
		name := fmt.Sprintf("%s-%v", to, link)
		c, err := store.Copy(t.Context(), path, name, link)
		if err != nil || c.Todos != 2 || c.Files != 1 || c.Revision != p.book.Revision() {
			t.Fatalf("copied as %+v, %v", c, err)
		}
		here, err1 := os.Stat(bytesOf)
		there, err2 := os.Stat(strings.Replace(bytesOf, path, name, 1))
		if err := errors.Join(err1, err2); err != nil || os.SameFile(here, there) != link {
			t.Errorf("linked %v: %v", os.SameFile(here, there), err)
		}
	}
	name := to + "-false"
	if _, err := store.Copy(t.Context(), path, name, false); !errors.Is(err, store.ErrCopy) {
		t.Errorf("a copy is written over: %v", err)
	}
	left, err := filepath.Glob(filepath.Join(folder, "away", "*.part*"))
	if err != nil || len(left) > 0 {
		t.Errorf("left behind: %v, %v", left, err)
	}

	p.do("w", book.Capture{Title: "Since then"})
	if _, err := store.Restore(t.Context(), name, path); !errors.Is(err, store.ErrHeld) {
		t.Errorf("it is restored under an open file: %v", err)
	}
	p.do("w", book.Capture{Title: "And then"})
	shut(t, p.store)
	aside, err := store.Restore(t.Context(), name, path)
	if err != nil || aside == "" {
		t.Fatalf("restored, %q aside, %v", aside, err)
	}
	for path, todos := range map[string]int{path: 2, aside: 4} {
		s := open(t, path)
		desk, err := loadDesk(t.Context(), s)
		if err != nil || desk.Len() != todos || len(desk.Faults(day.Date{})) > 0 {
			t.Errorf("%s has %d to-dos, %v", path, desk.Len(), err)
		}
		if _, err := os.Stat(strings.Replace(bytesOf, filepath.Join(folder, "book.db"), path, 1)); err != nil {
			t.Errorf("%s has lost its file: %v", path, err)
		}
		shut(t, s)
	}
	if aside, err := store.Restore(t.Context(), name, filepath.Join(folder, "new.db")); err != nil || aside != "" {
		t.Errorf("into an empty place: %q, %v", aside, err)
	}
}

// A copy that cannot be relied on does not count, and restores nothing.
func TestDamagedCopies(t *testing.T) {
	folder := t.TempDir()
	path := filepath.Join(folder, "book.db")
	p := newPen(t, path)
	for n := range 200 {
		p.do("w", book.Capture{Title: fmt.Sprintf("Lamp %d", n), Notes: strings.Repeat("x", 400)})
	}
	bytesOf := p.attach(path, "the plan")
	shut(t, p.store)
	for name, damage := range map[string]func(path string) error{
		"cut off": func(path string) error { return os.Truncate(path, 40_000) },
		"empty":   func(path string) error { return os.Truncate(path, 0) },
		"a page of another": func(path string) error {
			f, err := os.OpenFile(path, os.O_RDWR, 0)
			if err == nil {
				_, err = f.WriteAt([]byte(strings.Repeat("lamp", 2048)), 16_384)
				err = errors.Join(err, f.Close())
			}
			return err
		},
		"not ours": func(path string) error { return os.WriteFile(path, []byte("a letter"), 0o600) },
		"a file missing": func(copied string) error {
			return os.Remove(strings.Replace(bytesOf, path, copied, 1))
		},
		"a file altered": func(copied string) error {
			return os.WriteFile(strings.Replace(bytesOf, path, copied, 1), []byte("the plot"), 0o600)
		},
	} {
		t.Run(name, func(t *testing.T) {
			copied := filepath.Join(t.TempDir(), "copy.db")
			if _, err := store.Copy(t.Context(), path, copied, false); err != nil {
				t.Fatal(err)
			}
			if err := damage(copied); err != nil {
				t.Fatal(err)
			}
			before, err := os.ReadFile(path)
			if err != nil {
				t.Fatal(err)
			}
			if aside, err := store.Restore(t.Context(), copied, path); err == nil || !strings.Contains(err.Error(), "copy.db") || aside != "" {
				t.Errorf("restored with %q aside, %v", aside, err)
			}
			if after, err := os.ReadFile(path); err != nil || string(before) != string(after) {
				t.Errorf("the data file is another: %v", err)
			}
		})
	}
}

// Each day has one copy, as many are kept as are wanted, and a damaged one is passed over.
func TestDailyCopies(t *testing.T) {
	path := filepath.Join(t.TempDir(), "book.db")
	p := newPen(t, path)
	defer shut(t, p.store)
	on := day.MustDate("2026-11-20")
	copyOf := func(on day.Date, keep int) bool {
		t.Helper()
		_, made, err := p.store.CopyDaily(t.Context(), on, p.book.Revision(), keep)
		if err != nil {
			t.Fatal(err)
		}
		return made
	}
	for n := range 5 {
		p.do("w", book.Capture{Title: fmt.Sprintf("Lamp %d", n)})
		if !copyOf(on.AddDays(n), 3) {
			t.Errorf("day %d has no copy", n)
		}
		if copyOf(on.AddDays(n), 3) {
			t.Errorf("day %d has two", n)
		}
	}
	if copyOf(on.AddDays(5), 3) {
		t.Error("a day without a change has a copy")
	}
	names := func() (names []string) {
		paths, err := store.DailyCopies(path)
		if err != nil {
			t.Fatal(err)
		}
		for _, p := range paths {
			names = append(names, filepath.Base(p))
		}
		return names
	}
	if got := fmt.Sprint(names()); got != "[2026-11-24.db 2026-11-23.db 2026-11-22.db]" {
		t.Errorf("kept %s", got)
	}
	newest := filepath.Join(store.CopyFolder(path), "2026-11-24.db")
	if err := os.Truncate(newest, 5000); err != nil {
		t.Fatal(err)
	}
	if c, found := store.NewestCopy(t.Context(), path); !found || filepath.Base(c.Path) != "2026-11-23.db" || c.Todos != 4 {
		t.Errorf("the newest good copy is %+v, %v", c, found)
	}
	if !copyOf(day.MustDate("2026-11-24"), 3) { // the damaged one is made anew
		t.Error("a damaged copy counts")
	}
	if c, found := store.NewestCopy(t.Context(), path); !found || c.Path != newest || c.Todos != 5 {
		t.Errorf("the newest good copy is %+v, %v", c, found)
	}
	copyOf(day.MustDate("2026-11-25"), 0)
	if got := names(); len(got) > 0 {
		t.Errorf("where none is wanted there are %v", got)
	}
}

// Remains of a copy whose maker was killed go at the next start, or with the next copy; what
// is left of one that is still being made stays.
func TestCopyThatWasKilled(t *testing.T) {
	folder := t.TempDir()
	path := filepath.Join(folder, "book.db")
	p := newPen(t, path)
	p.do("w", book.Capture{Title: "Count the lamps"})
	begun := func(name string) (record *os.File, to string) {
		to = filepath.Join(folder, name)
		if err := errors.Join(os.WriteFile(to+".part", []byte("half of it"), 0o600), os.MkdirAll(to+".part-files/ab", 0o700)); err != nil {
			t.Fatal(err)
		}
		record, err := os.Create(path + "-copying-" + name)
		if err == nil {
			_, err = record.WriteString(to)
		}
		if err != nil {
			t.Fatal(err)
		}
		return record, to
	}
	left := func() (names []string) {
		for _, pattern := range []string{"*.part", "*.part-files", "*-copying-*"} {
			found, err := filepath.Glob(filepath.Join(folder, pattern))
			if err != nil {
				t.Fatal(err)
			}
			names = append(names, found...)
		}
		return names
	}
	going, to := begun("going")
	if err := syscall.Flock(int(going.Fd()), syscall.LOCK_EX); err != nil {
		t.Fatal(err)
	}
	killed, _ := begun("killed")
	if err := killed.Close(); err != nil {
		t.Fatal(err)
	}
	if _, err := store.Copy(t.Context(), path, filepath.Join(folder, "next"), false); err != nil {
		t.Fatal(err)
	}
	if got, want := left(), []string{to + ".part", to + ".part-files", going.Name()}; !slices.Equal(got, want) {
		t.Errorf("after the next copy there are %v, want %v", got, want)
	}
	if err := going.Close(); err != nil { // it is killed too
		t.Fatal(err)
	}
	if err := p.store.Close(); err != nil {
		t.Fatal(err)
	}
	newPen(t, path)
	if got := left(); len(got) > 0 {
		t.Errorf("after the next start there are %v", got)
	}
}
