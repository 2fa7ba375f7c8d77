//! How often anything about a client has changed, counted by triggers, so that what was worked out can be used until then.

use crate::connection::Store;
use crate::error::StoreError;
use crate::schema::client_stamp;
use diesel::prelude::*;
use std::collections::HashMap;

/// Counts of changes of a client.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Stamp {
    /// Of all but the log.
    pub all: i64,
    /// Of the log and what is said about it.
    pub log: i64,
}

impl Store {
    /// Stamps by client.
    pub fn stamps(&self) -> Result<HashMap<String, Stamp>, StoreError> {
        let rows: Vec<(String, i64, i64)> = client_stamp::table
            .select((client_stamp::client_id, client_stamp::stamp, client_stamp::log_stamp))
            .load(&mut self.connect()?)?;
        Ok(rows.into_iter().map(|(id, all, log)| (id, Stamp { all, log })).collect())
    }

    /// Of everybody together, but for their logs.
    pub fn total_stamp(&self) -> Result<i64, StoreError> {
        Ok(self.stamps()?.values().map(|stamp| stamp.all).sum())
    }

    /// Of one client.
    pub fn stamp(&self, client_id: &str) -> Result<Stamp, StoreError> {
        let found: Option<(i64, i64)> = client_stamp::table
            .find(client_id)
            .select((client_stamp::stamp, client_stamp::log_stamp))
            .first(&mut self.connect()?)
            .optional()?;
        let (all, log) = found.ok_or_else(|| StoreError::not_found("client", client_id))?;
        Ok(Stamp { all, log })
    }
}
