//! Private links of clients. A link's token is known to its holder alone; here is only its hash.

use crate::connection::Store;
use crate::error::StoreError;
use crate::new_id;
use crate::schema::{client, client_link};
use diesel::prelude::*;
use jiff::civil::Date;
use units::ClientId;

/// A link as stored.
#[derive(Clone, Debug)]
pub struct LinkRecord {
    /// Random id, which opens nothing.
    pub id: String,
    /// Whose page it opens.
    pub client_id: ClientId,
    /// Who made it.
    pub made_by: String,
    /// The day it was made.
    pub made_on: Date,
    /// The last day on which it opens.
    pub expires_on: Date,
    /// The day it was taken back.
    pub revoked_on: Option<Date>,
    /// The last day it was used.
    pub used_on: Option<Date>,
}

impl LinkRecord {
    /// Whether it opens on a day.
    pub fn opens_on(&self, day: Date) -> bool {
        self.revoked_on.is_none() && day <= self.expires_on
    }
}

/// A link about to be made.
#[derive(Clone, Debug)]
pub struct NewLink<'a> {
    /// Whose page it opens.
    pub client_id: &'a ClientId,
    /// SHA-256 of the token, hexadecimal.
    pub token_sha256: &'a str,
    /// Who makes it.
    pub made_by: &'a str,
    /// And by account.
    pub made_by_id: &'a str,
    /// Today.
    pub made_on: Date,
    /// The last day on which it opens.
    pub expires_on: Date,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = client_link)]
struct Row {
    id: String,
    client_id: String,
    made_by: String,
    made_on: String,
    expires_on: String,
    revoked_on: Option<String>,
    used_on: Option<String>,
}

impl TryFrom<Row> for LinkRecord {
    type Error = StoreError;
    fn try_from(row: Row) -> Result<Self, StoreError> {
        let date = |text: &str| {
            text.parse().map_err(|error: jiff::Error| StoreError::corrupt("link", &row.id, error.to_string()))
        };
        Ok(Self {
            made_on: date(&row.made_on)?,
            expires_on: date(&row.expires_on)?,
            revoked_on: row.revoked_on.as_deref().map(date).transpose()?,
            used_on: row.used_on.as_deref().map(date).transpose()?,
            id: row.id,
            client_id: row.client_id.into(),
            made_by: row.made_by,
        })
    }
}

impl Store {
    /// Makes a link.
    pub fn add_link(&self, new: &NewLink) -> Result<LinkRecord, StoreError> {
        let id = new_id();
        let mut connection = self.connect()?;
        if client::table.find(new.client_id.as_str()).count().get_result::<i64>(&mut connection)? == 0 {
            return Err(StoreError::not_found("client", new.client_id));
        }
        diesel::insert_into(client_link::table)
            .values((
                client_link::id.eq(&id),
                client_link::client_id.eq(new.client_id.as_str()),
                client_link::token_sha256.eq(new.token_sha256),
                client_link::made_by.eq(new.made_by),
                client_link::made_by_id.eq(new.made_by_id),
                client_link::made_on.eq(new.made_on.to_string()),
                client_link::expires_on.eq(new.expires_on.to_string()),
            ))
            .execute(&mut connection)?;
        let row = client_link::table.find(&id).select(Row::as_select()).first(&mut connection)?;
        row.try_into()
    }

    /// A client's links, newest first.
    pub fn links(&self, client_id: &ClientId) -> Result<Vec<LinkRecord>, StoreError> {
        let rows: Vec<Row> = client_link::table
            .filter(client_link::client_id.eq(client_id.as_str()))
            .order((client_link::made_on.desc(), client_link::id.asc()))
            .select(Row::as_select())
            .load(&mut self.connect()?)?;
        rows.into_iter().map(LinkRecord::try_from).collect()
    }

    /// The link of a token, by its hash; its use is noted once a day.
    pub fn link_by_hash(&self, token_sha256: &str, today: Date) -> Result<Option<LinkRecord>, StoreError> {
        let mut connection = self.connect()?;
        let row: Option<Row> = client_link::table
            .filter(client_link::token_sha256.eq(token_sha256))
            .select(Row::as_select())
            .first(&mut connection)
            .optional()?;
        let Some(link) = row.map(LinkRecord::try_from).transpose()? else { return Ok(None) };
        if link.used_on != Some(today) && link.opens_on(today) {
            diesel::update(client_link::table.find(&link.id))
                .set(client_link::used_on.eq(today.to_string()))
                .execute(&mut connection)?;
        }
        Ok(Some(link))
    }

    /// Takes a link back for good.
    pub fn revoke_link(&self, client_id: &ClientId, id: &str, today: Date) -> Result<(), StoreError> {
        let own =
            client_link::table.filter(client_link::client_id.eq(client_id.as_str())).filter(client_link::id.eq(id));
        let changed =
            diesel::update(own).set(client_link::revoked_on.eq(today.to_string())).execute(&mut self.connect()?)?;
        if changed == 0 { Err(StoreError::not_found("link", id)) } else { Ok(()) }
    }
}
