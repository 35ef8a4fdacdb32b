package store

import (
	"context"
	"database/sql"
	"fmt"
)

// Pages of the file that hold nothing are kept for what is to come, up to a tenth of
// the file; a turn gives back so many.
const (
	sparePercent = 10
	pagesATurn   = 256
	pageSize     = 4096 // bytes, SQLite's own choice
)

// GiveBack gives some of the pages that hold nothing back to the disk, and reports
// whether there are more to give. Like Save it is called by one goroutine at a time; it
// takes a few milliseconds.
func (s *Store) GiveBack(ctx context.Context) (more bool, err error) {
	if err := s.awaitCut(ctx); err != nil {
		return false, err
	}
	pages, free, incremental, err := s.pages(ctx)
	if err != nil || !incremental || free*100 <= pages*sparePercent || free < pagesATurn {
		return false, err
	}
	if err := s.Present(); err != nil {
		return false, err
	}
	// With them go the pages that tell where they belong, one of some hundreds (SQLite file
	// format, section 1.8).
	s.presence.shorter(max(pages-2*pagesATurn, 1) * pageSize)
	// One row a page, each of which must be asked for.
	err = each(ctx, s.conn, fmt.Sprintf("PRAGMA incremental_vacuum(%d)", pagesATurn), func(*sql.Rows) error { return nil })
	if err != nil {
		return false, explain(err)
	}
	pages, _, _, err = s.pages(ctx)
	if err == nil {
		s.presence.shorter(pages * pageSize)
	}
	return err == nil, err
}

// awaitCut tries to write the log back, so that the file is cut by what was given back. Where
// some still read what is in the log, that is left for another time.
func (s *Store) awaitCut(ctx context.Context) error {
	if !s.presence.awaitsCut() {
		return nil
	}
	if whole, err := writeBack(ctx, s.conn, "PASSIVE"); err != nil || !whole {
		return err
	}
	return s.presence.cut()
}

// Compact rewrites a file of an earlier version, which cannot give back a few pages at a
// time, where a good part of it holds nothing. It takes a second for each hundred
// megabytes or so, and is for a Book that nobody sees yet.
func (s *Store) Compact(ctx context.Context) error {
	pages, free, incremental, err := s.pages(ctx)
	if err != nil || incremental || free*4 < pages || free < pagesATurn {
		return err
	}
	s.presence.shorter((pages - free) / 2 * pageSize)
	for _, query := range []string{"PRAGMA auto_vacuum = INCREMENTAL", "VACUUM"} {
		if _, err := s.conn.ExecContext(ctx, query); err != nil {
			return explain(err)
		}
	}
	return nil
}

// pages returns how many pages the file has, how many of them hold nothing, and
// whether these can be given back a few at a time.
func (s *Store) pages(ctx context.Context) (all, free int64, incremental bool, err error) {
	var mode int
	for query, into := range map[string]any{"PRAGMA page_count": &all, "PRAGMA freelist_count": &free, "PRAGMA auto_vacuum": &mode} {
		if err := s.conn.QueryRowContext(ctx, query).Scan(into); err != nil {
			return 0, 0, false, explain(err)
		}
	}
	return all, free, mode == 2, nil // SQLite's documentation of PRAGMA auto_vacuum
}
