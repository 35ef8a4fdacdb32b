package store

import (
	"context"
	"database/sql"
	"errors"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// Feed is what was last read of a calendar.
type Feed struct {
	Calendar book.ID
	// Text is as it came (RFC 5545); nil leaves what is there.
	Text []byte
	// ETag and Modified are what it came with (RFC 9110 section 8.8).
	ETag, Modified string
	// Changed is when the text was new, Asked when it was last asked for.
	Changed, Asked day.Timestamp
	// Problem is what was wrong when it was last asked for, a sentence.
	Problem string
}

// Feed returns what was last read of a calendar; nil where nothing was.
func (s *Store) Feed(ctx context.Context, calendar book.ID) (*Feed, error) {
	f := &Feed{Calendar: calendar}
	err := s.read.QueryRowContext(ctx, "SELECT text, etag, modified, changed, asked, problem FROM feeds WHERE calendar = ?", id(calendar)).
		Scan(&f.Text, &f.ETag, &f.Modified, &f.Changed, &f.Asked, &f.Problem)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, nil
	}
	if err == nil {
		f.Text, err = s.squeezer.unsqueeze(f.Text)
	}
	return f, explain(err)
}

// SaveFeed keeps what was read. With a Text of nil the one that is there stays.
func (s *Store) SaveFeed(ctx context.Context, f *Feed) error {
	return s.transact(ctx, func(w writer) error {
		if f.Text == nil {
			return w.exec("UPDATE feeds SET etag = ?, modified = ?, asked = ?, problem = ? WHERE calendar = ?",
				f.ETag, f.Modified, f.Asked, f.Problem, id(f.Calendar))
		}
		return w.exec(putFeed, id(f.Calendar), s.squeezer.squeeze(f.Text), f.ETag, f.Modified, f.Changed, f.Asked, f.Problem)
	})
}

// SweepFeeds lets go of what was read of calendars that are gone, and was last asked for
// before a moment.
func (s *Store) SweepFeeds(ctx context.Context, before day.Timestamp) error {
	return s.transact(ctx, func(w writer) error {
		return w.exec("DELETE FROM feeds WHERE asked < ? AND calendar NOT IN (SELECT id FROM calendars)", before)
	})
}
