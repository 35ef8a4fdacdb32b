-- +goose Up
-- One row a change; seq is the Book's revision after it. The newest row stays
-- for ever, so that the revision never runs backwards.
CREATE TABLE history (
    seq       INTEGER PRIMARY KEY,
    at        INTEGER NOT NULL,
    made_in   TEXT NOT NULL,   -- the window
    kind      TEXT NOT NULL,
    says      TEXT NOT NULL,
    rows      TEXT,            -- the change as JSON; NULL cannot be turned round
    turned_by INTEGER          -- the seq that undid or redid it
);

-- Replies kept under their Idempotency-Key, so that a retry is answered and
-- not carried out.
CREATE TABLE replies (
    key         TEXT PRIMARY KEY,
    fingerprint BLOB NOT NULL,
    status      INTEGER NOT NULL,
    etag        TEXT NOT NULL,
    location    TEXT NOT NULL,
    body        BLOB NOT NULL,
    at          INTEGER NOT NULL
) WITHOUT ROWID;
