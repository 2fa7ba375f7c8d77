//! How much of one exercise a week holds: few sessions and sets, fewer of a technical one, fewest of one made of lowering.

use super::Violation;
use crate::candidate::Caps;
use crate::problem::PlanProblem;
use crate::week::Week;

/// Sets and sessions of an exercise over its caps, all added up.
pub(crate) fn over(caps: Caps, sets: u32, sessions: u32) -> u32 {
    sets.saturating_sub(u32::from(caps.sets)) + sessions.saturating_sub(u32::from(caps.sessions))
}

pub(super) fn broken(problem: &PlanProblem, week: &Week) -> Vec<Violation> {
    let mut used: Vec<usize> = week.all_items().map(|(candidate, _)| candidate).collect();
    used.sort_unstable();
    used.dedup();
    let mut found = Vec::new();
    for candidate in used {
        let sets: Vec<u16> = (0..week.session_count()).map(|session| week.sets(session, candidate)).collect();
        let sessions = sets.iter().map(|sets| u32::from(*sets > 0)).sum();
        let all = sets.iter().copied().map(u32::from).sum();
        if over(problem.candidates[candidate].caps, all, sessions) > 0 {
            found.push(Violation::OneExercise { candidate, sets: all, sessions });
        }
        let most = problem.candidates[candidate].caps.session_sets;
        let many = sets.iter().enumerate().filter(|(_, sets)| **sets > most);
        found.extend(many.map(|(session, sets)| Violation::SessionSets { session, candidate, sets: *sets }));
    }
    found
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::{candidate, problem, problem_after, week};
    use rstest::rstest;
    use serde_json::json;

    // Common practice, no source.
    #[rstest]
    #[case::ten_sets_of_one_exercise(&[(0, "leg-press", 5), (2, "leg-press", 5)], 0)]
    #[case::twelve_are_too_many(&[(0, "leg-press", 4), (1, "leg-press", 4), (2, "leg-press", 4)], 1)]
    #[case::four_sessions_are_too_many(
        &[(0, "push-wrist-curl", 2), (1, "push-wrist-curl", 2), (2, "push-wrist-curl", 2), (3, "push-wrist-curl", 2)], 1
    )]
    #[case::six_sets_of_a_technical_one(&[(0, "deadlift", 3), (2, "deadlift", 3)], 0)]
    #[case::eight_are_too_many(&[(0, "deadlift", 4), (2, "deadlift", 4)], 1)]
    #[case::two_sets_of_nordic_lowering_twice(&[(0, "nordic-lowering", 2), (2, "nordic-lowering", 2)], 0)]
    #[case::not_three_in_a_session(&[(0, "nordic-lowering", 3)], 1)]
    #[case::nor_six_in_the_first_week(
        &[(0, "nordic-lowering", 2), (1, "nordic-lowering", 2), (2, "nordic-lowering", 2)], 1
    )]
    fn one_exercise_does_not_fill_a_week(#[case] items: &[(usize, &str, u16)], #[case] times: usize) {
        let problem = problem(&json!({"experience": "advanced"}));
        assert_eq!(broken(&problem, &week(&problem, items)).len(), times);
    }

    #[rstest]
    #[case::from_nothing(0, 4)]
    #[case::after_four_sets_last_week(4, 6)]
    #[case::never_more_than_eight(8, 8)]
    fn lowering_rises_by_two_sets_a_week(#[case] last: u16, #[case] most: u16) {
        let done = json!({"week_of": "2026-02-23", "session": 1, "position": 1, "exercise": "nordic-lowering",
            "sets": last, "one_sided": false});
        let training = if last == 0 { json!([]) } else { json!([done]) };
        let problem = problem_after(&json!({"experience": "advanced"}), &training);
        assert_eq!(problem.candidates[candidate(&problem, "nordic-lowering")].caps.sets, most);
    }
}
