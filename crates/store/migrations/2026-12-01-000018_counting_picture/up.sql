-- Of several pictures of a pose in a round the one that the coach let count.
ALTER TABLE photo ADD COLUMN chosen BOOLEAN NOT NULL DEFAULT FALSE;
