//! What is asked and answered of tests.

use casefile::{HangEntry, NextEntry, Problem, StrengthSidesEntry, TestEntry};
use serde::{Deserialize, Serialize};
use units::{ExerciseId, Side};
use utoipa::ToSchema;

/// Three points on a still.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MeasureAngle {
    /// The screen they are for.
    pub screen: String,
    /// x and y of each in pixels, in the order the screen names them; the joint is the second.
    pub points: [[f64; 2]; 3],
}

/// A range of motion.
#[derive(Serialize, ToSchema)]
pub struct AngleView {
    /// Degrees.
    pub degrees: f64,
}

/// The side a one-sided test starts with.
#[derive(Serialize, ToSchema)]
pub struct FirstSide {
    /// The exercise.
    pub exercise: ExerciseId,
    /// The weaker side as far as is known, else the non-dominant one.
    pub side: Side,
}

/// The tests of a round with what they say.
#[derive(Serialize, ToSchema)]
pub struct TestsSheet {
    /// Grows with every save.
    pub revision: i32,
    /// Who saved them last.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub saved_by: Option<String>,
    /// The tests.
    pub tests: Vec<TestEntry>,
    /// Strength, left against right.
    pub strength: Vec<StrengthSidesEntry>,
    /// The hang against what is common.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub hang: Option<HangEntry>,
    /// Tests that would tell most.
    pub next: Vec<NextEntry>,
    /// Which side goes first, by exercise.
    pub first: Vec<FirstSide>,
    /// Why strength is not tested with this client.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub no_strength_because: Option<String>,
    /// The day of the latest round before with tests.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub earlier_date: Option<String>,
    /// Its tests.
    pub earlier: Vec<TestEntry>,
    /// Tests that were not saved, and why; pointers go into the request.
    pub problems: Vec<Problem>,
}

/// Tests to be saved.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveTests {
    /// The revision they were read at.
    pub revision: i32,
    /// All tests.
    pub tests: Vec<TestEntry>,
}
