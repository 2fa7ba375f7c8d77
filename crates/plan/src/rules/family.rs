//! Exercises with the same plane, main region and hardest point do the same thing: one a session.

use super::Violation;
use crate::problem::PlanProblem;
use crate::week::Week;

pub(super) fn broken(problem: &PlanProblem, week: &Week) -> Vec<Violation> {
    let mut found = Vec::new();
    for session in 0..week.session_count() {
        let items = week.items(session);
        let family = |place: usize| problem.candidates[items[place].0].exercise.family.as_str();
        for place in 0..items.len() {
            let before = (0..place).filter(|other| family(*other) == family(place)).count();
            if before == problem.family_limit {
                found.push(Violation::Family { session, family: family(place).to_owned() });
            }
        }
    }
    found
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::{problem, week};
    use rstest::rstest;
    use serde_json::json;

    #[rstest]
    #[case::two_free_curls_in_a_session("one", &[(0, "bb-curl", 3), (0, "ez-curl", 3)], 1)]
    #[case::two_free_curls_on_two_days("one", &[(0, "bb-curl", 3), (2, "ez-curl", 3)], 0)]
    #[case::a_curl_and_a_preacher_curl("one", &[(0, "bb-curl", 3), (0, "preacher-curl", 3)], 0)]
    #[case::two_are_allowed_by_the_other_school("several", &[(0, "bb-curl", 3), (0, "ez-curl", 3)], 0)]
    #[case::three_are_not("several", &[(0, "bb-curl", 3), (0, "ez-curl", 3), (0, "db-curl", 3)], 1)]
    fn a_session_holds_no_more_of_a_family_than_the_school_allows(
        #[case] school: &str,
        #[case] items: &[(usize, &str, u16)],
        #[case] broken_times: usize,
    ) {
        let problem = problem(&json!({"schools": {"family_rule": school}}));
        assert_eq!(broken(&problem, &week(&problem, items)).len(), broken_times);
    }
}
