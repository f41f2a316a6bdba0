-- What a show is made of, as JSON after docs/formats/show.schema.json: a row a device, phrase, item and cue. The rows of
-- the old tables, which held words, are carried over by the next migration.
-- parent: the device of a phrase, the item of a cue. place: its place among those. version: of a cue, for editors.
CREATE TABLE parts (
  show_id INT         NOT NULL,
  kind    VARCHAR(8)  NOT NULL,
  id      INT         NOT NULL,
  parent  INT         NOT NULL,
  place   INT         NOT NULL,
  version INT         NOT NULL,
  content LONGTEXT    NOT NULL,
  PRIMARY KEY (show_id, kind, id),
  FOREIGN KEY (show_id) REFERENCES shows (id) ON DELETE CASCADE
);

-- When a show was deleted; it can be brought back for some time. Null for one that stands on the shelf.
ALTER TABLE shows ADD COLUMN deleted_millis BIGINT NULL;
