-- The day agreed on for the next round.
ALTER TABLE client ADD COLUMN next_round_on TEXT;
