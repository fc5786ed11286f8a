-- +goose Up
-- The plan for the day of a job, and what became of it.
CREATE TABLE days (
    job_id  TEXT PRIMARY KEY REFERENCES jobs (id),
    doc     TEXT NOT NULL,
    version INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
