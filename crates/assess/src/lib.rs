//! From raw observations of a client to a verdict per region and side, with how sure it is.
//!
//! Pure computation: no clock, no disk, no database. What the numbers mean for training is the planner's business.

mod assessment;
mod class;
mod conditional;
mod evidence;
mod input;
mod measured;
mod measurer;
mod next_look;
mod norms;
mod observe;
mod replicate;
mod strength;
mod symmetry;
mod verdict;

pub use assessment::{AssessError, Assessment, Knowledge, Reference, SizedSite, assess};
pub use class::{Class, classify};
pub use conditional::{ConditionalSize, conditional_size, mahalanobis2, outside_limit};
pub use evidence::{Evidence, Posterior, posterior};
pub use input::{
    Case, Choices, Client, Experience, Felt, Hand, OneSideTest, Outline, Override, Pain, Rating, RatingJudgement,
    Round, Screens, Segment, Sex, Skinfolds, StrengthSet, TapeMeasure, Test, TrainingEntry,
};
pub use measured::{MeasuredSite, Measurements, Overall, measure_round};
pub use measurer::MeasurerErrors;
pub use next_look::NextLook;
pub use norms::{NormError, Norms, SexNorms};
pub use observe::{Observation, ObservationKind, Target};
pub use replicate::{Replicate, replicate};
pub use strength::{MAX_REPS, StrengthError, brzycki_kg, epley_kg, one_rep_max_kg};
pub use symmetry::{Asymmetry, SideVerdict, asymmetry, symmetry_angle, symmetry_index};
pub use verdict::{AsymmetryVerdict, BulkVerdict, RegionVerdict, Standing, Tilt, asymmetry_verdict, bulk_verdict};
