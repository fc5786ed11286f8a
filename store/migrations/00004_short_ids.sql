-- +goose Up
-- Choices are kept by short IDs. Documents are written without spaces, and a quote in
-- a name stands there escaped, so that a key and its word are found whole.
UPDATE changes SET doc = replace(doc, '"walls":"old opening"', '"walls":"old"') WHERE instr(doc, '"walls":"old opening"');
UPDATE changes SET doc = replace(doc, '"walls":"new frame"', '"walls":"new"') WHERE instr(doc, '"walls":"new frame"');
UPDATE changes SET doc = replace(doc, '"registration":"by rule"', '"registration":"by-rule"') WHERE instr(doc, '"registration":"by rule"');
UPDATE changes SET doc = replace(doc, '"registration":"keep lock edge"', '"registration":"keep-lock"') WHERE instr(doc, '"registration":"keep lock edge"');
UPDATE changes SET doc = replace(doc, '"registration":"keep hinge edge"', '"registration":"keep-hinge"') WHERE instr(doc, '"registration":"keep hinge edge"');
UPDATE changes SET doc = replace(doc, '"registration":"even stiles"', '"registration":"even-stiles"') WHERE instr(doc, '"registration":"even stiles"');
UPDATE changes SET doc = replace(doc, '"registration":"as offered up"', '"registration":"as-offered"') WHERE instr(doc, '"registration":"as offered up"');
UPDATE changes SET doc = replace(doc, '"registration":"as the limits share it"', '"registration":"share-width"') WHERE instr(doc, '"registration":"as the limits share it"');
UPDATE changes SET doc = replace(doc, '"ends":"by rule"', '"ends":"by-rule"') WHERE instr(doc, '"ends":"by rule"');
UPDATE changes SET doc = replace(doc, '"ends":"keep head"', '"ends":"keep-head"') WHERE instr(doc, '"ends":"keep head"');
UPDATE changes SET doc = replace(doc, '"ends":"even ends"', '"ends":"even-ends"') WHERE instr(doc, '"ends":"even ends"');
UPDATE changes SET doc = replace(doc, '"ends":"keep foot"', '"ends":"keep-foot"') WHERE instr(doc, '"ends":"keep foot"');
UPDATE changes SET doc = replace(doc, '"ends":"bore to the strike"', '"ends":"bore-to-strike"') WHERE instr(doc, '"ends":"bore to the strike"');
UPDATE changes SET doc = replace(doc, '"ends":"as the limits share it"', '"ends":"share-length"') WHERE instr(doc, '"ends":"as the limits share it"');
UPDATE changes SET doc = replace(doc, '"leaveOn":"cut once when sure"', '"leaveOn":"when-sure"') WHERE instr(doc, '"leaveOn":"cut once when sure"');
UPDATE changes SET doc = replace(doc, '"leaveOn":"always leave 3 mm"', '"leaveOn":"always-3"') WHERE instr(doc, '"leaveOn":"always leave 3 mm"');
UPDATE changes SET doc = replace(doc, '"leaveOn":"cut to the line"', '"leaveOn":"to-line"') WHERE instr(doc, '"leaveOn":"cut to the line"');
UPDATE changes SET doc = replace(doc, '"lockEdge":"by rule"', '"lockEdge":"by-rule"') WHERE instr(doc, '"lockEdge":"by rule"');
UPDATE changes SET doc = replace(doc, '"head":"by rule"', '"head":"by-rule"') WHERE instr(doc, '"head":"by rule"');
