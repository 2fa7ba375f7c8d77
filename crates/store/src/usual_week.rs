//! What clients trained before there was a log.

use crate::connection::{Connection, Store};
use crate::error::StoreError;
use crate::schema::client;
use assess::TrainingEntry;
use atlas::Atlas;
use casefile::{UsualWeek, check_training};
use diesel::prelude::*;
use jiff::civil::Date;
use std::collections::HashMap;
use units::{ClientId, Place};

/// Training by client id, of the clients who have told.
pub(crate) fn load_many(
    connection: &mut Connection,
    atlas: &Atlas,
    client_ids: &[ClientId],
) -> Result<HashMap<ClientId, Vec<TrainingEntry>>, StoreError> {
    let rows: Vec<(String, Option<String>)> = client::table
        .filter(client::id.eq_any(client_ids.iter().map(ClientId::as_str)))
        .filter(client::usual_week_json.is_not_null())
        .select((client::id, client::usual_week_json))
        .load(connection)?;
    let told = rows.into_iter().filter_map(|(id, json)| Some((id, json?)));
    told.map(|(id, json)| {
        let id = ClientId::from(id);
        let entries = entries(atlas, &id, &json)?;
        Ok((id, entries))
    })
    .collect()
}

fn parse(client_id: &ClientId, json: &str) -> Result<UsualWeek, StoreError> {
    serde_json::from_str(json).map_err(|error| StoreError::corrupt("usual week of client", client_id, error))
}

/// The week was checked before it was stored, so a failure here is corruption.
fn entries(atlas: &Atlas, client_id: &ClientId, json: &str) -> Result<Vec<TrainingEntry>, StoreError> {
    let corrupt = |why: String| StoreError::corrupt("usual week of client", client_id, why);
    let rows = parse(client_id, json)?.rows(&Place::root()).map_err(|problem| corrupt(problem.to_string()))?;
    check_training(atlas, &Place::root(), &rows, Date::MAX)
        .map_err(|problems| corrupt(problems.first().map(ToString::to_string).unwrap_or_default()))
}

impl Store {
    /// What a client usually trained, when somebody asked, and its revision.
    pub fn usual_week(&self, client_id: &ClientId) -> Result<(Option<UsualWeek>, i32), StoreError> {
        let found: Option<(Option<String>, i32)> = client::table
            .find(client_id.as_str())
            .select((client::usual_week_json, client::usual_week_revision))
            .first(&mut self.connect()?)
            .optional()?;
        let (json, revision) = found.ok_or_else(|| StoreError::not_found("client", client_id))?;
        Ok((json.map(|json| parse(client_id, &json)).transpose()?, revision))
    }

    /// Saves a usual week that was read at `revision`; `None` forgets it.
    ///
    /// # Errors
    /// [`StoreError::Stale`] when it was saved by someone else since.
    pub fn save_usual_week(
        &self,
        client_id: &ClientId,
        revision: i32,
        week: Option<&UsualWeek>,
    ) -> Result<i32, StoreError> {
        let json = week.map(serde_json::to_string).transpose();
        let json = json.map_err(|error| StoreError::corrupt("usual week of client", client_id, error))?;
        self.connect()?.immediate_transaction(|connection| {
            let found: Option<i32> = client::table
                .find(client_id.as_str())
                .select(client::usual_week_revision)
                .first(connection)
                .optional()?;
            let current = found.ok_or_else(|| StoreError::not_found("client", client_id))?;
            if current != revision {
                return Err(StoreError::Stale { what: "the usual week", current, saved_by: None });
            }
            diesel::update(client::table.find(client_id.as_str()))
                .set((client::usual_week_json.eq(json), client::usual_week_revision.eq(revision + 1)))
                .execute(connection)?;
            Ok(revision + 1)
        })
    }
}
