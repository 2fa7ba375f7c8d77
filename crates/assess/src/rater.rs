//! How far a rater's standings are off the truth: how well they repeat themselves, and how well what they see is so.

use crate::beside_girths::BesideGirths;
use crate::tem::{weighted_kappa, within_rater_sd};
use atlas::EvidenceSettings;

/// What is known of a rater.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct RaterAgreement {
    /// Repeats it rests on.
    pub repeats: usize,
    /// Answers whose truth is known.
    pub against_truth: usize,
    /// Girths that stood beside their ratings.
    pub beside_girths: usize,
    /// Within-rater SD, `sqrt(sum d^2 / 2n)`, in steps; `None` without repeats.
    pub within_sd_steps: Option<f64>,
    /// Quadratic-weighted kappa (Cohen 1968); `None` where chance leaves nothing to disagree about.
    pub kappa: Option<f64>,
    /// What ratings are taken to be off the truth, SD in steps.
    pub pooled_sd_steps: f64,
    /// Share that one rating, the first of its sitting, takes of what is not known of a region: of its prior variance.
    pub narrows: f64,
}

/// Answers whose truth is known before they say how valid a rater's eye is; until then it is taken as everybody's.
pub const TRUTHS_ENOUGH: usize = 30;
/// Of the default error's variance, the part that a rater repeats; the rest is how far the eye itself is off (common practice, no
/// source).
const REPEATED: f64 = 0.5;

/// What is known of a rater from pairs of standings, first and repeated, from answers beside a known truth, both in steps, and
/// from girths beside their ratings.
///
/// `SD^2 = max(least^2, repeatability^2 + validity^2)`. Repeatability: `(n0 default + sum d^2 / 2) / (n0 + n)`, `n0` as for
/// readings of the tape. Validity: what is left of the error about the truth, once enough of it is known, else the usual, which
/// counts as enough; what girths leave is added by its weight. Repeats alone never bring a rating under its least error: who
/// repeats themselves well may yet be wrong.
pub fn rater_agreement(
    settings: &EvidenceSettings,
    pairs: &[[i8; 2]],
    truths: &[(i8, f64)],
    girths: &BesideGirths,
) -> RaterAgreement {
    let (scale, sd) = (settings.scale.rating_bulk, &settings.observation_sd);
    let default = (sd.rating_bulk / scale).powi(2);
    let (prior, n) = (settings.error.prior_pairs, pairs.len() as f64);
    let squares: f64 = pairs.iter().map(|[a, b]| (f64::from(*a) - f64::from(*b)).powi(2) / 2.0).sum();
    let repeatability = (prior * REPEATED * default + squares) / (prior + n);
    let off: f64 = truths.iter().map(|(answer, truth)| (f64::from(*answer) - truth).powi(2)).sum();
    let known = truths.len() >= TRUTHS_ENOUGH;
    let (weight, seen) = if known {
        (truths.len() as f64, off / truths.len() as f64 - repeatability)
    } else {
        (TRUTHS_ENOUGH as f64, (1.0 - REPEATED) * default)
    };
    let taped = girths.variance / scale.powi(2) - repeatability;
    let validity = ((weight * seen + girths.weight * taped) / (weight + girths.weight)).max(0.0);
    let pooled_sd_steps = (repeatability + validity).sqrt().max(sd.rating_least / scale);
    let off_sd = (pooled_sd_steps * scale).hypot(sd.rating_sitting);
    RaterAgreement {
        narrows: (1.0 + off_sd.powi(2)).recip(),
        repeats: pairs.len(),
        against_truth: truths.len(),
        beside_girths: girths.girths,
        within_sd_steps: within_rater_sd(pairs),
        kappa: weighted_kappa(pairs),
        pooled_sd_steps,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use atlas::Atlas;
    use rstest::rstest;

    // By hand, in steps: the default is 0.9 / 1.2 = 0.75, half of its variance each; the least is 0.8 / 1.2 = 0.667.
    #[rstest]
    #[case::nothing_known(&[], 0, 0.0, 0.75)]
    #[case::repeating_oneself_well_is_not_being_right(&[[1, 1]; 200], 0, 0.0, 0.8 / 1.2)]
    #[case::repeating_oneself_badly_counts(&[[-1, 1]; 10], 0, 0.0, ((10.0 * 0.28125 + 20.0) / 20.0 + 0.28125_f64).sqrt())]
    #[case::a_few_truths_say_nothing_yet(&[], 29, 2.0, 0.75)]
    #[case::an_eye_that_is_off(&[], 40, 1.0, 1.0)]
    #[case::an_eye_that_is_true(&[], 40, 0.0, 0.8 / 1.2)]
    fn a_rating_is_worth_what_its_rater_s_eye_is(
        #[case] pairs: &[[i8; 2]],
        #[case] truths: usize,
        #[case] off: f64,
        #[case] expected: f64,
    ) {
        let atlas = Atlas::load().unwrap();
        let known = rater_agreement(atlas.evidence(), pairs, &vec![(0, off); truths], &BesideGirths::default());
        assert!((known.pooled_sd_steps - expected).abs() < 1e-12, "{known:?}");
    }

    // By hand, in steps squared: repeatability 0.28125, the usual validity the same with the weight of 30 answers, or what 40 answers
    // leave; girths that are worth ten more tell of 3.24 SD^2, 2.25 steps^2.
    #[rstest]
    #[case::beside_the_usual(0, (30.0 * 0.28125 + 10.0 * (2.25 - 0.28125)) / 40.0)]
    #[case::beside_an_eye_that_is_off_by_one(40, (40.0 * (1.0 - 0.28125) + 10.0 * (2.25 - 0.28125)) / 50.0)]
    fn girths_add_to_what_is_known_of_an_eye(#[case] truths: usize, #[case] validity: f64) {
        let atlas = Atlas::load().unwrap();
        let girths = BesideGirths { girths: 60, weight: 10.0, variance: 3.24 };
        let known = rater_agreement(atlas.evidence(), &[], &vec![(0, 1.0); truths], &girths);
        assert!((known.pooled_sd_steps - (0.28125_f64 + validity).sqrt()).abs() < 1e-12, "{known:?}");
    }

    // By hand: the usual error of 0.9 SD and a sitting's 0.5 together have a variance of 1.06, beside the 1 of a region: 1 / 2.06.
    #[test]
    fn a_rating_takes_about_half_of_what_is_not_known() {
        let atlas = Atlas::load().unwrap();
        let narrows = rater_agreement(atlas.evidence(), &[], &[], &BesideGirths::default()).narrows;
        assert!((narrows - 1.0 / 2.06).abs() < 1e-12, "{narrows}");
    }
}
