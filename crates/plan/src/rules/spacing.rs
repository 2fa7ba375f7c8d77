//! 48 hours between two sessions that give the same region 4 or more sets; forearms and calves may go daily.

use super::Violation;
use crate::problem::PlanProblem;
use crate::week::Week;

/// Fractional sets from which a region needs two days' rest (common practice, no source).
const LOADED: f64 = 4.0;

/// Whether two weekdays lie less than 48 hours apart; Sunday and Monday do.
fn neighbours(one: u8, other: u8) -> bool {
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
    use super::neighbours;
    use rstest::rstest;

    #[rstest]
    #[case::monday_and_tuesday(1, 2, true)]
    #[case::monday_and_wednesday(1, 3, false)]
    #[case::sunday_and_monday(7, 1, true)]
    fn days_are_neighbours_round_the_weekend_too(#[case] one: u8, #[case] other: u8, #[case] expected: bool) {
        assert_eq!(neighbours(one, other), expected);
    }
}
