-- Sittings before made-up figures whose truth is known (docs/decisions/0011-the-eye.md). Whom a sitting shows follows from its seed.
CREATE TABLE eye_sitting (
    id TEXT NOT NULL PRIMARY KEY,
    account_id TEXT NOT NULL REFERENCES account (id) ON DELETE CASCADE,
    seed BIGINT NOT NULL,
    started_at TEXT NOT NULL
);
CREATE INDEX eye_sitting_account ON eye_sitting (account_id, started_at);

-- What was asked is kept with each answer, so that it means the same when sittings are made otherwise.
CREATE TABLE eye_answer (
    sitting_id TEXT NOT NULL REFERENCES eye_sitting (id) ON DELETE CASCADE,
    place INTEGER NOT NULL,
    figure INTEGER NOT NULL,
    kind TEXT NOT NULL CHECK (kind IN ('standing', 'left-right')),
    site TEXT NOT NULL,
    mirrored BOOLEAN NOT NULL,
    -- Of the figure itself, however it was shown. Null when it could not be told.
    value INTEGER CHECK (value BETWEEN -2 AND 2),
    -- Percent for left-right, SD for standing.
    truth DOUBLE NOT NULL,
    answered_at TEXT NOT NULL,
    PRIMARY KEY (sitting_id, place)
) WITHOUT ROWID;

-- A figure judged twice tells how well a rater agrees with themselves, which changes every verdict.
CREATE TRIGGER stamp_eye_answer_insert AFTER INSERT ON eye_answer WHEN NEW.mirrored BEGIN
    UPDATE client_stamp SET stamp = stamp + 1;
END;
CREATE TRIGGER stamp_eye_answer_delete AFTER DELETE ON eye_answer WHEN OLD.mirrored BEGIN
    UPDATE client_stamp SET stamp = stamp + 1;
END;
