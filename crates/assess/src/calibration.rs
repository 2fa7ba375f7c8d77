//! How often the words are right, as the simulation of `make calibration` last found it.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The short table; the whole of it and how it was made is in `docs/accuracy.md`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Calibration {
    /// Simulated clients behind each figure.
    pub clients: usize,
    /// From the tape alone.
    pub tape: Words,
    /// From the tape and ratings.
    pub rated: Words,
    /// Of clients of whom no region is behind: how many are called so, from the tape alone.
    pub called_behind_tape: f64,
    /// The same with every region rated on days of changing mood.
    pub called_behind_rated: f64,
    /// Of clients of whom nothing changed in twelve weeks: how many have a girth that is called changed, %.
    pub girth_called_changed_pct: f64,
    /// Of their chosen regions: how many are released as no longer behind, %.
    pub released_pct: f64,
}

/// How often what is said is true, %.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Words {
    /// Of "behind".
    pub behind_true_pct: f64,
    /// Of "ahead".
    pub ahead_true_pct: f64,
}

impl Calibration {
    /// What ships.
    ///
    /// # Errors
    /// When the shipped file is damaged.
    pub fn shipped() -> Result<Self, serde_json::Error> {
        serde_json::from_str(include_str!("../data/calibration.json"))
    }
}
