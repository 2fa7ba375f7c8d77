//! From raw observations of a client to a verdict per region and side, with how sure it is.
//!
//! Pure computation: no clock, no disk, no database. What the numbers mean for training is the planner's business.

#![warn(clippy::missing_errors_doc)]

mod assessment;
mod beside_girths;
mod between;
mod body;
mod calibration;
mod causes;
mod change;
mod class;
mod composition;
mod conditional;
mod consent;
mod contradiction;
mod corrected;
mod days;
mod evidence;
mod flags;
mod folds;
mod hang;
mod input;
mod levels;
mod measured;
mod measurer;
mod next_look;
mod norms;
mod observe;
mod pair;
mod photographed;
mod pictures;
mod pieces;
mod posterior;
mod rater;
mod readiness;
mod reference;
mod replicate;
mod set_up;
mod sizing;
mod strength;
mod strength_sides;
mod symmetry;
mod tem;
mod test_side;
mod training;
mod verdict;

pub use assessment::{AssessError, Assessment, Knowledge, assess, assess_beside, assess_each};
pub use beside_girths::{BesideGirths, beside_girths};
pub use body::{AREA_SITES, Area, BodyModel, PictureEntry, TapeJoint};
pub use calibration::{Calibration, Words};
pub use causes::Cause;
pub use change::{Change, Line, Slope, change_noise, family_factor, mdc95, slope};
pub use class::{Class, classify};
pub use composition::{
    Composition, Estimate, LimbGirths, Quantity, density_girths_female, density_girths_male, density_seven_folds,
    density_three_folds, lean_index, lee_muscle_kg, siri_fat_pct,
};
pub use conditional::{ConditionalSize, conditional_size, mahalanobis2, outside_limit};
pub use consent::{PhotoConsent, PhotoPurpose, PhotoRefusal};
pub use contradiction::{Contradiction, Misread};
pub use corrected::{CorrectedSides, arm_muscle_area_cm2, corrected_girth_cm, muscle_bone_area_cm2};
pub use days::day_in_words;
pub use evidence::{Evidence, SizeEvidence};
pub use flags::{Flag, FlagKind, PAIN_STOPS};
pub use folds::{Folds, MeasuredFold, third_fold_from};
pub use hang::Hang;
pub use input::{
    Case, Choices, Client, Experience, Felt, Hand, Home, Hurt, LastReview, OneSideTest, Override, Pain, Round,
    ScreenShort, Screens, Sex, Shared, Skinfolds, StrengthSet, TapeMeasure, Test, TrainingEntry,
};
pub use levels::{LevelShift, level_shifts};
pub use measured::{MeasuredSite, Measurements, Overall, measure_round, third_reading_from};
pub use measurer::{LearnedError, MeasurerErrors};
pub use next_look::{Looks, NextLook, NextLookSearch};
pub use norms::{NormError, Norms, SexNorms};
pub use observe::{Observation, ObservationKind, Target};
pub use pair::{Moved, Moves, moves};
pub use photographed::{GirthFrom, Outline, PictureGirth, Rating, RatingJudgement};
pub use pictures::{PicturedSite, PracticeConstant, pictured_sites, practice_constants};
pub use pieces::{Conflict, Piece, PieceOf};
pub use posterior::Posterior;
pub use rater::{RaterAgreement, TRUTHS_ENOUGH, rater_agreement};
pub use readiness::{Clearance, NotReady, Readiness};
pub use reference::{Reference, SizedSite};
pub use replicate::{Replicate, replicate};
pub use set_up::{HandsOn, KeptSetUp};
pub use sizing::{Roster, SchoolSize, SizingSchool, frame_ratio_z};
pub use strength::{MAX_REPS, StrengthError, brzycki_kg, epley_kg, one_rep_max_kg};
pub use strength_sides::StrengthAsymmetry;
pub use symmetry::{Asymmetry, SideBelief, SidePrior, SideVerdict, asymmetry, symmetry_angle, symmetry_index};
pub use tem::{TechnicalError, technical_error, weighted_kappa, within_rater_sd};
pub use test_side::first_side;
pub use training::recent_average;
pub use verdict::{
    AreaVerdict, AsymmetryVerdict, BulkVerdict, RegionVerdict, SidesDisagree, Standing, Tilt, asymmetry_verdict,
    bulk_verdict,
};
