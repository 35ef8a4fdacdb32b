-- +goose Up
CREATE TABLE people (
    id       BLOB PRIMARY KEY,
    name     TEXT NOT NULL,
    email    TEXT NOT NULL,
    phone    TEXT NOT NULL,
    revision INTEGER NOT NULL
) WITHOUT ROWID;

-- Reminders stand beside one another, parted by spaces; a repeat is JSON; both
-- are '' for none. record names the to-do that the row is a record of.
ALTER TABLE todos ADD COLUMN parent BLOB REFERENCES todos (id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE todos ADD COLUMN estimate INTEGER NOT NULL DEFAULT 0;
ALTER TABLE todos ADD COLUMN reminders TEXT NOT NULL DEFAULT '';
ALTER TABLE todos ADD COLUMN person BLOB REFERENCES people (id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE todos ADD COLUMN role TEXT NOT NULL DEFAULT 'none';
ALTER TABLE todos ADD COLUMN since TEXT NOT NULL DEFAULT '';
ALTER TABLE todos ADD COLUMN repeat TEXT NOT NULL DEFAULT '';
ALTER TABLE todos ADD COLUMN record BLOB;

-- Deleting a row looks for what refers to it.
CREATE INDEX todos_parent ON todos (parent) WHERE parent IS NOT NULL;
CREATE INDEX todos_person ON todos (person) WHERE person IS NOT NULL;
