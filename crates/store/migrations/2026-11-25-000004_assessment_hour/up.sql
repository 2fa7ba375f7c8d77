-- One reading of the calipers. Side is '' when it was not noted.
CREATE TABLE skinfold_reading (
    round_id TEXT NOT NULL REFERENCES round (id) ON DELETE CASCADE,
    site TEXT NOT NULL,
    side TEXT NOT NULL CHECK (side IN ('', 'left', 'right')),
    ordinal INTEGER NOT NULL,
    value_mm DOUBLE NOT NULL CHECK (value_mm > 0),
    PRIMARY KEY (round_id, site, side, ordinal)
) WITHOUT ROWID;

-- How far from its bony point the tape lay.
CREATE TABLE tape_level (
    round_id TEXT NOT NULL REFERENCES round (id) ON DELETE CASCADE,
    site TEXT NOT NULL,
    level_cm DOUBLE NOT NULL CHECK (level_cm >= 0),
    PRIMARY KEY (round_id, site)
) WITHOUT ROWID;

-- Tests are one document, read, checked and written whole (docs/decisions/0002-storage.md).
ALTER TABLE round ADD COLUMN tests_json TEXT NOT NULL DEFAULT '[]';
ALTER TABLE round ADD COLUMN tests_revision INTEGER NOT NULL DEFAULT 0;
ALTER TABLE round ADD COLUMN tests_saved_by TEXT;
-- What of the verdict the client is shown.
ALTER TABLE round ADD COLUMN share_json TEXT NOT NULL DEFAULT '[]';

-- What the client trained before there was a log: a usual week, as typed. Null when nobody asked.
ALTER TABLE client ADD COLUMN usual_week_json TEXT;
ALTER TABLE client ADD COLUMN usual_week_revision INTEGER NOT NULL DEFAULT 0;

-- What the practice sets differently from what ships; one row.
CREATE TABLE practice (
    id INTEGER NOT NULL PRIMARY KEY CHECK (id = 1),
    settings_json TEXT NOT NULL,
    revision INTEGER NOT NULL,
    saved_by TEXT
);
INSERT INTO practice (id, settings_json, revision) VALUES (1, '{}', 0);

-- How someone likes their screens, such as the order in which they tape.
CREATE TABLE preference (
    account_id TEXT NOT NULL REFERENCES account (id) ON DELETE CASCADE,
    key TEXT NOT NULL,
    value_json TEXT NOT NULL,
    PRIMARY KEY (account_id, key)
) WITHOUT ROWID;
