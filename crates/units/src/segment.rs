//! The parts of a limb between two joints.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A limb segment between two landmarks.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Segment {
    /// Shoulder to elbow.
    UpperArm,
    /// Elbow to wrist.
    Forearm,
    /// Crotch to knee.
    Thigh,
    /// Knee to ankle.
    Calf,
}

impl Segment {
    /// All of them.
    pub const ALL: [Self; 4] = [Self::UpperArm, Self::Forearm, Self::Thigh, Self::Calf];

    /// Whether it is one of the arm's.
    pub fn is_arm(self) -> bool {
        matches!(self, Self::UpperArm | Self::Forearm)
    }

    /// As files write it.
    pub fn as_str(self) -> &'static str {
        match self {
            Self::UpperArm => "upper-arm",
            Self::Forearm => "forearm",
            Self::Thigh => "thigh",
            Self::Calf => "calf",
        }
    }
}
