-- The brief is one document, always read, checked and written whole (docs/decisions/0002-storage.md); what lists sort and
-- search by is generated from it, so that there is one place for each fact.
CREATE TABLE client (
    id TEXT NOT NULL PRIMARY KEY,
    brief_json TEXT NOT NULL,
    name TEXT NOT NULL GENERATED ALWAYS AS (json_extract(brief_json, '$.name')) STORED,
    revision INTEGER NOT NULL,
    created_at TEXT NOT NULL,
    updated_at TEXT NOT NULL
);
CREATE INDEX client_by_name ON client (name COLLATE NOCASE, id);

CREATE TABLE round (
    id TEXT NOT NULL PRIMARY KEY,
    client_id TEXT NOT NULL REFERENCES client (id) ON DELETE CASCADE,
    taken_on TEXT NOT NULL,
    measured_by TEXT NOT NULL,
    weight_kg DOUBLE,
    -- The sheet and the choices are saved by different people at different times: each has its own revision.
    tape_revision INTEGER NOT NULL,
    tape_saved_by TEXT,
    tape_saved_at TEXT,
    choices_revision INTEGER NOT NULL,
    created_at TEXT NOT NULL,
    UNIQUE (client_id, taken_on)
);

-- One reading of tape or gauge. Side is 'left', 'right' or '' at sites without sides.
CREATE TABLE tape_reading (
    round_id TEXT NOT NULL REFERENCES round (id) ON DELETE CASCADE,
    site TEXT NOT NULL,
    side TEXT NOT NULL CHECK (side IN ('', 'left', 'right')),
    ordinal INTEGER NOT NULL,
    value_cm DOUBLE NOT NULL CHECK (value_cm > 0),
    PRIMARY KEY (round_id, site, side, ordinal)
) WITHOUT ROWID;

-- What the coach decided about a region: bring it up, hold it back, or a verdict of their own with a reason.
CREATE TABLE region_choice (
    round_id TEXT NOT NULL REFERENCES round (id) ON DELETE CASCADE,
    kind TEXT NOT NULL CHECK (kind IN ('bring-up', 'hold-back', 'override')),
    ordinal INTEGER NOT NULL,
    region TEXT NOT NULL,
    verdict TEXT,
    reason TEXT,
    PRIMARY KEY (round_id, kind, ordinal),
    UNIQUE (round_id, kind, region)
) WITHOUT ROWID;
