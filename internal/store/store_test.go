package store_test

import (
	"bytes"
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io/fs"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/sequence"
	"tincup/internal/store"
)

func open(t *testing.T, path string) *store.Store {
	t.Helper()
	s, err := store.Open(t.Context(), path)
	if err != nil {
		t.Fatal(err)
	}
	return s
}

func shut(t *testing.T, s *store.Store) {
	t.Helper()
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
}

// pen runs commands on a Book and writes each change to a file.
type pen struct {
	t     *testing.T
	store *store.Store
	book  *book.Book
	desk  *book.Desk
	ids   byte
}

// ownersDesk is the desk of a Book's owner.
func ownersDesk(t testing.TB, b *book.Book) *book.Desk {
	t.Helper()
	desk, err := b.Desk(b.Owner())
	if err != nil {
		t.Fatal(err)
	}
	return desk
}

// loadDesk reads a file whole and returns its owner's desk.
func loadDesk(ctx context.Context, s *store.Store) (*book.Desk, error) {
	b, err := s.Load(ctx)
	if err != nil {
		return nil, err
	}
	return b.Desk(b.Owner())
}

func newPen(t *testing.T, path string) *pen {
	t.Helper()
	s := open(t, path)
	b, err := s.Load(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	return &pen{t: t, store: s, book: b, desk: ownersDesk(t, b)}
}

func (p *pen) do(window string, cmd book.Command) *book.Change {
	p.t.Helper()
	c, err := p.desk.Do(p.env(), cmd)
	if err != nil {
		p.t.Fatal(err)
	}
	p.save(store.Entry{Change: c, Window: window, At: day.TimestampOf(p.env().Clock.Now)})
	return c
}

func (p *pen) env() book.Env {
	return book.Env{Clock: day.Clock{Now: time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC), Zone: time.UTC},
		NewID: func() book.ID { p.ids++; return book.ID{15: p.ids} }}
}

func (p *pen) save(e store.Entry) {
	p.t.Helper()
	if err := p.store.Save(p.t.Context(), e); err != nil {
		p.t.Fatal(err)
	}
	p.book.Apply(e.Change)
}

func TestEveryFieldComesBack(t *testing.T) {
	path := filepath.Join(t.TempDir(), "book.db")
	p := newPen(t, path)
	list := p.do("w", book.AddList{Name: "Loans"}).Lists[0].After.ID
	id := p.do("w", book.Capture{Title: "Send “it” \x27; DROP TABLE todos; --", Notes: "line\nline", List: list,
		Priority: book.Medium, Start: day.MustDate("2026-11-25"), Due: day.MustMoment("2026-11-27T16:00"),
		Plan: day.MustHorizon("2026-11-26T14:00/PT30M"), Tags: []string{"calls", "work/insurance"}}).Todo().ID
	p.do("w", book.Complete{ID: id})
	p.do("w", book.Delete{ID: id})
	want, revision := sequence.Dump(p.desk), p.desk.Revision()
	shut(t, p.store)
	if _, err := os.Stat(path + "-wal"); !errors.Is(err, fs.ErrNotExist) {
		t.Errorf("closed in good order, the file leaves its log behind: %v", err)
	}

	s := open(t, path)
	defer shut(t, s)
	b, err := loadDesk(t.Context(), s)
	if err != nil {
		t.Fatal(err)
	}
	if got := sequence.Dump(b); got != want || b.Revision() != revision {
		t.Errorf("at revision %d the file has\n%s\nwant, at %d\n%s", b.Revision(), got, revision, want)
	}
}

// Rows that are changed alike are written together, those among them that are not
// by themselves, and undo brings each back as it was.
func TestManyRowsAtOnce(t *testing.T) {
	path := filepath.Join(t.TempDir(), "book.db")
	p := newPen(t, path)
	var ids []book.ID
	for i := range 130 {
		ids = append(ids, p.do("w", book.Capture{Title: "x", Priority: book.Priority(min(i%20, 1))}).Todo().ID)
	}
	comesBack := func(after string) {
		t.Helper()
		b, err := loadDesk(t.Context(), p.store)
		if err != nil {
			t.Fatal(err)
		}
		if got, want := sequence.Dump(b), sequence.Dump(p.desk); got != want {
			t.Errorf("after %s the file has\n%s\nwant\n%s", after, got, want)
		}
	}
	high, friday := book.High, day.MustMoment("2026-11-27")
	raised := p.do("w", book.Many{IDs: ids, Do: func(id book.ID) book.Command { return book.Edit{ID: id, Priority: &high} }})
	comesBack("one value for all")
	p.do("w", book.Many{IDs: ids[:77], Do: func(id book.ID) book.Command { return book.Edit{ID: id, Due: &friday} }})
	comesBack("a part of them")
	mixed := p.do("w", book.Many{IDs: ids, Do: func(id book.ID) book.Command {
		title := fmt.Sprint("no. ", id[15]/60)
		return book.Edit{ID: id, Title: &title, Priority: &high}
	}})
	comesBack("runs of one value")
	p.do("w", book.Many{IDs: ids, Do: func(id book.ID) book.Command { return book.Complete{ID: id} }})
	comesBack("ticking all")
	for _, c := range []*book.Change{mixed, raised} {
		back, err := p.desk.Invert(p.env(), c, book.Undo)
		if err != nil {
			t.Fatal(err)
		}
		p.save(store.Entry{Change: back})
		comesBack("undo")
	}
	shut(t, p.store)
}

func TestFilesThatAreNotOurs(t *testing.T) {
	folder := t.TempDir()
	write := func(name, content string, mode fs.FileMode) string {
		path := filepath.Join(folder, name)
		if err := os.WriteFile(path, []byte(content), mode); err != nil {
			t.Fatal(err)
		}
		return path
	}
	foreign := filepath.Join(folder, "foreign.db")
	db, err := sql.Open("sqlite", foreign)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := db.Exec("CREATE TABLE birds (name TEXT)"); err != nil {
		t.Fatal(err)
	}
	if err := db.Close(); err != nil {
		t.Fatal(err)
	}
	newer := filepath.Join(folder, "newer.db")
	shut(t, open(t, newer))
	if db, err = sql.Open("sqlite", newer); err != nil {
		t.Fatal(err)
	}
	if _, err := db.Exec("INSERT INTO goose_db_version (version_id, is_applied) VALUES (999, 1)"); err != nil {
		t.Fatal(err)
	}
	if err := db.Close(); err != nil {
		t.Fatal(err)
	}
	locked := filepath.Join(folder, "locked.db")
	shut(t, open(t, locked))
	if err := os.Chmod(locked, 0o444); err != nil {
		t.Fatal(err)
	}
	for name, c := range map[string]struct {
		path string
		want error
		says string
	}{
		"a text file":         {write("notes.txt", strings.Repeat("Dear diary. ", 40), 0o600), store.ErrNotOurs, "not a Tin Cup data file"},
		"a short text file":   {write("short.txt", "hi", 0o600), store.ErrNotOurs, "not a Tin Cup data file"},
		"another program's":   {foreign, store.ErrNotOurs, "not a Tin Cup data file"},
		"a folder":            {folder, store.ErrNotOurs, "not a Tin Cup data file"},
		"a newer version's":   {newer, store.ErrNewer, "schema 999"},
		"read-only":           {locked, store.ErrReadOnly, "read-only"},
		"in a missing folder": {filepath.Join(folder, "none", "x.db"), store.ErrReadOnly, "cannot be opened for writing"},
	} {
		before, _ := os.ReadFile(c.path)
		_, err := store.Open(t.Context(), c.path)
		if !errors.Is(err, c.want) || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%s: %v; want %v", name, err, c.want)
		}
		if after, _ := os.ReadFile(c.path); string(after) != string(before) {
			t.Errorf("%s: the file has changed", name)
		}
	}
	empty := write("empty.db", "", 0o600)
	shut(t, open(t, empty)) // an empty file is a new one
}

// A full disk, as SQLite meets it: no page more may be taken.
func TestFullDisk(t *testing.T) {
	p := newPen(t, filepath.Join(t.TempDir(), "book.db"))
	defer shut(t, p.store)
	if err := p.store.LimitPages(t.Context(), 60); err != nil {
		t.Fatal(err)
	}
	var err error
	count := 0
	for ; err == nil && count < 200; count++ {
		var c *book.Change
		if c, err = p.desk.Do(p.env(), book.Capture{Title: "x", Notes: strings.Repeat("n", 4000)}); err != nil {
			t.Fatal(err)
		}
		if err = p.store.Save(t.Context(), store.Entry{Change: c}); err == nil {
			p.book.Apply(c)
		}
	}
	if !errors.Is(err, store.ErrFull) || !strings.Contains(err.Error(), "disk is full") {
		t.Fatalf("after %d to-dos: %v", count, err)
	}
	b, err := loadDesk(t.Context(), p.store)
	if err != nil || sequence.Dump(b) != sequence.Dump(p.desk) {
		t.Errorf("the file does not hold what was kept before: %v", err)
	}
}

// A context that ends at any moment of a write ends that write whole, and is not in the way of the next.
func TestWritesThatAreLetGoOf(t *testing.T) {
	p := newPen(t, filepath.Join(t.TempDir(), "book.db"))
	defer shut(t, p.store)
	text := bytes.Repeat([]byte("BEGIN:VEVENT\r\n"), 20_000)
	ended := 0
	for i := range 200 {
		ctx, cancel := context.WithTimeout(t.Context(), time.Duration(i)*10*time.Microsecond)
		err := p.store.SaveFeed(ctx, &store.Feed{Calendar: book.ID{1, 15: byte(i)}, Text: text})
		cancel()
		if err != nil && !errors.Is(err, context.DeadlineExceeded) && !strings.Contains(err.Error(), "interrupted") {
			t.Fatalf("after %d: %v", i, err)
		}
		if err != nil {
			ended++
		}
		feed, wrong := p.store.Feed(t.Context(), book.ID{1, 15: byte(i)})
		if wrong != nil || (feed != nil) != (err == nil) || feed != nil && len(feed.Text) != len(text) {
			t.Fatalf("after %d, which ended with %v, there is a feed: %t, %v", i, err, feed != nil, wrong)
		}
	}
	if ended == 0 {
		t.Error("no write was let go of")
	}
	t.Logf("%d of 200 were let go of", ended)
}

func TestACopyIsKeptBeforeAMigration(t *testing.T) {
	path := filepath.Join(t.TempDir(), "book.db")
	if err := store.MakeAtSchema(t.Context(), path, 1); err != nil {
		t.Fatal(err)
	}
	db, err := sql.Open("sqlite", path)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := db.Exec("INSERT INTO shelves VALUES (x'01000000000000000000000000000001', 'Museum', 'e0V000', 1)"); err != nil {
		t.Fatal(err)
	}
	if err := db.Close(); err != nil {
		t.Fatal(err)
	}
	s := open(t, path)
	b, err := loadDesk(t.Context(), s)
	if err != nil || len(b.Shelves()) != 1 {
		t.Errorf("after the migration: %v, %v", b.Shelves(), err)
	}
	shut(t, s)
	if db, err = sql.Open("sqlite", path+".schema-1"); err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	var name string
	if err := db.QueryRow("SELECT name FROM shelves").Scan(&name); err != nil || name != "Museum" {
		t.Errorf("the copy holds %q, %v", name, err)
	}
	if err := db.QueryRow("SELECT 1 FROM history").Scan(new(int)); err == nil || !strings.Contains(err.Error(), "no such table") {
		t.Errorf("the copy is not from before the migration: %v", err)
	}
}

func TestOneProcessOwnsAFile(t *testing.T) {
	path := filepath.Join(t.TempDir(), "book.db")
	s := open(t, path)
	if err := s.Announce("127.0.0.1:7420"); err != nil {
		t.Fatal(err)
	}
	_, err := store.Open(t.Context(), path)
	var held *store.HeldError
	if !errors.As(err, &held) || held.Holder.Address != "127.0.0.1:7420" || held.Holder.PID != os.Getpid() ||
		!strings.Contains(err.Error(), "http://127.0.0.1:7420") {
		t.Errorf("a second one: %v", err)
	}
	shut(t, s)
	shut(t, open(t, path))
}

// Undo goes by window; a new change drops that window's redo and no other's.
func TestWhatUndoAndRedoFind(t *testing.T) {
	p := newPen(t, filepath.Join(t.TempDir(), "book.db"))
	defer shut(t, p.store)
	ctx := t.Context()
	a1 := p.do("a", book.Capture{Title: "a1"})
	b1 := p.do("b", book.Capture{Title: "b1"})
	a2 := p.do("a", book.Capture{Title: "a2"})
	turn := func(window string, c *book.Change, kind book.Kind) *book.Change {
		t.Helper()
		back, err := p.desk.Invert(p.env(), c, kind)
		if err != nil {
			t.Fatal(err)
		}
		p.save(store.Entry{Change: back, Window: window, Turns: c.Revision})
		return back
	}
	expect := func(what string, find func(context.Context, book.ID, string) (int64, error), window string, want *book.Change) {
		t.Helper()
		got, err := find(ctx, p.desk.Account(), window)
		if want == nil {
			if !errors.Is(err, store.ErrNothing) {
				t.Errorf("%s: %v, %v; want nothing", what, got, err)
			}
			return
		}
		if err != nil || got != want.Revision {
			t.Errorf("%s: %v, %v; want change %d", what, got, err, want.Revision)
		}
	}
	last := func(ctx context.Context, account book.ID, window string) (int64, error) {
		return p.store.LastUndoable(ctx, account, window)
	}
	expect("undo in a", last, "a", a2)
	expect("undo in b", last, "b", b1)
	expect("undo in c", last, "c", nil)
	expect("undo in a, passing over its latest", func(ctx context.Context, account book.ID, window string) (int64, error) {
		return p.store.LastUndoable(ctx, account, window, a2.Revision)
	}, "a", a1)
	expect("redo in a", p.store.LastRedoable, "a", nil)
	u2 := turn("a", a2, book.Undo)
	u1 := turn("a", a1, book.Undo)
	expect("nothing left to undo in a", last, "a", nil)
	expect("redo goes backwards", p.store.LastRedoable, "a", u1)
	r1 := turn("a", u1, book.Redo)
	expect("then the one before", p.store.LastRedoable, "a", u2)
	expect("a redo can be undone", last, "a", r1)
	ub := turn("b", b1, book.Undo)
	p.do("a", book.Capture{Title: "a3"})
	expect("a new change drops redo in its window", p.store.LastRedoable, "a", nil)
	expect("and in no other", p.store.LastRedoable, "b", ub)
	if _, err := p.store.Undoable(ctx, p.desk.Account(), b1.Revision); !errors.Is(err, store.ErrNothing) {
		t.Errorf("what is undone can be undone again: %v", err)
	}
}

// reply keeps a reply in the pen's file.
func (p *pen) reply(key string, body []byte) {
	p.t.Helper()
	kept := &store.Reply{Account: p.desk.Account(), Key: key, Fingerprint: []byte{1}, Status: 200, Body: body, At: 100}
	if err := p.store.SaveReply(p.t.Context(), kept); err != nil {
		p.t.Fatal(err)
	}
}

// fill keeps some megabytes of replies that cannot be packed, and shuts the file.
func (p *pen) fill() {
	p.t.Helper()
	noise := rand.NewChaCha8([32]byte{7})
	for i := range 400 {
		body := make([]byte, 8000)
		if _, err := noise.Read(body); err != nil {
			p.t.Fatal(err)
		}
		p.reply(fmt.Sprint(i), body)
	}
	shut(p.t, p.store)
}

func sizeOf(t *testing.T, path string) int64 {
	t.Helper()
	info, err := os.Stat(path)
	if err != nil {
		t.Fatal(err)
	}
	return info.Size()
}

// What is let go of is given back to the disk; a file of an earlier version, too.
func TestTheFileGetsSmaller(t *testing.T) {
	path := filepath.Join(t.TempDir(), "book.db")
	ctx := t.Context()
	p := newPen(t, path)
	p.fill()
	size := func() int64 { return sizeOf(t, path) }
	full := size()
	s := open(t, path)
	if err := s.Prune(ctx, 0, 101); err != nil {
		t.Fatal(err)
	}
	turns := 0
	for more := true; more; turns++ {
		var err error
		if more, err = s.GiveBack(ctx); err != nil {
			t.Fatal(err)
		}
	}
	if err := s.Present(); err != nil {
		t.Error(err)
	}
	shut(t, s)
	if left := size(); left > full/4 || turns < 3 {
		t.Errorf("of %d bytes %d are left after %d turns", full, left, turns)
	}
	shut(t, open(t, path))

	old, err := store.OpenPlain(path) // as files were before
	if err != nil {
		t.Fatal(err)
	}
	for _, query := range []string{"PRAGMA auto_vacuum = NONE", "VACUUM", "CREATE TABLE waste (x BLOB)",
		"INSERT INTO waste WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 900) SELECT randomblob(4000) FROM n", "DROP TABLE waste"} {
		if _, err := old.ExecContext(ctx, query); err != nil {
			t.Fatal(err)
		}
	}
	if err := old.Close(); err != nil {
		t.Fatal(err)
	}
	s = open(t, path)
	if err := s.Compact(ctx); err != nil {
		t.Fatal(err)
	}
	shut(t, s)
	if left := size(); left > full/4 {
		t.Errorf("compacted, %d bytes are left", left)
	}
}

// What is given back leaves the file only once the log is written back, which who reads puts
// off. By then the file has been looked at; that it is cut is no fault, and it is watched as before.
func TestPresentWhileItGetsSmaller(t *testing.T) {
	for name, read := range map[string]bool{"alone": false, "beside one who reads": true} {
		t.Run(name, func(t *testing.T) {
			path := filepath.Join(t.TempDir(), "book.db")
			p := newPen(t, path)
			ctx := t.Context()
			p.fill()
			size := func() int64 { return sizeOf(t, path) }
			full := size()
			s := open(t, path)
			p.store = s
			defer s.Close() // which says, as is tried elsewhere, that the file is gone
			beside, err := sql.Open("sqlite", "file:"+path+"?mode=ro")
			if err != nil {
				t.Fatal(err)
			}
			defer beside.Close()
			reading, err := beside.BeginTx(ctx, nil)
			if err != nil {
				t.Fatal(err)
			}
			defer reading.Rollback()
			if read {
				var tables int
				if err := reading.QueryRowContext(ctx, "SELECT count(*) FROM sqlite_schema").Scan(&tables); err != nil {
					t.Fatal(err)
				}
			}
			giveBack := func() {
				t.Helper()
				for more := true; more; {
					var err error
					if more, err = s.GiveBack(ctx); err != nil {
						t.Fatal(err)
					}
					if err := s.Present(); err != nil {
						t.Fatal(err)
					}
				}
			}
			if err := s.Prune(ctx, 0, 101); err != nil {
				t.Fatal(err)
			}
			giveBack()
			if now := size(); (now == full) != read {
				t.Fatalf("of %d bytes %d are left", full, now)
			}
			if err := reading.Rollback(); err != nil {
				t.Fatal(err)
			}
			for i := 0; i < 2000 && size() == full; i++ { // until the log is written back
				if p.reply(fmt.Sprint("then ", i), []byte("{}")); i > 1000 {
					time.Sleep(5 * time.Millisecond)
				}
				if err := s.Present(); err != nil {
					t.Fatalf("after %d changes: %v", i+1, err)
				}
			}
			if now := size(); now > full/2 {
				t.Errorf("of %d bytes %d are left", full, now)
			}
			giveBack()
			if err := os.Truncate(path, size()-4096); err != nil {
				t.Fatal(err)
			}
			if err := s.Present(); !errors.Is(err, store.ErrGone) {
				t.Errorf("a page that is cut off is not missed: %v", err)
			}
		})
	}
}

// Rows of history and bodies come back as they were, those of before too.
func TestRepliesComeBack(t *testing.T) {
	p := newPen(t, filepath.Join(t.TempDir(), "book.db"))
	defer shut(t, p.store)
	for key, body := range map[string]string{"json": `{"title":"“x”"}`, "none": "", "long": strings.Repeat(`{"a":1}`, 9000), "odd": "\x01\x02", "list": "[1]"} {
		if err := p.store.SaveReply(t.Context(), &store.Reply{Account: p.desk.Account(), Key: key, Fingerprint: []byte{1}, Status: 200, Body: []byte(body)}); err != nil {
			t.Fatal(err)
		}
		if got, err := p.store.ReplyTo(t.Context(), p.desk.Account(), key); err != nil || string(got.Body) != body {
			t.Errorf("%s came back as %.40q, %v", key, got.Body, err)
		}
	}
}

func TestRepliesAndPruning(t *testing.T) {
	p := newPen(t, filepath.Join(t.TempDir(), "book.db"))
	defer shut(t, p.store)
	ctx := t.Context()
	reply := &store.Reply{Account: p.desk.Account(), Key: "k", Fingerprint: []byte{1}, Status: 201, ETag: `"1"`, Location: "/x", Body: []byte("{}"), At: 100}
	c, err := p.desk.Do(p.env(), book.Capture{Title: "a"})
	if err != nil {
		t.Fatal(err)
	}
	p.save(store.Entry{Change: c, At: 100, Reply: reply})
	p.do("w", book.Capture{Title: "b"})
	got, err := p.store.ReplyTo(ctx, p.desk.Account(), "k")
	if err != nil || got == nil || got.Status != 201 || got.ETag != `"1"` || got.Location != "/x" || string(got.Body) != "{}" {
		t.Fatalf("the reply is %+v, %v", got, err)
	}
	if err := p.store.Prune(ctx, 101, 101); err != nil {
		t.Fatal(err)
	}
	if got, err := p.store.ReplyTo(ctx, p.desk.Account(), "k"); got != nil || err != nil {
		t.Errorf("after pruning the reply is %+v, %v", got, err)
	}
	if oldest, err := p.store.OldestChange(ctx); oldest != 2 || err != nil {
		t.Errorf("the oldest change is %d, %v; want 2", oldest, err)
	}
	if err := p.store.Prune(ctx, 1<<60, 1<<60); err != nil {
		t.Fatal(err)
	}
	if b, err := loadDesk(ctx, p.store); err != nil || b.Revision() != 2 {
		t.Errorf("with all history pruned the revision is %v, %v; want 2", b.Revision(), err)
	}
}
