-- +goose Up
-- rows of history and bodies of replies are compressed from here on; what is JSON as
-- it was before is read too. files tells which changes name files.
ALTER TABLE history ADD COLUMN files INTEGER NOT NULL DEFAULT 0;
UPDATE history SET files = 1 WHERE instr(rows, '"Hash"') > 0;

-- Replies lie in the order in which they came; which keys there are is known in
-- memory. Where remake is not '', the body is not kept: it is made again of the
-- change with the revision.
CREATE TABLE replies_in_order (
    seq         INTEGER PRIMARY KEY,
    key         TEXT NOT NULL,
    fingerprint BLOB NOT NULL,
    status      INTEGER NOT NULL,
    etag        TEXT NOT NULL,
    location    TEXT NOT NULL,
    remake      TEXT NOT NULL,
    revision    INTEGER NOT NULL,
    body        BLOB NOT NULL,
    at          INTEGER NOT NULL
);
INSERT INTO replies_in_order (key, fingerprint, status, etag, location, remake, revision, body, at)
SELECT key, fingerprint, status, etag, location, '', 0, body, at FROM replies ORDER BY at;
DROP TABLE replies;
ALTER TABLE replies_in_order RENAME TO replies;
