//! 48 hours of rest: two sessions closer than that, both with direct work for a region, give it together few direct sets.
//! Forearms and calves may go daily.

use super::Violation;
use crate::problem::PlanProblem;
use crate::week::Week;

/// Whether two weekdays lie less than 48 hours apart; Sunday and Monday do.
pub(crate) fn neighbours(one: u8, other: u8) -> bool {
    let apart = one.abs_diff(other);
    apart.min(7 - apart) < 2
}

/// Pairs of sessions less than 48 hours apart, each once.
pub(crate) fn near_pairs(days: &[u8]) -> Vec<(usize, usize)> {
    let pairs = (0..days.len()).flat_map(|one| (one + 1..days.len()).map(move |other| (one, other)));
    pairs.filter(|(one, other)| neighbours(days[*one], days[*other])).collect()
}

/// Direct sets too many of two near sessions: none while only one of them trains the region.
pub(crate) fn over_together(most: u32, one: u32, other: u32) -> u32 {
    if one == 0 || other == 0 { 0 } else { (one + other).saturating_sub(most) }
}

pub(super) fn broken(problem: &PlanProblem, week: &Week) -> Vec<Violation> {
    let direct: Vec<Vec<u32>> = (0..week.session_count()).map(|session| direct_sets(problem, week, session)).collect();
    let mut found = Vec::new();
    for (one, other) in near_pairs(&problem.days) {
        let over =
            |demand: &usize| over_together(problem.near_direct_sets, direct[one][*demand], direct[other][*demand]) > 0;
        let tired = (0..problem.demands.len()).filter(over).filter(|d| !problem.demands[*d].daily);
        found.extend(tired.map(|demand| Violation::Spacing { sessions: [one, other], demand }));
    }
    found
}

/// Direct sets of every demand in a session.
pub(crate) fn direct_sets(problem: &PlanProblem, week: &Week, session: usize) -> Vec<u32> {
    let mut direct = vec![0; problem.demands.len()];
    for (candidate, sets) in week.items(session) {
        for (demand, _) in problem.candidates[*candidate].targets.iter().filter(|(_, fraction)| *fraction >= 1.0) {
            direct[*demand] += u32::from(*sets);
        }
    }
    direct
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::{problem, week};
    use rstest::rstest;
    use serde_json::json;

    // Four days: Monday, Tuesday, Thursday, Friday. Common practice, no source.
    #[rstest]
    #[case::five_sets_together_on_two_days_running(&[(0, "leg-press", 3), (1, "hack-squat", 2)], true)]
    #[case::four_together(&[(0, "leg-press", 2), (1, "hack-squat", 2)], false)]
    #[case::eight_on_one_of_them_alone(&[(0, "leg-press", 4), (0, "leg-extension", 4)], false)]
    #[case::two_days_between(&[(0, "leg-press", 4), (2, "hack-squat", 4)], false)]
    #[case::indirect_work_does_not_count(&[(0, "bench-press", 4), (1, "overhead-cable-ext", 4)], false)]
    #[case::calves_may_go_daily(&[(0, "standing-calf-raise", 5), (1, "standing-calf-raise", 5)], false)]
    #[case::forearms_may_go_daily(&[(0, "push-wrist-curl", 5), (1, "push-wrist-curl", 5)], false)]
    fn a_trained_region_rests_for_two_days(#[case] items: &[(usize, &str, u16)], #[case] tired: bool) {
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
