//! From the posterior of a region to words: behind, level, ahead or unclear; need; which side is smaller.

use crate::causes::Cause;
use crate::pieces::{Conflict, Piece};
use atlas::EvidenceSettings;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use statrs::distribution::{Continuous, ContinuousCDF, Normal};
use units::{RegionId, Side, SiteId};
use utoipa::ToSchema;

/// Where a region stands against the rest of this client.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Standing {
    /// Smaller than the rest of this client predicts.
    Behind,
    /// Rather smaller than not, and not sure enough to say so.
    LeansBehind,
    /// In proportion.
    Level,
    /// Rather larger than not.
    LeansAhead,
    /// Larger than the rest of this client predicts.
    Ahead,
    /// Too little is known.
    Unclear,
}

/// Which side of a paired region is smaller.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Tilt {
    /// The left is smaller by more than the practical threshold.
    LeftSmaller,
    /// The right is.
    RightSmaller,
    /// Both are alike to within the threshold.
    Equal,
    /// Too little is known.
    Unclear,
}

/// A region's bulk, SD of what the rest of the client predicts; negative = behind.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct BulkVerdict {
    /// Posterior mean.
    pub mean: f64,
    /// Posterior SD.
    pub sd: f64,
    /// P(b < -t).
    pub p_behind: f64,
    /// P(b > t).
    pub p_ahead: f64,
    /// In a word.
    pub standing: Standing,
    /// Weighted expected shortfall below level, SD.
    pub need: f64,
}

/// A part of the body: the site that mixes its muscles.
#[derive(Clone, Debug, PartialEq)]
pub struct AreaVerdict {
    /// The site.
    pub site: SiteId,
    /// Its regions, in the order of the atlas.
    pub heads: Vec<RegionId>,
    /// The look's weight: the shares of its regions' weights.
    pub look_weight: f64,
    /// How far the share-weighted mean of its regions is ahead or behind.
    pub bulk: BulkVerdict,
}

/// A region's left minus right, % of the mean.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct AsymmetryVerdict {
    /// Posterior mean; positive = left larger.
    pub mean: f64,
    /// Posterior SD.
    pub sd: f64,
    /// Probability that the left is smaller by more than the practical threshold.
    pub p_left_smaller: f64,
    /// Probability that the right is.
    pub p_right_smaller: f64,
    /// In a word.
    pub tilt: Tilt,
}

/// Everything said about one region.
#[derive(Clone, Debug, PartialEq)]
pub struct RegionVerdict {
    /// The region.
    pub region: RegionId,
    /// The weight the look gives it.
    pub look_weight: f64,
    /// Its bulk.
    pub bulk: BulkVerdict,
    /// Its left-right difference, for paired regions.
    pub asymmetry: Option<AsymmetryVerdict>,
    /// The coach's own verdict, where overruled, and why.
    pub overruled: Option<(Standing, String)>,
    /// Kinds of evidence that contradict each other, at most one pair for size and one for sides.
    pub conflicts: Vec<Conflict>,
    /// Size and strength name different sides.
    pub sides_disagree: Option<SidesDisagree>,
    /// Why it lags or leans.
    pub causes: Vec<Cause>,
    /// What each observation does to it.
    pub pieces: Vec<Piece>,
}

/// The smaller side by girth and the weaker by strength, when they are not the same.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct SidesDisagree {
    /// By girth.
    pub smaller: Side,
    /// By strength.
    pub weaker: Side,
}

impl RegionVerdict {
    /// The verdict that counts: the coach's, else the computed one.
    pub fn standing(&self) -> Standing {
        self.overruled.as_ref().map_or(self.bulk.standing, |(standing, _)| *standing)
    }
}

fn standard_normal() -> Normal {
    Normal::standard()
}

/// P(x > `limit`) for x ~ N(mean, sd^2); a step where `sd` is 0.
pub(crate) fn probability_above(limit: f64, mean: f64, sd: f64) -> f64 {
    if sd <= 0.0 {
        return f64::from(u8::from(mean > limit));
    }
    standard_normal().sf((limit - mean) / sd)
}

/// Verdict on a region's bulk from its posterior mean and SD and the weight of the look.
pub fn bulk_verdict(settings: &EvidenceSettings, (mean, sd): (f64, f64), look_weight: f64) -> BulkVerdict {
    let t = settings.level_half_width_sd;
    let p_behind = probability_above(t, -mean, sd);
    let p_ahead = probability_above(t, mean, sd);
    let standing = if p_behind >= settings.verdict_probability {
        Standing::Behind
    } else if p_ahead >= settings.verdict_probability {
        Standing::Ahead
    } else if 1.0 - p_behind - p_ahead >= settings.level_probability {
        Standing::Level
    } else if p_behind >= settings.lean_probability {
        Standing::LeansBehind
    } else if p_ahead >= settings.lean_probability {
        Standing::LeansAhead
    } else {
        Standing::Unclear
    };
    BulkVerdict { mean, sd, p_behind, p_ahead, standing, need: look_weight * expected_shortfall(t, mean, sd) }
}

/// `E[max(0, -t - b)] = s phi(u) + (-t - m) Phi(u)`, `u = (-t - m)/s`.
fn expected_shortfall(t: f64, mean: f64, sd: f64) -> f64 {
    let below = -t - mean;
    if sd <= 0.0 {
        return below.max(0.0);
    }
    let u = below / sd;
    sd * standard_normal().pdf(u) + below * standard_normal().cdf(u)
}

/// Before anything is seen three quarters of people are within the threshold, and that must read as unclear.
const EQUAL_FROM: f64 = 0.85;

/// Verdict on which side is smaller. Equal asks for more certainty than smaller does.
pub fn asymmetry_verdict(settings: &EvidenceSettings, (mean, sd): (f64, f64)) -> AsymmetryVerdict {
    let threshold = settings.act_threshold_pct.girth;
    let p_left_smaller = probability_above(threshold, -mean, sd);
    let p_right_smaller = probability_above(threshold, mean, sd);
    let tilt = if p_left_smaller >= settings.verdict_probability {
        Tilt::LeftSmaller
    } else if p_right_smaller >= settings.verdict_probability {
        Tilt::RightSmaller
    } else if 1.0 - p_left_smaller - p_right_smaller >= settings.verdict_probability.max(EQUAL_FROM) {
        Tilt::Equal
    } else {
        Tilt::Unclear
    };
    AsymmetryVerdict { mean, sd, p_left_smaller, p_right_smaller, tilt }
}
