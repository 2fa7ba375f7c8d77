//! Signed-in browsers, by the hash of their random key.

use crate::connection::Store;
use crate::error::StoreError;
use crate::schema::browser_session;
use diesel::prelude::*;
use jiff::Timestamp;

impl Store {
    /// The state of a session that has not expired.
    pub fn browser_session(&self, key: &str) -> Result<Option<String>, StoreError> {
        let alive =
            browser_session::table.find(key).filter(browser_session::expires_at_s.gt(Timestamp::now().as_second()));
        Ok(alive.select(browser_session::state_json).first(&mut self.connect()?).optional()?)
    }

    /// Keeps a session's state for `lifetime_s` seconds from now, and forgets sessions that have expired.
    pub fn keep_browser_session(&self, key: &str, state_json: &str, lifetime_s: i64) -> Result<(), StoreError> {
        let now = Timestamp::now().as_second();
        let mut connection = self.connect()?;
        let expired = browser_session::table.filter(browser_session::expires_at_s.le(now));
        diesel::delete(expired).execute(&mut connection)?;
        diesel::replace_into(browser_session::table)
            .values((
                browser_session::key.eq(key),
                browser_session::state_json.eq(state_json),
                browser_session::expires_at_s.eq(now + lifetime_s),
            ))
            .execute(&mut connection)?;
        Ok(())
    }

    /// Lengthens a session to `lifetime_s` from now; where less than `step_s` would be won, nothing is written.
    pub fn lengthen_browser_session(&self, key: &str, lifetime_s: i64, step_s: i64) -> Result<(), StoreError> {
        let until = Timestamp::now().as_second() + lifetime_s;
        let ends: Option<i64> = browser_session::table
            .find(key)
            .select(browser_session::expires_at_s)
            .first(&mut self.connect()?)
            .optional()?;
        if ends.is_none_or(|ends| until - ends < step_s) {
            return Ok(());
        }
        diesel::update(browser_session::table.find(key))
            .set(browser_session::expires_at_s.eq(until))
            .execute(&mut self.connect()?)?;
        Ok(())
    }

    /// Ends a session.
    pub fn end_browser_session(&self, key: &str) -> Result<(), StoreError> {
        diesel::delete(browser_session::table.find(key)).execute(&mut self.connect()?)?;
        Ok(())
    }
}
