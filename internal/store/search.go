package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/search"
)

// The statements that keep the search index. It holds a row for each to-do, the
// bin's too, and is written in the transaction that changes the to-do.
const (
	numberWords = "INSERT INTO search_rows (todo) VALUES (?)"
	forgetWords = "DELETE FROM search WHERE rowid = (SELECT nth FROM search_rows WHERE todo = ?)"
	forgetRow   = "DELETE FROM search_rows WHERE todo = ?"
	readWords   = "SELECT nth, title, tags, person, files, notes FROM search_words WHERE todo = ?"
	// One row by its values: what FTS5 is given by a SELECT, or in several rows,
	// it writes out at once, lest the statement is taken back.
	putWords    = "INSERT INTO search (rowid, title, tags, person, files, notes) VALUES (?, ?, ?, ?, ?, ?)"
	taggedTodos = "SELECT todo FROM todo_tags WHERE tag = ?"
	personTodos = "SELECT id FROM todos WHERE person = ?"
)

// searched are the fields of a to-do that can be looked for.
var searched = book.FieldsOf("title", "notes", "person", "tags", "attachments")

// saveWords brings the index up to date with a change that has been written.
func saveWords(w writer, c *book.Change) error {
	var fresh []book.ID // in order, which their numbers tell later
	again := map[book.ID]bool{}
	for _, d := range c.Todos {
		switch {
		case d.After == nil:
			if err := w.exec(forgetWords, id(d.Before.ID)); err != nil {
				return err
			}
			if err := w.exec(forgetRow, id(d.Before.ID)); err != nil {
				return err
			}
		case d.Before == nil:
			fresh = append(fresh, d.After.ID)
		case book.Altered(d.Before, d.After)&searched != 0:
			again[d.After.ID] = true
		}
	}
	for _, d := range c.Notes {
		if d.After != nil {
			again[d.After.ID] = true
		} else {
			again[d.Before.ID] = true
		}
	}
	if err := renamed(w, c, again); err != nil {
		return err
	}
	for _, todo := range fresh {
		delete(again, todo)
		if err := w.exec(numberWords, id(todo)); err != nil {
			return err
		}
		if err := index(w, todo); err != nil {
			return err
		}
	}
	for todo := range again {
		if err := w.exec(forgetWords, id(todo)); err != nil {
			return err
		}
		if err := index(w, todo); err != nil {
			return err
		}
	}
	return nil
}

// index writes the words of a to-do, if it is still there.
func index(w writer, todo book.ID) error {
	var nth int64
	var words [5]string
	err := w.one(readWords, []any{id(todo)}, &nth, &words[0], &words[1], &words[2], &words[3], &words[4])
	if err == sql.ErrNoRows {
		return nil
	}
	if err == nil {
		err = w.exec(putWords, nth, words[0], words[1], words[2], words[3], words[4])
	}
	return err
}

// renamed finds what carries a tag or a person that has another name by now.
func renamed(w writer, c *book.Change, again map[book.ID]bool) error {
	find := func(query string, of book.ID) error {
		return each(w.ctx, w.store.conn, query, func(r *sql.Rows) error {
			var todo book.ID
			err := r.Scan((*id)(&todo))
			again[todo] = true
			return err
		}, id(of))
	}
	for _, d := range c.Tags {
		if d.Before != nil && d.After != nil && d.Before.Name != d.After.Name {
			if err := find(taggedTodos, d.After.ID); err != nil {
				return err
			}
		}
	}
	for _, d := range c.People {
		if d.Before != nil && d.After != nil && d.Before.Name != d.After.Name {
			if err := find(personTodos, d.After.ID); err != nil {
				return err
			}
		}
	}
	return nil
}

// MaxHits is how many to-dos a search finds at most; a view of one's own with
// the words as its filter holds all of them.
const MaxHits = 2000

// maxRanked is how many hits are ranked, which costs more with each of them.
const maxRanked = 1000

// Search returns the to-dos that a query finds, the best first, MaxHits of them
// at most. Up to maxRanked are ranked by how often and where they hold the words.
// Where there are more, those that hold every word in their title, tags, person
// or files come first, then the others, of both the newest first.
func (s *Store) Search(ctx context.Context, q search.Query) ([]book.ID, error) {
	found, err := s.newest(ctx, match(q))
	switch {
	case err != nil || len(found) == 0:
		return nil, err
	case len(found) <= maxRanked:
		return s.ranked(ctx, match(q))
	}
	best, err := s.newest(ctx, "{title tags person files} : ("+match(q)+")")
	if err != nil {
		return nil, err
	}
	first := make(map[int64]bool, len(best))
	for _, nth := range best {
		first[nth] = true
	}
	for _, nth := range found {
		if len(best) < MaxHits && !first[nth] {
			best = append(best, nth)
		}
	}
	return s.numbered(ctx, best)
}

// newest returns the numbers of what matches, the latest first, MaxHits at most.
func (s *Store) newest(ctx context.Context, words string) ([]int64, error) {
	var found []int64
	err := each(ctx, s.read, "SELECT rowid FROM search WHERE search MATCH ? ORDER BY rowid DESC LIMIT ?", func(r *sql.Rows) error {
		var nth int64
		err := r.Scan(&nth)
		found = append(found, nth)
		return err
	}, words, MaxHits)
	return found, explain(err)
}

// ranked returns what matches, the best first.
func (s *Store) ranked(ctx context.Context, words string) ([]book.ID, error) {
	var found []book.ID
	err := each(ctx, s.read, "SELECT todo FROM search JOIN search_rows ON nth = search.rowid WHERE search MATCH ? ORDER BY rank",
		func(r *sql.Rows) error {
			var todo book.ID
			err := r.Scan((*id)(&todo))
			found = append(found, todo)
			return err
		}, words)
	return found, explain(err)
}

// numbered returns the to-dos with some numbers, in their order.
func (s *Store) numbered(ctx context.Context, numbers []int64) ([]book.ID, error) {
	list, err := json.Marshal(numbers)
	if err != nil {
		return nil, err
	}
	todos := make(map[int64]book.ID, len(numbers))
	err = each(ctx, s.read, "SELECT nth, todo FROM search_rows WHERE nth IN (SELECT value FROM json_each(?))", func(r *sql.Rows) error {
		var nth int64
		var todo book.ID
		err := r.Scan(&nth, (*id)(&todo))
		todos[nth] = todo
		return err
	}, string(list))
	found := make([]book.ID, 0, len(numbers))
	for _, nth := range numbers {
		if todo, there := todos[nth]; there { // it may have gone meanwhile
			found = append(found, todo)
		}
	}
	return found, explain(err)
}

// match writes a query as FTS5 wants it (its documentation, section 3): every
// term in quotes, so that nothing of it is taken for an operator.
func match(q search.Query) string {
	quoted := func(t search.Term) string {
		s := `"` + strings.ReplaceAll(strings.ReplaceAll(t.Text, "\x00", " "), `"`, `""`) + `"`
		if !t.Phrase {
			s += "*"
		}
		return s
	}
	var b strings.Builder
	for i, t := range q.Wanted {
		if i > 0 {
			b.WriteString(" AND ")
		}
		b.WriteString(quoted(t))
	}
	s := b.String()
	for _, t := range q.LeftOut {
		s = "(" + s + ") NOT " + quoted(t)
	}
	return s
}
