//! At most ten direct sets for one region in one session.

use super::Violation;
use crate::problem::PlanProblem;
use crate::week::Week;

/// More direct sets than this in one session do no more good (common practice, no source).
const DIRECT_SETS_A_SESSION: u32 = 10;

pub(super) fn broken(problem: &PlanProblem, week: &Week) -> Vec<Violation> {
    let mut found = Vec::new();
    for session in 0..week.session_count() {
        let mut direct = vec![0_u32; problem.demands.len()];
        for (candidate, sets) in week.items(session) {
            for (demand, fraction) in &problem.candidates[*candidate].targets {
                if *fraction >= 1.0 {
                    direct[*demand] += u32::from(*sets);
                }
            }
        }
        let over = direct.into_iter().enumerate().filter(|(_, sets)| *sets > DIRECT_SETS_A_SESSION);
        found.extend(over.map(|(demand, _)| Violation::DirectSets { session, demand }));
    }
    found
}
