-- +goose Up
-- tags are the ids of a to-do's tags, one behind the other, 16 bytes each.
ALTER TABLE todos ADD COLUMN tags BLOB NOT NULL DEFAULT x'';

UPDATE todos SET tags = coalesce(
    (SELECT unhex(group_concat(hex(x.tag), '' ORDER BY x.nth)) FROM todo_tags x WHERE x.todo = todos.id), x'')
WHERE id IN (SELECT todo FROM todo_tags);

-- The words of a to-do are put together by the program from here on.
DROP VIEW search_words;
DROP TABLE todo_tags;

-- search_due are to-dos whose words are not in the index yet.
CREATE TABLE search_due (todo BLOB PRIMARY KEY) WITHOUT ROWID;
