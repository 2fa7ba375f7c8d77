-- A second factor, for those who set one up: its secret, the last step whose code was used, and codes for when the phone is lost.
ALTER TABLE account ADD COLUMN factor_secret TEXT;
ALTER TABLE account ADD COLUMN factor_step BIGINT;
CREATE TABLE recovery_code (
    account_id TEXT NOT NULL REFERENCES account (id) ON DELETE CASCADE,
    code_sha256 TEXT NOT NULL,
    PRIMARY KEY (account_id, code_sha256)
) WITHOUT ROWID;

-- Who gave a plan and who made a link: the account beside the name it had then. Null where that was never known, or came from elsewhere.
ALTER TABLE issued_plan ADD COLUMN issued_by_id TEXT;
ALTER TABLE client_link ADD COLUMN made_by_id TEXT;
UPDATE issued_plan SET issued_by_id = (SELECT min(id) FROM account WHERE account.name = issued_by GROUP BY name HAVING count(*) = 1);
UPDATE client_link SET made_by_id = (SELECT min(id) FROM account WHERE account.name = made_by GROUP BY name HAVING count(*) = 1);
