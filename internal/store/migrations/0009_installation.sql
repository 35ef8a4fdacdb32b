-- +goose Up
-- One row. id names the data file, also in the mark of its folder of files.
-- tidied is the day up to which what is kept for a time has been let go, in
-- milliseconds since 1970, 0 for never: it follows the clock by small steps.
CREATE TABLE installation (
    one    INTEGER PRIMARY KEY CHECK (one = 1),
    id     BLOB NOT NULL,
    tidied INTEGER NOT NULL
);

INSERT INTO installation SELECT 1, randomblob(16), coalesce((SELECT max(at) FROM history), 0);
