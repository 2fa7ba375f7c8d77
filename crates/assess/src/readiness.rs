//! Whether a client may start to train as planned.

use crate::input::Client;
use jiff::civil::Date;
use std::collections::BTreeSet;

/// The readiness questions as they were answered.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Readiness {
    /// The day they were asked.
    pub asked_on: Date,
    /// Ids of the questions answered with yes.
    pub yes: BTreeSet<String>,
}

/// Medical clearance as the coach recorded it.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Clearance {
    /// The day it was given.
    pub given_on: Date,
    /// By whom, and with what limits.
    pub note: String,
}

/// Why a plan may be drafted but not given to the client.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
pub enum NotReady {
    /// Nobody asked.
    #[error("the readiness questions are not answered yet: ask them in the brief before a plan is given to the client")]
    NotAsked,
    /// A question was answered with yes and no clearance came after it.
    #[error(
        "a readiness question was answered with yes: get medical clearance first; the plan stays a draft until it is recorded in the brief"
    )]
    NotCleared,
}

impl Client {
    /// Whether a plan may be given to this client.
    ///
    /// # Errors
    /// [`NotReady`].
    pub fn may_be_given_a_plan(&self) -> Result<(), NotReady> {
        let readiness = self.readiness.as_ref().ok_or(NotReady::NotAsked)?;
        let cleared = self.clearance.as_ref().is_some_and(|clearance| clearance.given_on >= readiness.asked_on);
        if readiness.yes.is_empty() || cleared { Ok(()) } else { Err(NotReady::NotCleared) }
    }
}
