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

-- A bar that runs in rails and two exercises have other ids.
UPDATE client SET brief_json = replace(replace(replace(brief_json, '"smith-press"', '"guided-press"'), '"plate-waiter-curl"', '"palms-under-plate-curl"'), '"smith"', '"guided-bar"')
    WHERE brief_json LIKE '%"smith-press"%' OR brief_json LIKE '%"plate-waiter-curl"%' OR brief_json LIKE '%"smith"%';
UPDATE client SET usual_week_json = replace(replace(replace(usual_week_json, '"smith-press"', '"guided-press"'), '"plate-waiter-curl"', '"palms-under-plate-curl"'), '"smith"', '"guided-bar"')
    WHERE usual_week_json LIKE '%"smith-press"%' OR usual_week_json LIKE '%"plate-waiter-curl"%' OR usual_week_json LIKE '%"smith"%';
UPDATE round SET tests_json = replace(replace(replace(tests_json, '"smith-press"', '"guided-press"'), '"plate-waiter-curl"', '"palms-under-plate-curl"'), '"smith"', '"guided-bar"')
    WHERE tests_json LIKE '%"smith-press"%' OR tests_json LIKE '%"plate-waiter-curl"%' OR tests_json LIKE '%"smith"%';
UPDATE saved_week SET week_json = replace(replace(replace(week_json, '"smith-press"', '"guided-press"'), '"plate-waiter-curl"', '"palms-under-plate-curl"'), '"smith"', '"guided-bar"')
    WHERE week_json LIKE '%"smith-press"%' OR week_json LIKE '%"plate-waiter-curl"%' OR week_json LIKE '%"smith"%';
UPDATE plan_draft SET week_json = replace(replace(replace(week_json, '"smith-press"', '"guided-press"'), '"plate-waiter-curl"', '"palms-under-plate-curl"'), '"smith"', '"guided-bar"')
    WHERE week_json LIKE '%"smith-press"%' OR week_json LIKE '%"plate-waiter-curl"%' OR week_json LIKE '%"smith"%';
UPDATE issued_plan SET week_json = replace(replace(replace(week_json, '"smith-press"', '"guided-press"'), '"plate-waiter-curl"', '"palms-under-plate-curl"'), '"smith"', '"guided-bar"')
    WHERE week_json LIKE '%"smith-press"%' OR week_json LIKE '%"plate-waiter-curl"%' OR week_json LIKE '%"smith"%';
UPDATE issued_plan SET plan_json = replace(replace(replace(plan_json, '"smith-press"', '"guided-press"'), '"plate-waiter-curl"', '"palms-under-plate-curl"'), '"smith"', '"guided-bar"')
    WHERE plan_json LIKE '%"smith-press"%' OR plan_json LIKE '%"plate-waiter-curl"%' OR plan_json LIKE '%"smith"%';
UPDATE log_entry SET entry_json = replace(replace(replace(entry_json, '"smith-press"', '"guided-press"'), '"plate-waiter-curl"', '"palms-under-plate-curl"'), '"smith"', '"guided-bar"')
    WHERE entry_json LIKE '%"smith-press"%' OR entry_json LIKE '%"plate-waiter-curl"%' OR entry_json LIKE '%"smith"%';
UPDATE review SET decisions_json = replace(replace(replace(decisions_json, '"smith-press"', '"guided-press"'), '"plate-waiter-curl"', '"palms-under-plate-curl"'), '"smith"', '"guided-bar"')
    WHERE decisions_json LIKE '%"smith-press"%' OR decisions_json LIKE '%"plate-waiter-curl"%' OR decisions_json LIKE '%"smith"%';
UPDATE target_overrule SET exercise = CASE exercise WHEN 'smith-press' THEN 'guided-press' WHEN 'plate-waiter-curl' THEN 'palms-under-plate-curl' END
    WHERE exercise IN ('smith-press', 'plate-waiter-curl');
