package store

import "context"

const (
	// mergeAfter is from how many to-dos on that were written into the search index its
	// segments are merged. Each transaction makes a segment; 200 in one level would be
	// merged at once (migration 0012).
	mergeAfter = 8

	mergeWords = "INSERT INTO search (search, rank) VALUES ('merge', 8)"
	mergeNames = "INSERT INTO search_names (search_names, rank) VALUES ('merge', 8)"
	rowsSoFar  = "SELECT total_changes()"
)

// Merging reports whether the search index has segments that may be merged.
func (s *Store) Merging() bool { return s.indexed.Load() >= mergeAfter }

// MergeSome merges about eight pages of the one or the other half of the search index, by
// turns; a word that very many to-dos hold is merged at once, however long that takes.
// Like Save it is called by one goroutine at a time. Once there is nothing left to merge,
// Merging is false.
func (s *Store) MergeSome(ctx context.Context) error {
	return s.transact(ctx, func(w writer) error {
		half := s.mergesNames
		s.mergesNames = !half
		merge := mergeWords
		if half {
			merge = mergeNames
		}
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
		if merged := after-before >= 2; merged {
			s.nothingMerged = 0
		} else if s.nothingMerged++; s.nothingMerged >= 2 { // neither half had anything left
			s.nothingMerged = 0
			s.indexed.Store(0)
		}
		return nil
	})
}
