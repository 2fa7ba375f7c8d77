//! Load along the spine between days: heavy sessions two days apart, deadlifts from the floor in few of them.

use super::Violation;
use super::spacing::near_pairs;
use crate::problem::{FLOOR_LIFT, PlanProblem};
use crate::week::Week;

fn axial(problem: &PlanProblem, week: &Week, session: usize) -> f64 {
    let of = |(candidate, sets): &(usize, u16)| f64::from(*sets) * problem.candidates[*candidate].exercise.axial;
    week.items(session).iter().map(of).sum()
}

pub(super) fn broken(problem: &PlanProblem, week: &Week) -> Vec<Violation> {
    let loads: Vec<f64> = (0..week.session_count()).map(|session| axial(problem, week, session)).collect();
    let heavy = |session: usize| loads[session] >= problem.axial_session;
    let near = near_pairs(&problem.days).into_iter().filter(|(one, other)| heavy(*one) && heavy(*other));
    let mut found: Vec<Violation> = near.map(|(one, other)| Violation::SpineRest { sessions: [one, other] }).collect();
    let lifts =
        |session: &usize| week.items(*session).iter().any(|(c, _)| problem.candidates[*c].exercise.axial >= FLOOR_LIFT);
    let sessions: Vec<usize> = (0..week.session_count()).filter(lifts).collect();
    if sessions.len() > problem.floor_lifts {
        found.push(Violation::FloorLifts { sessions });
    }
    found
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::{problem, week};
    use rstest::rstest;
    use serde_json::json;

    // Four days: Monday, Tuesday, Thursday, Friday. Common practice, no source.
    #[rstest]
    #[case::eight_on_two_days_running(&[(0, "back-squat", 4), (1, "romanian-deadlift", 4)], 1)]
    #[case::six_on_the_second(&[(0, "back-squat", 4), (1, "romanian-deadlift", 3)], 0)]
    #[case::two_days_between(&[(0, "back-squat", 4), (2, "romanian-deadlift", 4)], 0)]
    #[case::deadlifts_from_the_floor_twice(&[(0, "deadlift", 3), (2, "block-deadlift", 3)], 1)]
    #[case::once(&[(0, "deadlift", 3), (2, "romanian-deadlift", 3)], 0)]
    fn the_spine_rests(#[case] items: &[(usize, &str, u16)], #[case] times: usize) {
        let problem = problem(&json!({}));
        assert_eq!(broken(&problem, &week(&problem, items)).len(), times);
    }
}
