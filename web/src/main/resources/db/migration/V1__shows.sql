-- A show is loaded whole and saved by difference; ids are counted within the show.
CREATE TABLE shows (
  id       INT          NOT NULL PRIMARY KEY,
  name     VARCHAR(100) NOT NULL,
  revision INT          NOT NULL,
  next_id  INT          NOT NULL
);

CREATE TABLE devices (
  show_id       INT          NOT NULL,
  id            INT          NOT NULL,
  place         INT          NOT NULL,
  name          VARCHAR(60)  NOT NULL,
  department    VARCHAR(20)  NOT NULL,
  wire          VARCHAR(20)  NOT NULL,
  host          VARCHAR(253) NOT NULL,
  port          INT          NOT NULL,
  question      VARCHAR(200) NOT NULL,
  channel       INT          NOT NULL,
  first_program INT          NOT NULL,
  first_value   INT          NOT NULL,
  first_octave  INT          NOT NULL,
  lead_ms       INT          NOT NULL,
  PRIMARY KEY (show_id, id),
  FOREIGN KEY (show_id) REFERENCES shows (id) ON DELETE CASCADE
);

-- says: the messages in words, in the wire's own numbers.
CREATE TABLE phrases (
  show_id   INT           NOT NULL,
  id        INT           NOT NULL,
  device_id INT           NOT NULL,
  place     INT           NOT NULL,
  name      VARCHAR(60)   NOT NULL,
  says      VARCHAR(8000) NOT NULL,
  effect    VARCHAR(20)   NOT NULL,
  guarded   BOOLEAN       NOT NULL,
  PRIMARY KEY (show_id, id),
  FOREIGN KEY (show_id) REFERENCES shows (id) ON DELETE CASCADE
);

CREATE TABLE items (
  show_id         INT          NOT NULL,
  id              INT          NOT NULL,
  place           INT          NOT NULL,
  kind            VARCHAR(20)  NOT NULL,
  name            VARCHAR(100) NOT NULL,
  planned_seconds INT          NOT NULL,
  PRIMARY KEY (show_id, id),
  FOREIGN KEY (show_id) REFERENCES shows (id) ON DELETE CASCADE
);

CREATE TABLE cues (
  show_id INT           NOT NULL,
  id      INT           NOT NULL,
  item_id INT           NOT NULL,
  number  DECIMAL(8, 3) NOT NULL,
  starts  VARCHAR(40)   NOT NULL,
  what    VARCHAR(200)  NOT NULL,
  version INT           NOT NULL,
  PRIMARY KEY (show_id, id),
  FOREIGN KEY (show_id) REFERENCES shows (id) ON DELETE CASCADE
);

CREATE TABLE calls (
  show_id   INT NOT NULL,
  cue_id    INT NOT NULL,
  place     INT NOT NULL,
  device_id INT NOT NULL,
  phrase_id INT NOT NULL,
  PRIMARY KEY (show_id, cue_id, place),
  FOREIGN KEY (show_id) REFERENCES shows (id) ON DELETE CASCADE
);

-- The log. No key to shows: it outlives what it tells of.
CREATE TABLE traffic (
  number       BIGINT        NOT NULL PRIMARY KEY,
  epoch_micros BIGINT        NOT NULL,
  direction    VARCHAR(3)    NOT NULL,
  show_id      INT           NOT NULL,
  device_id    INT           NOT NULL,
  device       VARCHAR(60)   NOT NULL,
  bytes        MEDIUMBLOB    NOT NULL,
  meaning      VARCHAR(8000) NOT NULL,
  cause        VARCHAR(200)  NOT NULL,
  late_micros  BIGINT        NOT NULL,
  trouble      VARCHAR(500)  NOT NULL,
  KEY traffic_of_show (show_id, number)
);
