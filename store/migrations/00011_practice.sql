-- +goose Up
-- What was practised: hidden openings with their moves, and drills.
CREATE TABLE practice (
    id    INTEGER PRIMARY KEY,
    at    TEXT NOT NULL,
    by    TEXT NOT NULL,
    kind  TEXT NOT NULL,
    name  TEXT NOT NULL,
    right INTEGER NOT NULL,
    says  TEXT NOT NULL,
    learn TEXT NOT NULL,
    doc   TEXT NOT NULL
) STRICT;
