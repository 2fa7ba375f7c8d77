-- The moment of what a coach says instead of the rules: with the day alone, the session of the same afternoon would end it.
ALTER TABLE target_overrule ADD COLUMN said_at TEXT NOT NULL DEFAULT '';
UPDATE target_overrule SET said_at = said_on || 'T00:00:00Z';
ALTER TABLE target_overrule DROP COLUMN said_on;
