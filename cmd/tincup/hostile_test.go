package main_test

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"io"
	"maps"
	"math/rand/v2"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	_ "modernc.org/sqlite"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/seed"
	"tincup/internal/store"
)

var long = flag.Bool("long", false, "kill and harm as often as a full run does")

// writer gives commands of every kind without pause. It sends each under one key until
// it is answered, and notes what was acknowledged.
type writer struct {
	*rand.Rand
	base, name string
	stop       atomic.Bool
	nth, tries int
	// acknowledged are the changes, by their revisions, with what was said of them.
	acknowledged map[int64]string
	refused      int
	kinds        map[string]int
	todos, lists []string
	lamps        []string // a file's to-dos, all of which are changed at once
}

// send posts until there is an answer, and returns it; nil for a refusal.
func (w *writer) send(kind, path, body string) map[string]any {
	w.nth++
	key := fmt.Sprintf("%s-%d", w.name, w.nth)
	for {
		w.tries++
		req, err := http.NewRequest(http.MethodPost, w.base+path, strings.NewReader(body))
		if err != nil {
			panic(err) // addresses are made of ids
		}
		req.Header.Set("Content-Type", "application/json")
		if strings.Contains(path, "/attachments") || strings.HasPrefix(path, "/api/import") {
			req.Header.Set("Content-Type", "application/octet-stream")
		}
		req.Header.Set("Idempotency-Key", key)
		req.Header.Set("Window-Id", w.name)
		status, v, ok := w.once(req)
		switch {
		case ok && status < 300:
			change, _ := v["change"].(map[string]any)
			if revision := int64(change["revision"].(float64)); revision > 0 {
				w.acknowledged[revision] = change["says"].(string)
				w.kinds[kind]++
			}
			return v
		case ok && status < 500 && status != http.StatusConflict, ok && status == http.StatusConflict && v["title"] != "Still running":
			w.refused++
			return nil
		}
		time.Sleep(5 * time.Millisecond)
	}
}

// once reports ok for an answer that arrived whole.
func (w *writer) once(req *http.Request) (int, map[string]any, bool) {
	ctx, cancel := context.WithTimeout(req.Context(), 3*time.Second)
	defer cancel()
	res, err := http.DefaultClient.Do(req.WithContext(ctx))
	if err != nil {
		return 0, nil, false
	}
	defer res.Body.Close()
	var v map[string]any
	if json.NewDecoder(res.Body).Decode(&v) != nil {
		return 0, nil, false
	}
	return res.StatusCode, v, true
}

func (w *writer) todo() string { return w.todos[w.IntN(len(w.todos))] }

func (w *writer) some() string {
	ids := map[string]bool{}
	for range 1 + w.IntN(6) {
		ids[w.todo()] = true
	}
	packed, err := json.Marshal(slices.Sorted(maps.Keys(ids)))
	if err != nil {
		panic(err) // texts always pack
	}
	return string(packed)
}

func (w *writer) step() {
	name := fmt.Sprintf("%s %d", w.name, w.nth)
	if len(w.todos) < 5 || w.IntN(6) == 0 {
		v := w.send("capture", "/api/todos", `{"title":"`+name+`","notes":"n","due":"2026-12-0`+fmt.Sprint(1+w.IntN(9))+`","tags":["calls"]}`)
		if v != nil {
			w.todos = append(w.todos, v["id"].(string))
		}
		return
	}
	if len(w.lists) == 0 || w.IntN(40) == 0 {
		if v := w.send("list", "/api/lists", `{"name":"`+name+`"}`); v != nil {
			w.lists = append(w.lists, v["id"].(string))
		}
		return
	}
	one, list := "/api/todos/"+w.todo(), w.lists[w.IntN(len(w.lists))]
	steps := []struct{ kind, path, body string }{
		{"complete", one + "/complete", ""}, {"complete", one + "/complete", ""}, {"reopen", one + "/reopen", ""}, {"cancel", one + "/cancel", ""},
		{"plan", one + "/plan", `{"plan":"2026-W50"}`}, {"tags", one + "/tags", `{"add":["t` + fmt.Sprint(w.IntN(9)) + `"],"remove":["t1"]}`},
		{"move", one + "/move", `{"list":"` + list + `"}`}, {"under", one + "/move", `{"parent":"` + w.todo() + `"}`},
		{"repeat", one + "/repeat", `{"rule":"FREQ=DAILY;INTERVAL=2"}`}, {"skip", one + "/skip", ""}, {"handful", one + "/handful", `{"in":true}`},
		{"remind", one + "/reminders", `{"add":["-PT30M"]}`}, {"attach", one + "/attachments?name=a.txt", name},
		{"many", "/api/many", `{"ids":` + w.some() + `,"do":"complete"}`}, {"many-move", "/api/many", `{"ids":` + w.some() + `,"do":"move","place":{"list":"` + list + `"}}`},
		{"many-delete", "/api/many", `{"ids":` + w.some() + `,"do":"delete"}`}, {"many-restore", "/api/many", `{"ids":` + w.some() + `,"do":"restore"}`},
		{"postpone", "/api/postpone", `{"ids":` + w.some() + `,"distance":"P1W"}`}, {"section", "/api/lists/" + list + "/sections", `{"name":"` + name + `"}`},
		{"template", "/api/lists/" + list + "/template", `{"name":"` + name + `"}`}, {"person", "/api/people", `{"name":"` + name + `"}`},
		{"view", "/api/own-views", `{"name":"` + name + `","definition":{"filter":{"field":"tag","op":"none"}}}`},
		{"lines", "/api/lines/todos", `{"text":"- ` + name + `\n  - sub"}`}, {"sentence", "/api/sentence/todos", `{"text":"` + name + ` tomorrow 3pm, high"}`},
		{"undo", "/api/undo", `{}`}, {"undo", "/api/undo", `{}`}, {"redo", "/api/redo", ""},
	}
	s := steps[w.IntN(len(steps))]
	w.send(s.kind, s.path, s.body)
}

// lampsAtOnce is how many to-dos come in as one file: so many that their rows are written after the
// answer.
const lampsAtOnce = 600

// stepMany brings a file in, or changes all that came with it, or a to-do of it.
func (w *writer) stepMany() {
	if len(w.lamps) == 0 || w.IntN(8) == 0 {
		if v := w.send("import", "/api/import?name=lamps.ics", string(lampsFile(fmt.Sprintf("%s-%dx", w.name, w.nth), lampsAtOnce))); v != nil {
			w.lamps = nil
			for _, id := range v["todos"].([]any) {
				w.lamps = append(w.lamps, id.(string))
			}
		}
		return
	}
	ids, err := json.Marshal(w.lamps)
	if err != nil {
		panic(err) // texts always pack
	}
	one := "/api/todos/" + w.lamps[w.IntN(len(w.lamps))]
	steps := []struct{ kind, path, body string }{
		{"all-complete", "/api/many", `{"ids":` + string(ids) + `,"do":"complete"}`}, {"all-delete", "/api/many", `{"ids":` + string(ids) + `,"do":"delete"}`},
		{"all-restore", "/api/many", `{"ids":` + string(ids) + `,"do":"restore"}`}, {"postpone-all", "/api/postpone", `{"ids":` + string(ids) + `,"distance":"P1W"}`},
		{"complete", one + "/complete", ""}, {"under", one + "/move", `{"parent":"` + w.lamps[w.IntN(len(w.lamps))] + `"}`}, {"edit", one + "/tags", `{"add":["t1"]}`},
		{"undo", "/api/undo", `{}`}, {"undo", "/api/undo", `{}`}, {"redo", "/api/redo", ""},
	}
	s := steps[w.IntN(len(steps))]
	w.send(s.kind, s.path, s.body)
}

// Nine writers of every kind of command, one of them of hundreds of to-dos at once, and a server that is killed again and again:
// what was acknowledged is there once, and nothing is half there.
func TestKilledAgainAndAgain(t *testing.T) {
	kills := 12
	if *long {
		kills = 200
	}
	seed := seed.New(t)
	r := rand.New(rand.NewPCG(seed, 0))
	db := filepath.Join(t.TempDir(), "book.db")
	args := []string{"serve", "--db", db, "--addr", freeAddress(t)}
	s := start(t, args...)
	var writers []*writer
	var working sync.WaitGroup
	for i := range 9 {
		w := &writer{Rand: rand.New(rand.NewPCG(seed, uint64(i+1))), base: s.url, name: string(rune('a' + i)), acknowledged: map[int64]string{}, kinds: map[string]int{}}
		writers = append(writers, w)
		step := w.step
		if i == 8 {
			step = w.stepMany
		}
		working.Go(func() {
			for !w.stop.Load() {
				step()
			}
		})
	}
	for range kills {
		time.Sleep(time.Duration(20+r.IntN(200)) * time.Millisecond)
		s.kill()
		s = start(t, args...)
	}
	for _, w := range writers {
		w.stop.Store(true)
	}
	working.Wait()
	s.kill()

	acknowledged, kinds, tries, refused := map[int64]string{}, map[string]int{}, 0, 0
	for _, w := range writers {
		for revision, says := range w.acknowledged {
			if other, twice := acknowledged[revision]; twice {
				t.Errorf("change %d was told of as %q and as %q", revision, other, says)
			}
			acknowledged[revision] = says
		}
		for kind, n := range w.kinds {
			kinds[kind] += n
		}
		tries += w.tries
		refused += w.refused
	}
	lost, doubled := 0, 0
	undone := undoAll(t, db)
	there := historyOf(t, db)
	for revision, says := range acknowledged {
		if there[revision] != says {
			t.Errorf("change %d, %q, was acknowledged; there is %q", revision, says, there[revision])
			lost++
		}
	}
	for revision, says := range there {
		if _, known := acknowledged[revision]; !known {
			t.Errorf("change %d, %q, is there and was acknowledged to nobody", revision, says)
			doubled++
		}
	}
	t.Logf("%d kills; %d changes of %d kinds acknowledged in %d requests, %d refused; lost %d, doubled %d; all %d undone from the file: %v",
		kills, len(acknowledged), len(kinds), tries, refused, lost, doubled, undone, kinds)
}

// historyOf reads what the history says of each change that a person made, and asks
// SQLite whether the file is whole.
func historyOf(t *testing.T, db string) map[int64]string {
	t.Helper()
	file, err := sql.Open("sqlite", db)
	if err != nil {
		t.Fatal(err)
	}
	defer file.Close()
	var integrity string
	if err := file.QueryRow("PRAGMA integrity_check").Scan(&integrity); err != nil || integrity != "ok" {
		t.Errorf("PRAGMA integrity_check says %q, %v", integrity, err)
	}
	rows, err := file.Query("SELECT seq, says FROM history WHERE made_in <> 'housekeeping'")
	if err != nil {
		t.Fatal(err)
	}
	defer rows.Close()
	there := map[int64]string{}
	for rows.Next() {
		var seq int64
		var says string
		if err := rows.Scan(&seq, &says); err != nil {
			t.Fatal(err)
		}
		there[seq] = says
	}
	if err := rows.Err(); err != nil {
		t.Fatal(err)
	}
	return there
}

// undoAll opens a file, finds no fault in it, and turns every change round, the newest
// first, to an empty Book: so every row is what the changes made of it, all of them.
func undoAll(t *testing.T, db string) int {
	t.Helper()
	s, err := store.Open(t.Context(), db)
	if err != nil {
		t.Fatal(err)
	}
	defer func() {
		if err := s.Close(); err != nil {
			t.Error(err)
		}
	}()
	all, err := s.Load(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	b, err := all.Desk(all.Owner())
	if err != nil {
		t.Fatal(err)
	}
	for _, f := range b.Faults(day.DateOf(time.Now())) {
		t.Errorf("a fault: %s", f.Says)
	}
	changes, err := s.ChangesSince(t.Context(), all.Owner(), 0, 1<<30)
	if err != nil {
		t.Fatal(err)
	}
	notes := book.MemoryNotes{}
	for todo := range b.All() {
		text, err := s.Note(todo.ID)
		if err != nil {
			t.Fatal(err)
		}
		if text != "" {
			notes[todo.ID] = text
		}
	}
	all, b = inMemory(t, b, notes)
	env := book.Env{Clock: day.Clock{Now: time.Now(), Zone: time.UTC}, NewID: func() book.ID { return book.ID{1} }}
	for _, c := range slices.Backward(changes) {
		if c.Empty() { // tidying found nothing
			continue
		}
		back, err := b.Invert(env, c, book.Undo)
		if err != nil {
			t.Fatalf("change %d, %q, cannot be turned round: %v", c.Revision, c.Says, err)
		}
		all.Apply(back)
	}
	if n := b.Len() + len(b.Lists()) + len(b.Sections(book.ID{})) + len(b.People()) + len(b.Places()) + len(b.Views()) + len(b.Tags()); n > 0 {
		t.Errorf("%d rows are left that no change made", n)
	}
	return len(changes)
}

// inMemory is a Book with the rows of a desk, and the notes it is given.
func inMemory(t *testing.T, of *book.Desk, notes book.MemoryNotes) (*book.Book, *book.Desk) {
	t.Helper()
	rows := &book.Change{Actor: of.Account(), Todos: rowsOf(slices.Collect(of.All())), Lists: rowsOf(of.Lists()), Shelves: rowsOf(of.Shelves()),
		Tags: rowsOf(of.Tags()), People: rowsOf(of.People()), Places: rowsOf(of.Places()), Views: rowsOf(of.Views())}
	for _, l := range of.Lists() {
		rows.Sections = append(rows.Sections, rowsOf(of.Sections(l.ID))...)
	}
	all := book.New(notes, of.Account())
	all.Load(of.Revision(), rows)
	desk, err := all.Desk(of.Account())
	if err != nil {
		t.Fatal(err)
	}
	return all, desk
}

func rowsOf[T any](rows []*T) (diffs []book.Diff[T]) {
	for _, r := range rows {
		diffs = append(diffs, book.Diff[T]{After: r})
	}
	return diffs
}

// Faults of the disk and of hands, between writes: whatever is acknowledged after one
// is there after the next start, and what a fault destroyed is said at the start and not
// passed over.
func TestStorageFaults(t *testing.T) {
	rounds := 10
	if *long {
		rounds = 120
	}
	seed := seed.New(t)
	r := rand.New(rand.NewPCG(seed, 9))
	counts := map[string]int{}
	for round := range rounds {
		folder := t.TempDir()
		db := filepath.Join(folder, "book.db")
		s := start(t, "serve", "--db", db, "--addr", "127.0.0.1:0")
		acknowledged := map[string]bool{}
		put := func(title string) int {
			res, err := http.Post(s.url+"/api/todos", "application/json", strings.NewReader(`{"title":"`+title+`"}`))
			if err != nil {
				return 0
			}
			_, _ = io.Copy(io.Discard, res.Body)
			res.Body.Close()
			if res.StatusCode == http.StatusCreated {
				acknowledged[title] = true
			}
			return res.StatusCode
		}
		for i := range 5 + r.IntN(30) {
			put(fmt.Sprint("before ", i))
		}
		if r.IntN(2) == 0 { // some of it is in the file itself
			s.stop(t)
			s = start(t, "serve", "--db", db, "--addr", "127.0.0.1:0")
			put("after a stop")
		}
		before := len(acknowledged)
		var theirs []byte
		faults := map[string]func() (mend func() error, err error){
			"file moved": func() (func() error, error) {
				return func() error { return os.Rename(db+".x", db) }, os.Rename(db, db+".x")
			},
			"file removed":   func() (func() error, error) { return nil, os.Remove(db) },
			"file emptied":   func() (func() error, error) { return nil, os.Truncate(db, 0) },
			"file cut short": func() (func() error, error) { return nil, os.Truncate(db, 4000) },
			"log removed":    func() (func() error, error) { return nil, os.Remove(db + "-wal") },
			"log cut short":  func() (func() error, error) { return nil, os.Truncate(db+"-wal", 40) },
			"record removed": func() (func() error, error) { return func() error { return nil }, os.Remove(db + "-open") },
			"another by a link": func() (func() error, error) {
				link := filepath.Join(folder, "link.db")
				if err := os.Symlink(db, link); err != nil {
					return nil, err
				}
				if status, _, _ := tincup(t, "add", "--db", link, "by the link"); status == 0 {
					acknowledged["by the link"] = true
				}
				return func() error { return nil }, nil
			},
			"another by a second name": func() (func() error, error) {
				hard := filepath.Join(folder, "hard.db")
				if err := os.Link(db, hard); err != nil {
					return nil, err
				}
				if status, _, _ := tincup(t, "add", "--db", hard, "by the name"); status == 0 {
					acknowledged["by the name"] = true
				}
				return func() error { return nil }, nil
			},
			"a folder of the person's": func() (func() error, error) {
				theirs = []byte("chapter one")
				err := os.MkdirAll(db+"-files/ab", 0o700)
				return func() error { return nil }, errors.Join(err, os.WriteFile(db+"-files/ab/one.txt", theirs, 0o600))
			},
		}
		names := slices.Sorted(maps.Keys(faults))
		name := names[round%len(names)]
		mend, err := faults[name]()
		if err != nil {
			t.Fatal(err)
		}
		for i := range 5 {
			status := put(fmt.Sprint("after ", i))
			if mend == nil && status == http.StatusCreated {
				t.Errorf("seed %d, %s: a change is acknowledged", seed, name)
			}
		}
		s.kill()
		if mend != nil {
			if err := mend(); err != nil {
				t.Fatal(err)
			}
		}
		status, _, said := startsAndStops(t, db)
		switch {
		case status == 0:
			there := titlesOf(t, db)
			for title := range acknowledged {
				if !there[title] {
					t.Errorf("seed %d, %s: %q was acknowledged and is gone, and nothing is said", seed, name, title)
				}
			}
			counts["whole"]++
		case mend != nil || !strings.Contains(said, "Nothing was changed") && !strings.Contains(said, "nothing in it was changed"):
			t.Errorf("seed %d, %s: it ends with %d: %s", seed, name, status, said)
		default:
			counts["said"]++
		}
		if theirs != nil {
			if content, err := os.ReadFile(db + "-files/ab/one.txt"); err != nil || !bytes.Equal(content, theirs) {
				t.Errorf("a file of the person's was touched: %v", err)
			}
		}
		counts["acknowledged"] += before
	}
	t.Logf("%d faults: %v", rounds, counts)
}

// startsAndStops opens a file as serve does, with a capture, and says how that ended.
func startsAndStops(t *testing.T, db string) (status int, out, errOut string) {
	t.Helper()
	return tincup(t, "add", "--db", db, "at the end")
}

func titlesOf(t *testing.T, db string) map[string]bool {
	t.Helper()
	s, err := store.Open(t.Context(), db)
	if err != nil {
		t.Fatal(err)
	}
	all, err := s.Load(t.Context())
	if err := errors.Join(err, s.Close()); err != nil {
		t.Fatal(err)
	}
	b, err := all.Desk(all.Owner())
	if err != nil {
		t.Fatal(err)
	}
	titles := map[string]bool{}
	for todo := range b.All() {
		titles[todo.Title] = true
	}
	return titles
}
