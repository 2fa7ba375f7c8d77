//! What answers say of a coach's eye.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use statrs::distribution::{ContinuousCDF, Normal};
use utoipa::ToSchema;

/// The scale ends here, steps.
const END: f64 = 2.0;
/// A difference of a step is there to be seen.
const SEEN_STEPS: f64 = 1.0;
/// Answers before a difference that is surely seen can be told.
const ENOUGH: usize = 8;
/// How often a difference that is surely seen is named rightly.
const SURELY: f64 = 0.9;

/// An answer beside the truth, both of the figure itself, in steps.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Answered {
    /// -2 to 2; `None` when it could not be told.
    pub answer: Option<i8>,
    /// The truth.
    pub truth_steps: f64,
}

/// A coach's eye for one kind of question, in steps of its scale. A truth past the scale's end counts as its end.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Skill {
    /// Answers it rests on.
    pub answers: usize,
    /// How often it could not be told.
    pub not_told: usize,
    /// Mean of answer minus truth: what is seen larger, or more to the left, than it is.
    pub bias_steps: f64,
    /// SD of answer minus truth; from two answers on.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub sd_steps: Option<f64>,
    /// Of the differences of a step or more, those whose direction was named rightly.
    pub right: usize,
    /// Differences of a step or more.
    pub of: usize,
    /// The difference whose direction is named rightly nine times in ten: from the least-squares line of answers over truth,
    /// `1.2816 s / slope` with its residual SD `s`. None with few answers, or when they do not follow the truth.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub sure_from_steps: Option<f64>,
}

/// The eye that gave these answers; none before the first.
pub fn skill(answers: &[Answered]) -> Option<Skill> {
    let told: Vec<(f64, f64)> = answers
        .iter()
        .filter_map(|given| Some((given.truth_steps.clamp(-END, END), f64::from(given.answer?))))
        .collect();
    let errors: Vec<f64> = told.iter().map(|(truth, answer)| answer - truth).collect();
    let bias_steps = mean(&errors)?;
    let there: Vec<&(f64, f64)> = told.iter().filter(|(truth, _)| truth.abs() >= SEEN_STEPS).collect();
    Some(Skill {
        answers: told.len(),
        not_told: answers.len() - told.len(),
        bias_steps,
        sd_steps: (told.len() > 1).then(|| (squares(&errors) / (told.len() - 1) as f64).sqrt()),
        right: there.iter().filter(|(truth, answer)| truth * answer > 0.0).count(),
        of: there.len(),
        sure_from_steps: sure_from(&told),
    })
}

fn mean(values: &[f64]) -> Option<f64> {
    (!values.is_empty()).then(|| values.iter().sum::<f64>() / values.len() as f64)
}

/// Sum of squares about the mean.
fn squares(values: &[f64]) -> f64 {
    let middle = mean(values).unwrap_or_default();
    values.iter().map(|value| (value - middle).powi(2)).sum()
}

fn sure_from(told: &[(f64, f64)]) -> Option<f64> {
    if told.len() < ENOUGH {
        return None;
    }
    let (x, y): (Vec<f64>, Vec<f64>) = told.iter().copied().unzip();
    let (mean_x, mean_y) = (mean(&x)?, mean(&y)?);
    let shared: f64 = told.iter().map(|(x, y)| (x - mean_x) * (y - mean_y)).sum();
    let slope = shared / squares(&x);
    if !slope.is_finite() || slope <= 0.0 {
        return None;
    }
    let residual: f64 = told.iter().map(|(x, y)| (y - mean_y - slope * (x - mean_x)).powi(2)).sum();
    let sd = (residual / (told.len() - 2) as f64).sqrt();
    Some(Normal::standard().inverse_cdf(SURELY) * sd / slope)
}
