-- Devices of the venue that were let in. Of what they show us only a digest is kept.
CREATE TABLE guests (
  id          BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name        VARCHAR(60)  NOT NULL,
  role        VARCHAR(12)  NOT NULL,
  digest      BINARY(32)   NOT NULL,
  address     VARCHAR(60)  NOT NULL,
  since_ms    BIGINT       NOT NULL,
  until_ms    BIGINT       NOT NULL
);
