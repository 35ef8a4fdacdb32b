-- +goose Up
-- What is ticked in a checklist and was cleared from its sight.
ALTER TABLE todos ADD COLUMN cleared INTEGER NOT NULL DEFAULT 0;
