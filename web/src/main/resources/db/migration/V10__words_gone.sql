-- Their rows are in parts.
DROP TABLE calls;
DROP TABLE cues;
DROP TABLE items;
DROP TABLE phrases;
DROP TABLE devices;

-- Cue blocks: a cue list as JSON, as StoredForm writes a table.
ALTER TABLE snippets DROP COLUMN meter;
