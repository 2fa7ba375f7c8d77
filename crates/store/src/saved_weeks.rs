//! Weeks of the practice, kept under a name to be taken for any client; and what every client has now, which can be taken too.

use crate::connection::Store;
use crate::error::StoreError;
use crate::json::{parsed, written};
use crate::new_id;
use crate::schema::{client, issued_plan, saved_week};
use casefile::WeekDraft;
use diesel::alias;
use diesel::dsl::{exists, not};
use diesel::prelude::*;
use jiff::Timestamp;
use units::{ClientId, PlanId};

/// A week under a name.
#[derive(Clone, Debug)]
pub struct SavedWeek {
    /// Random id.
    pub id: String,
    /// What it is called; no two are called alike.
    pub name: String,
    /// The week.
    pub week: WeekDraft,
    /// Who saved it.
    pub saved_by: String,
    /// When.
    pub saved_at: Timestamp,
}

#[derive(Queryable, Selectable, Insertable)]
#[diesel(table_name = saved_week)]
struct Row {
    id: String,
    name: String,
    week_json: String,
    saved_by: String,
    saved_at: String,
}

impl Row {
    fn record(self) -> Result<SavedWeek, StoreError> {
        let corrupt = |error: jiff::Error| StoreError::corrupt("saved week", &self.id, error.to_string());
        Ok(SavedWeek {
            week: parsed("saved week", &self.id, &self.week_json)?,
            saved_at: self.saved_at.parse().map_err(corrupt)?,
            id: self.id,
            name: self.name,
            saved_by: self.saved_by,
        })
    }
}

/// The newest plan of a client.
#[derive(Clone, Debug, PartialEq)]
pub struct GivenWeek {
    /// Whose.
    pub client_id: ClientId,
    /// Display name.
    pub client_name: String,
    /// The plan.
    pub plan_id: PlanId,
    /// Monday of its first week.
    pub starts_on: String,
    /// The week as the coach had it.
    pub week: WeekDraft,
}

impl Store {
    /// Every saved week, by name.
    pub fn saved_weeks(&self) -> Result<Vec<SavedWeek>, StoreError> {
        let rows: Vec<Row> =
            saved_week::table.order(saved_week::name).select(Row::as_select()).load(&mut self.connect()?)?;
        rows.into_iter().map(Row::record).collect()
    }

    /// A saved week.
    pub fn saved_week(&self, id: &str) -> Result<SavedWeek, StoreError> {
        let found: Option<Row> =
            saved_week::table.find(id).select(Row::as_select()).first(&mut self.connect()?).optional()?;
        found.ok_or_else(|| StoreError::not_found("saved week", id))?.record()
    }

    /// Saves a week under a name, in the place of one that is called so when `replace`. False when the name is taken.
    pub fn save_week(&self, name: &str, week: &WeekDraft, saved_by: &str, replace: bool) -> Result<bool, StoreError> {
        let week_json = written("saved week", name, week)?;
        self.connect()?.immediate_transaction(|connection| {
            // The column compares without regard to case.
            let taken: Option<String> = saved_week::table
                .filter(saved_week::name.eq(name))
                .select(saved_week::id)
                .first(connection)
                .optional()?;
            if taken.is_some() && !replace {
                return Ok(false);
            }
            let row = Row {
                id: taken.unwrap_or_else(new_id),
                name: name.to_owned(),
                week_json,
                saved_by: saved_by.to_owned(),
                saved_at: Timestamp::now().to_string(),
            };
            diesel::replace_into(saved_week::table).values(&row).execute(connection)?;
            Ok(true)
        })
    }

    /// Forgets a saved week.
    pub fn forget_saved_week(&self, id: &str) -> Result<(), StoreError> {
        let gone = diesel::delete(saved_week::table.find(id)).execute(&mut self.connect()?)?;
        if gone == 0 { Err(StoreError::not_found("saved week", id)) } else { Ok(()) }
    }

    /// The newest plan of every client who has one, by name.
    pub fn given_weeks(&self) -> Result<Vec<GivenWeek>, StoreError> {
        let newer = alias!(issued_plan as newer);
        let replaced = newer
            .filter(newer.field(issued_plan::client_id).eq(issued_plan::client_id))
            .filter(newer.field(issued_plan::version).gt(issued_plan::version));
        let rows: Vec<(String, String, String, String, String)> = issued_plan::table
            .inner_join(client::table.on(client::id.eq(issued_plan::client_id)))
            .filter(not(exists(replaced)))
            .order((client::name, client::id))
            .select((client::id, client::name, issued_plan::id, issued_plan::starts_on, issued_plan::week_json))
            .load(&mut self.connect()?)?;
        let given = rows.into_iter().map(|(client_id, client_name, plan_id, starts_on, week_json)| {
            let week = parsed("issued plan", &plan_id, &week_json)?;
            let (client_id, plan_id) = (client_id.into(), plan_id.into());
            Ok(GivenWeek { client_id, client_name, plan_id, starts_on, week })
        });
        given.collect()
    }
}
