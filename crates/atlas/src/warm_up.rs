//! Moves that warm a joint up or give it back its range.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::EquipmentId;
use utoipa::ToSchema;

/// One of them.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WarmUpMove {
    /// Stable id.
    pub id: String,
    /// What a coach calls it.
    pub name: String,
    /// The joints it is for.
    pub joints: Vec<String>,
    /// Whether it restores a range or a strength at the end, rather than warming up.
    #[serde(default)]
    pub restores: bool,
    /// Repetitions.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reps: Option<u16>,
    /// Seconds, where repetitions are not counted.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seconds: Option<u16>,
    /// What it takes, s.
    pub takes_s: u16,
    /// How it is done.
    pub how: String,
    /// All of these are needed.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub kit: Vec<EquipmentId>,
    /// The movement that its picture shows.
    pub picture: String,
}
