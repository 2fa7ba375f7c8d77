//! The order of exercises within a session. Common practice, no source.

use crate::problem::{Candidate, PlanProblem};
use assess::Class;
use atlas::{Effort, Exercise, Movement};
use std::cmp::Reverse;

/// Schools of session order.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum SessionOrder {
    /// Chosen regions first while fresh.
    PriorityFirst,
    /// Heaviest compound first, then the chosen regions.
    HeavyFirst,
    /// Isolation for the chosen regions, then compounds that use them at lower load.
    PreExhaust,
    /// The most wanted region first and again last.
    Bookend,
}

impl SessionOrder {
    /// From the school's option; case files are checked for valid options before.
    pub fn from_school(option: &str) -> Self {
        match option {
            "heavy-first" => Self::HeavyFirst,
            "pre-exhaust" => Self::PreExhaust,
            "bookend" => Self::Bookend,
            _ => Self::PriorityFirst,
        }
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
    Finisher,
}

/// Sorts candidate indices into the order of the session.
///
/// Whatever the school: deadlifts and free squats come before anything that tires the muscles holding the back, and grip
/// work, chosen or not, after what the grip has to hold. Of what is left, heavy comes before light, free before cables, and what
/// goes by the clock last.
pub(crate) fn ordered(problem: &PlanProblem, mut items: Vec<(usize, u16)>) -> Vec<(usize, u16)> {
    // Push-ups finish what heavier pressing began; without any they are the pressing.
    let heavier = items.iter().any(|(index, _)| problem.candidates[*index].exercise.heavy());
    items.sort_by_key(|(index, sets)| {
        let candidate = &problem.candidates[*index];
        let slot = match slot(problem, candidate) {
            Slot::Finisher if !heavier && candidate.exercise.effort == Effort::Compound => Slot::Compound,
            slot => slot,
        };
        let rank = match problem.order {
            SessionOrder::PriorityFirst | SessionOrder::Bookend => slot as usize,
            SessionOrder::HeavyFirst => heavy_rank(slot),
            SessionOrder::PreExhaust => pre_exhaust_rank(problem, candidate, slot),
        };
        let exercise = &candidate.exercise;
        let light =
            (Reverse(exercise.effort), Reverse(exercise.heavy()), on_cable(exercise), exercise.seconds.is_some());
        (rank, light, Reverse(*sets), exercise.id.clone())
    });
    if problem.order == SessionOrder::Bookend {
        weakest_again_last(problem, &mut items);
    }
    heavy_before_the_back_tires(problem, &mut items);
    grip_after_what_it_holds(problem, &mut items);
    items
}

fn on_cable(exercise: &Exercise) -> bool {
    exercise.equipment.iter().any(|item| matches!(item.as_str(), "cable" | "dual-cable"))
}

/// Whether a candidate tires the grip: its main region closes or bends the hand.
pub(crate) fn tires_grip(problem: &PlanProblem, candidate: &Candidate) -> bool {
    const CLOSES: [&str; 3] = ["grip", "forearm.flexors", "forearm.ulnar"];
    let mut mains =
        candidate.targets.iter().filter(|(_, f)| *f >= 1.0).map(|(d, _)| problem.demands[*d].region.as_str());
    mains.any(|region| CLOSES.contains(&region))
}

/// Whether the grip has to hold a candidate: pulls, and hinges with a weight in the hands.
pub(crate) fn needs_grip(problem: &PlanProblem, candidate: &Candidate) -> bool {
    let held = || candidate.targets.iter().any(|(d, _)| problem.demands[*d].region.as_str() == "grip");
    match candidate.exercise.movement {
        Movement::Row | Movement::PullFromAbove => true,
        Movement::Hinge => held(),
        _ => false,
    }
}

/// Moves grip work right behind the last exercise that the grip has to hold.
fn grip_after_what_it_holds(problem: &PlanProblem, items: &mut [(usize, u16)]) {
    let of = |item: &(usize, u16)| &problem.candidates[item.0];
    let Some(mut last) = items.iter().rposition(|item| needs_grip(problem, of(item))) else { return };
    let mut place = 0;
    while place < last {
        if tires_grip(problem, of(&items[place])) {
            items[place..=last].rotate_left(1);
            last -= 1;
        } else {
            place += 1;
        }
    }
}

/// Moves free heavy lifts before the first exercise that tires what holds the back.
fn heavy_before_the_back_tires(problem: &PlanProblem, items: &mut [(usize, u16)]) {
    let Some(mut first) = items.iter().position(|(c, _)| tires_back(problem, *c)) else { return };
    for place in first + 1..items.len() {
        if slot(problem, &problem.candidates[items[place].0]) == Slot::FreeHeavy {
            items[first..=place].rotate_right(1);
            first += 1;
        }
    }
}

/// Whether a candidate tires the muscles that hold the back, other free heavy lifts aside.
fn tires_back(problem: &PlanProblem, candidate: usize) -> bool {
    const HOLD_THE_BACK: [&str; 3] = ["erectors", "lats", "traps"];
    let of = &problem.candidates[candidate];
    let mut mains = of.targets.iter().filter(|(_, f)| *f >= 1.0).map(|(d, _)| problem.demands[*d].region.muscle());
    slot(problem, of) != Slot::FreeHeavy && mains.any(|muscle| HOLD_THE_BACK.contains(&muscle))
}

/// Compounds that use a chosen region come straight after its isolation; a free heavy lift that does not use one still
/// opens the session, before the muscles that hold the back are tired.
fn pre_exhaust_rank(problem: &PlanProblem, candidate: &Candidate, slot: Slot) -> usize {
    const OPENS: usize = 0;
    const ISOLATES: usize = 1;
    const USES: usize = 2;
    let chosen =
        |(demand, fraction): &(usize, f64)| problem.demands[*demand].class == Class::BringUp && *fraction >= 0.5;
    let uses = candidate.exercise.effort == Effort::Compound && candidate.targets.iter().any(chosen);
    match slot {
        Slot::ChosenSmall => ISOLATES,
        _ if uses => USES,
        Slot::FreeHeavy => OPENS,
        other => USES + 1 + other as usize,
    }
}

/// Moves the last of two or more exercises for the most wanted region of the session to its end.
fn weakest_again_last(problem: &PlanProblem, items: &mut Vec<(usize, u16)>) {
    let trains = |demand: usize| items.iter().filter(|(c, _)| problem.candidates[*c].trains(demand)).count();
    let chosen = (0..problem.demands.len()).filter(|d| problem.demands[*d].class == Class::BringUp && trains(*d) > 1);
    let weakest =
        chosen.max_by(|a, b| problem.demands[*a].weight.total_cmp(&problem.demands[*b].weight).then(b.cmp(a)));
    let Some(weakest) = weakest else { return };
    let movable = |(c, _): &(usize, u16)| {
        let candidate = &problem.candidates[*c];
        candidate.trains(weakest) && slot(problem, candidate) != Slot::FreeHeavy
    };
    if let Some(place) = items.iter().rposition(movable) {
        let last = items.remove(place);
        items.push(last);
    }
}

/// Something that stands at the wrong place in a session.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Misplaced {
    /// A candidate that belongs before another, and why.
    Late(usize, usize, &'static str),
    /// A candidate that belongs at the end.
    Early(usize),
}

/// What is wrong with a session's order whatever the school.
pub(crate) fn out_of_order(problem: &PlanProblem, order: &[usize]) -> Vec<Misplaced> {
    let mut found = Vec::new();
    for (place, late) in order.iter().enumerate() {
        let slot_of = |candidate: usize| slot(problem, &problem.candidates[candidate]);
        for early in &order[..place] {
            let [first, second] = [*early, *late].map(|candidate| &problem.candidates[candidate]);
            if slot_of(*late) == Slot::FreeHeavy && tires_back(problem, *early) {
                found.push(Misplaced::Late(*late, *early, "what holds the back is tired by then"));
            } else if tires_grip(problem, first) && needs_grip(problem, second) {
                found.push(Misplaced::Late(*late, *early, "grip work comes after what the grip has to hold"));
            } else if slot_of(*early) == Slot::Trunk && second.exercise.heavy() {
                found.push(Misplaced::Late(*late, *early, "a tired trunk does not hold heavy work"));
            } else if slot_of(*early) == Slot::Finisher && second.exercise.heavy() {
                found.push(Misplaced::Early(*early));
            }
        }
    }
    // Once for each card, however many it stands wrong to.
    let mut told = Vec::new();
    found.retain(|misplaced| {
        let (Misplaced::Late(card, ..) | Misplaced::Early(card)) = misplaced;
        let first = !told.contains(card);
        told.push(*card);
        first
    });
    found
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
        _ if exercise.finisher => Slot::Finisher,
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
    #[case::chosen_or_not("priority-first", &["push-wrist-curl", "wide-pulldown", "leg-press"], &["leg-press", "wide-pulldown", "push-wrist-curl"])]
    #[case::without_heavier_pressing_push_ups_are_the_pressing(
        "priority-first", &["pushup", "band-pull-apart"], &["band-pull-apart", "pushup"]
    )]
    #[case::compounds_before_isolation(
        "priority-first", &["leg-extension", "leg-press"], &["leg-press", "leg-extension"]
    )]
    #[case::isolation_then_what_uses_it(
        "pre-exhaust", &["leg-press", "wide-cable-row", "face-pull"], &["face-pull", "wide-cable-row", "leg-press"]
    )]
    #[case::a_free_squat_still_opens(
        "pre-exhaust", &["wide-cable-row", "face-pull", "back-squat"], &["back-squat", "face-pull", "wide-cable-row"]
    )]
    #[case::the_weakest_opens_and_closes(
        "bookend", &["leg-press", "face-pull", "reverse-pec-deck"], &["reverse-pec-deck", "leg-press", "face-pull"]
    )]
    #[case::one_exercise_for_it_only_opens("bookend", &["leg-press", "face-pull"], &["face-pull", "leg-press"])]
    #[case::push_ups_finish_heavier_pressing(
        "priority-first", &["pushup", "bench-press"], &["bench-press", "pushup"]
    )]
    #[case::trunk_near_the_end("priority-first", &["cable-crunch", "leg-extension"], &["leg-extension", "cable-crunch"])]
    fn a_session_is_ordered_by_its_school(#[case] school: &str, #[case] given: &[&str], #[case] expected: &[&str]) {
        let problem = problem(&json!({"schools": {"session_order": school}}));
        let items = given.iter().map(|id| (candidate(&problem, id), 3)).collect();
        let order: Vec<&str> =
            ordered(&problem, items).iter().map(|(c, _)| problem.candidates[*c].exercise.id.as_str()).collect();
        assert_eq!(order, expected);
    }

    #[rstest]
    fn no_school_tires_the_back_before_a_deadlift(
        #[values("priority-first", "heavy-first", "pre-exhaust", "bookend")] school: &str,
    ) {
        let mut problem = problem(&json!({"schools": {"session_order": school}}));
        for demand in &mut problem.demands {
            demand.class = if demand.region.muscle() == "lats" { Class::BringUp } else { Class::Keep };
        }
        let given = ["straight-arm-pulldown", "wide-pulldown", "deadlift", "face-pull", "back-squat"];
        let order = ordered(&problem, given.iter().map(|id| (candidate(&problem, id), 3)).collect());
        let order: Vec<usize> = order.into_iter().map(|(c, _)| c).collect();
        assert_eq!(out_of_order(&problem, &order), []);
    }
}
