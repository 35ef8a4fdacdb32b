-- +goose Up
CREATE TABLE shelves (
    id       BLOB PRIMARY KEY,
    name     TEXT NOT NULL,
    position TEXT NOT NULL,
    revision INTEGER NOT NULL
) WITHOUT ROWID;

CREATE TABLE lists (
    id       BLOB PRIMARY KEY,
    shelf    BLOB NOT NULL REFERENCES shelves (id) DEFERRABLE INITIALLY DEFERRED,
    name     TEXT NOT NULL,
    colour   TEXT NOT NULL,
    position TEXT NOT NULL,
    revision INTEGER NOT NULL
) WITHOUT ROWID;

CREATE TABLE tags (
    id       BLOB PRIMARY KEY,
    name     TEXT NOT NULL UNIQUE COLLATE NOCASE,
    colour   TEXT NOT NULL,
    revision INTEGER NOT NULL
) WITHOUT ROWID;

-- Dates, moments and plans are ISO 8601 text, '' for none; instants are
-- milliseconds since 1970, 0 for none.
CREATE TABLE todos (
    id         BLOB PRIMARY KEY,
    title      TEXT NOT NULL,
    notes_size INTEGER NOT NULL,
    list       BLOB REFERENCES lists (id) DEFERRABLE INITIALLY DEFERRED,
    position   TEXT NOT NULL,
    status     TEXT NOT NULL,
    priority   TEXT NOT NULL,
    start      TEXT NOT NULL,
    due        TEXT NOT NULL,
    plan       TEXT NOT NULL,
    created    INTEGER NOT NULL,
    changed    INTEGER NOT NULL,
    completed  INTEGER NOT NULL,
    deleted    INTEGER NOT NULL,
    revision   INTEGER NOT NULL
) WITHOUT ROWID;

CREATE TABLE todo_tags (
    todo BLOB NOT NULL REFERENCES todos (id) ON DELETE CASCADE,
    nth  INTEGER NOT NULL,
    tag  BLOB NOT NULL REFERENCES tags (id) DEFERRABLE INITIALLY DEFERRED,
    PRIMARY KEY (todo, nth)
) WITHOUT ROWID;

CREATE TABLE notes (
    todo BLOB PRIMARY KEY REFERENCES todos (id) ON DELETE CASCADE DEFERRABLE INITIALLY DEFERRED,
    text TEXT NOT NULL
) WITHOUT ROWID;
