-- +goose Up
CREATE TABLE jobs (
    id       TEXT PRIMARY KEY,
    name     TEXT NOT NULL,
    unit     TEXT NOT NULL,
    tape     TEXT NOT NULL,
    version  INTEGER NOT NULL DEFAULT 1
) STRICT;

-- An opening points at the change that it now stands at; undo and redo move
-- the pointer, and no change is ever altered or taken away.
CREATE TABLE openings (
    job_id   TEXT NOT NULL REFERENCES jobs (id),
    id       TEXT NOT NULL,
    position INTEGER NOT NULL,
    head     INTEGER NOT NULL REFERENCES changes (id) DEFERRABLE INITIALLY DEFERRED,
    removed  INTEGER NOT NULL DEFAULT 0,
    PRIMARY KEY (job_id, id)
) STRICT;

CREATE TABLE changes (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    job_id     TEXT NOT NULL,
    opening_id TEXT NOT NULL,
    parent     INTEGER REFERENCES changes (id),
    label      TEXT NOT NULL,
    doc        TEXT NOT NULL,
    FOREIGN KEY (job_id, opening_id) REFERENCES openings (job_id, id) DEFERRABLE INITIALLY DEFERRED
) STRICT;

CREATE INDEX changes_by_parent ON changes (parent);
