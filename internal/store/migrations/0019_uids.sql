-- +goose Up
-- What a to-do came with from elsewhere and is known by there, '' for one that was made here.
ALTER TABLE todos ADD COLUMN uid TEXT NOT NULL DEFAULT '';
