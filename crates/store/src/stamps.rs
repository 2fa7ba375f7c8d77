//! How often anything about a client has changed, counted by triggers, so that what was worked out can be used until then.

use crate::connection::Store;
use crate::error::StoreError;
use crate::schema::client_stamp;
use diesel::prelude::*;
use diesel::sql_query;
use diesel::sql_types::{BigInt, Nullable};
use std::collections::HashMap;
use units::ClientId;

/// Counts of changes of a client.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Stamp {
    /// Of all but the log.
    pub all: i64,
    /// Of the log and what is said about it.
    pub log: i64,
}

#[derive(QueryableByName)]
struct Sums {
    #[diesel(sql_type = Nullable<BigInt>)]
    everything: Option<i64>,
    #[diesel(sql_type = Nullable<BigInt>)]
    logs: Option<i64>,
}

impl Store {
    /// Stamps by client.
    pub fn stamps(&self) -> Result<HashMap<ClientId, Stamp>, StoreError> {
        let rows: Vec<(String, i64, i64)> = client_stamp::table
            .select((client_stamp::client_id, client_stamp::stamp, client_stamp::log_stamp))
            .load(&mut self.connect()?)?;
        Ok(rows.into_iter().map(|(id, all, log)| (id.into(), Stamp { all, log })).collect())
    }

    /// Of some clients, by id.
    pub fn stamps_of(&self, ids: &[ClientId]) -> Result<HashMap<ClientId, Stamp>, StoreError> {
        let rows: Vec<(String, i64, i64)> = client_stamp::table
            .filter(client_stamp::client_id.eq_any(ids.iter().map(ClientId::as_str)))
            .select((client_stamp::client_id, client_stamp::stamp, client_stamp::log_stamp))
            .load(&mut self.connect()?)?;
        Ok(rows.into_iter().map(|(id, all, log)| (id.into(), Stamp { all, log })).collect())
    }

    /// Of everybody together.
    pub fn total_stamp(&self) -> Result<Stamp, StoreError> {
        let sums = sql_query("SELECT sum(stamp) AS everything, sum(log_stamp) AS logs FROM client_stamp");
        let Sums { everything, logs } = sums.get_result(&mut self.connect()?)?;
        Ok(Stamp { all: everything.unwrap_or_default(), log: logs.unwrap_or_default() })
    }

    /// Of one client.
    pub fn stamp(&self, client_id: &ClientId) -> Result<Stamp, StoreError> {
        let found: Option<(i64, i64)> = client_stamp::table
            .find(client_id.as_str())
            .select((client_stamp::stamp, client_stamp::log_stamp))
            .first(&mut self.connect()?)
            .optional()?;
        let (all, log) = found.ok_or_else(|| StoreError::not_found("client", client_id))?;
        Ok(Stamp { all, log })
    }
}
