//! Left against right: how large a difference is, and whether it is more than error.

use crate::corrected::CorrectedSides;
use crate::input::Hand;
use crate::measured::MeasuredSite;
use crate::verdict::probability_above;
use atlas::EvidenceSettings;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::{Side, Sides, SiteId};
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
    /// Whether it is more than error, and whether to act.
    pub verdict: SideVerdict,
    /// Probability that the true |SI| exceeds the practical threshold.
    pub p_beyond_threshold: f64,
    /// The larger side is the dominant one and the difference no more than dominance alone gives.
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

/// Compares both sides of a site.
pub fn asymmetry(settings: &EvidenceSettings, sides: &Sides<&MeasuredSite>, dominant: Hand) -> Asymmetry {
    let sides_cm = sides.map(|m| m.value_cm);
    let difference_cm = sides_cm.left - sides_cm.right;
    let se_cm = sides.left.se_cm.hypot(sides.right.se_cm);
    let index = symmetry_index(sides_cm);
    let se_index = 100.0 * se_cm / sides_cm.mean();
    let threshold = settings.act_threshold_pct.girth;
    Asymmetry {
        site: sides.left.site.clone(),
        sides_cm,
        difference_cm,
        se_cm,
        symmetry_index: index,
        se_index,
        symmetry_angle: symmetry_angle(sides_cm),
        verdict: judged(index, se_index, threshold),
        p_beyond_threshold: probability_above(threshold, index, se_index)
            + probability_above(threshold, -index, se_index),
        dominance_explains: dominance_explains(settings, &sides.left.site, sides_cm, index, dominant),
        corrected: None,
        fat_explains: false,
    }
}

impl Asymmetry {
    /// The same with its fat taken off.
    pub(crate) fn corrected_by(self, settings: &EvidenceSettings, corrected: Option<CorrectedSides>) -> Self {
        let within_error = |c: &CorrectedSides| {
            judged(c.symmetry_index, c.se_index, settings.act_threshold_pct.girth) == SideVerdict::WithinError
        };
        let fat_explains = self.verdict != SideVerdict::WithinError && corrected.as_ref().is_some_and(within_error);
        Self { corrected, fat_explains, ..self }
    }

    /// Symmetry index of the muscle and its standard error, %: corrected where folds allow, else of the girth.
    pub fn muscle_index(&self) -> (f64, f64) {
        self.corrected.map_or((self.symmetry_index, self.se_index), |c| (c.symmetry_index, c.se_index))
    }
}

/// A difference of `index` percent against its standard error and the percentage worth acting on.
pub(crate) fn judged(index: f64, se_index: f64, threshold: f64) -> SideVerdict {
    if index.abs() <= TWO_SIDED_95 * se_index {
        SideVerdict::WithinError
    } else if index.abs() < threshold {
        SideVerdict::RealSmall
    } else {
        SideVerdict::RealAct
    }
}

/// Right-handed people's right arm is a little larger from use; left-handed people are about equal.
fn dominance_explains(settings: &EvidenceSettings, site: &SiteId, cm: Sides<f64>, index: f64, dominant: Hand) -> bool {
    let Some(&allowance) = settings.dominance_girth_pct.get(site) else { return false };
    dominant == Hand::Right && cm.larger_side() == Some(Side::Right) && index.abs() <= allowance
}
