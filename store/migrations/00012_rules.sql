-- +goose Up
-- Documents hold which version of the rules a door was cut by, and the floor of a frame that was not read.
-- No table changes; a program that does not know these would drop them, so it must not open the file.
SELECT 1;
