//! Photos: pixels in, numbers out.
//!
//! [`ingest`] takes the bytes of an upload apart: what it is, which way up, when taken; a view, a thumbnail, and the
//! original without its metadata. [`Eye`] finds the person in a view: mask, landmarks, quality, widths, limbs. Everything
//! is a proposal a coach can move: [`Eye::with_moved`] measures again from moved landmarks, and [`align`] lays one
//! picture's landmarks over another's. Left and right are always the client's. Nothing here reads files or the clock.

#![warn(clippy::missing_errors_doc)]
// Pixels are whole numbers made from fractions on every other line; every cast is clamped or bounded by the picture.
#![allow(clippy::cast_possible_truncation, clippy::cast_sign_loss, clippy::cast_possible_wrap)]

mod align;
mod body;
mod by_hand;
mod contour;
mod error;
mod eye;
mod frame;
mod guided;
mod ingest;
mod lab;
mod landmarks;
mod limb;
mod measure;
mod metadata;
mod photo;
mod plane;
mod pose_net;
mod quality;
mod resample;
mod retouch;
mod sections;
mod taking;
mod wall;

pub use align::{Similarity, align};
pub use contour::contours;
pub use error::{NoPerson, PhotoError};
pub use eye::{Ask, Eye, View};
pub use ingest::{Format, Ingested, MAX_BYTES, MAX_MEGAPIXELS, THUMB_PX, VIEW_PX, ingest};
pub use lab::{Lab, lab};
pub use measure::perspective_pct;
pub use photo::{Check, Landmark, Limb, Photo, PhotoPose, Profile, QualityCheck, Section, Tilt, Width};
pub use plane::Plane;
pub use quality::sharpness;
pub use retouch::Stroke;
pub use taking::{Before, Fault, Light, Taken, light, taken};
pub use wall::{filled, largest_component, otsu};
