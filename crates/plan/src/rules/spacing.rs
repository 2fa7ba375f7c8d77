//! 48 hours between two sessions that give the same region 4 or more sets; forearms and calves may go daily.

use super::Violation;
use crate::problem::PlanProblem;
use crate::week::Week;

/// Fractional sets from which a region needs two days' rest (common practice, no source).
pub(crate) const LOADED: f64 = 4.0;

/// Whether two weekdays lie less than 48 hours apart; Sunday and Monday do.
pub(crate) fn neighbours(one: u8, other: u8) -> bool {
    let apart = one.abs_diff(other);
    apart.min(7 - apart) < 2
}

pub(super) fn broken(problem: &PlanProblem, week: &Week) -> Vec<Violation> {
    let doses: Vec<Vec<f64>> = (0..week.session_count()).map(|session| week.session_dose(problem, session)).collect();
    let mut found = Vec::new();
    for one in 0..doses.len() {
        for other in one + 1..doses.len() {
            if !neighbours(problem.days[one], problem.days[other]) {
                continue;
            }
            let loaded = |demand: &usize| doses[one][*demand] >= LOADED && doses[other][*demand] >= LOADED;
            let tired = (0..problem.demands.len()).filter(loaded).filter(|d| !problem.demands[*d].daily);
            found.extend(tired.map(|demand| Violation::Spacing { sessions: [one, other], demand }));
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

    // Four days: Monday, Tuesday, Thursday, Friday.
    #[rstest]
    #[case::four_sets_on_two_days_running(&[(0, "leg-press", 4), (1, "hack-squat", 4)], true)]
    #[case::three_on_the_second_day(&[(0, "leg-press", 4), (1, "hack-squat", 3)], false)]
    #[case::two_days_between(&[(0, "leg-press", 4), (2, "hack-squat", 4)], false)]
    #[case::calves_may_go_daily(&[(0, "standing-calf-raise", 5), (1, "standing-calf-raise", 5)], false)]
    #[case::forearms_may_go_daily(&[(0, "push-wrist-curl", 5), (1, "push-wrist-curl", 5)], false)]
    fn a_loaded_region_rests_for_two_days(#[case] items: &[(usize, &str, u16)], #[case] tired: bool) {
        let problem = problem(&json!({}));
        assert_eq!(!broken(&problem, &week(&problem, items)).is_empty(), tired);
    }

    #[rstest]
    #[case::monday_and_tuesday(1, 2, true)]
    #[case::monday_and_wednesday(1, 3, false)]
    #[case::sunday_and_monday(7, 1, true)]
    fn days_are_neighbours_round_the_weekend_too(#[case] one: u8, #[case] other: u8, #[case] expected: bool) {
        assert_eq!(neighbours(one, other), expected);
    }
}
