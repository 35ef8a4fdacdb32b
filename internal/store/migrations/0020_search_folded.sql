-- +goose Up
-- Words are folded before they are indexed, and those of scripts without blanks are indexed in
-- pairs: all are indexed anew, by and by.
INSERT OR IGNORE INTO search_due (todo) SELECT id FROM todos;
