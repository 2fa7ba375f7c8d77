-- Girths that a round's pictures show, by the constants common to everybody. Made anew whenever one of the pictures changes; what is
-- known of a client's own shape is laid over them when they are read.
CREATE TABLE picture_girth (
    round_id TEXT NOT NULL REFERENCES round (id) ON DELETE CASCADE,
    site TEXT NOT NULL,
    -- Empty at a site without sides.
    side TEXT NOT NULL CHECK (side IN ('', 'left', 'right')),
    cm DOUBLE NOT NULL,
    rests_on TEXT NOT NULL CHECK (rests_on IN ('breadth-depth', 'breadth')),
    PRIMARY KEY (round_id, site, side)
) WITHOUT ROWID;

CREATE TRIGGER stamp_picture_girth_insert AFTER INSERT ON picture_girth BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_picture_girth_update AFTER UPDATE ON picture_girth BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_picture_girth_delete AFTER DELETE ON picture_girth BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = OLD.round_id);
END;
