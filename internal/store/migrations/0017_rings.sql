-- +goose Up
-- Reminders that have come. reminder is which of the to-do's it is, due the wall time at which it
-- should have rung; rang, acknowledged and later are Unix milliseconds, 0 for none.
CREATE TABLE rings (
    id           BLOB PRIMARY KEY,
    account      BLOB NOT NULL REFERENCES accounts (id),
    todo         BLOB NOT NULL REFERENCES todos (id) ON DELETE CASCADE DEFERRABLE INITIALLY DEFERRED,
    reminder     TEXT NOT NULL,
    due          TEXT NOT NULL,
    rang         INTEGER NOT NULL,
    missed       INTEGER NOT NULL,
    acknowledged INTEGER NOT NULL,
    later        INTEGER NOT NULL,
    revision     INTEGER NOT NULL
) WITHOUT ROWID;
-- Deleting a to-do looks for what refers to it.
CREATE INDEX rings_todo ON rings (todo);

-- Since when the reminders of a to-do are as they are, in Unix milliseconds; 0 where that was
-- before it was noted.
ALTER TABLE personal ADD COLUMN remind_from INTEGER NOT NULL DEFAULT 0;
