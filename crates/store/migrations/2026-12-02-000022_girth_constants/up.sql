-- What the practice's own pairs of tape and pictures say that the shipped constants miss of real people; laid over the girths of
-- pictures when they are read.
CREATE TABLE girth_constant (
    site TEXT NOT NULL,
    rests_on TEXT NOT NULL CHECK (rests_on IN ('breadth-depth', 'breadth')),
    -- To be added to the logarithm of a girth.
    ln DOUBLE NOT NULL,
    -- Rounds with both, and the clients whose rounds they are.
    pairs INTEGER NOT NULL,
    clients INTEGER NOT NULL,
    PRIMARY KEY (site, rests_on)
) WITHOUT ROWID;
