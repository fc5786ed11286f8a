-- +goose Up
-- The air of a house, as a hygrometer read it: one reading at a moment.
CREATE TABLE air (
    job_id   TEXT NOT NULL REFERENCES jobs (id),
    at       TEXT NOT NULL,
    name     TEXT NOT NULL,
    celsius  REAL NOT NULL,
    humidity REAL NOT NULL,
    PRIMARY KEY (job_id, at, name)
) STRICT, WITHOUT ROWID;
