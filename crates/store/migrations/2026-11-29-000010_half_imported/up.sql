-- Clients whose import has not been read to its end: a start removes them.
CREATE TABLE half_imported (
    client_id TEXT PRIMARY KEY NOT NULL REFERENCES client (id) ON DELETE CASCADE
);
