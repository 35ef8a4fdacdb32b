-- +goose Up
-- concentration is deep, light or unset.
ALTER TABLE todos ADD COLUMN concentration TEXT NOT NULL DEFAULT 'unset';
