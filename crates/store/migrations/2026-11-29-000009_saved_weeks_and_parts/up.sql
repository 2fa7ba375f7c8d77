-- Weeks of the practice, kept under a name to be taken for any client.
CREATE TABLE saved_week (
    id TEXT NOT NULL PRIMARY KEY,
    name TEXT NOT NULL UNIQUE COLLATE NOCASE,
    week_json TEXT NOT NULL,
    saved_by TEXT NOT NULL,
    saved_at TEXT NOT NULL
);

-- Whole parts of the body that are brought up, by site.
ALTER TABLE round ADD COLUMN areas_json TEXT NOT NULL DEFAULT '[]';
