-- +goose Up
-- What a new door of a job begins with.
ALTER TABLE jobs ADD COLUMN usual TEXT NOT NULL DEFAULT '{}';

-- Which column of a schedule is what, by the line of headers that it came with.
CREATE TABLE matchings (
    header   TEXT PRIMARY KEY,
    columns  TEXT NOT NULL
) STRICT, WITHOUT ROWID;
