ALTER TABLE client_link DROP COLUMN made_by_id;
ALTER TABLE issued_plan DROP COLUMN issued_by_id;
DROP TABLE recovery_code;
ALTER TABLE account DROP COLUMN factor_step;
ALTER TABLE account DROP COLUMN factor_secret;
