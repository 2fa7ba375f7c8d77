//! The line of pull: a load makes torques at the joints, muscles with known lever arms hold them, and the cheapest way to do so says
//! who works, where in the range and at what length.
//!
//! One body size, no co-contraction, no fatigue, no muscles of the shoulder blade or neck; "cheapest" is an assumption. Numbers are
//! for comparing set-ups, not for dosing. No clock, no disk.

#![warn(clippy::missing_errors_doc)]

mod best;
mod body;
mod chain;
mod figure;
mod held;
mod load;
mod movement;
mod muscle;
mod outside;
mod patch;
mod posture;
mod reach;
mod region;
mod set_up;
mod shapes;
mod statics;
mod way;
mod work;
mod wrap;

pub use best::{Wanted, best};
pub use body::{Body, Vector};
pub use chain::{Movers, Pose};
pub use figure::{Drawing, draw};
pub use movement::Movement;
pub use muscle::{Pull, fibre_length, pull};
pub use outside::{NoSuchJoint, PoseFile, PosedBody, PosedMuscle, posed};
pub use reach::Reach;
pub use region::muscles_of;
pub use set_up::{SetUpError, SetUpNumber, with};
pub use statics::{Held, force_at_length, hold};
pub use work::{Claim, Levers, MuscleWork, POINTS, Point, RegionWork, STATURE_CM, levers, levers_at};
