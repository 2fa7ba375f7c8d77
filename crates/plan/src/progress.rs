//! How an exercise goes on from session to session, as data for the log.

use crate::problem::Candidate;
use atlas::Work;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Repetitions from which an exercise adds repetitions before load.
const HIGH_REPS: u16 = 20;
/// Load taken off after two sessions below the bottom of the range, % (common practice, no source).
const BACK_OFF_PCT: u8 = 10;

/// What goes up when a session went well.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum ProgressKind {
    /// Repetitions to the top of the range, then load, and back to the bottom.
    Double,
    /// Repetitions first, then load.
    RepsThenLoad,
    /// Time, then load.
    Seconds,
}

/// The rule by which load and repetitions go up and down.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Progression {
    /// What goes up.
    pub kind: ProgressKind,
    /// Where a heavier load starts again: repetitions, or seconds.
    pub bottom: u16,
    /// Where load goes up.
    pub top: u16,
    /// The smallest step, where it is the same everywhere, kg.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub step_kg: Option<f64>,
    /// The smallest step in words.
    pub step: String,
    /// Load taken off after two sessions below the bottom, %.
    pub back_off_pct: u8,
    /// All of it in one sentence.
    pub says: String,
}

impl Progression {
    /// The rule for a candidate whose sets are of `work` and leave `reserve`.
    pub fn of(candidate: &Candidate, work: Work, reserve: u8) -> Self {
        let (kind, [bottom, top], unit) = match work {
            Work::Seconds(range) => (ProgressKind::Seconds, range, "s"),
            Work::Reps(range) if range[1] >= HIGH_REPS => (ProgressKind::RepsThenLoad, range, "repetitions"),
            Work::Reps(range) => (ProgressKind::Double, range, "repetitions"),
        };
        let step = candidate.step.says.clone();
        let says = format!(
            "When every set reaches {top} {unit} with {reserve} in reserve: {step}, and back to {bottom}. Two sessions under \
             {bottom}: {BACK_OFF_PCT} % less."
        );
        Self { kind, bottom, top, step_kg: candidate.step.kg, step, back_off_pct: BACK_OFF_PCT, says }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::{candidate, problem};
    use rstest::rstest;
    use serde_json::json;

    // Common practice, no source.
    #[rstest]
    #[case::ten_to_twelve_then_load("bench-press", ProgressKind::Double, Some(2.5))]
    #[case::a_hang_by_the_clock("dead-hang", ProgressKind::Seconds, Some(2.5))]
    #[case::a_cable_by_the_plate("cable-curl", ProgressKind::Double, None)]
    fn what_goes_up_follows_from_the_exercise(
        #[case] id: &str,
        #[case] kind: ProgressKind,
        #[case] step_kg: Option<f64>,
    ) {
        let problem = problem(&json!({}));
        let of = &problem.candidates[candidate(&problem, id)];
        let rule = Progression::of(of, of.exercise.work(), 1);
        assert_eq!((rule.kind, rule.step_kg), (kind, step_kg));
        assert!(rule.bottom < rule.top && rule.says.contains(&rule.top.to_string()));
    }

    #[test]
    fn high_repetitions_add_repetitions_first() {
        let problem = problem(&json!({}));
        let high = problem.candidates.iter().filter(|c| c.exercise.reps.is_some_and(|reps| reps[1] >= 20));
        let kinds: Vec<ProgressKind> = high.map(|c| Progression::of(c, c.exercise.work(), 1).kind).collect();
        assert!(!kinds.is_empty() && kinds.iter().all(|kind| *kind == ProgressKind::RepsThenLoad));
    }
}
