package store

import (
	"context"
	"database/sql"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/search"
)

// MaxHits is how many to-dos a search finds at most; a view of one's own with
// the words as its filter holds all of them.
const MaxHits = 1000

// maxRanked is how many hits are ranked, which costs more with each of them.
const maxRanked = 200

// Search returns the to-dos of an account that a query finds, the best first, MaxHits of them
// at most. Up to maxRanked are ranked by how often and where they hold the words.
// Where there are more, those that hold every word outside their notes come first,
// then the others, of both the newest first. Where there are more than MaxHits, what
// holds the words themselves comes before what holds others that begin so.
func (s *Store) Search(ctx context.Context, account book.ID, q search.Query) ([]book.ID, error) {
	found, err := s.hits(ctx, newestHits, id(account), match(q), MaxHits)
	switch {
	case err != nil || len(found) == 0:
		return nil, err
	case len(found) <= maxRanked:
		return s.hits(ctx, rankedHits, id(account), match(q))
	}
	named, err := s.namedHits(ctx, account, q)
	if err != nil {
		return nil, err
	}
	best := [][]book.ID{named, found}
	if exact := q.Exact(); exact != nil && len(found) == MaxHits {
		exactNamed, err := s.namedHits(ctx, account, *exact)
		if err != nil {
			return nil, err
		}
		exactly, err := s.hits(ctx, newestHits, id(account), match(*exact), MaxHits)
		if err != nil {
			return nil, err
		}
		best = [][]book.ID{exactNamed, exactly, named, found}
		if len(exactly) == MaxHits { // the words themselves are as common: they tell little
			best = [][]book.ID{exactNamed, named, exactly}
		}
	}
	known := make(map[book.ID]bool, MaxHits)
	var all []book.ID
	for _, todo := range slices.Concat(best...) {
		if len(all) < MaxHits && !known[todo] {
			known[todo] = true
			all = append(all, todo)
		}
	}
	return all, nil
}

// namedHits returns what holds every word outside its notes, the newest first.
func (s *Store) namedHits(ctx context.Context, account book.ID, q search.Query) ([]book.ID, error) {
	if len(q.LeftOut) == 0 {
		return s.hits(ctx, namedHits, id(account), wanted(q), MaxHits)
	}
	return s.hits(ctx, namedHitsBut, id(account), wanted(q), leftOut(q), MaxHits)
}

const (
	newestHits = "SELECT todo FROM search CROSS JOIN search_rows ON nth = search.rowid CROSS JOIN todos ON todos.id = todo AND owner = ? WHERE search MATCH ? ORDER BY search.rowid DESC LIMIT ?"
	rankedHits = "SELECT todo FROM search CROSS JOIN search_rows ON nth = search.rowid CROSS JOIN todos ON todos.id = todo AND owner = ? WHERE search MATCH ? ORDER BY rank"
	namedHits  = "SELECT todo FROM search_names CROSS JOIN search_rows ON nth = search_names.rowid CROSS JOIN todos ON todos.id = todo AND owner = ? WHERE search_names MATCH ? ORDER BY search_names.rowid DESC LIMIT ?"
	// What is left out is so wherever it stands, in the notes too.
	namedHitsBut = `SELECT todo FROM search_names CROSS JOIN search_rows ON nth = search_names.rowid CROSS JOIN todos ON todos.id = todo AND owner = ? WHERE search_names MATCH ?
		AND search_names.rowid NOT IN (SELECT rowid FROM search WHERE search MATCH ?) ORDER BY search_names.rowid DESC LIMIT ?`
)

// hits returns the to-dos that a query of the index gives.
func (s *Store) hits(ctx context.Context, query string, args ...any) ([]book.ID, error) {
	var found []book.ID
	err := each(ctx, s.look, query, func(r *sql.Rows) error {
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
		quoted[i] = `"` + strings.ReplaceAll(strings.ReplaceAll(t.Words(Fold), "\x00", " "), `"`, `""`) + `"`
		if !t.Phrase {
			quoted[i] += "*"
		}
	}
	return strings.Join(quoted, operator)
}
