-- Who did what kind of thing, for which client: at most one line an hour for the same. Nothing of what it was.
CREATE TABLE deed (
    id INTEGER PRIMARY KEY NOT NULL,
    at TEXT NOT NULL,
    -- Null when a client did it by their link. No reference: the line stays when the account goes.
    account_id TEXT,
    name TEXT NOT NULL,
    act TEXT NOT NULL,
    client_id TEXT
);
CREATE INDEX deed_client ON deed (client_id);
