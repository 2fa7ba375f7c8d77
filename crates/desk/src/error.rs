//! Why something was not done, by kind. What each is over HTTP is the server's.

use casefile::Problem;
use store::{Kind, StoreError};
use units::Place;
use vision::PhotoError;

/// Why something was not done.
#[derive(Debug)]
pub enum DeskError {
    /// What was asked does not have its shape.
    Malformed(String),
    /// Values break a rule.
    Invalid(Vec<Problem>),
    /// There is no such thing.
    NotFound(String),
    /// Someone was faster.
    Conflict {
        /// In a sentence.
        detail: String,
        /// What is stored now.
        current_revision: Option<i32>,
    },
    /// The rules of the job forbid it.
    Refused(String),
    /// Too much of the same was asked for.
    TooMuch(String),
    /// No room is left on the disk.
    Full(String),
    /// An upload is no picture to work with.
    Photo(PhotoError),
    /// A stored row does not read; the text goes to the log only.
    Unreadable(String),
    /// Not the caller's fault; the text goes to the log only.
    Internal(String),
}

impl DeskError {
    /// A fault of ours, whatever it was.
    #[allow(clippy::needless_pass_by_value, reason = "it is handed to map_err")]
    pub(crate) fn internal(why: impl ToString) -> Self {
        Self::Internal(why.to_string())
    }
}

/// The first sentence of it, for the log and for made-up practices.
impl std::fmt::Display for DeskError {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        match self {
            Self::Invalid(problems) => {
                f.write_str(problems.first().map_or("something is not valid", |problem| problem.says.as_str()))
            }
            Self::Photo(why) => write!(f, "{why}"),
            Self::Malformed(why)
            | Self::NotFound(why)
            | Self::Conflict { detail: why, .. }
            | Self::Refused(why)
            | Self::TooMuch(why)
            | Self::Full(why)
            | Self::Unreadable(why)
            | Self::Internal(why) => f.write_str(why),
        }
    }
}

impl std::error::Error for DeskError {}

impl From<StoreError> for DeskError {
    fn from(error: StoreError) -> Self {
        let current_revision = match &error {
            StoreError::Stale { current, .. } => Some(*current),
            _ => None,
        };
        match error.kind() {
            Kind::NotFound => Self::NotFound(error.to_string()),
            Kind::Conflict => Self::Conflict { detail: error.to_string(), current_revision },
            Kind::Refused => Self::Refused(error.to_string()),
            Kind::Invalid => Self::Malformed(error.to_string()),
            Kind::Full => Self::Full(full(&error)),
            Kind::Corrupt => Self::Unreadable(error.to_string()),
            Kind::Internal => Self::Internal(error.to_string()),
        }
    }
}

impl From<PhotoError> for DeskError {
    fn from(error: PhotoError) -> Self {
        match error {
            PhotoError::Model(why) => Self::Internal(why),
            refused => Self::Photo(refused),
        }
    }
}

impl From<::eye::EyeError> for DeskError {
    fn from(error: ::eye::EyeError) -> Self {
        Self::Internal(error.to_string())
    }
}

/// A full disk in a sentence: a picture's own, else one for everything that is written to the database.
fn full(error: &StoreError) -> String {
    match error {
        StoreError::Full => error.to_string(),
        _ => FULL.to_owned(),
    }
}

/// What is said of a full disk.
pub const FULL: &str = "The disk of the studio's computer is full: nothing was changed; make room and send it again.";

/// What is said of rows that do not read.
pub const UNREADABLE: &str = "What is stored here cannot be read. Nothing was changed: `orthomer check` says where it is, and a backup \
                              has it as it was.";

/// One value that breaks a rule.
pub fn invalid(pointer: impl Into<Place>, says: impl Into<String>) -> DeskError {
    DeskError::Invalid(vec![Problem::new(pointer, says)])
}
