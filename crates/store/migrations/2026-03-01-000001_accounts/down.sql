DROP TABLE setting;
DROP TABLE browser_session;
DROP TABLE account;
