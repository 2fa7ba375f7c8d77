//! Quantities, sides and typed identifiers: what every other crate speaks in.
//!
//! Each quantity is a newtype with one guarded constructor that names its unit. Whether a value is plausible *for a given
//! site* is the atlas's decision, not this crate's; here a value is only required to be a usable number.

#![warn(clippy::missing_errors_doc)]

mod id;
mod measures;
mod place;
mod quantity;
mod record;
mod segment;
mod side;

pub use id::{AnswerId, EquipmentId, ExerciseId, IdError, LookId, PoseId, RegionId, SchoolId, SiteId};
pub use measures::{LengthUnit, MassUnit, Measures};
pub use place::Place;
pub use quantity::{Length, Load, Mass, QuantityError, Skinfold};
pub use record::{ClientId, PhotoId, PlanId, RoundId};
pub use segment::Segment;
pub use side::{Side, Sides};
