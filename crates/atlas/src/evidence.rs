//! Settings of the evidence model and of measuring error: shares, variances, thresholds.

use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{RegionId, SiteId};

/// All settings of `data/evidence.toml`.
#[derive(Clone, Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct EvidenceSettings {
    /// Half-width of "level", SD.
    pub level_half_width_sd: f64,
    /// Prior correlation between regions of one muscle.
    pub same_muscle_correlation: f64,
    /// Prior correlation between other regions of one part of the body.
    pub same_area_correlation: f64,
    /// Prior SD of left minus right, %.
    pub asymmetry_prior_sd: f64,
    /// Share of the most that the muscles of a girth may explain of its size.
    pub tape_share: f64,
    /// Probability from which a region is behind or ahead.
    pub verdict_probability: f64,
    /// Probability from which a region is level.
    pub level_probability: f64,
    /// Probability from which a region leans behind or ahead.
    pub lean_probability: f64,
    /// Two kinds of evidence conflict when further apart than this many joint SD.
    pub conflict_joint_sd: f64,
    /// SD of each kind of evidence, in its own unit.
    pub observation_sd: ObservationSd,
    /// Factor from the raw observation to the model's unit.
    pub scale: ObservationScale,
    /// Differences between sides worth acting on, percent.
    pub act_threshold_pct: ActThresholds,
    /// General muscularity.
    pub muscularity: Muscularity,
    /// What handedness alone gives, %.
    pub handedness_pct: Handedness,
    /// How much people differ in left against right, SD in %.
    pub side_spread_pct: SideSpread,
    /// Repeatability of a photo width, % of the value.
    pub width_repeatability_pct: f64,
    /// Repeatability of a one-repetition maximum, % of the value.
    pub strength_repeatability_pct: f64,
    /// Differences that are referred before they are trained up.
    pub refer: ReferSettings,
    /// Measuring error.
    pub error: ErrorSettings,
    /// Girths from pictures.
    pub pictures_pct: PictureErrors,
    /// Share of a girth that belongs to each region.
    pub composition: BTreeMap<SiteId, BTreeMap<RegionId, f64>>,
    /// The girth site a photo outline of a limb segment speaks for.
    pub segment_site: BTreeMap<String, SiteId>,
}

/// Error of a girth from pictures, % of the value.
#[derive(Clone, Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PictureErrors {
    /// Of the scale, common to all pictures of a day.
    pub scale: f64,
    /// Of the fit from breadth and depth; by site where it is worse.
    pub fit: f64,
    /// Sites at which it is worse.
    pub fit_of: BTreeMap<SiteId, f64>,
    /// Of the fit from the breadth alone.
    pub breadth_fit: f64,
    /// Sites at which it is worse.
    pub breadth_fit_of: BTreeMap<SiteId, f64>,
    /// Of one more picture of the same body.
    pub repeat: f64,
    /// Sites at which it is worse.
    pub repeat_of: BTreeMap<SiteId, f64>,
    /// How far a client's own constant may lie from the common one, SD.
    pub own_sd: f64,
}

impl PictureErrors {
    /// Error of the common constants at a site, %: with the depth seen, or by the breadth alone.
    pub fn fit_pct(&self, site: &SiteId, with_depth: bool) -> f64 {
        let (most, of) = if with_depth { (self.fit, &self.fit_of) } else { (self.breadth_fit, &self.breadth_fit_of) };
        of.get(site).copied().unwrap_or(most)
    }

    /// Error of one more picture of the same body at a site, %.
    pub fn repeat_pct(&self, site: &SiteId) -> f64 {
        self.repeat_of.get(site).copied().unwrap_or(self.repeat)
    }

    /// Standard error of the size of a girth by the common constants, %.
    pub fn error_pct(&self, site: &SiteId, with_depth: bool) -> f64 {
        self.fit_pct(site, with_depth).hypot(self.scale).hypot(self.repeat_pct(site))
    }
}

/// The direction in which muscular bodies differ from the reference.
#[derive(Clone, Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Muscularity {
    /// SD of the amount.
    pub sd: f64,
    /// Log growth of a girth per unit.
    pub growth: BTreeMap<SiteId, f64>,
}

/// How far the dominant side of right-handed people is ahead, % of the mean.
#[derive(Clone, Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Handedness {
    /// Girth of the upper arm.
    pub arm: f64,
    /// Girth of the forearm.
    pub forearm: f64,
    /// Girth of the wrist.
    pub wrist: f64,
    /// Strength of the arm.
    pub arm_strength: f64,
    /// Strength of grip and forearm.
    pub grip_strength: f64,
}

/// SD of left against right between people, % of the mean.
#[derive(Clone, Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct SideSpread {
    /// Girths over muscle.
    pub limb: f64,
    /// Joints.
    pub joint: f64,
    /// Strength.
    pub strength: f64,
}

/// SD by kind of evidence.
#[derive(Clone, Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ObservationSd {
    /// Tape against expectation, SD.
    pub tape_bulk: f64,
    /// Tape left against right beyond its own error, %.
    pub tape_asymmetry: f64,
    /// Rating of a rater of whom nothing is known, in model units.
    pub rating_bulk: f64,
    /// The least a rating is off, however well its rater agrees with themselves.
    pub rating_least: f64,
    /// What all ratings of one sitting are off together.
    pub rating_sitting: f64,
    /// Left-right rating, %.
    pub rating_asymmetry: f64,
    /// Photo outline beyond its repeatability, %.
    pub outline: f64,
    /// Strength, %.
    pub strength: f64,
}

/// Factors from raw observation to model unit.
#[derive(Clone, Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ObservationScale {
    /// SD per rating step.
    pub rating_bulk: f64,
    /// % per left-right rating step.
    pub rating_asymmetry: f64,
    /// % of size per % of strength.
    pub strength: f64,
}

/// Percent from which a real difference is acted on.
#[derive(Clone, Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ActThresholds {
    /// Girths.
    pub girth: f64,
    /// Photo widths.
    pub photo_width: f64,
    /// Strength.
    pub strength: f64,
}

/// Default technical errors and the rules for replicate readings.
#[derive(Clone, Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ErrorSettings {
    /// %TEM of a girth: reading the same place again.
    pub girth_pct: f64,
    /// %TEM of a breadth.
    pub breadth_pct: f64,
    /// %TEM of a skinfold.
    pub skinfold_pct: f64,
    /// Finding the place of a girth anew, %.
    pub placing_girth_pct: f64,
    /// Finding the place of a breadth anew, %.
    pub placing_breadth_pct: f64,
    /// Finding the place of a skinfold anew, %.
    pub placing_skinfold_pct: f64,
    /// Another measurer's hand, common to all girths of a session, %.
    pub hand_pct: f64,
    /// % error of a weighing.
    pub weight_pct: f64,
    /// Weight from day to day, %.
    pub weight_day_pct: f64,
    /// How many pairs of readings the default is worth.
    pub prior_pairs: f64,
    /// A third reading is asked for beyond this many of the measurer's own TEM.
    pub third_reading_tem: f64,
    /// A third reading is asked for beyond this difference, %, girths and breadths.
    pub third_reading_girth_pct: f64,
    /// A third reading is asked for beyond this difference, %, skinfolds.
    pub third_reading_skinfold_pct: f64,
    /// A left-right difference from which swapped or slipped sides are suspected, %.
    pub swapped_sides_pct: f64,
}

/// When a coach sends a client to a doctor or physiotherapist first.
#[derive(Clone, Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ReferSettings {
    /// Girth difference between sides, %.
    pub girth_pct: f64,
    /// Strength difference between sides, %.
    pub strength_pct: f64,
    /// Loss of body weight, % a week, kept up for [`Self::weight_loss_weeks`].
    pub weight_loss_pct_a_week: f64,
    /// Weeks over which weight loss is looked at.
    pub weight_loss_weeks: i64,
    /// Fat under this is very low, men, %.
    pub low_fat_male_pct: f64,
    /// Fat under this is very low, women, %.
    pub low_fat_female_pct: f64,
}
