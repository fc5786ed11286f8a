-- +goose Up
-- Which English a job's sentences are in, by its BCP 47 tag; empty for the one that its unit suggests.
ALTER TABLE jobs ADD COLUMN language TEXT NOT NULL DEFAULT '';
