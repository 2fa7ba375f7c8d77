DROP TABLE saved_week;
ALTER TABLE round DROP COLUMN areas_json;
