-- +goose Up
-- The people who use this installation; the first is its owner. The id is a UUIDv7
-- (RFC 9562 section 5.7) of the moment at which it is made here.
CREATE TABLE accounts (
    id      BLOB PRIMARY KEY,
    nth     INTEGER NOT NULL UNIQUE,
    created INTEGER NOT NULL
) WITHOUT ROWID;

INSERT INTO accounts
SELECT unhex(format('%012X', ms) || '7' || substr(hex(randomblob(2)), 1, 3) ||
             substr('89AB', 1 + (random() & 3), 1) || substr(hex(randomblob(8)), 1, 15)), 1, ms
FROM (SELECT CAST(unixepoch('subsec') * 1000 AS INTEGER) AS ms);

-- What is one account's own.
ALTER TABLE shelves ADD COLUMN account BLOB NOT NULL DEFAULT x'';
ALTER TABLE people ADD COLUMN account BLOB NOT NULL DEFAULT x'';
ALTER TABLE views ADD COLUMN account BLOB NOT NULL DEFAULT x'';
UPDATE shelves SET account = (SELECT id FROM accounts);
UPDATE people SET account = (SELECT id FROM accounts);
UPDATE views SET account = (SELECT id FROM accounts);

CREATE TABLE own_tags (
    id       BLOB PRIMARY KEY,
    account  BLOB NOT NULL REFERENCES accounts (id),
    name     TEXT NOT NULL COLLATE NOCASE,
    colour   TEXT NOT NULL,
    revision INTEGER NOT NULL,
    UNIQUE (account, name)
) WITHOUT ROWID;
INSERT INTO own_tags SELECT t.id, a.id, t.name, t.colour, t.revision FROM tags t, accounts a;
DROP TABLE tags;
ALTER TABLE own_tags RENAME TO tags;

-- A list is one for all who see it, with an owner; where it stands is for each account to
-- say.
CREATE TABLE owned_lists (
    id        BLOB PRIMARY KEY,
    owner     BLOB NOT NULL REFERENCES accounts (id),
    name      TEXT NOT NULL,
    colour    TEXT NOT NULL,
    sorted    TEXT NOT NULL,
    checklist INTEGER NOT NULL,
    archived  INTEGER NOT NULL,
    template  TEXT NOT NULL,
    deleted   INTEGER NOT NULL,
    revision  INTEGER NOT NULL
) WITHOUT ROWID;
INSERT INTO owned_lists
SELECT l.id, a.id, l.name, l.colour, l.sorted, l.checklist, l.archived, l.template, l.deleted, l.revision FROM lists l, accounts a;
CREATE TABLE list_places (
    list     BLOB NOT NULL REFERENCES lists (id) ON DELETE CASCADE DEFERRABLE INITIALLY DEFERRED,
    account  BLOB NOT NULL REFERENCES accounts (id),
    shelf    BLOB NOT NULL REFERENCES shelves (id) DEFERRABLE INITIALLY DEFERRED,
    position TEXT NOT NULL,
    pinned   INTEGER NOT NULL,
    PRIMARY KEY (list, account)
) WITHOUT ROWID;
INSERT INTO list_places SELECT l.id, a.id, l.shelf, l.position, l.pinned FROM lists l, accounts a;
DROP TABLE lists;
ALTER TABLE owned_lists RENAME TO lists;
-- Deleting a shelf looks for what refers to it.
CREATE INDEX list_places_shelf ON list_places (shelf);

-- The same of to-dos: owner is the account of the list, or of the Cup; what each account
-- has for itself lies in a row that is made when first needed.
ALTER TABLE todos ADD COLUMN owner BLOB NOT NULL DEFAULT x'';
UPDATE todos SET owner = (SELECT id FROM accounts);
CREATE TABLE personal (
    todo      BLOB NOT NULL REFERENCES todos (id) ON DELETE CASCADE DEFERRABLE INITIALLY DEFERRED,
    account   BLOB NOT NULL REFERENCES accounts (id),
    plan      TEXT NOT NULL,
    handful   TEXT NOT NULL,
    reminders TEXT NOT NULL,
    PRIMARY KEY (todo, account)
) WITHOUT ROWID;
INSERT INTO personal
SELECT t.id, t.owner, t.plan, t.handful, t.reminders FROM todos t WHERE t.plan != '' OR t.handful != '' OR t.reminders != '';
ALTER TABLE todos DROP COLUMN plan;
ALTER TABLE todos DROP COLUMN handful;
ALTER TABLE todos DROP COLUMN reminders;

-- Who made a change, and whose request was answered.
ALTER TABLE history ADD COLUMN account BLOB NOT NULL DEFAULT x'';
ALTER TABLE replies ADD COLUMN account BLOB NOT NULL DEFAULT x'';
UPDATE history SET account = (SELECT id FROM accounts);
UPDATE replies SET account = (SELECT id FROM accounts);
