-- +goose Up
-- The changes of many to-dos whose rows are not all written yet: they are in the history, of which
-- the rest is written when the file is next opened.
CREATE TABLE backlog (seq INTEGER PRIMARY KEY);
