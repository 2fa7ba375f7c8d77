//! The assessment file (`orthomer-assessment`, version 1).

mod from;
mod sections;

pub use from::assessment_file;
pub use sections::{
    AreaEntry, CauseEntry, ChangeEntry, CompositionEntry, ConflictEntry, CorrectedEntry, EstimateEntry, FlagEntry,
    FoldEntry, HangEntry, MuscularityEntry, PicturedEntry, PieceEntry, SchoolSizeEntry, SidesDisagreeEntry,
    SidesPriorEntry, StrengthSidesEntry, TapeJointEntry, VoiceEntry,
};

use crate::warning::Warning;
use assess::{Class, MeasuredSite, SideVerdict, Standing, Tilt};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{ExerciseId, RegionId, SiteId};
use utoipa::ToSchema;

/// A verdict on a client.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct AssessmentFile {
    /// `orthomer-assessment`.
    pub format: String,
    /// 1.
    pub version: u32,
    /// The day the case was looked at.
    pub as_of: String,
    /// The round assessed, when there is one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub round: Option<String>,
    /// Values with errors.
    pub sites: Vec<MeasuredSite>,
    /// Girths from the round's pictures.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub pictured: Vec<PicturedEntry>,
    /// Left against right.
    pub asymmetries: Vec<AsymmetryEntry>,
    /// Against the reference population.
    pub reference: ReferenceEntry,
    /// Every region.
    pub regions: Vec<RegionEntry>,
    /// The parts of the body.
    pub areas: Vec<AreaEntry>,
    /// General muscularity; none without tape.
    pub muscularity: Option<MuscularityEntry>,
    /// Skinfolds with errors.
    pub skinfolds: Vec<FoldEntry>,
    /// Strength, left against right.
    pub strength: Vec<StrengthSidesEntry>,
    /// The timed hang, when it was taken.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hang: Option<HangEntry>,
    /// Sizes by other schools.
    pub schools: Vec<SchoolSizeEntry>,
    /// Fat, muscle and lean mass.
    pub composition: CompositionEntry,
    /// Changes since the round before.
    pub changes: Vec<ChangeEntry>,
    /// What to look at before training anything.
    pub flags: Vec<FlagEntry>,
    /// Whether the last four weeks' training is known; without it no cause is sought there.
    pub training_known: bool,
    /// What to look at next.
    pub next: Vec<NextEntry>,
    /// What looks wrong.
    pub warnings: Vec<Warning>,
    /// The rows of the evidence model but the tape's sizes, on request.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub observations: Option<Vec<ObservationEntry>>,
    /// Variance of what the ratings of each sitting share, on request.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub offsets: Option<BTreeMap<String, f64>>,
    /// The tape's sizes as one observation, on request.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tape_joint: Option<TapeJointEntry>,
    /// Prior covariance of the regions' sizes, on request.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub prior_b: Option<Vec<Vec<f64>>>,
    /// Prior of left against right, on request.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub prior_a: Option<SidesPriorEntry>,
}

/// Left against right at a site; positive = left larger.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct AsymmetryEntry {
    /// The site.
    pub site: SiteId,
    /// The client's left, cm.
    pub left_cm: f64,
    /// The client's right, cm.
    pub right_cm: f64,
    /// Left minus right, cm.
    pub difference_cm: f64,
    /// Standard error of the difference, cm.
    pub se_cm: f64,
    /// Symmetry index, %.
    pub symmetry_index: f64,
    /// Standard error of the index, %.
    pub se_index: f64,
    /// Symmetry angle, %.
    pub symmetry_angle: f64,
    /// Within error, real and small, or real and worth acting on.
    pub verdict: SideVerdict,
    /// Probability that the true difference exceeds the practical threshold.
    pub p_beyond_threshold: f64,
    /// Whether handedness alone explains it.
    pub dominance_explains: bool,
    /// Without the fat over the muscle, when both folds were taken.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub corrected: Option<CorrectedEntry>,
    /// The difference is fat: gone once the folds are taken off.
    pub fat_explains: bool,
}

/// The client against the reference.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct ReferenceEntry {
    /// Who the reference are.
    pub population: String,
    /// Where it was published.
    pub source: String,
    /// How many of the client's sex.
    pub n: usize,
    /// Squared Mahalanobis distance.
    pub mahalanobis2: Option<f64>,
    /// Degrees of freedom.
    pub df: usize,
    /// Outside the reference: lean on ratios and trend.
    pub outside: bool,
    /// Sites with an expected size.
    pub sites: Vec<SizedEntry>,
    /// What is missing before sites get one.
    pub missing: Vec<String>,
}

/// A site against its expected size.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct SizedEntry {
    /// The site.
    pub site: SiteId,
    /// Observed, cm; the mean of both sides.
    pub observed_cm: f64,
    /// Expected from frame and rest, cm.
    pub expected_cm: f64,
    /// Square root of the conditional variance of ln(cm).
    pub sd_ln: f64,
    /// Distance from expected, SD with the measuring error in it.
    pub z: f64,
    /// What predicted it.
    pub predictors: Vec<SiteId>,
}

/// A region's bulk, SD.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct BulkEntry {
    /// Mean; negative = behind.
    pub mean: f64,
    /// SD.
    pub sd: f64,
    /// Probability of being behind.
    pub p_behind: f64,
    /// Probability of being ahead.
    pub p_ahead: f64,
    /// In a word.
    pub verdict: Standing,
    /// Weighted expected shortfall.
    pub need: f64,
}

/// A region's left minus right, %.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct SideEntry {
    /// Mean; positive = left larger.
    pub mean: f64,
    /// SD.
    pub sd: f64,
    /// Probability that the left is smaller by more than the practical threshold.
    pub p_left_smaller: f64,
    /// Probability that the right is.
    pub p_right_smaller: f64,
    /// In a word.
    pub verdict: Tilt,
}

/// The verdict on a region.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct RegionEntry {
    /// The region.
    pub region: RegionId,
    /// The weight the look gives it.
    pub look_weight: f64,
    /// Against the rest of the client.
    pub bulk: BulkEntry,
    /// Left against right, for paired regions.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub asymmetry: Option<SideEntry>,
    /// What it is trained for.
    pub class: Class,
    /// Kinds of evidence that contradict each other; empty when none do.
    pub conflict: Vec<ConflictEntry>,
    /// The smaller side by girth and the weaker by strength, when they are not the same.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sides_disagree: Option<SidesDisagreeEntry>,
    /// Why it lags or leans.
    pub causes: Vec<CauseEntry>,
    /// What each observation does to it, with the rows on request.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub evidence: Option<Vec<PieceEntry>>,
    /// The coach's own verdict.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub overruled: Option<Standing>,
    /// Why the coach overruled it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub overruled_because: Option<String>,
}

/// What to look at next.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct NextEntry {
    /// In words.
    pub what: String,
    /// `tape`, `rating` or `test`.
    pub kind: String,
    /// The site, for tape.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub site: Option<SiteId>,
    /// The region, for a rating.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub region: Option<RegionId>,
    /// The exercise, for a test.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub exercise: Option<ExerciseId>,
    /// Fall of the weighted variance.
    pub gain: f64,
    /// Minutes it takes.
    pub minutes: f64,
}

/// One row of the evidence model.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct ObservationEntry {
    /// Kind of evidence.
    pub kind: String,
    /// What was observed.
    pub source: String,
    /// The observation, SD or %.
    pub y: f64,
    /// Variance of its error.
    pub variance: f64,
    /// Weight by `b:<region>` or `a:<region>`.
    pub row: BTreeMap<String, f64>,
    /// The sitting whose offset it shares, for ratings of size.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub offset: Option<String>,
}
