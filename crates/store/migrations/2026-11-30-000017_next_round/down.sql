ALTER TABLE client DROP COLUMN next_round_on;
