-- How a client's stations are set, and what the coach's hand found: one row an exercise, the newest word counts.
CREATE TABLE set_up (
    client_id TEXT NOT NULL REFERENCES client (id) ON DELETE CASCADE,
    exercise TEXT NOT NULL,
    kept_on TEXT NOT NULL,
    kept_by TEXT NOT NULL,
    kept_json TEXT NOT NULL,
    PRIMARY KEY (client_id, exercise)
);

-- Free words of the coach on a client and on a round: old injuries, travel.
ALTER TABLE client ADD COLUMN note TEXT NOT NULL DEFAULT '';
ALTER TABLE round ADD COLUMN note TEXT NOT NULL DEFAULT '';

-- Words between coach and client.
CREATE TABLE message (
    id TEXT NOT NULL PRIMARY KEY,
    client_id TEXT NOT NULL REFERENCES client (id) ON DELETE CASCADE,
    from_client BOOLEAN NOT NULL,
    written_by TEXT NOT NULL,
    written_at TEXT NOT NULL,
    words TEXT NOT NULL,
    read_at TEXT
);
CREATE INDEX message_of_client ON message (client_id, written_at);

-- What was worked out of a client is worked out anew.
CREATE TRIGGER stamp_set_up_insert AFTER INSERT ON set_up BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = NEW.client_id;
END;
CREATE TRIGGER stamp_set_up_update AFTER UPDATE ON set_up BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = NEW.client_id;
END;
CREATE TRIGGER stamp_set_up_delete AFTER DELETE ON set_up BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = OLD.client_id;
END;
CREATE TRIGGER stamp_message_insert AFTER INSERT ON message BEGIN
    UPDATE client_stamp SET log_stamp = log_stamp + 1 WHERE client_id = NEW.client_id;
END;
CREATE TRIGGER stamp_message_update AFTER UPDATE ON message BEGIN
    UPDATE client_stamp SET log_stamp = log_stamp + 1 WHERE client_id = NEW.client_id;
END;
CREATE TRIGGER stamp_message_delete AFTER DELETE ON message BEGIN
    UPDATE client_stamp SET log_stamp = log_stamp + 1 WHERE client_id = OLD.client_id;
END;
