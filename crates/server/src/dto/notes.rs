//! Free words.

use serde::{Deserialize, Serialize};
use store::Message;
use utoipa::ToSchema;

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
