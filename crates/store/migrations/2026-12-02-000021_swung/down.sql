ALTER TABLE log_entry DROP COLUMN swung;
