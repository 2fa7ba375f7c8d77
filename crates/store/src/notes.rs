//! Free words: the coach's on a client and on a round, and what coach and client write to each other.

use crate::connection::Store;
use crate::error::StoreError;
use crate::new_id;
use crate::schema::{client, message, round};
use diesel::prelude::*;
use jiff::Timestamp;
use units::{ClientId, RoundId};

/// What somebody wrote to somebody.
#[derive(Clone, Debug, PartialEq, Eq, Queryable, Selectable)]
#[diesel(table_name = message)]
pub struct Message {
    /// Random id.
    pub id: String,
    /// Whether the client wrote it.
    pub from_client: bool,
    /// Display name.
    pub written_by: String,
    /// When, RFC 3339.
    pub written_at: String,
    /// What.
    pub words: String,
    /// When the other side saw it.
    pub read_at: Option<String>,
}

/// Messages shown at most: the newest.
const SHOWN: i64 = 200;

impl Store {
    /// The coach's words on a client.
    pub fn client_note(&self, client_id: &ClientId) -> Result<String, StoreError> {
        let note =
            client::table.find(client_id.as_str()).select(client::note).first(&mut self.connect()?).optional()?;
        note.ok_or_else(|| StoreError::not_found("client", client_id))
    }

    /// Puts other words in their place; `was` is what they were when they were read.
    ///
    /// # Errors
    /// [`StoreError::Stale`] when somebody else wrote since.
    pub fn save_client_note(&self, client_id: &ClientId, was: &str, note: &str) -> Result<(), StoreError> {
        let changed = diesel::update(client::table.find(client_id.as_str()).filter(client::note.eq(was)))
            .set(client::note.eq(note))
            .execute(&mut self.connect()?)?;
        if changed == 1 {
            return Ok(());
        }
        self.client_note(client_id)?;
        Err(StoreError::Stale { what: "this note", current: 0, saved_by: None })
    }

    /// The coach's words on a round.
    pub fn round_note(&self, round_id: &RoundId) -> Result<String, StoreError> {
        let note = round::table.find(round_id.as_str()).select(round::note).first(&mut self.connect()?).optional()?;
        note.ok_or_else(|| StoreError::not_found("round", round_id))
    }

    /// Puts other words in their place, as [`Store::save_client_note`] does.
    ///
    /// # Errors
    /// [`StoreError::Stale`] when somebody else wrote since.
    pub fn save_round_note(&self, round_id: &RoundId, was: &str, note: &str) -> Result<(), StoreError> {
        let changed = diesel::update(round::table.find(round_id.as_str()).filter(round::note.eq(was)))
            .set(round::note.eq(note))
            .execute(&mut self.connect()?)?;
        if changed == 1 {
            return Ok(());
        }
        self.round_note(round_id)?;
        Err(StoreError::Stale { what: "this note", current: 0, saved_by: None })
    }

    /// What was written between coach and client, oldest first.
    pub fn messages(&self, client_id: &ClientId) -> Result<Vec<Message>, StoreError> {
        let mut newest: Vec<Message> = message::table
            .filter(message::client_id.eq(client_id.as_str()))
            .order((message::written_at.desc(), message::id.desc()))
            .limit(SHOWN)
            .select(Message::as_select())
            .load(&mut self.connect()?)?;
        newest.reverse();
        Ok(newest)
    }

    /// Keeps what somebody wrote.
    pub fn write_message(
        &self,
        client_id: &ClientId,
        (by, from_client): (&str, bool),
        words: &str,
        at: Timestamp,
    ) -> Result<(), StoreError> {
        insert_message(&mut *self.connect()?, client_id, (by, from_client), words, at)
    }

    /// Marks as seen what the other side wrote up to a moment.
    pub fn read_messages(
        &self,
        client_id: &ClientId,
        by_client: bool,
        up_to: &str,
        at: Timestamp,
    ) -> Result<(), StoreError> {
        let unread = message::table
            .filter(message::client_id.eq(client_id.as_str()))
            .filter(message::from_client.ne(by_client))
            .filter(message::written_at.le(up_to))
            .filter(message::read_at.is_null());
        diesel::update(unread).set(message::read_at.eq(at.to_string())).execute(&mut self.connect()?)?;
        Ok(())
    }

    /// What a client wrote that no coach has seen, oldest first.
    pub fn unread_messages(&self, client_id: &ClientId) -> Result<Vec<Message>, StoreError> {
        let rows = message::table
            .filter(message::client_id.eq(client_id.as_str()))
            .filter(message::from_client.eq(true))
            .filter(message::read_at.is_null())
            .order((message::written_at.asc(), message::id.asc()))
            .select(Message::as_select())
            .load(&mut self.connect()?)?;
        Ok(rows)
    }
}

/// Keeps what somebody wrote, within a transaction of the caller's.
pub(crate) fn insert_message(
    connection: &mut SqliteConnection,
    client_id: &ClientId,
    (by, from_client): (&str, bool),
    words: &str,
    at: Timestamp,
) -> Result<(), StoreError> {
    diesel::insert_into(message::table)
        .values((
            message::id.eq(new_id()),
            message::client_id.eq(client_id.as_str()),
            message::from_client.eq(from_client),
            message::written_by.eq(by),
            message::written_at.eq(at.to_string()),
            message::words.eq(words),
        ))
        .execute(connection)?;
    Ok(())
}
