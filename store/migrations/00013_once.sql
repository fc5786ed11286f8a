-- +goose Up
-- Of a request with a key, a digest of what it asked for, and what it was answered where that is not what it made.
ALTER TABLE made ADD COLUMN asked TEXT NOT NULL DEFAULT '';
ALTER TABLE made ADD COLUMN answer TEXT NOT NULL DEFAULT '';
