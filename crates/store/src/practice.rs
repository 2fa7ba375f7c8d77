//! What the practice sets differently from what ships, and how its people like their screens.

use crate::connection::Store;
use crate::error::StoreError;
use crate::schema::{practice, preference};
use casefile::PracticeEntry;
use diesel::prelude::*;
use serde_json::Value;

/// The practice's settings as stored.
#[derive(Clone, Debug)]
pub struct PracticeRecord {
    /// What differs from what ships.
    pub settings: PracticeEntry,
    /// Grows with every save.
    pub revision: i32,
    /// Who saved them last.
    pub saved_by: Option<String>,
}

/// There is one practice to a database.
const ONLY: i32 = 1;

impl Store {
    /// The practice's settings.
    pub fn practice(&self) -> Result<PracticeRecord, StoreError> {
        let (json, revision, saved_by): (String, i32, Option<String>) = practice::table
            .find(ONLY)
            .select((practice::settings_json, practice::revision, practice::saved_by))
            .first(&mut self.connect()?)?;
        let settings =
            serde_json::from_str(&json).map_err(|error| StoreError::corrupt("practice settings", "1", error))?;
        Ok(PracticeRecord { settings, revision, saved_by })
    }

    /// Saves settings that were read at `revision`.
    ///
    /// # Errors
    /// [`StoreError::Stale`] when they were saved by someone else since.
    pub fn save_practice(&self, revision: i32, saved_by: &str, settings: &PracticeEntry) -> Result<(), StoreError> {
        let json =
            serde_json::to_string(settings).map_err(|error| StoreError::corrupt("practice settings", "1", error))?;
        self.connect()?.immediate_transaction(|connection| {
            let (current, last): (i32, Option<String>) =
                practice::table.find(ONLY).select((practice::revision, practice::saved_by)).first(connection)?;
            if current != revision {
                return Err(StoreError::Stale { what: "the practice's settings", current, saved_by: last });
            }
            diesel::update(practice::table.find(ONLY))
                .set((
                    practice::settings_json.eq(json),
                    practice::revision.eq(revision + 1),
                    practice::saved_by.eq(saved_by),
                ))
                .execute(connection)?;
            Ok(())
        })
    }

    /// A preference of an account; `None` when there is none.
    pub fn preference(&self, account_id: &str, key: &str) -> Result<Option<Value>, StoreError> {
        let found: Option<String> = preference::table
            .find((account_id, key))
            .select(preference::value_json)
            .first(&mut self.connect()?)
            .optional()?;
        let parsed = found.map(|json| serde_json::from_str(&json)).transpose();
        parsed.map_err(|error| StoreError::corrupt("preference", key, error))
    }

    /// Keeps a preference of an account.
    pub fn save_preference(&self, account_id: &str, key: &str, value: &Value) -> Result<(), StoreError> {
        let values = (
            preference::account_id.eq(account_id),
            preference::key.eq(key),
            preference::value_json.eq(value.to_string()),
        );
        diesel::replace_into(preference::table).values(values).execute(&mut self.connect()?)?;
        Ok(())
    }
}
