-- +goose Up
-- A job's own presets of margins, as JSON.
ALTER TABLE jobs ADD COLUMN presets TEXT NOT NULL DEFAULT '[]';
