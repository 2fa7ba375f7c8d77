//! A solved week as sessions, a ledger, reasons, and what stood in the way.

use crate::blocked::{Blocked, blocked};
use crate::cost::cost;
use crate::order::{Slot, ordered, slot};
use crate::problem::{Candidate, Demand, PlanProblem};
use crate::timing::session_minutes;
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
}

/// Puts a week into words.
pub fn present(problem: &PlanProblem, week: &Week) -> Plan {
    let sessions: Vec<Session> = (0..week.session_count())
        .map(|s| session(problem, week, s))
        .filter(|session| !session.items.is_empty())
        .collect();
    let status = if sessions.is_empty() { Status::Infeasible } else { Status::Feasible };
    Plan {
        status,
        objective: cost(problem, week),
        sessions,
        ledger: (0..problem.demands.len()).map(|demand| ledger_row(problem, week, demand)).collect(),
        blocked: blocked(problem, week),
    }
}

fn session(problem: &PlanProblem, week: &Week, index: usize) -> Session {
    let items = ordered(problem, week.items(index).to_vec());
    let first_compound = items.iter().position(|(c, _)| problem.candidates[*c].exercise.effort == Effort::Compound);
    let items = items.iter().enumerate();
    let items = items.map(|(position, (candidate, sets))| {
        let ramp = first_compound == Some(position);
        item(problem, &problem.candidates[*candidate], *sets, position, ramp)
    });
    Session {
        day: problem.days[index],
        home: problem.home[index],
        minutes: session_minutes(problem, week.items(index)),
        items: items.collect(),
    }
}

fn item(problem: &PlanProblem, candidate: &Candidate, sets: u16, position: usize, ramp: bool) -> Item {
    let exercise = &candidate.exercise;
    let demand = main_demand(problem, candidate);
    Item {
        exercise: exercise.id.clone(),
        name: exercise.name.clone(),
        region: demand
            .map_or_else(|| exercise.targets.keys().next().cloned(), |d| Some(d.region.clone()))
            .unwrap_or_else(|| problem.demands[0].region.clone()),
        sets,
        work: exercise.work(),
        reserve: problem.reserve,
        rest_s: candidate.time.rest_s,
        sides: side_plan(candidate),
        extra_sets_weaker: candidate.extra_sets_weaker,
        warm_up: warm_up(candidate, position, ramp),
        cues: candidate.cues.clone(),
        why: why(problem, candidate, demand, position),
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
