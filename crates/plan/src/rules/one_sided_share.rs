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
