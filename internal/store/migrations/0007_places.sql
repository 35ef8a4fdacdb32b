-- +goose Up
-- place is where it is done, '' for none.
ALTER TABLE todos ADD COLUMN place TEXT NOT NULL DEFAULT '';
