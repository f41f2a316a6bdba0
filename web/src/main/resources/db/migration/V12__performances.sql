-- The runs of the shows, each named by the moment at which it began, and what happened in them.
CREATE TABLE performances (
  began_micros BIGINT       NOT NULL PRIMARY KEY,
  show_id      INT          NOT NULL,
  ended_micros BIGINT       NULL,
  KEY performances_of_show (show_id, began_micros)
);
CREATE TABLE performance_moments (
  performance    BIGINT       NOT NULL,
  number         INT          NOT NULL,
  epoch_micros   BIGINT       NOT NULL,
  kind           VARCHAR(12)  NOT NULL,
  item_id        INT          NOT NULL,
  cue_id         INT          NOT NULL,
  position_nanos BIGINT       NOT NULL,
  words          VARCHAR(500) NOT NULL,
  PRIMARY KEY (performance, number)
);
-- Where in the music GO came for cues that wait for it: proposals for the score, the newest of each cue.
CREATE TABLE written_down (
  show_id        INT    NOT NULL,
  cue_id         INT    NOT NULL,
  item_id        INT    NOT NULL,
  position_nanos BIGINT NOT NULL,
  epoch_micros   BIGINT NOT NULL,
  PRIMARY KEY (show_id, cue_id)
);
