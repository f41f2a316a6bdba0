-- A colour and a note for the people at a cue.
ALTER TABLE cues
  ADD COLUMN mark VARCHAR(12)  NOT NULL DEFAULT 'NONE',
  ADD COLUMN note VARCHAR(500) NOT NULL DEFAULT '';

-- Cue blocks to be used again, in any show: a cue list in CSV, its places in bars of the one meter.
CREATE TABLE snippets (
  id      INT          NOT NULL PRIMARY KEY AUTO_INCREMENT,
  name    VARCHAR(60)  NOT NULL UNIQUE,
  meter   VARCHAR(10)  NOT NULL,
  content MEDIUMTEXT   NOT NULL
);
