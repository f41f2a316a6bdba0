-- How long a machine is busy with a program.
ALTER TABLE devices ADD COLUMN settle_ms INT NOT NULL DEFAULT 0;

-- How a control gets to its amount, and how long after the cue a call is made; both in words, empty for at once.
ALTER TABLE calls
  ADD COLUMN motion VARCHAR(1000) NOT NULL DEFAULT '',
  ADD COLUMN late   VARCHAR(40)   NOT NULL DEFAULT '';
