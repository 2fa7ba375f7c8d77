//! What is kept: accounts, signed-in browsers, clients, rounds, readings, choices, in one SQLite file.
//!
//! Rows are private; callers see the core's own types. A row that does not convert is corrupt storage, not bad input.

mod accounts;
mod browser_sessions;
mod choices;
mod clients;
mod connection;
mod error;
mod rounds;
mod schema;
mod settings;
mod tape;

pub use accounts::{Account, NewAccount, Role};
pub use clients::{ClientRecord, Page};
pub use connection::Store;
pub use error::{Kind, StoreError};
pub use rounds::{NewRound, RoundRecord};
pub use tape::SavedTape;

use uuid::Uuid;

/// A new random id.
fn new_id() -> String {
    Uuid::new_v4().to_string()
}
