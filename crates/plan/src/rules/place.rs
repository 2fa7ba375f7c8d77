//! An exercise is only done where its equipment stands.

use super::Violation;
use crate::problem::PlanProblem;
use crate::week::Week;

pub(super) fn broken(problem: &PlanProblem, week: &Week) -> Vec<Violation> {
    let sessions = (0..week.session_count())
        .flat_map(|session| week.items(session).iter().map(move |(candidate, _)| (session, *candidate)));
    let missing = |&(session, candidate): &(usize, usize)| {
        !problem.candidates[candidate].stands[usize::from(problem.home[session])]
    };
    sessions.filter(missing).map(|(session, candidate)| Violation::Place { session, candidate }).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::{problem, week};
    use rstest::rstest;
    use serde_json::json;

    #[rstest]
    #[case::the_machine_at_the_gym(0, "leg-press", false)]
    #[case::the_machine_at_home(3, "leg-press", true)]
    #[case::bands_at_home(3, "band-pull-apart", false)]
    #[case::body_weight_at_home(3, "pushup", false)]
    fn the_last_days_of_the_week_have_what_is_at_home(#[case] session: usize, #[case] id: &str, #[case] over: bool) {
        let problem = problem(&json!({"home": {"days_per_week": 1, "equipment": ["band"]}}));
        assert_eq!(!broken(&problem, &week(&problem, &[(session, id, 3)])).is_empty(), over);
    }
}
