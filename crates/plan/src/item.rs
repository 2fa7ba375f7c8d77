//! A card of a session with everything that follows from it: dose, side order, reasons.

use crate::card::{Card, PlannedSet};
use crate::order::{Slot, slot};
use crate::problem::{Candidate, Demand, PlanProblem};
use crate::progress::Progression;
use crate::run::RunCard;
use crate::turns::InTurn;
use crate::words::lower_first;
use assess::Class;
use atlas::{Hardest, Work};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{ExerciseId, RegionId, Side};
use utoipa::ToSchema;

/// Which side goes first.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum SidePlan {
    /// Both sides together.
    Both,
    /// One side at a time, the client's left first.
    LeftFirst,
    /// One side at a time, the client's right first.
    RightFirst,
}

/// An exercise in a session.
#[derive(Clone, Debug, PartialEq)]
pub struct Item {
    /// The exercise.
    pub exercise: ExerciseId,
    /// Its name.
    pub name: String,
    /// The region it is there for.
    pub region: RegionId,
    /// Sets.
    pub sets: u16,
    /// Repetitions or seconds.
    pub work: Work,
    /// Repetitions in reserve.
    pub reserve: u8,
    /// Rest after a set, s.
    pub rest_s: u16,
    /// Rest after a set that the others of its group have no partner for, s; none outside a group.
    pub alone_s: Option<u16>,
    /// Side order.
    pub sides: SidePlan,
    /// Extra sets for the side that goes first.
    pub extra_sets_weaker: u16,
    /// How to warm up to it.
    pub warm_up: Option<String>,
    /// Sentences the coach's schools add to the exercise's own.
    pub cues: Vec<String>,
    /// All that its card says, how to get into position first, without what contradicts.
    pub says: Vec<String>,
    /// Reasons, most important first.
    pub why: Vec<String>,
    /// Id of its set scheme.
    pub scheme: String,
    /// Whether it was chosen on the card; else it is the school's, or straight sets.
    pub scheme_chosen: bool,
    /// The superset or giant set it is part of.
    pub group: Option<String>,
    /// Set by set, where sets differ.
    pub per_set: Vec<PlannedSet>,
    /// Work of a usual set, one side, s.
    pub work_s: f64,
    /// Lowering, pause, lifting, pause, s.
    pub tempo: Option<[u8; 4]>,
    /// Load of the first set as the coach wrote it, kg.
    pub load_kg: Option<f64>,
    /// The coach's sentence to the client.
    pub note: Option<String>,
    /// Which variant of the exercise.
    pub variant: Option<String>,
    /// Numbers of the set-up as the coach wrote them.
    pub set_up: BTreeMap<String, f64>,
    /// Whether solving leaves it as it is.
    pub locked: bool,
    /// What it takes, setting up included.
    pub minutes: f64,
    /// How it goes on from session to session.
    pub progression: Progression,
    /// What stands in its place in every second week, where the actions of its region take turns.
    pub in_turn: Option<Box<Item>>,
}

pub(crate) fn item(problem: &PlanProblem, card: &Card, position: usize, ramp: bool, run: &RunCard) -> Item {
    let candidate = &problem.candidates[card.candidate];
    let exercise = &candidate.exercise;
    let demand = main_demand(problem, candidate);
    let ramp = ramp && card.scheme.warm_up_sets == 0;
    let work = card.work(candidate);
    let reserve = card.reserve(problem);
    let sets = card.sets_planned(problem);
    let usual = usual_set(work, reserve);
    // The rest of every set is a whole number of seconds by its making.
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
    let [rest_s, alone_s] = [run.rest_s, run.alone_s].map(|s| s as u16);
    Item {
        exercise: exercise.id.clone(),
        name: exercise.name.clone(),
        region: main_region(problem, card).unwrap_or_else(|| problem.demands[0].region.clone()),
        sets: card.sets,
        work,
        reserve,
        rest_s,
        alone_s: run.group.as_ref().map(|_| alone_s),
        sides: side_plan(candidate, card),
        extra_sets_weaker: candidate.extra_sets_weaker,
        warm_up: ramp.then(|| RAMP.to_owned()),
        cues: candidate.cues.clone(),
        says: candidate.says.clone(),
        why: why(problem, candidate, demand, position),
        scheme: card.scheme.id.clone(),
        scheme_chosen: card.scheme.id != candidate.usual.scheme.id,
        locked: card.locked,
        minutes: 0.0,
        in_turn: None,
        progression: Progression::of(candidate, work, reserve),
        group: run.group.clone(),
        work_s: run.work_s.first().copied().unwrap_or_default(),
        per_set: if sets.iter().all(|set| PlannedSet { number: 0, ..set.clone() } == usual) {
            Vec::new()
        } else {
            sets
        },
        tempo: card.written.tempo,
        load_kg: card.written.load_kg,
        note: card.written.note.clone(),
        variant: card.written.variant.clone().or_else(|| candidate.kept.variant.clone()),
        // What the coach wrote on the card goes before what is remembered.
        set_up: candidate.kept.numbers.clone().into_iter().chain(card.written.set_up.clone()).collect(),
    }
}

/// A set with nothing of its own; its number is none.
fn usual_set(work: Work, reserve: u8) -> PlannedSet {
    let (reps, seconds) = match work {
        Work::Reps(range) => (Some(range), None),
        Work::Seconds(range) => (None, Some(range)),
    };
    PlannedSet { number: 0, reps, seconds, reserve, load_pct: 100, parts: Vec::new() }
}

/// The main target that matters most in this plan.
fn main_demand<'a>(problem: &'a PlanProblem, candidate: &Candidate) -> Option<&'a Demand> {
    let mains = candidate.targets.iter().filter(|(_, f)| *f >= 1.0).map(|(d, _)| &problem.demands[*d]);
    mains.max_by(|a, b| a.weight.total_cmp(&b.weight).then_with(|| b.region.cmp(&a.region)))
}

/// The region a card is there for.
pub(crate) fn main_region(problem: &PlanProblem, card: &Card) -> Option<RegionId> {
    let candidate = &problem.candidates[card.candidate];
    let main = main_demand(problem, candidate).map(|demand| demand.region.clone());
    main.or_else(|| candidate.exercise.targets.keys().next().cloned())
}

fn side_plan(candidate: &Candidate, card: &Card) -> SidePlan {
    match (candidate.one_sided, card.first(candidate)) {
        (false, _) => SidePlan::Both,
        (true, Side::Left) => SidePlan::LeftFirst,
        (true, Side::Right) => SidePlan::RightFirst,
    }
}

/// Sets on the way up to a loaded compound.
const RAMP: &str = "Ramp: 12 light, 10 to 12, then 8, before the work sets.";

/// Why two exercises stand in one place in turn.
pub(crate) fn why_in_turn(problem: &PlanProblem, turn: &InTurn) -> String {
    let demand = &problem.demands[turn.demand];
    let actions: Vec<String> = demand.actions.iter().map(|action| action.replace('-', " ")).collect();
    format!("{}: {} take turns from week to week.", demand.name, actions.join(" and "))
}

fn why(problem: &PlanProblem, candidate: &Candidate, demand: Option<&Demand>, position: usize) -> Vec<String> {
    let mut reasons = Vec::new();
    if let Some(demand) = demand {
        reasons.push(match demand.class {
            Class::BringUp => format!("{} is being brought up and is the main target here.", demand.name),
            Class::Grow => format!("{} is trained for growth and is the main target here.", demand.name),
            Class::Keep | Class::HoldBack => format!("Keeps {} where it is.", lower_first(&demand.name)),
        });
        if candidate.exercise.loads_stretched(&demand.region) {
            reasons.push(stretched_reason(candidate));
        }
        reasons.extend(side_reasons(candidate, demand));
        if demand.class == Class::BringUp && position == 0 {
            reasons.push("First in the session, while the client is fresh.".to_owned());
        }
    }
    if slot(problem, candidate) == Slot::FreeHeavy {
        reasons.push("Before anything that tires the muscles holding the back.".to_owned());
    }
    if candidate.known {
        reasons.push("The client knows it.".to_owned());
    }
    reasons
}

fn stretched_reason(candidate: &Candidate) -> String {
    if candidate.exercise.hardest.contains(&Hardest::L) {
        "Loads the region hardest where it is stretched.".to_owned()
    } else {
        "Loads the region where it is stretched.".to_owned()
    }
}

fn side_reasons(candidate: &Candidate, demand: &Demand) -> Vec<String> {
    let mut reasons = Vec::new();
    if let (true, Some(side)) = (candidate.one_sided, demand.weaker) {
        reasons.push(format!("The {side} side is smaller, so it goes first and the other side matches it, no more."));
        if candidate.extra_sets_weaker > 0 {
            reasons.push(format!("One extra set for the {side} side while the difference is real."));
        }
    }
    reasons
}
