-- A machine's own list: how it is numbered (empty for none), and which phrases are its entries.
ALTER TABLE devices
  ADD COLUMN list_kind  VARCHAR(12) NOT NULL DEFAULT '',
  ADD COLUMN list_first INT         NOT NULL DEFAULT 0;
ALTER TABLE phrases
  ADD COLUMN listed BOOLEAN NOT NULL DEFAULT FALSE;
