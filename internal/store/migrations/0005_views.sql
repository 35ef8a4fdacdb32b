-- +goose Up
-- question is what a view asks, as JSON.
CREATE TABLE views (
    id       BLOB PRIMARY KEY,
    name     TEXT NOT NULL,
    question TEXT NOT NULL,
    icon     TEXT NOT NULL,
    colour   TEXT NOT NULL,
    position TEXT NOT NULL,
    pinned   INTEGER NOT NULL,
    counted  INTEGER NOT NULL,
    revision INTEGER NOT NULL
) WITHOUT ROWID;

-- outcome is what will be true when a project is done, '' for none.
ALTER TABLE todos ADD COLUMN outcome TEXT NOT NULL DEFAULT '';
