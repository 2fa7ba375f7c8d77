UPDATE client SET brief_json = replace(replace(replace(brief_json, '"guided-press"', '"smith-press"'), '"palms-under-plate-curl"', '"plate-waiter-curl"'), '"guided-bar"', '"smith"')
    WHERE brief_json LIKE '%"guided-press"%' OR brief_json LIKE '%"palms-under-plate-curl"%' OR brief_json LIKE '%"guided-bar"%';
UPDATE client SET usual_week_json = replace(replace(replace(usual_week_json, '"guided-press"', '"smith-press"'), '"palms-under-plate-curl"', '"plate-waiter-curl"'), '"guided-bar"', '"smith"')
    WHERE usual_week_json LIKE '%"guided-press"%' OR usual_week_json LIKE '%"palms-under-plate-curl"%' OR usual_week_json LIKE '%"guided-bar"%';
UPDATE round SET tests_json = replace(replace(replace(tests_json, '"guided-press"', '"smith-press"'), '"palms-under-plate-curl"', '"plate-waiter-curl"'), '"guided-bar"', '"smith"')
    WHERE tests_json LIKE '%"guided-press"%' OR tests_json LIKE '%"palms-under-plate-curl"%' OR tests_json LIKE '%"guided-bar"%';
UPDATE saved_week SET week_json = replace(replace(replace(week_json, '"guided-press"', '"smith-press"'), '"palms-under-plate-curl"', '"plate-waiter-curl"'), '"guided-bar"', '"smith"')
    WHERE week_json LIKE '%"guided-press"%' OR week_json LIKE '%"palms-under-plate-curl"%' OR week_json LIKE '%"guided-bar"%';
UPDATE plan_draft SET week_json = replace(replace(replace(week_json, '"guided-press"', '"smith-press"'), '"palms-under-plate-curl"', '"plate-waiter-curl"'), '"guided-bar"', '"smith"')
    WHERE week_json LIKE '%"guided-press"%' OR week_json LIKE '%"palms-under-plate-curl"%' OR week_json LIKE '%"guided-bar"%';
UPDATE issued_plan SET week_json = replace(replace(replace(week_json, '"guided-press"', '"smith-press"'), '"palms-under-plate-curl"', '"plate-waiter-curl"'), '"guided-bar"', '"smith"')
    WHERE week_json LIKE '%"guided-press"%' OR week_json LIKE '%"palms-under-plate-curl"%' OR week_json LIKE '%"guided-bar"%';
UPDATE issued_plan SET plan_json = replace(replace(replace(plan_json, '"guided-press"', '"smith-press"'), '"palms-under-plate-curl"', '"plate-waiter-curl"'), '"guided-bar"', '"smith"')
    WHERE plan_json LIKE '%"guided-press"%' OR plan_json LIKE '%"palms-under-plate-curl"%' OR plan_json LIKE '%"guided-bar"%';
UPDATE log_entry SET entry_json = replace(replace(replace(entry_json, '"guided-press"', '"smith-press"'), '"palms-under-plate-curl"', '"plate-waiter-curl"'), '"guided-bar"', '"smith"')
    WHERE entry_json LIKE '%"guided-press"%' OR entry_json LIKE '%"palms-under-plate-curl"%' OR entry_json LIKE '%"guided-bar"%';
UPDATE review SET decisions_json = replace(replace(replace(decisions_json, '"guided-press"', '"smith-press"'), '"palms-under-plate-curl"', '"plate-waiter-curl"'), '"guided-bar"', '"smith"')
    WHERE decisions_json LIKE '%"guided-press"%' OR decisions_json LIKE '%"palms-under-plate-curl"%' OR decisions_json LIKE '%"guided-bar"%';
UPDATE target_overrule SET exercise = CASE exercise WHEN 'guided-press' THEN 'smith-press' WHEN 'palms-under-plate-curl' THEN 'plate-waiter-curl' END
    WHERE exercise IN ('guided-press', 'palms-under-plate-curl');
DROP TABLE message;
ALTER TABLE round DROP COLUMN note;
ALTER TABLE client DROP COLUMN note;
DROP TABLE set_up;
