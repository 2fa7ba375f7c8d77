//! Weeks under work, and what clients were given.

use crate::connection::Store;
use crate::error::StoreError;
use crate::json::{parsed, written};
use crate::new_id;
use crate::schema::{issued_plan, plan_draft, round};
use casefile::{PlanFile, WeekDraft};
use diesel::prelude::*;
use jiff::civil::Date;
use std::sync::Arc;
use units::{ClientId, PlanId, RoundId};

/// A week under work.
#[derive(Clone, Debug)]
pub struct DraftRecord {
    /// The week.
    pub week: WeekDraft,
    /// Grows with every save.
    pub revision: i32,
    /// Who saved it last.
    pub saved_by: String,
}

/// A plan to be given to a client.
#[derive(Clone, Debug)]
pub struct NewIssue {
    /// The round it was made in.
    pub round_id: RoundId,
    /// The day it is given.
    pub issued_on: Date,
    /// Monday of its first week.
    pub starts_on: Date,
    /// Who gives it, by name.
    pub issued_by: String,
    /// And by account.
    pub issued_by_id: Option<String>,
    /// The week as the coach has it.
    pub week: WeekDraft,
    /// The week in words, as it is given.
    pub plan: PlanFile,
}

/// A plan a client was given.
#[derive(Clone, Debug)]
pub struct IssuedRecord {
    /// Random id.
    pub id: PlanId,
    /// Whose it is.
    pub client_id: ClientId,
    /// The round it was made in.
    pub round_id: RoundId,
    /// Counts over all rounds of the client, from 1.
    pub version: i32,
    /// The day it was given.
    pub issued_on: Date,
    /// Monday of its first week.
    pub starts_on: Date,
    /// Who gave it.
    pub issued_by: String,
    /// The week as the coach had it.
    pub week: WeekDraft,
    /// The week in words.
    pub plan: PlanFile,
}

#[derive(Queryable, Selectable, Insertable)]
#[diesel(table_name = issued_plan)]
struct Row {
    id: String,
    client_id: String,
    round_id: String,
    version: i32,
    issued_on: String,
    starts_on: String,
    issued_by: String,
    issued_by_id: Option<String>,
    week_json: String,
    plan_json: String,
}

impl Row {
    fn record(self) -> Result<IssuedRecord, StoreError> {
        let date = |text: &str| {
            text.parse().map_err(|error: jiff::Error| StoreError::corrupt("issued plan", &self.id, error.to_string()))
        };
        Ok(IssuedRecord {
            issued_on: date(&self.issued_on)?,
            starts_on: date(&self.starts_on)?,
            week: parsed("issued plan", &self.id, &self.week_json)?,
            plan: parsed("issued plan", &self.id, &self.plan_json)?,
            id: self.id.into(),
            client_id: self.client_id.into(),
            round_id: self.round_id.into(),
            version: self.version,
            issued_by: self.issued_by,
        })
    }
}

impl Store {
    /// The week under work of a round; `None` when nobody has changed one.
    pub fn plan_draft(&self, round_id: &RoundId) -> Result<Option<DraftRecord>, StoreError> {
        let found: Option<(String, i32, String)> = plan_draft::table
            .find(round_id.as_str())
            .select((plan_draft::week_json, plan_draft::revision, plan_draft::saved_by))
            .first(&mut self.connect()?)
            .optional()?;
        let record = found.map(|(json, revision, saved_by)| {
            Ok(DraftRecord { week: parsed("week of round", round_id, &json)?, revision, saved_by })
        });
        record.transpose()
    }

    /// Saves a week that was read at `revision`, 0 when there was none.
    ///
    /// # Errors
    /// [`StoreError::Stale`] when it was saved by someone else since.
    pub fn save_plan_draft(
        &self,
        round_id: &RoundId,
        revision: i32,
        saved_by: &str,
        week: &WeekDraft,
    ) -> Result<i32, StoreError> {
        let json = written("week of round", round_id, week)?;
        self.connect()?.immediate_transaction(|connection| {
            let known: Option<String> =
                round::table.find(round_id.as_str()).select(round::id).first(connection).optional()?;
            known.ok_or_else(|| StoreError::not_found("round", round_id))?;
            let stored: Option<(i32, String)> = plan_draft::table
                .find(round_id.as_str())
                .select((plan_draft::revision, plan_draft::saved_by))
                .first(connection)
                .optional()?;
            let current = stored.as_ref().map_or(0, |(revision, _)| *revision);
            if current != revision {
                return Err(StoreError::Stale { what: "the week", current, saved_by: stored.map(|(_, by)| by) });
            }
            diesel::replace_into(plan_draft::table)
                .values((
                    plan_draft::round_id.eq(round_id.as_str()),
                    plan_draft::week_json.eq(json),
                    plan_draft::revision.eq(revision + 1),
                    plan_draft::saved_by.eq(saved_by),
                ))
                .execute(connection)?;
            Ok(revision + 1)
        })
    }

    /// Gives a client a plan, as their next version.
    pub fn issue_plan(&self, new: &NewIssue) -> Result<IssuedRecord, StoreError> {
        let id = new_id();
        let (week_json, plan_json) = (written("issued plan", &id, &new.week)?, written("issued plan", &id, &new.plan)?);
        self.connect()?.immediate_transaction(|connection| {
            let client_id: Option<String> =
                round::table.find(new.round_id.as_str()).select(round::client_id).first(connection).optional()?;
            let client_id = client_id.ok_or_else(|| StoreError::not_found("round", &new.round_id))?;
            let last: Option<i32> = issued_plan::table
                .filter(issued_plan::client_id.eq(&client_id))
                .select(diesel::dsl::max(issued_plan::version))
                .first(connection)?;
            let row = Row {
                id,
                client_id,
                round_id: new.round_id.clone().into(),
                version: last.unwrap_or(0) + 1,
                issued_on: new.issued_on.to_string(),
                starts_on: new.starts_on.to_string(),
                issued_by: new.issued_by.clone(),
                issued_by_id: new.issued_by_id.clone(),
                week_json,
                plan_json,
            };
            diesel::insert_into(issued_plan::table).values(&row).execute(connection)?;
            row.record()
        })
    }

    /// What a client was given, newest first: the first is what they have.
    pub fn issued_plans(&self, client_id: &ClientId) -> Result<Vec<Arc<IssuedRecord>>, StoreError> {
        let ids: Vec<String> = issued_plan::table
            .filter(issued_plan::client_id.eq(client_id.as_str()))
            .order(issued_plan::version.desc())
            .select(issued_plan::id)
            .load(&mut self.connect()?)?;
        ids.into_iter().map(PlanId::from).map(|id| self.given(&id, || self.issued_plan(&id))).collect()
    }

    /// A plan a client was given.
    pub fn issued_plan(&self, id: &PlanId) -> Result<IssuedRecord, StoreError> {
        let found: Option<Row> =
            issued_plan::table.find(id.as_str()).select(Row::as_select()).first(&mut self.connect()?).optional()?;
        found.ok_or_else(|| StoreError::not_found("plan", id))?.record()
    }
}
