//! Free words: the coach's on a client and on a round, and what coach and client write to each other.

use crate::desk::Desk;
use crate::error::{DeskError, invalid};
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use store::Message;
use units::{ClientId, RoundId};
use utoipa::ToSchema;

/// Longest note of a coach, characters.
const NOTE_CHARS: usize = 4000;

/// Longest message, characters.
const MESSAGE_CHARS: usize = 1000;

/// The coach's words on a client or a round.
#[derive(Serialize, ToSchema)]
pub struct NoteView {
    /// As they stand; empty while there are none.
    pub note: String,
}

/// Other words in their place.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveNote {
    /// What stood there when it was read.
    pub was: String,
    /// What is to stand there.
    pub note: String,
}

/// What coach and client wrote to each other.
#[derive(Serialize, ToSchema)]
pub struct MessagesView {
    /// Oldest first.
    pub messages: Vec<MessageView>,
    /// Messages of the other side that nobody has seen.
    pub unread: usize,
}

/// One of them.
#[derive(Serialize, ToSchema)]
pub struct MessageView {
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
    #[serde(skip_serializing_if = "Option::is_none")]
    pub read_at: Option<String>,
}

impl MessagesView {
    /// As one side sees it.
    pub fn seen_by(client: bool, messages: Vec<Message>) -> Self {
        let unread = messages.iter().filter(|one| one.from_client != client && one.read_at.is_none()).count();
        let view = |one: Message| MessageView {
            id: one.id,
            from_client: one.from_client,
            written_by: one.written_by,
            written_at: one.written_at,
            words: one.words,
            read_at: one.read_at,
        };
        Self { messages: messages.into_iter().map(view).collect(), unread }
    }
}

/// A new message.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewMessage {
    /// What.
    pub words: String,
}

/// What has been seen.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ReadMessages {
    /// The moment of the newest message that was seen, RFC 3339.
    pub up_to: String,
}

/// Whose page a message stands on.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Party<'a> {
    /// The practice's: what is written there is signed with this name.
    Coach(&'a str),
    /// The client's own.
    Client,
}

impl Party<'_> {
    fn is_client(self) -> bool {
        matches!(self, Self::Client)
    }
}

impl Desk {
    /// The coach's words on a client.
    pub fn client_note(&self, client_id: &ClientId) -> Result<NoteView, DeskError> {
        Ok(NoteView { note: self.store.client_note(client_id)? })
    }

    /// Puts other words in their place.
    pub fn save_client_note(&self, client_id: &ClientId, save: &SaveNote) -> Result<NoteView, DeskError> {
        let note = words("/note", &save.note, NOTE_CHARS)?;
        self.store.save_client_note(client_id, &save.was, note)?;
        Ok(NoteView { note: note.to_owned() })
    }

    /// The coach's words on a round.
    pub fn round_note(&self, round_id: &RoundId) -> Result<NoteView, DeskError> {
        Ok(NoteView { note: self.store.round_note(round_id)? })
    }

    /// Puts other words in their place.
    pub fn save_round_note(&self, round_id: &RoundId, save: &SaveNote) -> Result<NoteView, DeskError> {
        let note = words("/note", &save.note, NOTE_CHARS)?;
        self.store.save_round_note(round_id, &save.was, note)?;
        Ok(NoteView { note: note.to_owned() })
    }

    /// What coach and client wrote to each other.
    pub fn messages(&self, client_id: &ClientId, seen_by: Party) -> Result<MessagesView, DeskError> {
        self.store.client(&self.knowledge().atlas, client_id)?;
        Ok(MessagesView::seen_by(seen_by.is_client(), self.store.messages(client_id)?))
    }

    /// Writes to the other one.
    pub fn write_message(&self, client_id: &ClientId, by: Party, new: &NewMessage) -> Result<MessagesView, DeskError> {
        let client = self.store.client(&self.knowledge().atlas, client_id)?.client;
        let said = words("/words", &new.words, MESSAGE_CHARS)?;
        if said.is_empty() {
            return Err(invalid("/words", format!("a message needs words: expected 1 to {MESSAGE_CHARS} characters")));
        }
        let name = match by {
            Party::Coach(name) => name,
            Party::Client => &client.name,
        };
        self.store.write_message(client_id, (name, by.is_client()), said, Timestamp::now())?;
        self.messages(client_id, by)
    }

    /// Marks what the other one wrote as seen.
    pub fn read_messages(
        &self,
        client_id: &ClientId,
        by: Party,
        read: &ReadMessages,
    ) -> Result<MessagesView, DeskError> {
        self.store.client(&self.knowledge().atlas, client_id)?;
        if read.up_to.parse::<Timestamp>().is_err() {
            let says = format!("{:?} is no time: expected one such as 2026-03-02T18:05:00Z", read.up_to);
            return Err(invalid("/up_to", says));
        }
        self.store.read_messages(client_id, by.is_client(), &read.up_to, Timestamp::now())?;
        self.messages(client_id, by)
    }
}

fn words<'a>(at: &str, words: &'a str, most: usize) -> Result<&'a str, DeskError> {
    let words = words.trim();
    let count = words.chars().count();
    if count > most {
        return Err(invalid(at, format!("{count} characters are too many: expected at most {most}")));
    }
    Ok(words)
}
