//! Small facts about this installation.

use crate::connection::Store;
use crate::error::StoreError;
use crate::schema::setting;
use diesel::prelude::*;

impl Store {
    /// The value of a setting; made with `fresh` and kept when there is none yet.
    pub fn setting_or(&self, key: &str, fresh: impl FnOnce() -> String) -> Result<String, StoreError> {
        let mut connection = self.connect()?;
        let made = (setting::key.eq(key), setting::value.eq(fresh()));
        diesel::insert_or_ignore_into(setting::table).values(made).execute(&mut connection)?;
        Ok(setting::table.find(key).select(setting::value).first(&mut connection)?)
    }
}
