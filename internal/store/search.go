package store

import (
	"context"
	"database/sql"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/search"
)

// The statements that keep the search index: all words of a to-do, and those of
// its names alone. Both hold a row for each to-do, the bin's too, and are written
// in the transaction that changes the to-do.
const (
	numberWords = "INSERT INTO search_rows (todo) VALUES (?)"
	forgetWords = "DELETE FROM search WHERE rowid = (SELECT nth FROM search_rows WHERE todo = ?)"
	forgetNames = "DELETE FROM search_names WHERE rowid = (SELECT nth FROM search_rows WHERE todo = ?)"
	forgetRow   = "DELETE FROM search_rows WHERE todo = ?"
	readWords   = "SELECT nth, title, tags, person, files, place, notes FROM search_words WHERE todo = ?"
	// One row by its values: what FTS5 is given by a SELECT, or in several rows,
	// it writes out at once, lest the statement is taken back.
	putWords    = "INSERT INTO search (rowid, title, tags, person, files, place, notes) VALUES (?, ?, ?, ?, ?, ?, ?)"
	putNames    = "INSERT INTO search_names (rowid, title, tags, person, files, place) VALUES (?, ?, ?, ?, ?, ?)"
	taggedTodos = "SELECT todo FROM todo_tags WHERE tag = ?"
	personTodos = "SELECT id FROM todos WHERE person = ?"
)

// searched are the fields of a to-do that can be looked for.
var searched = book.FieldsOf("title", "notes", "person", "tags", "attachments", "place")

// saveWords brings the index up to date with a change that has been written.
func saveWords(w writer, c *book.Change) error {
	var fresh []book.ID // in order, which their numbers tell later
	again := map[book.ID]bool{}
	for _, d := range c.Todos {
		switch {
		case d.After == nil:
			for _, forget := range []string{forgetWords, forgetNames, forgetRow} {
				if err := w.exec(forget, id(d.Before.ID)); err != nil {
					return err
				}
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
		for _, forget := range []string{forgetWords, forgetNames} {
			if err := w.exec(forget, id(todo)); err != nil {
				return err
			}
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
	var title, tags, person, files, place, notes string
	err := w.one(readWords, []any{id(todo)}, &nth, &title, &tags, &person, &files, &place, &notes)
	if err == sql.ErrNoRows {
		return nil
	}
	if err == nil {
		err = w.exec(putWords, nth, title, tags, person, files, place, notes)
	}
	if err == nil {
		err = w.exec(putNames, nth, title, tags, person, files, place)
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
const MaxHits = 1000

// maxRanked is how many hits are ranked, which costs more with each of them.
const maxRanked = 200

// Search returns the to-dos that a query finds, the best first, MaxHits of them
// at most. Up to maxRanked are ranked by how often and where they hold the words.
// Where there are more, those that hold every word outside their notes come first, then the others,
// of both the newest first.
func (s *Store) Search(ctx context.Context, q search.Query) ([]book.ID, error) {
	found, err := s.hits(ctx, newestHits, match(q), MaxHits)
	switch {
	case err != nil || len(found) == 0:
		return nil, err
	case len(found) <= maxRanked:
		return s.hits(ctx, rankedHits, match(q))
	}
	var best []book.ID
	if len(q.LeftOut) == 0 {
		best, err = s.hits(ctx, namedHits, wanted(q), MaxHits)
	} else {
		best, err = s.hits(ctx, namedHitsBut, wanted(q), leftOut(q), MaxHits)
	}
	if err != nil {
		return nil, err
	}
	first := make(map[book.ID]bool, len(best))
	for _, todo := range best {
		first[todo] = true
	}
	for _, todo := range found {
		if len(best) < MaxHits && !first[todo] {
			best = append(best, todo)
		}
	}
	return best, nil
}

const (
	newestHits = "SELECT todo FROM search JOIN search_rows ON nth = search.rowid WHERE search MATCH ? ORDER BY search.rowid DESC LIMIT ?"
	rankedHits = "SELECT todo FROM search JOIN search_rows ON nth = search.rowid WHERE search MATCH ? ORDER BY rank"
	namedHits  = "SELECT todo FROM search_names JOIN search_rows ON nth = search_names.rowid WHERE search_names MATCH ? ORDER BY search_names.rowid DESC LIMIT ?"
	// What is left out is so wherever it stands, in the notes too.
	namedHitsBut = `SELECT todo FROM search_names JOIN search_rows ON nth = search_names.rowid WHERE search_names MATCH ?
		AND search_names.rowid NOT IN (SELECT rowid FROM search WHERE search MATCH ?) ORDER BY search_names.rowid DESC LIMIT ?`
)

// hits returns the to-dos that a query of the index gives.
func (s *Store) hits(ctx context.Context, query string, args ...any) ([]book.ID, error) {
	var found []book.ID
	err := each(ctx, s.read, query, func(r *sql.Rows) error {
		var todo book.ID
		err := r.Scan((*id)(&todo))
		found = append(found, todo)
		return err
	}, args...)
	return found, explain(err)
}

// match writes a query as FTS5 wants it (its documentation, section 3).
func match(q search.Query) string {
	if len(q.LeftOut) == 0 {
		return wanted(q)
	}
	return "(" + wanted(q) + ") NOT (" + leftOut(q) + ")"
}

func wanted(q search.Query) string { return terms(q.Wanted, " AND ") }

func leftOut(q search.Query) string { return terms(q.LeftOut, " OR ") }

// terms writes each term in quotes, so that nothing of it is taken for an
// operator.
func terms(list []search.Term, operator string) string {
	quoted := make([]string, len(list))
	for i, t := range list {
		quoted[i] = `"` + strings.ReplaceAll(strings.ReplaceAll(t.Text, "\x00", " "), `"`, `""`) + `"`
		if !t.Phrase {
			quoted[i] += "*"
		}
	}
	return strings.Join(quoted, operator)
}
