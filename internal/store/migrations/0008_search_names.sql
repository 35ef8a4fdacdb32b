-- +goose Up
-- The names alone, for what is named by the words of a search: asked of the
-- whole index, that takes as long as reading all notes.
CREATE VIRTUAL TABLE search_names USING fts5 (
    title, tags, person, files,
    content = '', contentless_delete = 1,
    tokenize = "unicode61 remove_diacritics 2",
    prefix = '2 3'
);

INSERT INTO search_names (rowid, title, tags, person, files)
SELECT rowid, title, tags, person, files FROM search;
