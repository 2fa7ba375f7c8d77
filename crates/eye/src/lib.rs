//! Practice in judging made-up figures whose truth is known: whom a sitting shows, what it asks, what is true of them, and
//! what the answers say of a coach's eye.
//!
//! Figures are drawn by `booth`; what is in proportion is `assess`'s rule, what a step of the scale is worth `atlas`'s. No
//! clock, no disk.

#![warn(clippy::missing_errors_doc)]

mod error;
mod person;
mod question;
mod show;
mod sitting;
mod skill;
mod truth;

pub use error::EyeError;
pub use question::{Asks, Part, Question};
pub use show::{Frame, Shown, show};
pub use sitting::{Look, PICTURES, Sitting};
pub use skill::{Answered, Skill, skill};
pub use truth::{in_steps, truth};
