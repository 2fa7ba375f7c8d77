-- The day a client was put away: out of the lists, nothing lost.
ALTER TABLE client ADD COLUMN put_away_on TEXT;
