//! At most ten direct sets for one region in one session.

use super::Violation;
use super::spacing::direct_sets;
use crate::problem::PlanProblem;
use crate::week::Week;

/// More direct sets than this in one session do no more good (common practice, no source).
pub(crate) const DIRECT_SETS_A_SESSION: u32 = 10;

pub(super) fn broken(problem: &PlanProblem, week: &Week) -> Vec<Violation> {
    let mut found = Vec::new();
    for session in 0..week.session_count() {
        let direct = direct_sets(problem, week, session);
        let over = direct.into_iter().enumerate().filter(|(_, sets)| *sets > DIRECT_SETS_A_SESSION);
        found.extend(over.map(|(demand, _)| Violation::DirectSets { session, demand }));
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
    #[case::ten_are_the_most(&[(0, "face-pull", 5), (0, "one-arm-reverse-fly", 5)], 0)]
    #[case::eleven_are_too_many(&[(0, "face-pull", 6), (0, "one-arm-reverse-fly", 5)], 1)]
    #[case::another_day_counts_for_itself(&[(0, "face-pull", 6), (2, "one-arm-reverse-fly", 6)], 0)]
    #[case::indirect_sets_do_not_count(&[(0, "face-pull", 10), (0, "wide-cable-row", 5)], 0)]
    fn a_region_gets_at_most_ten_direct_sets_a_session(#[case] items: &[(usize, &str, u16)], #[case] times: usize) {
        let problem = problem(&json!({}));
        assert_eq!(broken(&problem, &week(&problem, items)).len(), times);
    }
}
