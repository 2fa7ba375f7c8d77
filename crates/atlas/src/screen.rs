//! Ranges of motion a coach screens, and what exercises ask of them.

use crate::exercise::Exercise;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// A range of motion, screened per side.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Screen {
    /// Stable id; the case file writes it with `_deg`.
    pub id: String,
    /// What a coach calls it.
    pub name: String,
    /// How it is taken.
    pub how: String,
    /// What most adults reach, degrees.
    pub normal_low_deg: f64,
    /// Plausible values, low and high, degrees.
    pub bounds_deg: [f64; 2],
    /// What whole families of exercises ask for, degrees.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub families: BTreeMap<String, f64>,
    /// What to do meanwhile.
    pub mobility: String,
}

impl Screen {
    /// The range `exercise` asks for, degrees: its own, else its family's.
    pub fn asked_by(&self, exercise: &Exercise) -> Option<f64> {
        let own = exercise.avoid.screen_below_deg.get(&self.id);
        own.or_else(|| self.families.get(&exercise.family)).copied()
    }
}
