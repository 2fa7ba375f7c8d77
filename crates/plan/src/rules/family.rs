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
