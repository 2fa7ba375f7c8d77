//! Time a day, exercises a day, hard sets a week.

use super::Violation;
use crate::problem::PlanProblem;
use crate::timing::session_minutes;
use crate::week::Week;

pub(super) fn broken(problem: &PlanProblem, week: &Week) -> Vec<Violation> {
    let mut found = Vec::new();
    for session in 0..week.session_count() {
        let minutes = session_minutes(problem, week.items(session));
        if minutes > problem.minutes {
            found.push(Violation::Time { session, minutes });
        }
        let count = week.items(session).len();
        if count > problem.max_exercises {
            found.push(Violation::TooManyExercises { session, count });
        }
    }
    if week.total_sets() > problem.weekly_sets {
        found.push(Violation::WeeklySets(week.total_sets()));
    }
    found
}
