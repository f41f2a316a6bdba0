-- Results of line checks; kept, so that tonight can be held against yesterday.
CREATE TABLE line_checks (
  id                INT           NOT NULL AUTO_INCREMENT PRIMARY KEY,
  show_id           INT           NOT NULL,
  device_id         INT           NOT NULL,
  epoch_millis      BIGINT        NOT NULL,
  phrase            VARCHAR(60)   NOT NULL,
  sent              BOOLEAN       NOT NULL,
  acknowledged      BOOLEAN       NOT NULL,
  seen              VARCHAR(3)    NOT NULL,
  round_trip_micros BIGINT        NOT NULL,
  trouble           VARCHAR(500)  NOT NULL,
  KEY line_checks_of_device (show_id, device_id, id)
);
