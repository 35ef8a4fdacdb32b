-- +goose Up
-- Places where to-dos are done: middle is a geo URI (RFC 5870), '' where it is not known,
-- radius in metres; thing is 1 for what one connects to. To-dos and reminders go by the name.
CREATE TABLE places (
    id       BLOB PRIMARY KEY,
    account  BLOB NOT NULL REFERENCES accounts (id),
    name     TEXT NOT NULL,
    middle   TEXT NOT NULL,
    radius   INTEGER NOT NULL,
    thing    INTEGER NOT NULL,
    revision INTEGER NOT NULL
) WITHOUT ROWID;

-- Each name that a to-do has by now becomes one, the spelling that is met first of those that
-- differ by the case of their letters. The id is a UUIDv7 (RFC 9562 section 5.7).
INSERT INTO places
SELECT unhex(format('%012X', CAST(unixepoch('subsec') * 1000 AS INTEGER)) || '7' || substr(hex(randomblob(2)), 1, 3) ||
             substr('89AB', 1 + (random() & 3), 1) || substr(hex(randomblob(8)), 1, 15)),
       (SELECT id FROM accounts WHERE nth = 1), place, '', 150, 0, 0
FROM (SELECT min(place) AS place FROM todos WHERE place <> '' GROUP BY lower(place));
UPDATE todos SET place = (SELECT name FROM places WHERE lower(name) = lower(place)) WHERE place <> '';

-- At which places each account is, and when their edges were last told: JSON. It is no part of
-- the history, which would tell where a person has been.
CREATE TABLE presence (
    account BLOB PRIMARY KEY REFERENCES accounts (id),
    state   TEXT NOT NULL
) WITHOUT ROWID;

-- Names of places have spaces: the reminders of a to-do stand one on a line.
UPDATE personal SET reminders = replace(reminders, ' ', char(10)) WHERE reminders LIKE '% %';
