-- +goose Up
-- Calendars whose events are read: at an address, or once from a file.
CREATE TABLE calendars (
    id            BLOB PRIMARY KEY,
    account       BLOB NOT NULL REFERENCES accounts (id),
    name          TEXT NOT NULL,
    colour        TEXT NOT NULL,
    address       TEXT NOT NULL,
    file          TEXT NOT NULL,
    all_day_takes INTEGER NOT NULL,
    revision      INTEGER NOT NULL
) WITHOUT ROWID;

-- What was last read of each, as it came, squeezed. It outlives its calendar for as long as
-- removing that can be undone. changed is when the text was new, asked when it was last asked
-- for; problem is what was wrong then, '' for nothing. Times are Unix milliseconds.
CREATE TABLE feeds (
    calendar BLOB PRIMARY KEY,
    text     BLOB NOT NULL,
    etag     TEXT NOT NULL,
    modified TEXT NOT NULL,
    changed  INTEGER NOT NULL,
    asked    INTEGER NOT NULL,
    problem  TEXT NOT NULL
);

-- What a to-do was made of: a link and words, with a space between; '' for nothing.
ALTER TABLE todos ADD COLUMN source TEXT NOT NULL DEFAULT '';
