//! What a round's pictures say, and what a coach judges in them, already validated.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::{Length, PoseId, RegionId, Segment, Side, Sides, SiteId};
use utoipa::ToSchema;

/// What a rating says.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum RatingJudgement {
    /// Against the rest of this physique: -2 clearly behind to 2 clearly ahead.
    Standing(i8),
    /// Left against right: positive = left larger.
    LeftRight(i8),
}

/// A coach's judgement of one region in one pose.
#[derive(Clone, Debug, PartialEq)]
pub struct Rating {
    /// The region.
    pub region: RegionId,
    /// The pose it was judged in.
    pub pose: PoseId,
    /// What was judged.
    pub judgement: RatingJudgement,
    /// How far this rater's standings are off the truth, SD in steps; the practice's default when `None`.
    pub rater_sd_steps: Option<f64>,
    /// Whose sitting it belongs to: ratings of one sitting are off together. Empty where nobody is named.
    pub sitting: String,
}

/// Mean outline widths of a limb segment from photos.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Outline {
    /// The segment.
    pub segment: Segment,
    /// Mean width by side.
    pub width: Sides<Length>,
}

/// What a girth from pictures rests on.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum GirthFrom {
    /// How broad from the front and how deep from the side.
    BreadthDepth,
    /// How broad from the front alone.
    Breadth,
}

impl GirthFrom {
    /// Both ways.
    pub const ALL: [Self; 2] = [Self::BreadthDepth, Self::Breadth];

    /// As the case file writes it.
    pub fn as_str(self) -> &'static str {
        match self {
            Self::BreadthDepth => "breadth-depth",
            Self::Breadth => "breadth",
        }
    }
}

/// A girth worked out from the pictures of the round by constants common to everybody.
#[derive(Clone, Debug, PartialEq)]
pub struct PictureGirth {
    /// The tape's site.
    pub site: SiteId,
    /// The side at a paired site.
    pub side: Option<Side>,
    /// The girth.
    pub value: Length,
    /// What it rests on.
    pub from: GirthFrom,
}
