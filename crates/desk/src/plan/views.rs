//! What is asked and answered of weeks: under work, their alternatives, what was proven, what was given.

use casefile::{PlanFile, WeekDraft};
use plan::{Alternative, NotFor, Proof, Swaps};
use serde::{Deserialize, Serialize};
use store::IssuedRecord;
use units::{ClientId, ExerciseId, PlanId, RegionId, RoundId};
use utoipa::ToSchema;

/// A round's week: as kept, as it was given, or as the planner has it.
#[derive(Serialize, ToSchema)]
pub struct PlanView {
    /// Whose it is.
    pub client_name: String,
    /// The day of the round.
    pub date: String,
    /// Minutes a session in the brief.
    pub brief_minutes: u16,
    /// Days a week in the brief.
    pub brief_days: u8,
    /// Why it stays a draft, when it may not be given to the client.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub draft_because: Option<String>,
    /// The doctor's or physiotherapist's limits, in the coach's words.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub clearance: Option<String>,
    /// Regions chosen now.
    pub bring_up: Vec<String>,
    /// Whether other regions were chosen when the week was solved.
    pub choices_changed: bool,
    /// The revision of the kept week; 0 while none is.
    pub revision: i32,
    /// The week.
    pub week: WeekDraft,
    /// The week in words.
    pub plan: PlanFile,
    /// What the client was given, newest first: the first is what they have.
    pub issued: Vec<IssuedSummary>,
    /// Whether the client has exactly this week.
    pub is_issued: bool,
}

/// A week to be kept.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SavePlan {
    /// The revision it was read at.
    pub revision: i32,
    /// The week.
    pub week: WeekDraft,
}

/// A week to be solved anew.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SolvePlan {
    /// Days a week; those of the week when left out.
    #[serde(default)]
    pub days: Option<u8>,
    /// The week with its locked cards.
    pub week: WeekDraft,
    /// The start of the random numbers: another one may find another week.
    #[serde(default)]
    pub seed: Option<u32>,
}

/// A solved week.
#[derive(Serialize, ToSchema)]
pub struct SolvedPlan {
    /// The week.
    pub week: WeekDraft,
    /// Locked cards that had to go, since their day is no longer there.
    pub dropped: Vec<String>,
}

/// A card for which something else is sought.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AskSwaps {
    /// The week.
    pub week: WeekDraft,
    /// Place of the day in the week, from 0.
    pub session: usize,
    /// Place of the card in the day, from 0.
    pub place: usize,
}

/// What could stand in a card's place.
#[derive(Serialize, ToSchema)]
pub struct SwapsView {
    /// The region the card is there for.
    pub region: RegionId,
    /// Best first.
    pub alternatives: Vec<Alternative>,
    /// What is not for this client.
    pub refused: Vec<RefusedView>,
}

/// An exercise that is not for this client.
#[derive(Serialize, ToSchema)]
pub struct RefusedView {
    /// Which.
    pub exercise: ExerciseId,
    /// Its name.
    pub name: String,
    /// The rule in the way.
    pub because: String,
}

/// What may be added to a week: everything but this.
#[derive(Serialize, ToSchema)]
pub struct AddableView {
    /// What is not for this client, with the reason.
    pub refused: Vec<RefusedView>,
}

impl From<Swaps> for SwapsView {
    fn from(swaps: Swaps) -> Self {
        Self {
            region: swaps.region,
            alternatives: swaps.alternatives,
            refused: swaps.refused.into_iter().map(RefusedView::from).collect(),
        }
    }
}

impl From<NotFor> for RefusedView {
    fn from(refused: NotFor) -> Self {
        Self { exercise: refused.exercise, name: refused.name, because: refused.refusal.to_string() }
    }
}

/// How far a proof has come.
#[derive(Serialize, ToSchema)]
pub struct ProofView {
    /// No week costs less.
    pub bound: f64,
    /// What this week costs.
    pub objective: f64,
    /// How far it may be from the best possible, relative.
    pub gap: f64,
    /// Whether more work would prove no more.
    pub finished: bool,
    /// Time spent, s.
    pub seconds: f64,
}

impl ProofView {
    pub(super) fn of(proof: &Proof, seconds: f64) -> Self {
        Self { bound: proof.bound, objective: proof.objective, gap: proof.gap(), finished: proof.finished, seconds }
    }
}

/// A plan to be given.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct IssuePlan {
    /// The revision of the week that is meant.
    pub revision: i32,
    /// Any day of its first week.
    pub starts_on: String,
}

/// What a client was given.
#[derive(Serialize, ToSchema)]
pub struct IssuedSummary {
    /// Random id.
    pub id: PlanId,
    /// From 1, over all rounds of the client.
    pub version: i32,
    /// The day it was given.
    pub issued_on: String,
    /// Monday of its first week.
    pub starts_on: String,
    /// Who gave it.
    pub issued_by: String,
    /// The round it was made in.
    pub round_id: RoundId,
}

impl From<&IssuedRecord> for IssuedSummary {
    fn from(record: &IssuedRecord) -> Self {
        Self {
            id: record.id.clone(),
            version: record.version,
            issued_on: record.issued_on.to_string(),
            starts_on: record.starts_on.to_string(),
            issued_by: record.issued_by.clone(),
            round_id: record.round_id.clone(),
        }
    }
}

/// A plan a client was given, whole.
#[derive(Serialize, ToSchema)]
pub struct IssuedView {
    /// Which.
    #[serde(flatten)]
    pub summary: IssuedSummary,
    /// Whose it is.
    pub client_name: String,
    /// The week as the coach had it.
    pub week: WeekDraft,
    /// The week in words.
    pub plan: PlanFile,
}

/// Weeks that can be taken for a client.
#[derive(Serialize, ToSchema)]
pub struct WeeksView {
    /// Kept by the practice, by name.
    pub kept: Vec<KeptWeek>,
    /// The newest plan of each client, by name.
    pub others: Vec<OthersWeek>,
}

/// A week the practice keeps.
#[derive(Serialize, ToSchema)]
pub struct KeptWeek {
    /// Its id.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Days with something in them.
    pub days: usize,
    /// Minutes a session.
    pub minutes: u16,
    /// Who kept it.
    pub saved_by: String,
    /// When.
    pub saved_on: String,
}

/// The newest plan of a client.
#[derive(Serialize, ToSchema)]
pub struct OthersWeek {
    /// Whose.
    pub client_id: ClientId,
    /// Display name.
    pub client_name: String,
    /// The plan's id.
    pub plan: PlanId,
    /// Monday of its first week.
    pub starts_on: String,
    /// Days with something in them.
    pub days: usize,
    /// Minutes a session.
    pub minutes: u16,
}

/// A week to be kept under a name.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KeepWeek {
    /// One line.
    pub name: String,
    /// The week.
    pub week: WeekDraft,
    /// Whether it takes the place of one that is called so.
    #[serde(default)]
    pub replace: bool,
}

/// A week to be taken for a client.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CopyWeek {
    /// Whence.
    pub from: WeekSource,
}

/// Where a week is taken from.
#[derive(Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum WeekSource {
    /// A week the practice keeps, by id.
    Kept(String),
    /// A plan somebody was given, by id.
    Plan(PlanId),
}

/// A week as the client can train it.
#[derive(Serialize, ToSchema)]
pub struct CopiedWeek {
    /// The week.
    pub week: WeekDraft,
    /// What could not stay as it was, in order.
    pub replaced: Vec<ReplacedView>,
}

/// A card that could not stay as it was.
#[derive(Serialize, ToSchema)]
pub struct ReplacedView {
    /// Weekday, Monday = 1.
    pub day: u8,
    /// The exercise's name.
    pub name: String,
    /// What is in its way.
    pub because: String,
    /// What stands in its place; nothing when it was left out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub instead: Option<String>,
}
