-- +goose Up
-- Which hours the to-dos of a shelf take: working hours, own hours, or none.
ALTER TABLE shelves ADD COLUMN hours TEXT NOT NULL DEFAULT 'working';
