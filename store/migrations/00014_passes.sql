-- +goose Up
-- A device that is let in reads and enters; it runs the house (backup, restore, passes, taking off jobs) once it is
-- raised. Those that were let in before keep what they could do.
ALTER TABLE passes ADD COLUMN runs INTEGER NOT NULL DEFAULT 0;
UPDATE passes SET runs = 1;
