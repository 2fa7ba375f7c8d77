ALTER TABLE client DROP COLUMN put_away_on;
