-- +goose Up
DROP VIEW search_words;
DROP TABLE search;

-- What can be looked for, case and diacritics aside.
CREATE VIRTUAL TABLE search USING fts5 (
    title, tags, person, files, place, notes,
    tokenize = "unicode61 remove_diacritics 2",
    prefix = '2 3'
);

-- A hit in the title counts most, then one in a tag, a person's name, a file's
-- name or the place, and the notes.
INSERT INTO search (search, rank) VALUES ('rank', 'bm25(10.0, 5.0, 5.0, 3.0, 3.0, 1.0)');

-- The same without the notes, for what is named by the words of a search: asked
-- of the whole index, that takes as long as reading all notes.
CREATE VIRTUAL TABLE search_names USING fts5 (
    title, tags, person, files, place,
    content = '', contentless_delete = 1,
    tokenize = "unicode61 remove_diacritics 2",
    prefix = '2 3'
);

-- The words of each to-do, by its number.
CREATE VIEW search_words AS
SELECT r.nth, t.id AS todo, t.title,
    coalesce((SELECT group_concat(g.name, ' ') FROM todo_tags x JOIN tags g ON g.id = x.tag WHERE x.todo = t.id), '') AS tags,
    coalesce((SELECT p.name FROM people p WHERE p.id = t.person), '') AS person,
    CASE t.attachments WHEN '' THEN ''
        ELSE (SELECT group_concat(json_extract(a.value, '$.Name'), ' ') FROM json_each(t.attachments) a) END AS files,
    t.place,
    coalesce((SELECT n.text FROM notes n WHERE n.todo = t.id), '') AS notes
FROM todos t JOIN search_rows r ON r.todo = t.id;

INSERT INTO search (rowid, title, tags, person, files, place, notes)
SELECT nth, title, tags, person, files, place, notes FROM search_words;
INSERT INTO search_names (rowid, title, tags, person, files, place)
SELECT nth, title, tags, person, files, place FROM search_words;
