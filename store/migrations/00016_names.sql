-- +goose Up
-- Latches and locks are kept as hardware, and the doors of a day as openings. Documents are written without spaces, and a
-- quote in what somebody wrote stands there escaped, so that a key is found whole.
UPDATE changes SET doc = replace(doc, '"device":"', '"hardware":"') WHERE instr(doc, '"device":"');
UPDATE jobs SET usual = replace(usual, '"device":"', '"hardware":"') WHERE instr(usual, '"device":"');
UPDATE jobs SET kit = replace(kit, '"devices":[', '"hardware":[') WHERE instr(kit, '"devices":[');
UPDATE days SET doc = replace(doc, '"doors":', '"openings":') WHERE instr(doc, '"doors":');
