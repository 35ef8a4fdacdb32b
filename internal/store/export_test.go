package store

import (
	"context"
	"database/sql"
	"fmt"
	"io/fs"
	"strings"

	"github.com/pressly/goose/v3"
)

// MakeAtSchema makes a file as an older version would have left it.
func MakeAtSchema(ctx context.Context, path string, version int64) error {
	made, err := Open(ctx, path)
	if err != nil {
		return err
	}
	if err := made.Close(); err != nil {
		return err
	}
	db, err := sql.Open("sqlite", source(path))
	if err != nil {
		return err
	}
	defer db.Close()
	sub, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, db, sub)
	if err != nil {
		return err
	}
	for _, table := range []string{"search", "search_names", "search_rows", "history", "replies", "search_due", "backlog", "notes", "views", "rings", "places", "presence", "personal", "todos", "people", "tags", "sections", "list_places", "lists", "shelves", "settings", "feeds", "calendars", "accounts", "installation", "goose_db_version"} {
		if _, err := db.ExecContext(ctx, "DROP TABLE "+table); err != nil {
			return err
		}
	}
	if _, err := p.UpTo(ctx, version); err != nil {
		return err
	}
	if now, err := p.GetDBVersion(ctx); err != nil || now != version {
		return fmt.Errorf("the file is at schema %d, %w", now, err)
	}
	return nil
}

// CheckIndex compares the search index with the rows it is of, once all that waits
// for it is written. It must not run beside Save.
func (s *Store) CheckIndex(ctx context.Context) error {
	for more := true; more; {
		var err error
		if more, err = s.IndexSome(ctx); err != nil {
			return err
		}
	}
	indexed := map[int64]words{}
	if err := each(ctx, s.read, "SELECT rowid, title, tags, person, files, place, notes FROM search", func(r *sql.Rows) error {
		var w words
		err := r.Scan(&w.nth, &w.title, &w.tags, &w.person, &w.files, &w.place, &w.notes)
		indexed[w.nth] = w
		return err
	}); err != nil {
		return err
	}
	query := strings.TrimSuffix(readWords, " WHERE t.id = ?")
	if err := each(ctx, s.read, query, func(r *sql.Rows) error {
		w, err := s.wordsOf(r.Scan)
		w.fold()
		if err == nil && indexed[w.nth] != w {
			err = fmt.Errorf("the search index has %+v; want %+v", indexed[w.nth], w)
		}
		return err
	}); err != nil {
		return err
	}
	var rows, todos int
	if err := s.read.QueryRowContext(ctx, "SELECT (SELECT count(*) FROM search), (SELECT count(*) FROM todos)").Scan(&rows, &todos); err != nil || rows != todos {
		return fmt.Errorf("the search index has %d rows for %d to-dos (%v)", rows, todos, err)
	}
	return s.checkNames(ctx)
}

// checkNames compares the index of names with the names in the whole index, word
// by word (FTS5's documentation, section 5.3: the vocabulary table).
func (s *Store) checkNames(ctx context.Context) error {
	for table, of := range map[string]string{"all_words": "search", "name_words": "search_names"} {
		query := "CREATE VIRTUAL TABLE IF NOT EXISTS temp." + table + " USING fts5vocab('main', '" + of + "', 'instance')"
		if _, err := s.conn.ExecContext(ctx, query); err != nil {
			return err
		}
	}
	for what, query := range map[string]string{
		"missing": "SELECT * FROM temp.all_words WHERE col <> 'notes' EXCEPT SELECT * FROM temp.name_words",
		"stale":   "SELECT * FROM temp.name_words EXCEPT SELECT * FROM temp.all_words",
	} {
		err := each(ctx, s.conn, query, func(r *sql.Rows) error {
			var term, column string
			var row, offset int
			if err := r.Scan(&term, &row, &column, &offset); err != nil {
				return err
			}
			return fmt.Errorf("the index of names: %s: %q, %s of row %d", what, term, column, row)
		})
		if err != nil {
			return err
		}
	}
	return nil
}

// OpenPlain opens a file with no more than SQLite knows of it.
func OpenPlain(path string) (*sql.DB, error) { return sql.Open("sqlite", source(path)) }

// CountHits counts what an FTS5 query finds.
func (s *Store) CountHits(ctx context.Context, query string) (n int, err error) {
	err = s.read.QueryRowContext(ctx, "SELECT count(*) FROM search WHERE search MATCH ?", query).Scan(&n)
	return n, err
}

// DeferFrom has changes of so many to-dos or more written one to-do a turn.
func (s *Store) DeferFrom(n int) { s.backlog.from, s.backlog.atOnce, s.backlog.turn = n, 1, 0 }
