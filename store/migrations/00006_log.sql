-- +goose Up
-- A change says when it was made and by whom; nothing where it was made before that was kept.
ALTER TABLE changes ADD COLUMN at TEXT NOT NULL DEFAULT '';
ALTER TABLE changes ADD COLUMN by TEXT NOT NULL DEFAULT '';

-- Photographs, by the step that they belong to. None is ever deleted, only taken off.
CREATE TABLE photos (
    id         TEXT PRIMARY KEY,
    job_id     TEXT NOT NULL,
    opening_id TEXT NOT NULL,
    step       TEXT NOT NULL,
    at         TEXT NOT NULL,
    by         TEXT NOT NULL,
    caption    TEXT NOT NULL,
    width      INTEGER NOT NULL,
    height     INTEGER NOT NULL,
    data       BLOB NOT NULL,
    removed    INTEGER NOT NULL DEFAULT 0,
    FOREIGN KEY (job_id, opening_id) REFERENCES openings (job_id, id)
) STRICT;

CREATE INDEX photos_by_opening ON photos (job_id, opening_id);

-- Seconds that were spent on each step, where they are counted.
CREATE TABLE spent (
    job_id     TEXT NOT NULL,
    opening_id TEXT NOT NULL,
    step       TEXT NOT NULL,
    seconds    INTEGER NOT NULL,
    PRIMARY KEY (job_id, opening_id, step),
    FOREIGN KEY (job_id, opening_id) REFERENCES openings (job_id, id)
) STRICT, WITHOUT ROWID;
