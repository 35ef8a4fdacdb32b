package store

import (
	"context"
	"database/sql"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/search"
)

// The statements that keep the search index. It holds a row for each to-do, the
// bin's too, and is written in the transaction that changes the to-do.
const (
	numberWords = "INSERT OR IGNORE INTO search_rows (todo) VALUES (?)"
	forgetWords = "DELETE FROM search WHERE rowid = (SELECT nth FROM search_rows WHERE todo = ?)"
	forgetRow   = "DELETE FROM search_rows WHERE todo = ?"
	putWords    = `INSERT INTO search (rowid, title, tags, person, files, notes)
		SELECT nth, title, tags, person, files, notes FROM search_words WHERE todo = ?`
	taggedTodos = "SELECT todo FROM todo_tags WHERE tag = ?"
	personTodos = "SELECT id FROM todos WHERE person = ?"
)

// searched are the fields of a to-do that can be looked for.
var searched = []string{"title", "notes", "person", "tags", "attachments"}

// saveWords brings the index up to date with a change that has been written.
func saveWords(w writer, c *book.Change) error {
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
		case d.Before == nil || slices.ContainsFunc(book.Altered(d.Before, d.After).Names(),
			func(field string) bool { return slices.Contains(searched, field) }):
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
	for todo := range again {
		for _, query := range []string{numberWords, forgetWords, putWords} {
			if err := w.exec(query, id(todo)); err != nil {
				return err
			}
		}
	}
	return nil
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

// MaxHits is how many to-dos a search finds at most.
const MaxHits = 5000

// weigh ranks a hit in the title before one in a tag, a person's name, a file's
// name and the notes, in that order.
const weigh = "bm25(search, 10, 5, 5, 3, 1)"

// Search returns the to-dos that a query finds, the best first, MaxHits of them
// at most.
func (s *Store) Search(ctx context.Context, q search.Query) ([]book.ID, error) {
	var found []book.ID
	err := each(ctx, s.read, "SELECT todo FROM search JOIN search_rows ON nth = search.rowid WHERE search MATCH ? ORDER BY "+weigh+" LIMIT ?",
		func(r *sql.Rows) error {
			var todo book.ID
			err := r.Scan((*id)(&todo))
			found = append(found, todo)
			return err
		}, match(q), MaxHits)
	return found, explain(err)
}

// Excerpt is where a query was found in a to-do. In both texts what was found
// stands between Begin and End.
type Excerpt struct {
	Title string
	// Notes is a stretch of the notes, "" where nothing was found in them.
	Notes string
	// Files are the names of its files, "" where nothing was found in them.
	Files string
}

// What an Excerpt marks with: two code points that no text has (Unicode, section
// 23.7).
const (
	Begin = "\uFDD0"
	End   = "\uFDD1"
)

// Excerpts shows where a query was found in some of the to-dos it found.
func (s *Store) Excerpts(ctx context.Context, q search.Query, todos []book.ID) (map[book.ID]Excerpt, error) {
	out := make(map[book.ID]Excerpt, len(todos))
	if len(todos) == 0 {
		return out, nil
	}
	const query = `SELECT todo, highlight(search, 0, '` + Begin + `', '` + End + `'), snippet(search, 4, '` + Begin + `', '` + End + `', '…', 14),
		highlight(search, 3, '` + Begin + `', '` + End + `')
		FROM search JOIN search_rows ON nth = search.rowid WHERE search MATCH ? AND search.rowid IN (SELECT nth FROM search_rows WHERE todo IN (`
	args := []any{match(q)}
	for _, t := range todos {
		args = append(args, id(t))
	}
	err := each(ctx, s.read, query+"?"+strings.Repeat(", ?", len(todos)-1)+"))", func(r *sql.Rows) error {
		var todo book.ID
		var e Excerpt
		err := r.Scan((*id)(&todo), &e.Title, &e.Notes, &e.Files)
		if !strings.Contains(e.Notes, Begin) {
			e.Notes = ""
		}
		if !strings.Contains(e.Files, Begin) {
			e.Files = ""
		}
		out[todo] = e
		return err
	}, args...)
	return out, explain(err)
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
