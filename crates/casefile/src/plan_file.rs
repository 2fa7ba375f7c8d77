//! The plan file (`orthomer-plan`, version 1).

use assess::Class;
use atlas::Work;
use plan::{Item, Plan, Session, SidePlan, Status};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::{ExerciseId, RegionId};
use utoipa::ToSchema;

/// A week's plan.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct PlanFile {
    /// `orthomer-plan`.
    pub format: String,
    /// 1.
    pub version: u32,
    /// How it stands.
    pub status: Status,
    /// Its cost; lower is better.
    pub objective: f64,
    /// A proven lower bound, null while none is.
    pub bound: Option<f64>,
    /// Relative distance from the bound, null while none is.
    pub gap: Option<f64>,
    /// Time spent, ms.
    pub solve_ms: f64,
    /// Days with work.
    pub sessions: Vec<SessionEntry>,
    /// Every region.
    pub ledger: Vec<LedgerEntry>,
    /// What could not be met.
    pub blocked: Vec<BlockedEntry>,
}

/// A day's work.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct SessionEntry {
    /// Weekday, Monday = 1.
    pub day: u8,
    /// Whether it is trained at home.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub home: bool,
    /// What it takes.
    pub minutes: f64,
    /// In order.
    pub items: Vec<ItemEntry>,
}

/// An exercise in a session.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct ItemEntry {
    /// The exercise.
    pub exercise: ExerciseId,
    /// Its name.
    pub name: String,
    /// The region it is there for.
    pub region: RegionId,
    /// Sets.
    pub sets: u16,
    /// Repetitions, low and high.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reps: Option<[u16; 2]>,
    /// Seconds, low and high, where repetitions are not counted.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seconds: Option<[u16; 2]>,
    /// Repetitions in reserve.
    pub reserve: u8,
    /// Rest after a set, s.
    pub rest_s: u16,
    /// Set scheme.
    pub scheme: String,
    /// Place in the session, from 1.
    pub order: usize,
    /// Side order.
    pub sides: SidePlan,
    /// Extra sets for the side that goes first.
    pub extra_sets_weaker: u16,
    /// How to warm up to it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub warm_up: Option<String>,
    /// Sentences the coach's schools add to the exercise's own.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub cues: Vec<String>,
    /// Reasons.
    pub why: Vec<String>,
}

/// A region's week, fractional sets.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct LedgerEntry {
    /// The region.
    pub region: RegionId,
    /// Its class.
    pub class: Class,
    /// Too little below this.
    pub low: f64,
    /// Wanted.
    pub aim: f64,
    /// Too much above this.
    pub high: f64,
    /// As main target.
    pub direct: f64,
    /// From other work.
    pub indirect: f64,
    /// Both.
    pub total: f64,
}

/// A demand that could not be met.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct BlockedEntry {
    /// What was wanted.
    pub demand: String,
    /// The rule in the way.
    pub rule: String,
    /// The nearest possible thing.
    pub nearest: String,
}

/// The file of a plan. `solve_ms` is the time it took, which the core does not know.
pub fn plan_file(plan: &Plan, solve_ms: f64) -> PlanFile {
    let ledger = plan.ledger.iter().map(|row| LedgerEntry {
        region: row.region.clone(),
        class: row.class,
        low: row.low,
        aim: row.aim,
        high: row.high,
        direct: row.direct,
        indirect: row.indirect,
        total: row.direct + row.indirect,
    });
    let blocked = plan.blocked.iter().map(|b| BlockedEntry {
        demand: b.demand.clone(),
        rule: b.rule.clone(),
        nearest: b.nearest.clone(),
    });
    PlanFile {
        format: "orthomer-plan".to_owned(),
        version: 1,
        status: plan.status,
        objective: plan.objective,
        bound: None,
        gap: None,
        solve_ms,
        sessions: plan.sessions.iter().map(session).collect(),
        ledger: ledger.collect(),
        blocked: blocked.collect(),
    }
}

fn session(session: &Session) -> SessionEntry {
    SessionEntry {
        day: session.day,
        home: session.home,
        minutes: session.minutes,
        items: session.items.iter().enumerate().map(|(position, i)| item(position, i)).collect(),
    }
}

fn item(position: usize, item: &Item) -> ItemEntry {
    let (reps, seconds) = match item.work {
        Work::Reps(range) => (Some(range), None),
        Work::Seconds(range) => (None, Some(range)),
    };
    ItemEntry {
        exercise: item.exercise.clone(),
        name: item.name.clone(),
        region: item.region.clone(),
        sets: item.sets,
        reps,
        seconds,
        reserve: item.reserve,
        rest_s: item.rest_s,
        scheme: "straight".to_owned(),
        order: position + 1,
        sides: item.sides,
        extra_sets_weaker: item.extra_sets_weaker,
        warm_up: item.warm_up.clone(),
        cues: item.cues.clone(),
        why: item.why.clone(),
    }
}
