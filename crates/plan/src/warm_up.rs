//! What comes before and after a session's work: moves for its joints and the client's pains, light sets for a chosen region,
//! restoring work where something hurts or does not reach. All of it fits the time that a session keeps for warming up.

use crate::card::Card;
use crate::problem::PlanProblem;
use crate::timing::WARM_UP_S;
use assess::Class;
use atlas::{Effort, WarmUpMove, Work};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{ExerciseId, RegionId};
use utoipa::ToSchema;

/// Joints that are warmed up by themselves, the most loaded first.
const JOINTS: usize = 3;
/// Sets times load from which a joint is warmed up (common practice, no source).
const WORTH_WARMING: u32 = 6;
/// Moves for the most loaded joint; the others get one.
const FOR_THE_FIRST: usize = 2;
/// Light sets for a chosen region, and their time each with the breath after it, s (common practice, no source).
const LIGHT_SETS: u16 = 2;
const LIGHT_SET_S: u16 = 45;
/// Of a joint that hurts twice as much is done.
const TWICE: u16 = 2;

/// A move before or after the work.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct MoveEntry {
    /// Which.
    pub id: String,
    /// Its name.
    pub name: String,
    /// How it is done.
    pub how: String,
    /// Repetitions.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reps: Option<u16>,
    /// Seconds, where repetitions are not counted.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seconds: Option<u16>,
    /// The movement that its picture shows.
    pub picture: String,
    /// Why it is there.
    pub why: String,
}

/// Light sets that make a region felt before it is loaded; they count nothing.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct ActivationEntry {
    /// The region.
    pub region: RegionId,
    /// With which exercise.
    pub exercise: ExerciseId,
    /// Its name.
    pub name: String,
    /// Light sets.
    pub sets: u16,
    /// Repetitions of each.
    pub reps: u16,
}

/// What comes before and after the work.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct WarmUpEntry {
    /// Before it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub moves: Vec<MoveEntry>,
    /// For a chosen region, after that.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub activation: Option<ActivationEntry>,
    /// After the work; no hard sets.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub restoring: Vec<MoveEntry>,
    /// What all of it takes, s.
    pub takes_s: u16,
}

/// What comes before and after a day's cards; nothing for a day without work.
pub(crate) fn warm_up(problem: &PlanProblem, cards: &[Card], session: usize) -> WarmUpEntry {
    if cards.is_empty() {
        return WarmUpEntry::default();
    }
    let mut found = WarmUpEntry { activation: activation(problem, cards, session), ..WarmUpEntry::default() };
    let mut left_s = whole(WARM_UP_S);
    if found.activation.is_some() {
        left_s -= LIGHT_SETS * LIGHT_SET_S;
    }
    restore(problem, session, &mut found, &mut left_s);
    warm(problem, cards, session, &mut found, &mut left_s);
    found.takes_s = whole(WARM_UP_S) - left_s;
    found
}

/// A time in whole seconds.
// Constants of this crate: small and above nothing.
#[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
fn whole(s: f64) -> u16 {
    s as u16
}

fn pain(problem: &PlanProblem, joint: &str) -> u8 {
    problem.pains.iter().filter(|(area, _)| area == joint).map(|(_, level)| *level).max().unwrap_or(0)
}

/// Adds a move if its kit is there, it is not there yet and its time is left.
fn add(
    problem: &PlanProblem,
    session: usize,
    into: &mut Vec<MoveEntry>,
    one: &WarmUpMove,
    (times, why): (u16, String),
    left_s: &mut u16,
) -> bool {
    let home = usize::from(problem.home[session]);
    let there = one.kit.iter().all(|item| problem.stands[home].contains(item));
    let takes_s = one.takes_s * times;
    if !there || takes_s > *left_s || into.iter().any(|other| other.id == one.id) {
        return false;
    }
    *left_s -= takes_s;
    into.push(MoveEntry {
        id: one.id.clone(),
        name: one.name.clone(),
        how: one.how.clone(),
        reps: one.reps.map(|reps| reps * times),
        seconds: one.seconds.map(|s| s * times),
        picture: one.picture.clone(),
        why,
    });
    true
}

fn warm(problem: &PlanProblem, cards: &[Card], session: usize, found: &mut WarmUpEntry, left_s: &mut u16) {
    let mut loads: BTreeMap<String, u32> = BTreeMap::new();
    for card in cards {
        let exercise = &problem.candidates[card.candidate].exercise;
        for joint in exercise.loaded_joints() {
            let load = u32::from(exercise.load_on(&joint)) * u32::from(card.sets);
            *loads.entry(joint).or_default() += load;
        }
    }
    let mut joints: Vec<(String, u32)> = loads.into_iter().collect();
    // What hurts comes first: it gets twice as much, and time may run out.
    joints.sort_by_key(|(joint, load)| std::cmp::Reverse((pain(problem, joint) > 0, *load)));
    joints.retain(|(joint, load)| *load >= WORTH_WARMING || pain(problem, joint) > 0);
    for (place, (joint, _)) in joints.iter().take(JOINTS).enumerate() {
        let level = pain(problem, joint);
        let name = crate::words::joint_name(joint);
        let how = if level > 0 {
            (TWICE, format!("the {name} hurts {level}/10: twice as much"))
        } else {
            (1, format!("for the {name}"))
        };
        let mut wanted = if place == 0 { FOR_THE_FIRST } else { 1 };
        for one in problem.warm_ups.iter().filter(|one| !one.restores && one.joints.contains(joint)) {
            if wanted > 0 && add(problem, session, &mut found.moves, one, how.clone(), left_s) {
                wanted -= 1;
            }
        }
    }
}

/// One move for each joint that hurts or does not reach.
fn restore(problem: &PlanProblem, session: usize, found: &mut WarmUpEntry, left_s: &mut u16) {
    let hurts = problem
        .pains
        .iter()
        .map(|(joint, level)| (joint.clone(), format!("the {} hurts {level}/10", crate::words::joint_name(joint))));
    let short = problem.short.iter().map(|(joint, what)| (joint.clone(), format!("{what} falls short")));
    let mut done: Vec<String> = Vec::new();
    for (joint, why) in hurts.chain(short) {
        if done.contains(&joint) {
            continue;
        }
        let moves = problem.warm_ups.iter().filter(|one| one.restores && one.joints.contains(&joint));
        for one in moves {
            if add(problem, session, &mut found.restoring, one, (1, why.clone()), left_s) {
                done.push(joint);
                break;
            }
        }
    }
}

/// Two light sets of an isolation for the first chosen region that the day trains.
fn activation(problem: &PlanProblem, cards: &[Card], session: usize) -> Option<ActivationEntry> {
    let home = usize::from(problem.home[session]);
    let chosen = cards.iter().find_map(|card| {
        let of = &problem.candidates[card.candidate];
        let mains = of.targets.iter().filter(|(_, fraction)| *fraction >= 1.0).map(|(demand, _)| *demand);
        mains.into_iter().find(|demand| problem.demands[*demand].class == Class::BringUp)
    })?;
    let isolates = |candidate: &usize| {
        let of = &problem.candidates[*candidate];
        of.trains(chosen) && of.exercise.effort != Effort::Compound && of.refused.is_none() && of.stands[home]
    };
    // One that is done today anyway needs no station of its own.
    let today = cards.iter().map(|card| card.candidate).find(|candidate| isolates(candidate));
    let best = || {
        let by_merit = |a: &usize, b: &usize| problem.candidates[*a].merit.total_cmp(&problem.candidates[*b].merit);
        (0..problem.candidates.len()).filter(isolates).max_by(by_merit)
    };
    let exercise = &problem.candidates[today.or_else(best)?].exercise;
    let reps = match exercise.work() {
        Work::Reps([_, high]) => high,
        Work::Seconds(_) => return None,
    };
    Some(ActivationEntry {
        region: problem.demands[chosen].region.clone(),
        exercise: exercise.id.clone(),
        name: exercise.name.clone(),
        sets: LIGHT_SETS,
        reps,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::{candidate, problem};
    use rstest::rstest;
    use serde_json::{Value, json};

    fn day(brief: &Value, cards: &[(&str, u16)]) -> WarmUpEntry {
        let problem = problem(brief);
        let cards: Vec<Card> =
            cards.iter().map(|(id, sets)| Card::usual(&problem, candidate(&problem, id), *sets)).collect();
        warm_up(&problem, &cards, 0)
    }

    fn ids(moves: &[MoveEntry]) -> Vec<&str> {
        moves.iter().map(|one| one.id.as_str()).collect()
    }

    // Common practice, no source.
    #[rstest]
    #[case::pressing_warms_the_shoulder(&[("bench-press", 4), ("shoulder-press-db", 3)], "arm-circles")]
    #[case::squats_warm_the_knees(&[("leg-press", 4), ("leg-extension", 4)], "air-squat")]
    #[case::hinges_warm_the_back(&[("romanian-deadlift", 4)], "empty-hinge")]
    fn a_session_is_warmed_up_for_the_joints_it_loads(#[case] cards: &[(&str, u16)], #[case] expected: &str) {
        let found = day(&json!({}), cards);
        assert!(ids(&found.moves).contains(&expected), "{:?}", ids(&found.moves));
    }

    #[test]
    fn of_a_joint_that_hurts_twice_as_much_is_done_and_something_restores_it() {
        let found = day(&json!({"pain": [{"area": "shoulder", "level": 1}]}), &[("machine-side-raise", 3)]);
        let first = &found.moves[0];
        assert_eq!((first.id.as_str(), first.reps), ("arm-circles", Some(24)));
        assert!(first.why.contains("hurts 1/10") && !found.restoring.is_empty());
    }

    #[test]
    fn without_pain_or_a_short_range_nothing_is_restored() {
        assert_eq!(day(&json!({}), &[("bench-press", 4)]).restoring, []);
    }

    #[test]
    fn a_short_range_is_worked_on_at_the_end() {
        let short = json!({"screens": {"ankle_dorsiflexion_deg": {"left": 30, "right": 20}}});
        let found = day(&short, &[("leg-extension", 4)]);
        assert_eq!(ids(&found.restoring), ["restore-ankle"]);
    }

    #[test]
    fn a_chosen_region_gets_two_light_sets_that_count_nothing() {
        let found = day(&json!({}), &[("face-pull", 3)]).activation.unwrap();
        assert_eq!((found.region.as_str(), found.sets), ("delts.posterior", 2));
        assert_eq!(day(&json!({}), &[("leg-press", 3)]).activation, None);
    }

    #[rstest]
    #[case::all_of_it(&[("face-pull", 3), ("bench-press", 4), ("back-squat", 4), ("romanian-deadlift", 4), ("skull-crusher", 4)])]
    #[case::little(&[("leg-extension", 2)])]
    #[case::nothing(&[])]
    fn it_fits_the_time_that_is_kept_for_it(#[case] cards: &[(&str, u16)]) {
        let sore = json!({"pain": [{"area": "shoulder", "level": 2}, {"area": "knee", "level": 2}, {"area": "wrist", "level": 1}]});
        let found = day(&sore, cards);
        assert!(f64::from(found.takes_s) <= WARM_UP_S && (found.takes_s > 0) != cards.is_empty(), "{found:?}");
    }
}
