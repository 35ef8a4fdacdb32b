-- +goose Up
-- The segments of the search index are merged a few pages at a time, by the program:
-- merged by itself, a commit now and then takes as long as the merge of hundreds of them.
INSERT INTO search (search, rank) VALUES ('automerge', 0);
INSERT INTO search (search, rank) VALUES ('crisismerge', 200);
INSERT INTO search_names (search_names, rank) VALUES ('automerge', 0);
INSERT INTO search_names (search_names, rank) VALUES ('crisismerge', 200);
