//! The parts of an assessment beside sites, reference and regions.

use assess::{FlagKind, GirthFrom, Quantity, SideVerdict, SizingSchool, Slope, Standing, Tilt};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::{ExerciseId, RegionId, Side, Sides, SiteId};
use utoipa::ToSchema;

/// A skinfold's value.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct FoldEntry {
    /// The skinfold site.
    pub site: SiteId,
    /// The side, when noted.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// Value, mm.
    pub value_mm: f64,
    /// Standard error, mm.
    pub se_mm: f64,
    /// Readings behind it.
    pub readings: usize,
    /// Whether a third reading is due.
    pub needs_third: bool,
}

/// Left against right with the folds taken off; positive = left larger.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct CorrectedEntry {
    /// The client's left, cm.
    pub left_cm: f64,
    /// The client's right, cm.
    pub right_cm: f64,
    /// Muscle and bone, left, cm^2.
    pub left_area_cm2: f64,
    /// Muscle and bone, right, cm^2.
    pub right_area_cm2: f64,
    /// Muscle alone at the upper arm, cm^2.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub muscle_cm2: Option<Sides<f64>>,
    /// Symmetry index, %.
    pub symmetry_index: f64,
    /// Standard error of the index, %.
    pub se_index: f64,
}

/// Strength, left against right; positive = left stronger.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct StrengthSidesEntry {
    /// The exercise.
    pub exercise: ExerciseId,
    /// Its main regions.
    pub regions: Vec<RegionId>,
    /// One-repetition maximum by side, kg.
    pub one_rep_max_kg: Sides<f64>,
    /// Symmetry index, %.
    pub symmetry_index: f64,
    /// Standard error of the index, %.
    pub se_index: f64,
    /// Within error, real and small, or real and worth acting on.
    pub verdict: SideVerdict,
    /// Whether handedness alone explains it.
    pub dominance_explains: bool,
}

/// The timed hang against what is common.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct HangEntry {
    /// How long, s.
    pub seconds: f64,
    /// A good average time when fresh, s.
    pub good_average_s: f64,
    /// What to aim for at the end of a forearm session, s.
    pub tired_aim_s: f64,
    /// Whether it is shorter than the average.
    pub short: bool,
}

/// A site by another school of judging size.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct SchoolSizeEntry {
    /// The school.
    pub school: SizingSchool,
    /// The site.
    pub site: SiteId,
    /// Observed, cm.
    pub observed_cm: f64,
    /// What the school expects, cm.
    pub expected_cm: f64,
    /// Distance from expected, SD, where it is known how much people vary.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub z: Option<f64>,
}

/// Fat, muscle and lean mass: estimates with their error, or what is missing.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct CompositionEntry {
    /// Estimates.
    pub estimates: Vec<EstimateEntry>,
    /// What is missing for an equation, one sentence each.
    pub missing: Vec<String>,
}

/// One equation's answer.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct EstimateEntry {
    /// What of.
    pub quantity: Quantity,
    /// Whose equation.
    pub equation: String,
    /// In the quantity's unit.
    pub value: f64,
    /// Standard error in other people, same unit.
    pub se: f64,
}

/// A girth's change since an earlier round.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct ChangeEntry {
    /// The site.
    pub site: SiteId,
    /// The side at a paired site.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// The earlier round.
    pub since: String,
    /// Value then, cm.
    pub before_cm: f64,
    /// Now less then, cm.
    pub change_cm: f64,
    /// Smallest change that is more than error (95 %), cm.
    pub mdc95_cm: f64,
    /// Whether it is.
    pub real: bool,
    /// Over three rounds or more.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub slope: Option<Slope>,
    /// Whether both values are from pictures; left out where they are the tape's.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub from_pictures: bool,
}

/// A girth from the round's pictures, with what is known of this client's own shape in it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct PicturedEntry {
    /// The site.
    pub site: SiteId,
    /// The side at a paired site.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// The girth, cm.
    pub cm: f64,
    /// Standard error of its size, %.
    pub error_pct: f64,
    /// Standard error of a change between two rounds, %.
    pub change_error_pct: f64,
    /// What it rests on.
    pub from: GirthFrom,
    /// How many rounds with tape and pictures told of this client's own shape.
    pub pairs: usize,
    /// What the tape of the same round says, cm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tape_cm: Option<f64>,
}

/// What to look at before training anything.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct FlagEntry {
    /// Its kind.
    pub kind: FlagKind,
    /// What was seen and what to do.
    pub says: String,
    /// Whether to refer before training goes on as planned.
    pub refer: bool,
}

/// Two kinds of evidence that contradict each other.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct ConflictEntry {
    /// `size` or `sides`.
    pub about: String,
    /// Both kinds with their separate estimates, SD or %.
    pub kinds: Vec<VoiceEntry>,
    /// How far apart, in joint SD.
    pub joint_sd: f64,
}

/// What one kind of evidence says on its own.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct VoiceEntry {
    /// `tape`, `rating`, `outline` or `strength`.
    pub kind: String,
    /// SD for size, % for sides.
    pub estimate: f64,
}

/// Size and strength name different sides.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct SidesDisagreeEntry {
    /// By girth.
    pub smaller: Side,
    /// By strength.
    pub weaker: Side,
}

/// A cause of a lag.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct CauseEntry {
    /// Stable id.
    pub cause: String,
    /// What a coach calls it.
    pub name: String,
    /// What was seen.
    pub seen: String,
    /// What to do.
    #[serde(rename = "do")]
    pub advice: String,
}

/// What one observation does to a region's verdict.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct PieceEntry {
    /// Place in `observations`; none for a taped site.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub observation: Option<usize>,
    /// The site, taped or from pictures.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub site: Option<SiteId>,
    /// Whether the site's girth is from pictures; left out where it is the tape's.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub from_pictures: bool,
    /// `size` or `sides`.
    pub about: String,
    /// How much the mean moves per unit of the observation.
    pub weight: f64,
    /// The mean without it.
    pub mean_without: f64,
    /// The SD without it.
    pub sd_without: f64,
    /// The verdict on size without it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub verdict_without: Option<Standing>,
    /// The verdict on sides without it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tilt_without: Option<Tilt>,
}

/// What was taped and what pictures show, as one observation: `x ~ N(mu, covariance)`, with its covariance with every region.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct TapeJointEntry {
    /// The entries of x; the stature among them. A site taped and in pictures stands twice.
    pub sites: Vec<SiteId>,
    /// How many of them, the last ones, are from pictures.
    #[serde(default, skip_serializing_if = "is_zero")]
    pub from_pictures: usize,
    /// Observed, ln(cm).
    pub x: Vec<f64>,
    /// Expected of anybody of this sex, ln(cm).
    pub mu: Vec<f64>,
    /// Of people and of error, in the order of `sites`.
    pub covariance: Vec<Vec<f64>>,
    /// Regions by sites.
    pub cross: Vec<Vec<f64>>,
}

/// What is believed of left against right before any evidence.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct SidesPriorEntry {
    /// The paired regions.
    pub regions: Vec<RegionId>,
    /// Means, %.
    pub mean: Vec<f64>,
    /// Covariance, %^2.
    pub covariance: Vec<Vec<f64>>,
}

/// A part of the body: the share-weighted mean of its regions.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct AreaEntry {
    /// The site that mixes its muscles.
    pub area: SiteId,
    /// What a coach calls it.
    pub name: String,
    /// SD; negative = behind.
    pub mean: f64,
    /// SD of that.
    pub sd: f64,
    /// P(behind).
    pub p_behind: f64,
    /// P(ahead).
    pub p_ahead: f64,
    /// In a word.
    pub verdict: Standing,
    /// Its regions.
    pub heads: Vec<RegionId>,
    /// Whether all of it is to be brought up.
    pub bring_up: bool,
}

/// Amount of general muscularity beyond the middle of the reference.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct MuscularityEntry {
    /// In units of the direction.
    pub mean: f64,
    /// SD of that.
    pub sd: f64,
}

#[expect(clippy::trivially_copy_pass_by_ref, reason = "serde hands the field over by reference")]
fn is_zero(count: &usize) -> bool {
    *count == 0
}
