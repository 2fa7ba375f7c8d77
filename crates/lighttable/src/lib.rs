//! What a round's pictures say together: where a region lies in them, how two rounds lie over each other, which questions
//! they can answer, what their outlines and girths are worth as evidence, what spoils a comparison, which picture counts, where the camera stands, and what is asked again blind.
//!
//! One picture's own numbers are `vision`'s; what a rating does to a verdict is `assess`'s. No clock, no disk.

#![warn(clippy::missing_errors_doc)]

mod counting;
mod frames;
mod girths;
mod outlines;
mod pair;
mod questions;
mod repeats;
mod set_up;
mod spoilt;

pub use counting::{Candidate, counting};
pub use frames::{FrameError, Frames, RegionFrame};
pub use girths::{Breadth, Depths, GirthShapes, MissingGirth, PictureGirths, Shape, ShapesError, breadths, girths};
pub use outlines::{Pictured, counts_sides, outlines};
pub use pair::{Laid, WidthChange, lay_over, width_changes};
pub use questions::{Question, questions};
pub use repeats::{Asked, MIN_REST_DAYS, Repeat, repeats, unmirrored};
pub use set_up::{CAMERA_HEIGHT_CM, CameraSetUp, DISTANCE_M, Lens, PLACE_CHARS};
pub use spoilt::{Spoilt, spoilt};
