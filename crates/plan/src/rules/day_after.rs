//! The same exercise is not done on two days running, unless all it trains may go daily.

use super::Violation;
use super::spacing::near_pairs;
use crate::problem::PlanProblem;
use crate::week::Week;

pub(super) fn broken(problem: &PlanProblem, week: &Week) -> Vec<Violation> {
    let mut found = Vec::new();
    for (one, other) in near_pairs(&problem.days) {
        let again = |candidate: &usize| !problem.candidates[*candidate].daily && week.sets(other, *candidate) > 0;
        let there = week.items(one).iter().map(|(candidate, _)| *candidate).filter(again);
        found.extend(there.map(|candidate| Violation::DayAfter { sessions: [one, other], candidate }));
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
    #[case::a_pulldown_on_monday_and_tuesday(&[(0, "wide-pulldown", 2), (1, "wide-pulldown", 2)], 1)]
    #[case::on_monday_and_thursday(&[(0, "wide-pulldown", 2), (2, "wide-pulldown", 2)], 0)]
    #[case::another_pull_the_day_after(&[(0, "wide-pulldown", 2), (1, "wide-pullup", 2)], 0)]
    #[case::calves_go_daily(&[(0, "standing-calf-raise", 2), (1, "standing-calf-raise", 2)], 0)]
    fn no_exercise_is_done_on_two_days_running(#[case] items: &[(usize, &str, u16)], #[case] times: usize) {
        let problem = problem(&json!({}));
        assert_eq!(broken(&problem, &week(&problem, items)).len(), times);
    }
}
