ALTER TABLE target_overrule ADD COLUMN said_on TEXT NOT NULL DEFAULT '';
UPDATE target_overrule SET said_on = substr(said_at, 1, 10);
ALTER TABLE target_overrule DROP COLUMN said_at;
