//! What the practice does, one folder for each thing, without a word of HTTP: what is asked is read from the store, handed to the core, kept,
//! and answered.
//!
//! A use case is a method of [`Desk`]. No rule of the job lives here: the crates below decide, this one knows what they need to be told and
//! where that is kept. The server wraps it, the demo uses it as it is.

mod desk;
mod error;
mod memo;
mod opened;
mod pages;
mod roster;
mod workshop;

pub mod clients;
pub mod eye;
pub mod library;
pub mod log;
pub mod my;
pub mod notes;
pub mod photos;
pub mod plan;
pub mod practice;
pub mod review;
pub mod rounds;
pub mod tape;
pub mod today;
pub mod trials;

pub use self::desk::{Desk, OpenError, today};
pub use error::{DeskError, FULL, UNREADABLE, invalid};
pub use pages::RoundPage;
