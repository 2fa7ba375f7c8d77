//! What a lift is and costs: its movement, and the load it puts on the spine and on each joint.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The movement of an exercise, as a coach sorts them. A sound week has each of the large ones.
#[derive(
    Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, JsonSchema, ToSchema,
)]
#[serde(rename_all = "kebab-case")]
pub enum Movement {
    /// Squat, lunge or press of the legs.
    Squat,
    /// Bending and straightening at the hip against load, bridges included.
    Hinge,
    /// A press in front of the body, flat, inclined or declined.
    PressFlat,
    /// A press downward, as in dips.
    PressDown,
    /// A press overhead.
    PressOverhead,
    /// A pull toward the body.
    Row,
    /// A pull from above.
    PullFromAbove,
    /// Walking under load.
    Carry,
    /// One joint.
    #[default]
    Isolation,
}

impl Movement {
    /// The movements that a sound week holds once each, those a coach would miss most first (common practice, no source).
    pub const WEEKLY: [Self; 6] =
        [Self::Squat, Self::Hinge, Self::PressFlat, Self::Row, Self::PullFromAbove, Self::PressOverhead];
}

/// A big part of the body: what a week must not leave empty, in the order in which a short week fills them.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Part {
    /// Upper, mid and lower chest.
    Chest,
    /// Lats and teres major.
    Lats,
    /// Mid and lower traps, rhomboids.
    UpperBack,
    /// All three heads.
    Delts,
    /// Front of the thigh.
    Quads,
    /// Back of the thigh.
    Hamstrings,
    /// Gluteus maximus and medius.
    Glutes,
    /// Upper arms.
    Arms,
    /// Back of the lower leg.
    Calves,
    /// Front and sides of the trunk.
    Abs,
}

impl Part {
    /// All of them, in the order in which a short week fills them.
    pub const ALL: [Self; 10] = [
        Self::Chest,
        Self::Lats,
        Self::UpperBack,
        Self::Delts,
        Self::Quads,
        Self::Hamstrings,
        Self::Glutes,
        Self::Arms,
        Self::Calves,
        Self::Abs,
    ];

    /// What a coach calls it.
    pub fn name(self) -> &'static str {
        match self {
            Self::Chest => "chest",
            Self::Lats => "lats",
            Self::UpperBack => "upper back",
            Self::Delts => "delts",
            Self::Quads => "quads",
            Self::Hamstrings => "hamstrings",
            Self::Glutes => "glutes",
            Self::Arms => "arms",
            Self::Calves => "calves",
            Self::Abs => "abs",
        }
    }

    /// Whether its floor is the smaller one.
    pub fn small(self) -> bool {
        matches!(self, Self::Arms | Self::Calves | Self::Abs)
    }
}

/// The day a region belongs to where days have themes.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Day {
    /// What pushes.
    Push,
    /// What pulls.
    Pull,
    /// The lower body.
    Legs,
}

/// How the body is shared out over the days of a week.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Split {
    /// By how many days there are.
    #[default]
    ByDays,
    /// Every day the whole body.
    WholeBody,
    /// Upper and lower body in turn.
    UpperLower,
    /// Pushing, pulling and legs in turn.
    PushPullLegs,
    /// No day has a theme.
    Free,
}

/// Load on a joint from which it counts as clear: what older entries of a practice, which only name joints, are taken to have.
pub(crate) const CLEAR: u8 = 2;
/// The most an exercise loads a joint, or the spine.
pub(crate) const MOST: u8 = 3;
