-- How a machine counts, in more ways; its law of levels, in words (empty for the published one).
ALTER TABLE devices
  ADD COLUMN bank_size   INT           NOT NULL DEFAULT 0,
  ADD COLUMN value_style VARCHAR(10)   NOT NULL DEFAULT 'FROM_0',
  ADD COLUMN flats       BOOLEAN       NOT NULL DEFAULT FALSE,
  ADD COLUMN first_place INT           NOT NULL DEFAULT 1,
  ADD COLUMN levels      VARCHAR(2000) NOT NULL DEFAULT '';
UPDATE devices SET value_style = IF(first_value = 1, 'FROM_1', 'FROM_0');
ALTER TABLE devices DROP COLUMN first_value;

-- argument and effect in words; amounts as "number -10.0" or "text …", empty for none.
ALTER TABLE phrases
  MODIFY COLUMN effect VARCHAR(80) NOT NULL,
  ADD COLUMN argument VARCHAR(60)  NOT NULL DEFAULT '',
  ADD COLUMN mark     VARCHAR(12)  NOT NULL DEFAULT 'NONE',
  ADD COLUMN note     VARCHAR(200) NOT NULL DEFAULT '',
  ADD COLUMN heading  VARCHAR(40)  NOT NULL DEFAULT '';
UPDATE phrases SET effect = LOWER(effect);
ALTER TABLE calls
  ADD COLUMN amount VARCHAR(220) NOT NULL DEFAULT '';

-- What is set once for the whole house, such as who may invite us.
CREATE TABLE settings (
  name  VARCHAR(40)   NOT NULL PRIMARY KEY,
  value VARCHAR(2000) NOT NULL
);
