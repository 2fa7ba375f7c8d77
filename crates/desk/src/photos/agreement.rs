//! How far a coach agrees with themselves about standings, and what a rating of theirs is worth.

use assess::{Knowledge, RaterAgreement, TRUTHS_ENOUGH, rater_agreement};
use serde::Serialize;
use store::{RatingKind, Store, StoreError};
use utoipa::ToSchema;

/// How far a coach agrees with themselves about standings.
#[derive(Serialize, ToSchema)]
pub struct AgreementView {
    /// Repeats given so far, over all clients and made-up figures.
    pub repeats: usize,
    /// Answers before made-up figures, whose truth is known.
    pub against_truth: usize,
    /// Girths that stood beside the coach's ratings.
    pub beside_girths: usize,
    /// The coach's own SD, rating steps.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub within_sd_steps: Option<f64>,
    /// Quadratic-weighted kappa.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub kappa: Option<f64>,
    /// What a rating of this coach is taken to be worth: SD, rating steps.
    pub pooled_sd_steps: f64,
    /// Share that one rating takes of what is not known of a region, 0 to 1.
    pub narrows: f64,
    /// Answers whose truth is known from which on they say how valid the eye is; until then the usual error counts.
    pub truths_needed: usize,
}

impl AgreementView {
    /// What is known of a rater's standings.
    pub(crate) fn of(knowledge: &Knowledge, store: &Store, rater: &str) -> Result<Self, StoreError> {
        let settings = knowledge.atlas.evidence();
        let pairs = store.repeat_pairs(rater, RatingKind::Standing)?;
        let truths = store.truth_pairs(rater, RatingKind::Standing)?;
        let in_steps: Vec<(i8, f64)> =
            truths.iter().map(|(answer, sd)| (*answer, sd / settings.scale.rating_bulk)).collect();
        let known = rater_agreement(settings, &pairs, &in_steps, &store.eye_beside_girths(rater)?);
        let RaterAgreement { repeats, against_truth, beside_girths, within_sd_steps, kappa, pooled_sd_steps, narrows } =
            known;
        let truths_needed = TRUTHS_ENOUGH;
        Ok(Self {
            repeats,
            against_truth,
            beside_girths,
            within_sd_steps,
            kappa,
            pooled_sd_steps,
            narrows,
            truths_needed,
        })
    }
}
