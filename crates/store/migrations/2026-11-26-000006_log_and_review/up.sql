-- One exercise of a session as somebody wrote it down, or the session as a whole (part ''). Rows are never changed but for
-- `superseded`: a correction is a row of its own (docs/decisions/0010-log-and-review.md).
CREATE TABLE log_entry (
    -- Order of arrival.
    arrival INTEGER NOT NULL PRIMARY KEY,
    -- Made by the device, so that what is sent twice is kept once.
    id TEXT NOT NULL UNIQUE,
    client_id TEXT NOT NULL REFERENCES client (id) ON DELETE CASCADE,
    plan_id TEXT NOT NULL REFERENCES issued_plan (id) ON DELETE CASCADE,
    week INTEGER NOT NULL,
    day INTEGER NOT NULL,
    part TEXT NOT NULL,
    trained_on TEXT NOT NULL,
    written_at TEXT NOT NULL,
    written_by TEXT NOT NULL,
    entry_json TEXT NOT NULL,
    -- Whether a later version had this one in sight.
    superseded BOOLEAN NOT NULL,
    -- What it adds to past training; no exercise where no hard set was done.
    done TEXT,
    position INTEGER NOT NULL,
    hard_sets INTEGER NOT NULL,
    one_sided BOOLEAN NOT NULL,
    least_reps INTEGER,
    -- Its best sets as one number each (logbook::performance): of both sides together, left, right; and whether a load was held.
    best_both DOUBLE,
    best_left DOUBLE,
    best_right DOUBLE,
    loaded BOOLEAN NOT NULL,
    -- 2 when it asks for a referral, 1 when it tells of pain that stops, 0 when neither.
    alarm INTEGER NOT NULL
);
CREATE INDEX log_entry_by_day ON log_entry (client_id, trained_on) WHERE superseded = 0;
CREATE INDEX log_entry_by_part ON log_entry (plan_id, week, day, part);
CREATE INDEX log_entry_alarms ON log_entry (client_id) WHERE superseded = 0 AND alarm > 0;

-- What a coach said instead of the rules, until the exercise was done.
CREATE TABLE target_overrule (
    client_id TEXT NOT NULL REFERENCES client (id) ON DELETE CASCADE,
    exercise TEXT NOT NULL,
    overrule_json TEXT NOT NULL,
    said_by TEXT NOT NULL,
    said_on TEXT NOT NULL,
    PRIMARY KEY (client_id, exercise)
) WITHOUT ROWID;

-- A client's private way in. The token itself is nowhere.
CREATE TABLE client_link (
    id TEXT NOT NULL PRIMARY KEY,
    client_id TEXT NOT NULL REFERENCES client (id) ON DELETE CASCADE,
    token_sha256 TEXT NOT NULL UNIQUE,
    made_by TEXT NOT NULL,
    made_on TEXT NOT NULL,
    -- The last day on which it opens.
    expires_on TEXT NOT NULL,
    revoked_on TEXT,
    used_on TEXT
);
CREATE INDEX client_link_by_client ON client_link (client_id);

-- What was decided at the end of a round: one document, read, checked and written whole.
CREATE TABLE review (
    round_id TEXT NOT NULL PRIMARY KEY REFERENCES round (id) ON DELETE CASCADE,
    decisions_json TEXT NOT NULL,
    revision INTEGER NOT NULL,
    saved_by TEXT NOT NULL
);

-- What was in the queue and has been seen to.
CREATE TABLE seen_to (
    client_id TEXT NOT NULL REFERENCES client (id) ON DELETE CASCADE,
    what TEXT NOT NULL,
    note TEXT NOT NULL,
    seen_by TEXT NOT NULL,
    seen_on TEXT NOT NULL,
    PRIMARY KEY (client_id, what)
) WITHOUT ROWID;

-- Grows with every change of anything about a client, so that what was worked out before can be used until then.
CREATE TABLE client_stamp (
    client_id TEXT NOT NULL PRIMARY KEY,
    -- Of all but the log.
    stamp INTEGER NOT NULL,
    -- Of the log and what is said about it.
    log_stamp INTEGER NOT NULL
) WITHOUT ROWID;
INSERT INTO client_stamp (client_id, stamp, log_stamp) SELECT id, 1, 1 FROM client;

CREATE TRIGGER stamp_new_client AFTER INSERT ON client BEGIN
    INSERT OR REPLACE INTO client_stamp (client_id, stamp, log_stamp) VALUES (NEW.id, 1, 1);
END;
CREATE TRIGGER stamp_client AFTER UPDATE ON client BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = NEW.id;
END;
CREATE TRIGGER stamp_gone_client AFTER DELETE ON client BEGIN
    DELETE FROM client_stamp WHERE client_id = OLD.id;
END;
CREATE TRIGGER stamp_round_insert AFTER INSERT ON round BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = NEW.client_id;
END;
CREATE TRIGGER stamp_round_update AFTER UPDATE ON round BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = NEW.client_id;
END;
CREATE TRIGGER stamp_round_delete AFTER DELETE ON round BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = OLD.client_id;
END;
CREATE TRIGGER stamp_issued_plan_insert AFTER INSERT ON issued_plan BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = NEW.client_id;
END;
CREATE TRIGGER stamp_issued_plan_update AFTER UPDATE ON issued_plan BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = NEW.client_id;
END;
CREATE TRIGGER stamp_issued_plan_delete AFTER DELETE ON issued_plan BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = OLD.client_id;
END;
CREATE TRIGGER stamp_log_entry_insert AFTER INSERT ON log_entry BEGIN
    UPDATE client_stamp SET log_stamp = log_stamp + 1 WHERE client_id = NEW.client_id;
END;
CREATE TRIGGER stamp_log_entry_update AFTER UPDATE ON log_entry BEGIN
    UPDATE client_stamp SET log_stamp = log_stamp + 1 WHERE client_id = NEW.client_id;
END;
CREATE TRIGGER stamp_log_entry_delete AFTER DELETE ON log_entry BEGIN
    UPDATE client_stamp SET log_stamp = log_stamp + 1 WHERE client_id = OLD.client_id;
END;
CREATE TRIGGER stamp_target_overrule_insert AFTER INSERT ON target_overrule BEGIN
    UPDATE client_stamp SET log_stamp = log_stamp + 1 WHERE client_id = NEW.client_id;
END;
CREATE TRIGGER stamp_target_overrule_update AFTER UPDATE ON target_overrule BEGIN
    UPDATE client_stamp SET log_stamp = log_stamp + 1 WHERE client_id = NEW.client_id;
END;
CREATE TRIGGER stamp_target_overrule_delete AFTER DELETE ON target_overrule BEGIN
    UPDATE client_stamp SET log_stamp = log_stamp + 1 WHERE client_id = OLD.client_id;
END;
CREATE TRIGGER stamp_client_link_insert AFTER INSERT ON client_link BEGIN
    UPDATE client_stamp SET log_stamp = log_stamp + 1 WHERE client_id = NEW.client_id;
END;
CREATE TRIGGER stamp_client_link_update AFTER UPDATE OF revoked_on ON client_link BEGIN
    UPDATE client_stamp SET log_stamp = log_stamp + 1 WHERE client_id = NEW.client_id;
END;
CREATE TRIGGER stamp_client_link_delete AFTER DELETE ON client_link BEGIN
    UPDATE client_stamp SET log_stamp = log_stamp + 1 WHERE client_id = OLD.client_id;
END;
CREATE TRIGGER stamp_seen_to_insert AFTER INSERT ON seen_to BEGIN
    UPDATE client_stamp SET log_stamp = log_stamp + 1 WHERE client_id = NEW.client_id;
END;
CREATE TRIGGER stamp_seen_to_update AFTER UPDATE ON seen_to BEGIN
    UPDATE client_stamp SET log_stamp = log_stamp + 1 WHERE client_id = NEW.client_id;
END;
CREATE TRIGGER stamp_seen_to_delete AFTER DELETE ON seen_to BEGIN
    UPDATE client_stamp SET log_stamp = log_stamp + 1 WHERE client_id = OLD.client_id;
END;
CREATE TRIGGER stamp_tape_reading_insert AFTER INSERT ON tape_reading BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_tape_reading_update AFTER UPDATE ON tape_reading BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_tape_reading_delete AFTER DELETE ON tape_reading BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = OLD.round_id);
END;
CREATE TRIGGER stamp_region_choice_insert AFTER INSERT ON region_choice BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_region_choice_update AFTER UPDATE ON region_choice BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_region_choice_delete AFTER DELETE ON region_choice BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = OLD.round_id);
END;
CREATE TRIGGER stamp_photo_insert AFTER INSERT ON photo BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_photo_update AFTER UPDATE ON photo BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_photo_delete AFTER DELETE ON photo BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = OLD.round_id);
END;
CREATE TRIGGER stamp_outline_insert AFTER INSERT ON outline BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_outline_update AFTER UPDATE ON outline BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_outline_delete AFTER DELETE ON outline BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = OLD.round_id);
END;
CREATE TRIGGER stamp_rating_insert AFTER INSERT ON rating BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_rating_update AFTER UPDATE ON rating BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_rating_delete AFTER DELETE ON rating BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = OLD.round_id);
END;
-- How far a rater's judgements are off is learned from all clients they judged again, so this changes every verdict.
CREATE TRIGGER stamp_rating_repeat_insert AFTER INSERT ON rating_repeat BEGIN
    UPDATE client_stamp SET stamp = stamp + 1;
END;
CREATE TRIGGER stamp_rating_repeat_update AFTER UPDATE ON rating_repeat BEGIN
    UPDATE client_stamp SET stamp = stamp + 1;
END;
CREATE TRIGGER stamp_rating_repeat_delete AFTER DELETE ON rating_repeat BEGIN
    UPDATE client_stamp SET stamp = stamp + 1;
END;
CREATE TRIGGER stamp_skinfold_reading_insert AFTER INSERT ON skinfold_reading BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_skinfold_reading_update AFTER UPDATE ON skinfold_reading BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_skinfold_reading_delete AFTER DELETE ON skinfold_reading BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = OLD.round_id);
END;
CREATE TRIGGER stamp_tape_level_insert AFTER INSERT ON tape_level BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_tape_level_update AFTER UPDATE ON tape_level BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_tape_level_delete AFTER DELETE ON tape_level BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = OLD.round_id);
END;
CREATE TRIGGER stamp_plan_draft_insert AFTER INSERT ON plan_draft BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_plan_draft_update AFTER UPDATE ON plan_draft BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_plan_draft_delete AFTER DELETE ON plan_draft BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = OLD.round_id);
END;
CREATE TRIGGER stamp_review_insert AFTER INSERT ON review BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_review_update AFTER UPDATE ON review BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = NEW.round_id);
END;
CREATE TRIGGER stamp_review_delete AFTER DELETE ON review BEGIN
    UPDATE client_stamp SET stamp = stamp + 1 WHERE client_id = (SELECT client_id FROM round WHERE id = OLD.round_id);
END;
