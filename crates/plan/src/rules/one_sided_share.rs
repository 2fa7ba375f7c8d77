//! A real difference between the sides: at least half of that region's direct sets one side at a time.

use super::Violation;
use crate::problem::PlanProblem;
use crate::week::Week;

/// Direct sets of a demand: one side at a time, and in all.
pub(crate) fn direct_sets(problem: &PlanProblem, week: &Week, demand: usize) -> (u32, u32) {
    let mut sets = (0, 0);
    for (index, count) in week.all_items() {
        let candidate = &problem.candidates[index];
        if candidate.trains(demand) {
            sets.0 += if candidate.one_sided { u32::from(count) } else { 0 };
            sets.1 += u32::from(count);
        }
    }
    sets
}

/// Whether a one-sided exercise for the demand exists at all.
pub(crate) fn possible(problem: &PlanProblem, demand: usize) -> bool {
    problem.candidates.iter().any(|c| c.one_sided && c.trains(demand))
}

pub(super) fn broken(problem: &PlanProblem, week: &Week) -> Vec<Violation> {
    let uneven = (0..problem.demands.len()).filter(|d| problem.demands[*d].weaker.is_some());
    let short = uneven.filter(|d| {
        let (one_sided, all) = direct_sets(problem, week, *d);
        possible(problem, *d) && 2 * one_sided < all
    });
    short.map(|demand| Violation::OneSidedShare { demand }).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::{problem, week};
    use rstest::rstest;
    use serde_json::json;
    use units::Side;

    #[rstest]
    #[case::all_one_sided(&[(0, "db-curl", 4)], false)]
    #[case::half_is_enough(&[(0, "db-curl", 3), (2, "bb-curl", 3)], false)]
    #[case::less_is_not(&[(0, "db-curl", 2), (2, "bb-curl", 3)], true)]
    #[case::an_even_region_may_train_as_it_likes(&[(0, "leg-press", 4), (2, "back-squat", 4)], false)]
    fn half_of_an_uneven_region_s_direct_sets_go_one_side_at_a_time(
        #[case] items: &[(usize, &str, u16)],
        #[case] short: bool,
    ) {
        let mut problem = problem(&json!({}));
        for demand in problem.demands.iter_mut().filter(|demand| demand.region.muscle() == "biceps") {
            demand.weaker = Some(Side::Left);
        }
        assert_eq!(!broken(&problem, &week(&problem, items)).is_empty(), short);
    }
}
