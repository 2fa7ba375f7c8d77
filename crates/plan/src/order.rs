//! The order of exercises within a session (programming.md 3).

use crate::problem::{Candidate, PlanProblem};
use assess::Class;
use atlas::Effort;

/// Schools of session order.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum SessionOrder {
    /// Chosen regions first while fresh.
    PriorityFirst,
    /// Heaviest compound first, then the chosen regions.
    HeavyFirst,
}

impl SessionOrder {
    /// From the school's option; case files are checked for valid options before.
    pub fn from_school(option: &str) -> Self {
        if option == "heavy-first" { Self::HeavyFirst } else { Self::PriorityFirst }
    }
}

/// Slots of a session from first to last.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub(crate) enum Slot {
    ChosenSmall,
    FreeHeavy,
    ChosenHeavy,
    Compound,
    Isolation,
    Trunk,
    Grip,
}

/// Sorts candidate indices into the order of the session.
///
/// Whatever the school: deadlifts and free squats come before anything that tires the muscles holding the back, and grip
/// work after pulling unless grip itself is chosen.
pub(crate) fn ordered(problem: &PlanProblem, mut items: Vec<(usize, u16)>) -> Vec<(usize, u16)> {
    items.sort_by_key(|(index, sets)| {
        let candidate = &problem.candidates[*index];
        let slot = slot(problem, candidate);
        let rank = match problem.order {
            SessionOrder::PriorityFirst => slot as usize,
            SessionOrder::HeavyFirst => heavy_rank(slot),
        };
        (rank, std::cmp::Reverse(candidate.exercise.effort), std::cmp::Reverse(*sets), candidate.exercise.id.clone())
    });
    items
}

fn heavy_rank(slot: Slot) -> usize {
    match slot {
        Slot::FreeHeavy => 0,
        Slot::ChosenHeavy => 1,
        Slot::ChosenSmall => 2,
        other => other as usize,
    }
}

pub(crate) fn slot(problem: &PlanProblem, candidate: &Candidate) -> Slot {
    let exercise = &candidate.exercise;
    let mains = || candidate.targets.iter().filter(|(_, f)| *f >= 1.0).map(|(d, _)| &problem.demands[*d]);
    let chosen = mains().any(|demand| demand.class == Class::BringUp);
    let free_heavy = matches!(exercise.family.as_str(), "hinge" | "squat") && exercise.stability == 0;
    let muscle = |names: &[&str]| mains().all(|demand| names.contains(&demand.region.muscle()));
    match (chosen, exercise.effort) {
        _ if free_heavy => Slot::FreeHeavy,
        (true, Effort::Compound) => Slot::ChosenHeavy,
        (true, _) => Slot::ChosenSmall,
        _ if muscle(&["grip", "forearm"]) => Slot::Grip,
        _ if muscle(&["abs", "neck"]) => Slot::Trunk,
        (false, Effort::Compound) => Slot::Compound,
        (false, _) => Slot::Isolation,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::{candidate, problem};
    use rstest::rstest;
    use serde_json::json;

    // The example brings rear delts and the long head of the biceps up.
    #[rstest]
    #[case::chosen_small_heads_open("priority-first", &["leg-press", "face-pull"], &["face-pull", "leg-press"])]
    #[case::a_deadlift_comes_before_what_tires_the_back(
        "priority-first", &["bb-row-overhand", "deadlift"], &["deadlift", "bb-row-overhand"]
    )]
    #[case::heavy_first("heavy-first", &["face-pull", "back-squat"], &["back-squat", "face-pull"])]
    #[case::grip_after_pulling("priority-first", &["dead-hang", "wide-pulldown"], &["wide-pulldown", "dead-hang"])]
    #[case::compounds_before_isolation(
        "priority-first", &["leg-extension", "leg-press"], &["leg-press", "leg-extension"]
    )]
    #[case::trunk_near_the_end("priority-first", &["cable-crunch", "leg-extension"], &["leg-extension", "cable-crunch"])]
    fn a_session_is_ordered_by_its_school(#[case] school: &str, #[case] given: &[&str], #[case] expected: &[&str]) {
        let problem = problem(&json!({"schools": {"session_order": school}}));
        let items = given.iter().map(|id| (candidate(&problem, id), 3)).collect();
        let order: Vec<&str> =
            ordered(&problem, items).iter().map(|(c, _)| problem.candidates[*c].exercise.id.as_str()).collect();
        assert_eq!(order, expected);
    }
}
