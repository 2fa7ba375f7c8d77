//! What can go wrong with storage, and of what kind it is.

use std::path::PathBuf;

/// The kind of an error; the edge maps kinds to answers.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Kind {
    /// There is no such thing.
    NotFound,
    /// Someone else changed it first, or it exists already.
    Conflict,
    /// The rules of the job forbid it.
    Refused,
    /// What was given cannot be used.
    Invalid,
    /// No room is left.
    Full,
    /// A stored row does not read.
    Corrupt,
    /// Not the caller's fault.
    Internal,
}

/// An error of the store.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// Nothing with this id.
    #[error("there is no {what} {id:?}")]
    NotFound {
        /// Client, round, ...
        what: &'static str,
        /// The id asked for.
        id: String,
    },
    /// Saved by someone else since it was read.
    #[error("{what} was saved {by} since you opened it; your changes are not saved yet", by = saved_by.as_deref().map_or("elsewhere".to_owned(), |n| format!("by {n}")))]
    Stale {
        /// What was to be saved.
        what: &'static str,
        /// The revision stored now.
        current: i32,
        /// Who saved it.
        saved_by: Option<String>,
    },
    /// It exists already.
    #[error("{0}")]
    Exists(String),
    /// The data directory or file cannot be used.
    #[error("the data directory {} cannot be used: {why}", path.display())]
    Unusable {
        /// Where.
        path: PathBuf,
        /// Why.
        why: String,
    },
    /// The rules of the job forbid it.
    #[error("{0}")]
    Refused(assess::PhotoRefusal),
    /// No room left for a file.
    #[error("the disk is full: nothing of this picture was kept; make room and send it again")]
    Full,
    /// A file cannot be read or written.
    #[error("file: {0}")]
    File(std::io::Error),
    /// An archive that was given cannot be used.
    #[error("{0}")]
    Archive(String),
    /// A stored row does not convert.
    #[error("stored {what} {id:?} is corrupt: {why}")]
    Corrupt {
        /// Which table.
        what: &'static str,
        /// Which row.
        id: String,
        /// What is wrong with it.
        why: String,
    },
    /// The database refused.
    #[error("database: {0}")]
    Database(#[from] diesel::result::Error),
    /// No connection could be had.
    #[error("database connection: {0}")]
    Pool(#[from] diesel::r2d2::PoolError),
}

impl StoreError {
    /// Which kind of error this is.
    pub fn kind(&self) -> Kind {
        match self {
            Self::NotFound { .. } => Kind::NotFound,
            Self::Stale { .. } | Self::Exists(_) => Kind::Conflict,
            Self::Refused(_) => Kind::Refused,
            Self::Archive(_) => Kind::Invalid,
            Self::Full => Kind::Full,
            Self::Database(diesel::result::Error::DatabaseError(_, why)) if is_full(why.message()) => Kind::Full,
            Self::Corrupt { .. } => Kind::Corrupt,
            Self::Unusable { .. } | Self::File(_) | Self::Database(_) | Self::Pool(_) => Kind::Internal,
        }
    }

    pub(crate) fn not_found(what: &'static str, id: impl std::fmt::Display) -> Self {
        Self::NotFound { what, id: id.to_string() }
    }

    pub(crate) fn corrupt(what: &'static str, id: impl std::fmt::Display, why: impl std::fmt::Display) -> Self {
        Self::Corrupt { what, id: id.to_string(), why: why.to_string() }
    }
}

/// Whether an error's text is of a full disk, in SQLite's own words: Diesel passes no code on.
pub fn is_full(message: &str) -> bool {
    message.contains("database or disk is full")
}
