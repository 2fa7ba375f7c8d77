//! The line of pull: a load makes torques at the joints, muscles with known lever arms hold them, and the cheapest way to do so says
//! who works, where in the range and at what length.
//!
//! One body size, no co-contraction, no fatigue, no muscles of the shoulder blade or neck; "cheapest" is an assumption. Numbers are
//! for comparing set-ups, not for dosing. No clock, no disk.

mod body;
mod chain;
mod muscle;
mod statics;
mod wrap;

pub use body::{Body, Vector};
pub use chain::{Movers, Pose};
pub use muscle::{Pull, fibre_length, pull};
pub use statics::{Held, force_at_length, hold};
