//! A rater's own error, learned from blind repeats and shrunk to the practice's default, as a measurer's is.

use crate::tem::{weighted_kappa, within_rater_sd};
use atlas::EvidenceSettings;

/// How well a rater agrees with themselves.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct RaterAgreement {
    /// Repeats it rests on.
    pub repeats: usize,
    /// Within-rater SD, `sqrt(sum d^2 / 2n)`, in steps; `None` without repeats.
    pub within_sd_steps: Option<f64>,
    /// Quadratic-weighted kappa (Cohen 1968); `None` where chance leaves nothing to disagree about.
    pub kappa: Option<f64>,
    /// What ratings are taken to be worth: pooled with the default.
    pub pooled_sd_steps: f64,
}

/// Agreement from pairs of standings, first and repeated.
///
/// `SD^2 = (n0 default^2 + sum d^2 / 2) / (n0 + n)`, `n0` as for readings of the tape.
pub fn rater_agreement(settings: &EvidenceSettings, pairs: &[[i8; 2]]) -> RaterAgreement {
    let default = settings.observation_sd.rating_bulk / settings.scale.rating_bulk;
    let (prior, n) = (settings.error.prior_pairs, pairs.len() as f64);
    let squares: f64 = pairs.iter().map(|[a, b]| (f64::from(*a) - f64::from(*b)).powi(2) / 2.0).sum();
    RaterAgreement {
        repeats: pairs.len(),
        within_sd_steps: within_rater_sd(pairs),
        kappa: weighted_kappa(pairs),
        pooled_sd_steps: ((prior * default.powi(2) + squares) / (prior + n)).sqrt(),
    }
}
