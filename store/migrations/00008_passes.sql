-- +goose Up
-- Devices that were let in: of what each holds only a hash is kept.
CREATE TABLE passes (
    id     TEXT PRIMARY KEY,
    name   TEXT NOT NULL,
    hash   BLOB NOT NULL UNIQUE,
    made   TEXT NOT NULL,
    seen   TEXT NOT NULL,
    ended  TEXT NOT NULL DEFAULT ''
) STRICT, WITHOUT ROWID;
