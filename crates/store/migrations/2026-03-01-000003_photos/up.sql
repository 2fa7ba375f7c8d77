-- A picture of a round. The bytes lie beside the database under a random id (docs/decisions/0007-light-table.md).
CREATE TABLE photo (
    id TEXT NOT NULL PRIMARY KEY,
    round_id TEXT NOT NULL REFERENCES round (id) ON DELETE CASCADE,
    -- Grows whenever the coach changes something; what was found for an older revision is thrown away.
    revision INTEGER NOT NULL,
    state TEXT NOT NULL CHECK (state IN ('waiting', 'seen', 'failed')),
    failure TEXT,
    -- Named by the coach; guessed while null.
    pose TEXT,
    -- Null until somebody has said.
    mirrored BOOLEAN,
    distance_m DOUBLE CHECK (distance_m > 0),
    format TEXT NOT NULL,
    width_px INTEGER NOT NULL,
    height_px INTEGER NOT NULL,
    byte_count INTEGER NOT NULL,
    sha256 TEXT NOT NULL,
    taken_at TEXT,
    added_by TEXT NOT NULL,
    added_at TEXT NOT NULL,
    -- What was found, what the coach moved and drew, and what both give together.
    found_json TEXT,
    moved_json TEXT NOT NULL,
    measured_json TEXT,
    UNIQUE (round_id, sha256)
);
CREATE INDEX photo_waiting ON photo (added_at) WHERE state = 'waiting';

-- What the outlines of a round's pictures say together. Made anew whenever one of them changes, so that a list of clients
-- reads four numbers a round instead of every measurement.
CREATE TABLE outline (
    round_id TEXT NOT NULL REFERENCES round (id) ON DELETE CASCADE,
    segment TEXT NOT NULL,
    left_width_cm DOUBLE NOT NULL,
    right_width_cm DOUBLE NOT NULL,
    PRIMARY KEY (round_id, segment)
) WITHOUT ROWID;

-- A coach's judgement of a region in a pose: against the rest of the body, or left against right.
CREATE TABLE rating (
    round_id TEXT NOT NULL REFERENCES round (id) ON DELETE CASCADE,
    region TEXT NOT NULL,
    pose TEXT NOT NULL,
    kind TEXT NOT NULL CHECK (kind IN ('standing', 'left-right')),
    -- Null when the coach looked and could not tell.
    value INTEGER CHECK (value BETWEEN -2 AND 2),
    rated_by TEXT NOT NULL REFERENCES account (id),
    rated_at TEXT NOT NULL,
    PRIMARY KEY (round_id, region, pose, kind)
) WITHOUT ROWID;

-- The same judgement given again, blind: the first answer is kept here, as the rating may be changed later.
CREATE TABLE rating_repeat (
    round_id TEXT NOT NULL REFERENCES round (id) ON DELETE CASCADE,
    region TEXT NOT NULL,
    pose TEXT NOT NULL,
    kind TEXT NOT NULL CHECK (kind IN ('standing', 'left-right')),
    first_value INTEGER NOT NULL CHECK (first_value BETWEEN -2 AND 2),
    -- Null when it could not be told this time.
    again_value INTEGER CHECK (again_value BETWEEN -2 AND 2),
    rated_by TEXT NOT NULL REFERENCES account (id),
    rated_at TEXT NOT NULL,
    PRIMARY KEY (round_id, region, pose, kind, rated_by)
) WITHOUT ROWID;
