package store

import "context"

const (
	// mergeAfter is from how many to-dos on that were written into the search index its
	// segments are merged. Each transaction makes a segment; 200 in one level would be
	// merged at once (migration 0012).
	mergeAfter = 8

	mergeWords = "INSERT INTO search (search, rank) VALUES ('merge', 16)"
	mergeNames = "INSERT INTO search_names (search_names, rank) VALUES ('merge', 16)"
	rowsSoFar  = "SELECT total_changes()"
)

// Merging reports whether the search index has segments that may be merged.
func (s *Store) Merging() bool { return s.indexed.Load() >= mergeAfter }

// MergeSome merges about sixteen pages of the search index. Like Save it is called by one
// goroutine at a time. Once there is nothing left to merge, Merging is false.
func (s *Store) MergeSome(ctx context.Context) error {
	return s.transact(ctx, func(w writer) error {
		merged := false
		for _, merge := range []string{mergeWords, mergeNames} {
			var before, after int64
			if err := w.one(rowsSoFar, nil, &before); err != nil {
				return err
			}
			if err := w.exec(merge); err != nil {
				return err
			}
			if err := w.one(rowsSoFar, nil, &after); err != nil {
				return err
			}
			// One row is the command itself (FTS5, "The 'merge' Command").
			merged = merged || after-before >= 2
		}
		if !merged {
			s.indexed.Store(0)
		}
		return nil
	})
}
