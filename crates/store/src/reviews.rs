//! What was decided at the end of a round, and what of the queue has been seen to.

use crate::connection::Store;
use crate::error::StoreError;
use crate::json::{parsed, written};
use crate::schema::{review, round, seen_to};
use diesel::prelude::*;
use jiff::civil::Date;
use logbook::Decision;
use std::collections::{BTreeMap, HashSet};
use units::{ClientId, RegionId, RoundId};

/// Decisions about regions.
pub type Decisions = BTreeMap<RegionId, Decision>;

impl Store {
    /// What was decided at the end of a round, with its revision: 0 when nothing was.
    pub fn decisions(&self, round_id: &RoundId) -> Result<(Decisions, i32), StoreError> {
        let found: Option<(String, i32)> = review::table
            .find(round_id.as_str())
            .select((review::decisions_json, review::revision))
            .first(&mut self.connect()?)
            .optional()?;
        let Some((json, revision)) = found else { return Ok((Decisions::new(), 0)) };
        Ok((parsed("review of round", round_id, &json)?, revision))
    }

    /// Saves decisions that were read at `revision`.
    ///
    /// # Errors
    /// [`StoreError::Stale`] when they were saved by someone else since.
    pub fn save_decisions(
        &self,
        round_id: &RoundId,
        revision: i32,
        by: &str,
        decisions: &Decisions,
    ) -> Result<i32, StoreError> {
        let json = written("review of round", round_id, decisions)?;
        self.connect()?.immediate_transaction(|connection| {
            let known: Option<String> =
                round::table.find(round_id.as_str()).select(round::id).first(connection).optional()?;
            known.ok_or_else(|| StoreError::not_found("round", round_id))?;
            let stored: Option<(i32, String)> = review::table
                .find(round_id.as_str())
                .select((review::revision, review::saved_by))
                .first(connection)
                .optional()?;
            let current = stored.as_ref().map_or(0, |(revision, _)| *revision);
            if current != revision {
                return Err(StoreError::Stale { what: "the review", current, saved_by: stored.map(|(_, by)| by) });
            }
            diesel::replace_into(review::table)
                .values((
                    review::round_id.eq(round_id.as_str()),
                    review::decisions_json.eq(json),
                    review::revision.eq(revision + 1),
                    review::saved_by.eq(by),
                ))
                .execute(connection)?;
            Ok(revision + 1)
        })
    }

    /// What of a client's queue has been seen to.
    pub fn seen_to(&self, client_id: &ClientId) -> Result<HashSet<String>, StoreError> {
        let rows: Vec<String> = seen_to::table
            .filter(seen_to::client_id.eq(client_id.as_str()))
            .select(seen_to::what)
            .load(&mut self.connect()?)?;
        Ok(rows.into_iter().collect())
    }

    /// Notes that something of the queue has been seen to.
    pub fn see_to(&self, client_id: &ClientId, what: &str, note: &str, by: &str, on: Date) -> Result<(), StoreError> {
        diesel::replace_into(seen_to::table)
            .values((
                seen_to::client_id.eq(client_id.as_str()),
                seen_to::what.eq(what),
                seen_to::note.eq(note),
                seen_to::seen_by.eq(by),
                seen_to::seen_on.eq(on.to_string()),
            ))
            .execute(&mut self.connect()?)?;
        Ok(())
    }

    /// Puts something back into the queue.
    pub fn unsee(&self, client_id: &ClientId, what: &str) -> Result<(), StoreError> {
        diesel::delete(seen_to::table.find((client_id.as_str(), what))).execute(&mut self.connect()?)?;
        Ok(())
    }
}
