-- +goose Up
-- search_rows numbers the to-dos for the index, which knows rows by number.
CREATE TABLE search_rows (
    nth  INTEGER PRIMARY KEY,
    todo BLOB NOT NULL UNIQUE
);

-- What can be looked for, case and diacritics aside.
CREATE VIRTUAL TABLE search USING fts5 (
    title, tags, person, files, notes,
    tokenize = "unicode61 remove_diacritics 2",
    prefix = '2 3'
);

-- A hit in the title counts most, then one in a tag, a person's name, a file's
-- name and the notes.
INSERT INTO search (search, rank) VALUES ('rank', 'bm25(10.0, 5.0, 5.0, 3.0, 1.0)');

-- The words of each to-do, by its number.
CREATE VIEW search_words AS
SELECT r.nth, t.id AS todo, t.title,
    coalesce((SELECT group_concat(g.name, ' ') FROM todo_tags x JOIN tags g ON g.id = x.tag WHERE x.todo = t.id), '') AS tags,
    coalesce((SELECT p.name FROM people p WHERE p.id = t.person), '') AS person,
    CASE t.attachments WHEN '' THEN ''
        ELSE (SELECT group_concat(json_extract(a.value, '$.Name'), ' ') FROM json_each(t.attachments) a) END AS files,
    coalesce((SELECT n.text FROM notes n WHERE n.todo = t.id), '') AS notes
FROM todos t JOIN search_rows r ON r.todo = t.id;

INSERT INTO search_rows (todo) SELECT id FROM todos;
INSERT INTO search (rowid, title, tags, person, files, notes)
SELECT nth, title, tags, person, files, notes FROM search_words;
