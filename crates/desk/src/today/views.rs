//! What is asked and answered of the queue.

use crate::log::SessionState;
use serde::{Deserialize, Serialize};
use units::ClientId;
use utoipa::ToSchema;

/// What needs the coach.
#[derive(Clone, Serialize, ToSchema)]
pub struct QueueItem {
    /// Kind; the order of kinds is the order of pressing.
    pub kind: logbook::QueueKind,
    /// Whose it is.
    pub client_id: ClientId,
    /// Display name.
    pub client_name: String,
    /// What and why, in a sentence.
    pub says: String,
    /// The day it came up.
    pub on: String,
    /// The exact place, within the application.
    pub place: String,
    /// What it is known by when it is seen to.
    pub what: String,
}

/// The queue.
#[derive(Serialize, ToSchema)]
pub struct TodayView {
    /// Today where the studio is.
    pub today: String,
    /// Most pressing first; the first of them when there are many.
    pub items: Vec<QueueItem>,
    /// How many there are in all.
    pub total: u32,
    /// Sessions planned for today.
    pub sessions: Vec<TodaySession>,
}

/// A session of today.
#[derive(Clone, Serialize, ToSchema)]
pub struct TodaySession {
    /// Whose it is.
    pub client_id: ClientId,
    /// Display name.
    pub client_name: String,
    /// Exercises.
    pub exercises: u32,
    /// Minutes.
    pub minutes: f64,
    /// How far it has come.
    pub state: SessionState,
}

/// Something of the queue that was seen to.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SeeTo {
    /// Whose.
    pub client_id: ClientId,
    /// What it is known by.
    pub what: String,
    /// What was done about it.
    #[serde(default)]
    pub note: String,
    /// Puts it back into the queue.
    #[serde(default)]
    pub undo: bool,
}
