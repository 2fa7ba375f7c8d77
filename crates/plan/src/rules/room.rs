//! Time a day, exercises a day.

use super::Violation;
use crate::problem::PlanProblem;
use crate::timing::session_minutes;
use crate::week::Week;

/// A session is full, not too long, however its minutes are added up.
pub(crate) const A_MOMENT: f64 = 1e-6;

pub(super) fn broken(problem: &PlanProblem, week: &Week) -> Vec<Violation> {
    let mut found = Vec::new();
    for session in 0..week.session_count() {
        let minutes = session_minutes(problem, week.items(session));
        if minutes > problem.minutes + A_MOMENT {
            found.push(Violation::Time { session, minutes });
        }
        let count = week.items(session).len();
        if count > problem.max_exercises {
            found.push(Violation::TooManyExercises { session, count });
        }
    }
    found
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::{problem, week};
    use crate::timing::item_minutes;
    use rstest::rstest;
    use serde_json::{Value, json};

    const THREE: [(usize, &str, u16); 3] = [(0, "bench-press", 4), (0, "leg-press", 4), (0, "face-pull", 4)];

    #[rstest]
    #[case::it_fits(json!({}), false)]
    #[case::too_long_for_half_an_hour(json!({"minutes_per_session": 30}), true)]
    #[case::more_exercises_than_wanted(json!({"max_exercises_per_session": 2}), true)]
    fn a_session_must_fit_the_client_s_time_and_patience(#[case] brief: Value, #[case] over: bool) {
        let problem = problem(&brief);
        assert_eq!(!broken(&problem, &week(&problem, &THREE)).is_empty(), over);
    }

    #[rstest]
    #[case::to_the_second(0.0, false)]
    #[case::a_second_over(1.0 / 60.0, true)]
    fn a_session_may_be_full(#[case] less: f64, #[case] over: bool) {
        let mut problem = problem(&json!({}));
        let week = week(&problem, &THREE);
        // Added up from the last to the first.
        let sum: f64 = week.items(0).iter().rev().map(|(c, sets)| item_minutes(&problem.candidates[*c], *sets)).sum();
        problem.minutes = sum + 5.0 - less;
        assert_eq!(broken(&problem, &week).iter().any(|v| matches!(v, Violation::Time { .. })), over);
    }
}
