-- +goose Up
CREATE TABLE sections (
    id       BLOB PRIMARY KEY,
    list     BLOB NOT NULL REFERENCES lists (id) DEFERRABLE INITIALLY DEFERRED,
    name     TEXT NOT NULL,
    position TEXT NOT NULL,
    revision INTEGER NOT NULL
) WITHOUT ROWID;

ALTER TABLE shelves ADD COLUMN deleted INTEGER NOT NULL DEFAULT 0;

-- sorted names the order of the to-dos; template is the day from which a
-- template's dates count, '' for a list that is none.
ALTER TABLE lists ADD COLUMN sorted TEXT NOT NULL DEFAULT 'priority';
ALTER TABLE lists ADD COLUMN checklist INTEGER NOT NULL DEFAULT 0;
ALTER TABLE lists ADD COLUMN pinned INTEGER NOT NULL DEFAULT 0;
ALTER TABLE lists ADD COLUMN archived INTEGER NOT NULL DEFAULT 0;
ALTER TABLE lists ADD COLUMN template TEXT NOT NULL DEFAULT '';
ALTER TABLE lists ADD COLUMN deleted INTEGER NOT NULL DEFAULT 0;

ALTER TABLE people ADD COLUMN note TEXT NOT NULL DEFAULT '';

-- attachments are JSON, '' for none; handful is a date, '' for none.
ALTER TABLE todos ADD COLUMN section BLOB REFERENCES sections (id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE todos ADD COLUMN is_note INTEGER NOT NULL DEFAULT 0;
ALTER TABLE todos ADD COLUMN in_order INTEGER NOT NULL DEFAULT 0;
ALTER TABLE todos ADD COLUMN handful TEXT NOT NULL DEFAULT '';
ALTER TABLE todos ADD COLUMN attachments TEXT NOT NULL DEFAULT '';

-- Deleting a row looks for what refers to it.
CREATE INDEX todos_section ON todos (section) WHERE section IS NOT NULL;
CREATE INDEX todo_tags_tag ON todo_tags (tag);
