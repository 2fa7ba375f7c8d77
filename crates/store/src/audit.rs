//! Who did what kind of thing, when, for which client. What it was is not in it.

use crate::connection::Store;
use crate::error::StoreError;
use crate::schema::{client, deed};
use diesel::prelude::*;
use jiff::Timestamp;
use units::ClientId;

/// Something that was done.
#[derive(Clone, Copy, Debug)]
pub struct NewDeed<'a> {
    /// When.
    pub at: Timestamp,
    /// The account, or none when a client did it by their link.
    pub account_id: Option<&'a str>,
    /// The account's name then.
    pub name: &'a str,
    /// The kind, by its stored word.
    pub act: &'a str,
    /// For which client, where it was for one.
    pub client_id: Option<&'a ClientId>,
}

/// Something that was done, as it is read.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Deed {
    /// When.
    pub at: String,
    /// The account.
    pub account_id: Option<String>,
    /// Its name then.
    pub name: String,
    /// The kind, by its stored word.
    pub act: String,
    /// For which client.
    pub client_id: Option<ClientId>,
    /// The client's name, while they are here.
    pub client_name: Option<String>,
}

type Row = (String, Option<String>, String, String, Option<String>, Option<String>);

impl Store {
    /// Notes that something was done.
    pub fn note_deed(&self, new: &NewDeed) -> Result<(), StoreError> {
        diesel::insert_into(deed::table)
            .values((
                deed::at.eq(new.at.to_string()),
                deed::account_id.eq(new.account_id),
                deed::name.eq(new.name),
                deed::act.eq(new.act),
                deed::client_id.eq(new.client_id.map(ClientId::as_str)),
            ))
            .execute(&mut self.connect()?)?;
        Ok(())
    }

    /// What was done, newest first, from `skip` on.
    pub fn deeds(&self, skip: u32, most: u32) -> Result<Vec<Deed>, StoreError> {
        let rows: Vec<Row> = deed::table
            .left_join(client::table.on(client::id.nullable().eq(deed::client_id)))
            .order(deed::id.desc())
            .offset(skip.into())
            .limit(most.into())
            .select((deed::at, deed::account_id, deed::name, deed::act, deed::client_id, client::name.nullable()))
            .load(&mut self.connect()?)?;
        let deed = |(at, account_id, name, act, client_id, client_name): Row| Deed {
            at,
            account_id,
            name,
            act,
            client_id: client_id.map(ClientId::from),
            client_name,
        };
        Ok(rows.into_iter().map(deed).collect())
    }
}
