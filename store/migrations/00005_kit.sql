-- +goose Up
-- The tools at hand, and what a trip to the trestles costs.
ALTER TABLE jobs ADD COLUMN kit TEXT NOT NULL DEFAULT '{}';
