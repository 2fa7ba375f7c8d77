-- The week as the coach bends it: one document, read, checked and written whole (docs/decisions/0002-storage.md).
CREATE TABLE plan_draft (
    round_id TEXT NOT NULL PRIMARY KEY REFERENCES round (id) ON DELETE CASCADE,
    week_json TEXT NOT NULL,
    revision INTEGER NOT NULL,
    saved_by TEXT NOT NULL
);

-- What a client was given, never changed afterwards. Versions count over all rounds of a client: the highest is what the
-- client has.
CREATE TABLE issued_plan (
    id TEXT NOT NULL PRIMARY KEY,
    client_id TEXT NOT NULL REFERENCES client (id) ON DELETE CASCADE,
    round_id TEXT NOT NULL REFERENCES round (id) ON DELETE CASCADE,
    version INTEGER NOT NULL,
    issued_on TEXT NOT NULL,
    starts_on TEXT NOT NULL,
    issued_by TEXT NOT NULL,
    week_json TEXT NOT NULL,
    plan_json TEXT NOT NULL,
    UNIQUE (client_id, version)
);
CREATE INDEX issued_plan_by_round ON issued_plan (round_id);
