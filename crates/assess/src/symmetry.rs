//! Left against right: how large a difference is, and whether it is more than error.

use crate::corrected::CorrectedSides;
use crate::evidence::larger_dominant;
use crate::input::Hand;
use crate::measured::MeasuredSite;
use crate::verdict::probability_above;
use atlas::{Atlas, EvidenceSettings};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::{Sides, SiteId};
use utoipa::ToSchema;

/// A difference between the sides set against its error and against what is worth acting on.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum SideVerdict {
    /// No larger than two measurements of the same thing may differ.
    WithinError,
    /// Real, but below the practical threshold.
    RealSmall,
    /// Real and worth acting on.
    RealAct,
}

/// The left-right difference at one site. Positive = left larger.
#[derive(Clone, Debug, PartialEq)]
pub struct Asymmetry {
    /// The site.
    pub site: SiteId,
    /// Both sides, cm.
    pub sides_cm: Sides<f64>,
    /// Left minus right, cm.
    pub difference_cm: f64,
    /// Standard error of the difference, cm.
    pub se_cm: f64,
    /// Symmetry index, %.
    pub symmetry_index: f64,
    /// Standard error of the symmetry index, %.
    pub se_index: f64,
    /// Symmetry angle, %.
    pub symmetry_angle: f64,
    /// What was believed before.
    pub prior: SidePrior,
    /// What is believed now: whether it is more than error, and whether to act.
    pub belief: SideBelief,
    /// Towards the dominant side, and no more than handedness expects.
    pub dominance_explains: bool,
    /// The same without the fat over the muscle, when both folds were taken.
    pub corrected: Option<CorrectedSides>,
    /// The girths differ by more than error, the corrected girths do not: the difference is fat.
    pub fat_explains: bool,
}

/// Symmetry index, percent of the mean of both sides; positive = left larger (Robinson, Herzog & Nigg 1987).
///
/// ```
/// let si = assess::symmetry_index(units::Sides { left: 38.0, right: 37.0 });
/// assert!((si - 2.6667).abs() < 5e-5);
/// ```
pub fn symmetry_index(sides: Sides<f64>) -> f64 {
    100.0 * (sides.left - sides.right) / sides.mean()
}

/// Symmetry angle, percent; 0 = equal, negative = left larger (Zifchock, Davis, Higginson & Royer 2008).
///
/// ```
/// let sa = assess::symmetry_angle(units::Sides { left: 38.0, right: 37.0 });
/// assert!((sa + 0.8488).abs() < 5e-5);
/// ```
pub fn symmetry_angle(sides: Sides<f64>) -> f64 {
    100.0 * (45.0 - (sides.left / sides.right).atan().to_degrees()) / 90.0
}

/// 95 % of a normal distribution lies within this many SD.
const TWO_SIDED_95: f64 = 1.96;

/// What is believed of left against right before anything is measured: N(mean, sd^2), % of the mean of both sides.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct SidePrior {
    /// What handedness expects; negative = right larger.
    pub mean: f64,
    /// How much people differ.
    pub sd: f64,
}

/// A difference after it was measured.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct SideBelief {
    /// Mean, %.
    pub mean: f64,
    /// SD, %.
    pub sd: f64,
    /// Probability that the true difference is beyond the practical threshold.
    pub p_beyond_threshold: f64,
    /// More than error, and worth acting on.
    pub verdict: SideVerdict,
}

impl SidePrior {
    /// Of a girth: what handedness gives the dominant side of right-handed people, and less spread at joints, which are made of
    /// no muscle.
    pub fn of_site(atlas: &Atlas, site: &SiteId, dominant: Hand) -> Self {
        let settings = atlas.evidence();
        let muscle = settings.composition.contains_key(site);
        Self {
            mean: if dominant == Hand::Right { -larger_dominant(atlas, site) } else { 0.0 },
            sd: if muscle { settings.side_spread_pct.limb } else { settings.side_spread_pct.joint },
        }
    }

    /// After an index with its standard error, by the normal formula: within error when the 95 % interval covers what
    /// handedness expects, else worth acting on when the true difference is rather beyond `threshold` than not.
    pub fn after(self, index: f64, se_index: f64, threshold: f64) -> SideBelief {
        let precision = self.sd.powi(-2) + se_index.powi(-2);
        let mean = (self.mean * self.sd.powi(-2) + index * se_index.powi(-2)) / precision;
        let sd = precision.recip().sqrt();
        let p_beyond_threshold = probability_above(threshold, mean, sd) + probability_above(threshold, -mean, sd);
        let verdict = if (mean - self.mean).abs() <= TWO_SIDED_95 * sd {
            SideVerdict::WithinError
        } else if p_beyond_threshold < ACT_FROM {
            SideVerdict::RealSmall
        } else {
            SideVerdict::RealAct
        };
        SideBelief { mean, sd, p_beyond_threshold, verdict }
    }
}

impl SideBelief {
    /// Whether a difference is towards the dominant side, and no more than handedness expects.
    pub fn dominance_explains(&self, prior: SidePrior, index: f64) -> bool {
        index * prior.mean > 0.0 && self.verdict == SideVerdict::WithinError
    }
}

/// A difference that is rather beyond the threshold than not is worth acting on.
const ACT_FROM: f64 = 0.5;

/// Compares both sides of a site.
pub fn asymmetry(atlas: &Atlas, sides: &Sides<&MeasuredSite>, dominant: Hand) -> Asymmetry {
    let sides_cm = sides.map(|m| m.value_cm);
    let difference_cm = sides_cm.left - sides_cm.right;
    let se_cm = sides.left.se_cm.hypot(sides.right.se_cm);
    let index = symmetry_index(sides_cm);
    let se_index = 100.0 * se_cm / sides_cm.mean();
    let prior = SidePrior::of_site(atlas, &sides.left.site, dominant);
    let belief = prior.after(index, se_index, atlas.evidence().act_threshold_pct.girth);
    Asymmetry {
        site: sides.left.site.clone(),
        sides_cm,
        difference_cm,
        se_cm,
        symmetry_index: index,
        se_index,
        symmetry_angle: symmetry_angle(sides_cm),
        prior,
        belief,
        dominance_explains: belief.dominance_explains(prior, index),
        corrected: None,
        fat_explains: false,
    }
}

impl Asymmetry {
    /// The same with its fat taken off.
    pub(crate) fn corrected_by(self, settings: &EvidenceSettings, corrected: Option<CorrectedSides>) -> Self {
        let threshold = settings.act_threshold_pct.girth;
        let within_error = |c: &CorrectedSides| {
            self.prior.after(c.symmetry_index, c.se_index, threshold).verdict == SideVerdict::WithinError
        };
        let fat_explains =
            self.belief.verdict != SideVerdict::WithinError && corrected.as_ref().is_some_and(within_error);
        Self { corrected, fat_explains, ..self }
    }

    /// Symmetry index of the muscle and its standard error, %: corrected where folds allow, else of the girth.
    pub fn muscle_index(&self) -> (f64, f64) {
        self.corrected.map_or((self.symmetry_index, self.se_index), |c| (c.symmetry_index, c.se_index))
    }
}
