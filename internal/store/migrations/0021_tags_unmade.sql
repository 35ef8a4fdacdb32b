-- +goose Up
-- What made a tag was undone while another to-do carried it.
ALTER TABLE tags ADD COLUMN unmade INTEGER NOT NULL DEFAULT 0;
