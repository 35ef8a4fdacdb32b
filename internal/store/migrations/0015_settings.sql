-- +goose Up
-- What an account has chosen, as JSON; what is as by default is left out of it.
CREATE TABLE settings (
    account  BLOB PRIMARY KEY REFERENCES accounts (id),
    chosen   TEXT NOT NULL,
    revision INTEGER NOT NULL
) WITHOUT ROWID;
