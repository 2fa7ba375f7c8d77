-- Who may sign in. Logins differ by more than upper and lower case.
CREATE TABLE account (
    id TEXT NOT NULL PRIMARY KEY,
    login TEXT NOT NULL COLLATE NOCASE UNIQUE,
    name TEXT NOT NULL,
    role TEXT NOT NULL CHECK (role IN ('owner', 'coach', 'assistant')),
    password_hash TEXT NOT NULL,
    created_at TEXT NOT NULL
);

-- Signed-in browsers. Kept on the server so that signing out ends a session for good.
CREATE TABLE browser_session (
    key TEXT NOT NULL PRIMARY KEY,
    state_json TEXT NOT NULL,
    expires_at_s BIGINT NOT NULL
);

-- Small facts about this installation, such as the key that signs session cookies.
CREATE TABLE setting (
    key TEXT NOT NULL PRIMARY KEY,
    value TEXT NOT NULL
);
