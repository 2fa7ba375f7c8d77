-- Whether a load was swung: what is looked for when a region does not come on reads it of every exercise that was done.
ALTER TABLE log_entry ADD COLUMN swung BOOLEAN NOT NULL DEFAULT FALSE;
UPDATE log_entry SET swung = TRUE
WHERE EXISTS (SELECT 1 FROM json_each(entry_json, '$.part.form') WHERE value = 'swung');
