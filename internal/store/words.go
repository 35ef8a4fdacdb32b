package store

import (
	"context"
	"database/sql"
	"strings"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/search"
)

// The statements that keep the search index: all words of a to-do, and those of
// its names alone. Both hold a row for each to-do, the bin's too. A change of a few
// to-dos writes their words in its own transaction; one of many notes in search_due
// which they are, and Index writes them a few at a time.
const (
	numberWords = "INSERT OR IGNORE INTO search_rows (todo) VALUES (?)"
	forgetWords = "DELETE FROM search WHERE rowid = (SELECT nth FROM search_rows WHERE todo = ?)"
	forgetNames = "DELETE FROM search_names WHERE rowid = (SELECT nth FROM search_rows WHERE todo = ?)"
	forgetRow   = "DELETE FROM search_rows WHERE todo = ?"
	// What is indexed of a to-do, with its number.
	readWords = `SELECT r.nth, t.title, t.tags, t.person, t.attachments, t.place, coalesce(n.text, '')
		FROM todos t JOIN search_rows r ON r.todo = t.id LEFT JOIN notes n ON n.todo = t.id WHERE t.id = ?`
	// One row by its values: what FTS5 is given by a SELECT, or in several rows,
	// it writes out at once, lest the statement is taken back.
	putWords    = "INSERT INTO search (rowid, title, tags, person, files, place, notes) VALUES (?, ?, ?, ?, ?, ?, ?)"
	putNames    = "INSERT INTO search_names (rowid, title, tags, person, files, place) VALUES (?, ?, ?, ?, ?, ?)"
	putDue      = "INSERT OR IGNORE INTO search_due (todo) VALUES (?)"
	takeDue     = "DELETE FROM search_due WHERE todo = ?"
	taggedTodos = "SELECT id FROM todos WHERE instr(tags, ?) > 0"
	personTodos = "SELECT id FROM todos WHERE person = ?"
)

// Up to so many to-dos, with so many bytes of notes, have their words written with
// the change.
const (
	indexedAtOnce = 20
	notesAtOnce   = 64 << 10
)

// indexingTurn is about how long IndexSome holds up what wants to be written.
const indexingTurn = 8 * time.Millisecond

// searched are the fields of a to-do that can be looked for.
var searched = book.FieldsOf("title", "notes", "person", "tags", "attachments", "place")

// words are what is indexed of one to-do.
type words struct {
	nth                                      int64
	title, tags, person, files, place, notes string
}

// fold makes them what the index takes.
func (w *words) fold() {
	for _, text := range []*string{&w.title, &w.tags, &w.person, &w.files, &w.place, &w.notes} {
		*text = search.Indexed(*text, Fold)
	}
}

// names remembers what tags are called, and people with their addresses.
type names struct{ tags, people map[book.ID]string }

func (n *names) follow(c *book.Change) {
	for _, d := range c.Tags {
		if d.After != nil {
			n.tags[d.After.ID] = d.After.Name
		}
	}
	for _, d := range c.People {
		if d.After != nil {
			n.people[d.After.ID] = d.After.Name + " " + d.After.Email
		}
	}
}

func (s *Store) loadNames(ctx context.Context) error {
	s.names = names{map[book.ID]string{}, map[book.ID]string{}}
	for query, into := range map[string]map[book.ID]string{"SELECT id, name FROM tags": s.names.tags, "SELECT id, name || ' ' || email FROM people": s.names.people} {
		err := each(ctx, s.conn, query, func(r *sql.Rows) error {
			var of book.ID
			var name string
			err := r.Scan((*id)(&of), &name)
			into[of] = name
			return err
		})
		if err != nil {
			return err
		}
	}
	return nil
}

// saveWords brings the index up to date with a change that has been written, or
// notes what is to be.
func saveWords(w writer, c *book.Change) error {
	w.store.names.follow(c)
	var touched []book.ID // in order, which the numbers of new ones tell later
	known := map[book.ID]bool{}
	touch := func(todo book.ID) {
		if !known[todo] {
			known[todo] = true
			touched = append(touched, todo)
		}
	}
	bytes := 0
	for _, d := range c.Todos {
		switch {
		case d.After == nil:
			touch(d.Before.ID)
		case d.Before == nil || book.Altered(d.Before, d.After)&searched != 0:
			touch(d.After.ID)
			bytes += int(d.After.NotesSize)
		}
	}
	for _, d := range c.Notes {
		if d.After != nil {
			touch(d.After.ID)
		} else {
			touch(d.Before.ID)
		}
	}
	if err := renamed(w, c, touch); err != nil {
		return err
	}
	later := len(touched) > 1 && (len(touched) > indexedAtOnce || bytes > notesAtOnce)
	for _, todo := range touched {
		if later {
			if err := w.exec(putDue, id(todo)); err != nil {
				return err
			}
			continue
		}
		if err := index(w, todo); err != nil {
			return err
		}
	}
	if later {
		w.store.due.Store(true)
	}
	return nil
}

// index writes the words of a to-do anew, or takes them out where it is gone.
func index(w writer, todo book.ID) error {
	w.store.indexed.Add(1)
	for _, forget := range []string{forgetWords, forgetNames} {
		if err := w.exec(forget, id(todo)); err != nil {
			return err
		}
	}
	if err := w.exec(numberWords, id(todo)); err != nil {
		return err
	}
	words, err := w.store.wordsOf(func(into ...any) error { return w.one(readWords, []any{id(todo)}, into...) })
	if err == sql.ErrNoRows {
		return w.exec(forgetRow, id(todo))
	}
	if err != nil {
		return err
	}
	words.fold()
	if err := w.exec(putWords, words.nth, words.title, words.tags, words.person, words.files, words.place, words.notes); err != nil {
		return err
	}
	return w.exec(putNames, words.nth, words.title, words.tags, words.person, words.files, words.place)
}

// wordsOf puts together what is indexed of a row that scan reads.
func (s *Store) wordsOf(scan func(...any) error) (words, error) {
	var out words
	var tags tagList
	var person book.ID
	var files attachments
	err := scan(&out.nth, &out.title, &tags, (*id)(&person), packed[attachments]{&files}, &out.place, &out.notes)
	named := make([]string, 0, len(tags))
	for _, tag := range tags {
		named = append(named, s.names.tags[tag])
	}
	out.tags = strings.Join(named, " ")
	out.person = s.names.people[person]
	called := make([]string, 0, len(files))
	for _, f := range files {
		called = append(called, f.Name)
	}
	out.files = strings.Join(called, " ")
	return out, err
}

// renamed finds what carries a tag or a person that has another name by now.
func renamed(w writer, c *book.Change, touch func(book.ID)) error {
	find := func(query string, of book.ID) error {
		return each(w.ctx, w.store.conn, query, func(r *sql.Rows) error {
			var todo book.ID
			err := r.Scan((*id)(&todo))
			touch(todo)
			return err
		}, of[:])
	}
	for _, d := range c.Tags {
		if d.Before != nil && d.After != nil && d.Before.Name != d.After.Name {
			if err := find(taggedTodos, d.After.ID); err != nil {
				return err
			}
		}
	}
	for _, d := range c.People {
		if d.Before != nil && d.After != nil && (d.Before.Name != d.After.Name || d.Before.Email != d.After.Email) {
			if err := find(personTodos, d.After.ID); err != nil {
				return err
			}
		}
	}
	return nil
}

// IndexSome writes the rows, then the words, of some to-dos that are waiting for it and
// reports whether more are. Like Save it is called by one goroutine at a time; it takes about
// as long as indexingTurn.
func (s *Store) IndexSome(ctx context.Context) (more bool, err error) {
	if !s.backlog.empty() {
		if _, err := s.writeSome(ctx); err != nil {
			return false, err
		}
		return true, nil
	}
	if !s.due.Load() {
		return false, nil
	}
	var some []book.ID
	err = each(ctx, s.conn, "SELECT todo FROM search_due LIMIT ?", func(r *sql.Rows) error {
		var todo book.ID
		err := r.Scan((*id)(&todo))
		some = append(some, todo)
		return err
	}, 1000)
	if err != nil {
		return false, explain(err)
	}
	if len(some) == 0 {
		s.due.Store(false)
		return false, nil
	}
	begun := time.Now()
	return true, s.transact(ctx, func(w writer) error {
		for _, todo := range some {
			if time.Since(begun) > indexingTurn {
				break
			}
			if err := index(w, todo); err != nil {
				return err
			}
			if err := w.exec(takeDue, id(todo)); err != nil {
				return err
			}
		}
		return nil
	})
}

// Indexing reports whether the words of some to-dos are not in the index yet.
func (s *Store) Indexing() bool { return s.due.Load() || s.Behind() }

// Behind reports whether the rows of some to-dos are in the history alone.
func (s *Store) Behind() bool { return !s.backlog.empty() }
