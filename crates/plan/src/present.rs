//! A solved week as sessions, a ledger, reasons, and what stood in the way.

use crate::blocked::{Blocked, blocked};
use crate::cost::cost;
use crate::draft::{Card, Draft, Locks, given};
use crate::faults::{Broken, faults};
use crate::ladder::{Ladder, ladders};
use crate::order::{Slot, slot};
use crate::problem::{Candidate, Demand, PlanProblem};
use crate::progress::Progression;
use crate::timing::{card_minutes, cards_minutes};
use crate::week::Week;
use assess::Class;
use atlas::{Effort, Hardest, Work};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::{ExerciseId, RegionId, Side};
use utoipa::ToSchema;

/// How a plan stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum Status {
    /// Proven best.
    Optimal,
    /// Keeps every rule; not proven best.
    Feasible,
    /// No session could be filled.
    Infeasible,
}

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
    /// Side order.
    pub sides: SidePlan,
    /// Extra sets for the side that goes first.
    pub extra_sets_weaker: u16,
    /// How to warm up to it.
    pub warm_up: Option<String>,
    /// Sentences the coach's schools add to the exercise's own.
    pub cues: Vec<String>,
    /// Reasons, most important first.
    pub why: Vec<String>,
    /// Id of its set scheme.
    pub scheme: String,
    /// Whether solving leaves it as it is.
    pub locked: bool,
    /// What it takes, setting up included.
    pub minutes: f64,
    /// How it goes on from session to session.
    pub progression: Progression,
}

/// A day's work.
#[derive(Clone, Debug, PartialEq)]
pub struct Session {
    /// Weekday, Monday = 1.
    pub day: u8,
    /// Whether it is trained at home.
    pub home: bool,
    /// What it takes.
    pub minutes: f64,
    /// In order.
    pub items: Vec<Item>,
    /// For chosen regions that are not felt, in the first session that trains them.
    pub ladders: Vec<Ladder>,
}

/// A region's week.
#[derive(Clone, Debug, PartialEq)]
pub struct LedgerRow {
    /// The region.
    pub region: RegionId,
    /// Its class.
    pub class: Class,
    /// The band, fractional sets.
    pub low: f64,
    /// The aim.
    pub aim: f64,
    /// The upper end.
    pub high: f64,
    /// Sets as main target.
    pub direct: f64,
    /// Fractions of sets of other work.
    pub indirect: f64,
}

/// A week's plan.
#[derive(Clone, Debug, PartialEq)]
pub struct Plan {
    /// How it stands.
    pub status: Status,
    /// Its cost; lower is better.
    pub objective: f64,
    /// Days with work.
    pub sessions: Vec<Session>,
    /// Every region.
    pub ledger: Vec<LedgerRow>,
    /// What could not be met.
    pub blocked: Vec<Blocked>,
    /// Rules that the week breaks; none in a week that was solved.
    pub broken: Vec<Broken>,
}

/// Puts a solved week into words, ordered by the coach's school; days without work are left out.
pub fn present(problem: &PlanProblem, week: &Week) -> Plan {
    let mut plan = present_draft(problem, &Draft::of_week(problem, week, &Locks::default()));
    plan.sessions.retain(|session| !session.items.is_empty());
    plan
}

/// Puts a week as a coach has it into words, every day and in its order.
pub fn present_draft(problem: &PlanProblem, draft: &Draft) -> Plan {
    let week = draft.week(problem);
    let mut sessions: Vec<Session> = (0..draft.sessions.len()).map(|index| session(problem, draft, index)).collect();
    let mut taught: Vec<RegionId> = Vec::new();
    for session in &mut sessions {
        let trains = |ladder: &Ladder| session.items.iter().any(|item| item.region == ladder.region);
        session.ladders =
            ladders(problem, session.home).into_iter().filter(|l| trains(l) && !taught.contains(&l.region)).collect();
        taught.extend(session.ladders.iter().map(|ladder| ladder.region.clone()));
    }
    let status = if week.total_sets() == 0 { Status::Infeasible } else { Status::Feasible };
    Plan {
        status,
        objective: cost(problem, &week),
        sessions,
        ledger: (0..problem.demands.len()).map(|demand| draft_row(problem, draft, demand)).collect(),
        blocked: blocked(problem, &week),
        broken: faults(problem, draft),
    }
}

fn session(problem: &PlanProblem, draft: &Draft, index: usize) -> Session {
    let cards = &draft.sessions[index];
    let compound = |card: &Card| problem.candidates[card.candidate].exercise.effort == Effort::Compound;
    let first_compound = cards.iter().position(compound);
    let items = cards.iter().enumerate().map(|(position, card)| {
        let minutes = card_minutes(problem, card, position + 1 == cards.len());
        item(problem, card, position, first_compound == Some(position), minutes)
    });
    Session {
        day: problem.days[index],
        home: problem.home[index],
        minutes: cards_minutes(problem, cards),
        items: items.collect(),
        ladders: Vec::new(),
    }
}

fn item(problem: &PlanProblem, card: &Card, position: usize, ramp: bool, minutes: f64) -> Item {
    let candidate = &problem.candidates[card.candidate];
    let exercise = &candidate.exercise;
    let demand = main_demand(problem, candidate);
    let ramp = ramp && card.scheme.warm_up_sets == 0;
    Item {
        exercise: exercise.id.clone(),
        name: exercise.name.clone(),
        region: demand
            .map_or_else(|| exercise.targets.keys().next().cloned(), |d| Some(d.region.clone()))
            .unwrap_or_else(|| problem.demands[0].region.clone()),
        sets: card.sets,
        work: exercise.work(),
        reserve: problem.reserve,
        rest_s: candidate.time.rest_s,
        sides: side_plan(candidate),
        extra_sets_weaker: candidate.extra_sets_weaker,
        warm_up: warm_up(candidate, position, ramp),
        cues: candidate.cues.clone(),
        why: why(problem, candidate, demand, position),
        scheme: card.scheme.id.clone(),
        locked: card.locked,
        minutes,
        progression: Progression::of(candidate, problem.reserve),
    }
}

/// The main target that matters most in this plan.
fn main_demand<'a>(problem: &'a PlanProblem, candidate: &Candidate) -> Option<&'a Demand> {
    let mains = candidate.targets.iter().filter(|(_, f)| *f >= 1.0).map(|(d, _)| &problem.demands[*d]);
    mains.max_by(|a, b| a.weight.total_cmp(&b.weight).then_with(|| b.region.cmp(&a.region)))
}

fn side_plan(candidate: &Candidate) -> SidePlan {
    match (candidate.one_sided, candidate.first) {
        (false, _) => SidePlan::Both,
        (true, Side::Left) => SidePlan::LeftFirst,
        (true, Side::Right) => SidePlan::RightFirst,
    }
}

fn warm_up(candidate: &Candidate, position: usize, ramp: bool) -> Option<String> {
    let shoulder = candidate.exercise.loads_joint.iter().any(|joint| joint == "shoulder");
    match (ramp, position) {
        (true, _) => Some("Ramp: 12 light, 10 to 12, then 8, before the work sets.".to_owned()),
        (false, 0) if shoulder => {
            Some("Shoulder warm-up with 1 to 1.5 kg, then one light set to feel the region.".to_owned())
        }
        (false, 0) => Some("One or two light sets to feel the region before load.".to_owned()),
        _ => None,
    }
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

pub(crate) fn lower_first(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_lowercase().chain(letters).collect())
}

/// A region's week with what its cards' schemes count as.
fn draft_row(problem: &PlanProblem, draft: &Draft, index: usize) -> LedgerRow {
    let Demand { region, class, dose, .. } = &problem.demands[index];
    let (mut direct, mut indirect) = (0.0, 0.0);
    for card in draft.sessions.iter().flatten() {
        let (sets, main) = given(problem, card, region);
        *(if main { &mut direct } else { &mut indirect }) += sets;
    }
    LedgerRow { region: region.clone(), class: *class, low: dose.low, aim: dose.aim, high: dose.high, direct, indirect }
}

pub(crate) fn ledger_row(problem: &PlanProblem, week: &Week, index: usize) -> LedgerRow {
    let demand = &problem.demands[index];
    let (mut direct, mut indirect) = (0.0, 0.0);
    for (candidate, sets) in week.all_items() {
        let fraction = problem.candidates[candidate].fraction(index);
        *(if fraction >= 1.0 { &mut direct } else { &mut indirect }) += f64::from(sets) * fraction;
    }
    let Demand { region, class, dose, .. } = demand;
    LedgerRow { region: region.clone(), class: *class, low: dose.low, aim: dose.aim, high: dose.high, direct, indirect }
}
