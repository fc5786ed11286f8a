-- +goose Up
-- What marks the file as ours: "KMrg" in ASCII.
PRAGMA application_id = 1263366759;

-- A job can be taken off and put back, and counts every change of its walk.
ALTER TABLE jobs ADD COLUMN removed INTEGER NOT NULL DEFAULT 0;
ALTER TABLE jobs ADD COLUMN walk INTEGER NOT NULL DEFAULT 1;

-- What was made for a request, so that the same request sent again makes nothing more.
CREATE TABLE made (
    key        TEXT PRIMARY KEY,
    job_id     TEXT NOT NULL,
    opening_id TEXT NOT NULL DEFAULT ''
) STRICT, WITHOUT ROWID;

-- The foreign keys are looked up both ways at every change.
CREATE INDEX changes_by_opening ON changes (job_id, opening_id);
CREATE INDEX openings_by_head ON openings (head);
CREATE INDEX openings_by_position ON openings (job_id, position);
