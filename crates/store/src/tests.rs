//! The tests of a round: one document.

use crate::connection::{Connection, Store};
use crate::error::StoreError;
use crate::rounds::{RoundRecord, find};
use crate::schema::round;
use assess::Test;
use atlas::Atlas;
use casefile::{TestEntry, check_tests};
use diesel::prelude::*;
use std::collections::HashMap;
use units::{Place, RoundId};

/// Tests of rounds by round id.
pub(crate) fn load_many(
    connection: &mut Connection,
    atlas: &Atlas,
    round_ids: &[RoundId],
) -> Result<HashMap<RoundId, Vec<Test>>, StoreError> {
    let rows: Vec<(String, String)> = round::table
        .filter(round::id.eq_any(round_ids.iter().map(RoundId::as_str)))
        .filter(round::tests_json.ne("[]"))
        .select((round::id, round::tests_json))
        .load(connection)?;
    let sheet = |(id, json): (String, String)| {
        let id = RoundId::from(id);
        let tests = tests(atlas, &id, &json)?;
        Ok((id, tests))
    };
    rows.into_iter().map(sheet).collect()
}

/// Tests were checked before they were stored, so a failure here is corruption.
fn tests(atlas: &Atlas, round_id: &RoundId, json: &str) -> Result<Vec<Test>, StoreError> {
    let corrupt = |why: String| StoreError::corrupt("tests of round", round_id, why);
    let entries: Vec<TestEntry> = serde_json::from_str(json).map_err(|error| corrupt(error.to_string()))?;
    let (tests, problems) = check_tests(atlas, &Place::root(), &entries);
    match problems.first() {
        Some(problem) => Err(corrupt(problem.to_string())),
        None => Ok(tests.into_iter().map(|(_, test)| test).collect()),
    }
}

impl Store {
    /// Saves the tests of a round that were read at `revision`.
    ///
    /// # Errors
    /// [`StoreError::Stale`] when they were saved by someone else since; nothing is overwritten.
    pub fn save_tests(
        &self,
        round_id: &RoundId,
        revision: i32,
        saved_by: &str,
        tests: &[Test],
    ) -> Result<RoundRecord, StoreError> {
        let entries: Vec<TestEntry> = tests.iter().map(TestEntry::from).collect();
        let json = serde_json::to_string(&entries).map_err(|e| StoreError::corrupt("tests of round", round_id, e))?;
        let mut connection = self.connect()?;
        connection.immediate_transaction(|connection| {
            let found: Option<(i32, Option<String>)> = round::table
                .find(round_id.as_str())
                .select((round::tests_revision, round::tests_saved_by))
                .first(connection)
                .optional()?;
            let (current, last) = found.ok_or_else(|| StoreError::not_found("round", round_id))?;
            if current != revision {
                return Err(StoreError::Stale { what: "this sheet of tests", current, saved_by: last });
            }
            diesel::update(round::table.find(round_id.as_str()))
                .set((
                    round::tests_json.eq(json),
                    round::tests_revision.eq(revision + 1),
                    round::tests_saved_by.eq(saved_by),
                ))
                .execute(connection)?;
            Ok::<(), StoreError>(())
        })?;
        find(&mut connection, round_id)
    }
}
