-- A song in bars and beats, a line a place; empty for none.
ALTER TABLE items ADD COLUMN score MEDIUMTEXT NOT NULL DEFAULT '';
