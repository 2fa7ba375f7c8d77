-- A pose that a coach asked a client for once more, and why. It is answered by a picture of that pose taken in later.
CREATE TABLE picture_ask (
    round_id TEXT NOT NULL REFERENCES round (id) ON DELETE CASCADE,
    pose TEXT NOT NULL,
    reason TEXT NOT NULL,
    asked_by TEXT NOT NULL,
    asked_at TEXT NOT NULL,
    PRIMARY KEY (round_id, pose)
) WITHOUT ROWID;

-- Where a client's camera stands, so that the next round is taken alike.
CREATE TABLE camera_set_up (
    client_id TEXT NOT NULL PRIMARY KEY REFERENCES client (id) ON DELETE CASCADE,
    place TEXT NOT NULL,
    height_cm DOUBLE NOT NULL,
    distance_m DOUBLE NOT NULL,
    lens TEXT NOT NULL CHECK (lens IN ('wide', 'main', 'long')),
    kept_on TEXT NOT NULL
) WITHOUT ROWID;

CREATE TRIGGER stamp_picture_ask_insert AFTER INSERT ON picture_ask BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_picture_ask_delete AFTER DELETE ON picture_ask BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = OLD.round_id);
END;
CREATE TRIGGER stamp_camera_set_up_insert AFTER INSERT ON camera_set_up BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = NEW.client_id;
END;
