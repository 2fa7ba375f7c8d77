//! What is kept: accounts, signed-in browsers, clients, rounds, readings, ratings, choices, plans, the log, in one SQLite
//! file; pictures as files beside it.
//!
//! Rows are private; callers see the core's own types. A row that does not convert is corrupt storage, not bad input.

mod accounts;
mod archive;
mod audit;
mod browser_sessions;
mod choices;
mod clients;
mod connection;
mod error;
mod eye;
mod folds;
mod json;
mod links;
mod lock;
mod log;
mod notes;
mod photo_files;
mod photos;
mod plans;
mod practice;
mod ratings;
mod reviews;
mod rounds;
mod saved_weeks;
mod schema;
mod set_ups;
mod settings;
mod shown;
mod stamps;
mod taking;
mod tape;
mod tests;
mod usual_week;

pub use accounts::{Account, ChangedAccount, Factor, NewAccount};
pub use archive::{Belongings, Finding, Imported, TABLE_NAMES, backup, restore};
pub use audit::{Deed, NewDeed};
pub use clients::{ClientRecord, MADE_UP, Page, is_made_up};
pub use connection::Store;
pub use error::{Kind, StoreError, is_full};
pub use eye::{EyeAnswer, EyeSitting};
pub use links::{LinkRecord, NewLink};
pub use log::{Kept, LogRecord, NewLogEntry};
pub use notes::Message;
pub use photo_files::PhotoFile;
pub use photos::{Moved, NewPhoto, PhotoRecord, PhotoState, SavedPhoto, counting};
pub use plans::{DraftRecord, IssuedRecord, NewIssue};
pub use practice::PracticeRecord;
pub use ratings::{RatedRounds, RatingKind, RatingPlace, RatingRecord};
pub use reviews::Decisions;
pub use rounds::{NewRound, RoundRecord};
pub use saved_weeks::{GivenWeek, SavedWeek};
pub use set_ups::SetUpSaid;
pub use stamps::Stamp;
pub use taking::PictureAsk;
pub use tape::SavedTape;

use uuid::Uuid;

/// A new random id.
fn new_id() -> String {
    Uuid::new_v4().to_string()
}
