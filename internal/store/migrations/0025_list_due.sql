-- +goose Up
-- The day by which all of a list is to be done, the sentence that is true then, and the person with
-- whom it is done.
ALTER TABLE lists ADD COLUMN due TEXT NOT NULL DEFAULT '';
ALTER TABLE lists ADD COLUMN outcome TEXT NOT NULL DEFAULT '';
ALTER TABLE lists ADD COLUMN person BLOB;
