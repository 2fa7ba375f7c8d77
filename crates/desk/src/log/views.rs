//! What is asked and answered of the log: as it is seen on a phone: this week's sessions, what to do today, what was done last time, what was written down.

use atlas::{SetUpField, Variant};
use casefile::{BlockWeekEntry, ItemEntry, LadderEntry, LogEntry, LogSet};
use logbook::{AlarmKind, Form, LighterToday, Overrule, TargetKind};
use plan::{Step, WarmUpEntry};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use store::{Kept, LogRecord};
use units::{ClientId, ExerciseId, Measures, PlanId};
use utoipa::ToSchema;

/// A client's week, as coach and client log it.
#[derive(Clone, Serialize, ToSchema)]
pub struct TrainingView {
    /// Whose it is.
    pub client_id: ClientId,
    /// Display name.
    pub client_name: String,
    /// Today where the studio is.
    pub today: String,
    /// The plan the client has.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub plan: Option<PlanInHand>,
    /// Why there is nothing to do, or what to know about this week.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
    /// The sessions of this week, in order.
    pub sessions: Vec<TrainingSession>,
    /// When a lighter session is offered on the day.
    pub lighter_today: LighterToday,
    /// Where pain may sit.
    pub areas: Vec<String>,
    /// Units in which the client reads and logs; every number here is metric.
    pub measures: Measures,
}

/// The plan a client has.
#[derive(Clone, Serialize, ToSchema)]
pub struct PlanInHand {
    /// Random id.
    pub id: PlanId,
    /// Counts over all plans of the client.
    pub version: i32,
    /// Monday of its first week.
    pub starts_on: String,
    /// Weeks of its block.
    pub weeks: u8,
    /// This week, from 1; past the block it runs on.
    pub week: u8,
}

/// How far a session has come.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum SessionState {
    /// Its day lies ahead.
    Ahead,
    /// Its day is today, or past within this week.
    Due,
    /// Something was logged.
    Begun,
    /// It was finished.
    Finished,
}

/// A session of this week.
#[derive(Clone, Serialize, ToSchema)]
pub struct TrainingSession {
    /// Week since the plan's first, from 1.
    pub week: u8,
    /// Weekday, Monday = 1.
    pub day: u8,
    /// The day it is planned for.
    pub on: String,
    /// Whether it is trained at home.
    pub home: bool,
    /// Whether it is a lighter week.
    pub lighter: bool,
    /// What it takes.
    pub minutes: f64,
    /// How far it has come.
    pub state: SessionState,
    /// For regions that are not felt, before the first exercise.
    pub ladders: Vec<LadderEntry>,
    /// Exercises in order.
    pub items: Vec<TrainingItem>,
    /// What comes before and after the work.
    pub warm_up: WarmUpEntry,
    /// Set by set as it is run, with the rest after each.
    pub run: Vec<Step>,
    /// What was written of the session as a whole; more than one stand side by side.
    pub entries: Vec<LogEntryView>,
}

/// An exercise of a session.
#[derive(Clone, Serialize, ToSchema)]
pub struct TrainingItem {
    /// As planned, with this week's sets.
    pub item: ItemEntry,
    /// How to get into position.
    pub set_up: String,
    /// What to say.
    pub cues: Vec<String>,
    /// What to watch.
    pub faults: Vec<String>,
    /// What to take care of.
    pub cautions: Vec<String>,
    /// What may be reported of its form.
    pub forms: Vec<FormChoice>,
    /// Its grips, paths, stations and other kit.
    pub variants: Vec<Variant>,
    /// The numbers by which its station is set, those set now first.
    pub set_up_fields: Vec<SetUpField>,
    /// What its set scheme is called.
    pub scheme_name: String,
    /// Whether help can take weight off it.
    pub assistable: bool,
    /// Sets of it when the day is made a lighter one.
    pub lighter_sets: u16,
    /// Joints that carry notable load.
    pub loads_joint: Vec<String>,
    /// How its set scheme is done.
    pub scheme_how: String,
    /// A time a set is held to by its scheme, s.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub scheme_set_s: Option<f64>,
    /// What to do today.
    pub target: TargetView,
    /// What was done last time.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub last: Option<LastTime>,
    /// What could be done instead, best first.
    pub instead: Vec<InsteadView>,
    /// What was written of it; more than one stand side by side.
    pub entries: Vec<LogEntryView>,
    /// Where it may be felt: its own regions, then what tends to take over.
    pub feels: Vec<FeelChoice>,
}

/// A place where an exercise may be felt.
#[derive(Clone, Serialize, ToSchema)]
pub struct FeelChoice {
    /// A region, a joint or `nowhere`.
    pub id: String,
    /// In words.
    pub name: String,
}

/// Something that spoils a set.
#[derive(Clone, Serialize, ToSchema)]
pub struct FormChoice {
    /// Which.
    pub form: Form,
    /// In words.
    pub says: String,
}

/// What to do today.
#[derive(Clone, Serialize, ToSchema)]
pub struct TargetView {
    /// What goes up or down.
    pub kind: TargetKind,
    /// The load, kg.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub load_kg: Option<f64>,
    /// The load set by set, kg, where sets differ.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub loads_kg: Vec<f64>,
    /// A step without a weight of its own, in words.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub step: Option<String>,
    /// Repetitions or seconds, set by set.
    pub counts: Vec<u16>,
    /// Why.
    pub why: String,
    /// Why a swap is offered.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub swap: Option<String>,
    /// Why something should be changed: it stands still.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub stall: Option<String>,
}

/// What was done last time.
#[derive(Clone, Serialize, ToSchema)]
pub struct LastTime {
    /// The day.
    pub on: String,
    /// Sets.
    pub sets: Vec<LogSet>,
    /// Where it was felt.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub felt: Option<String>,
    /// What spoiled its form, in words.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub form: Vec<String>,
    /// Pain, 0 to 10.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub pain: Option<u8>,
}

/// What could be done instead.
#[derive(Clone, Serialize, ToSchema)]
pub struct InsteadView {
    /// Which.
    pub exercise: ExerciseId,
    /// Its name.
    pub name: String,
    /// How to get into position.
    pub set_up: String,
    /// Whether it is counted in seconds.
    pub seconds: bool,
    /// Joints that carry notable load: not offered where one of them hurts.
    pub loads_joint: Vec<String>,
}

/// An entry with who wrote it and when.
#[derive(Clone, Serialize, ToSchema)]
pub struct LogEntryView {
    /// The entry.
    pub entry: LogEntry,
    /// Who wrote it.
    pub written_by: String,
    /// When, put right.
    pub written_at: String,
}

impl From<&LogRecord> for LogEntryView {
    fn from(record: &LogRecord) -> Self {
        Self {
            entry: record.entry.clone(),
            written_by: record.written_by.clone(),
            written_at: record.written_at.to_string(),
        }
    }
}

/// Entries from a device.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SendEntries {
    /// Now by the device's clock, RFC 3339.
    pub sent_at: String,
    /// What it has, in the order written.
    pub entries: Vec<LogEntry>,
}

/// What became of them.
#[derive(Debug, Serialize, ToSchema)]
pub struct SentEntries {
    /// One by one, in the order sent.
    pub outcomes: Vec<EntryOutcome>,
    /// How far the device's clock is ahead, s; 0 when it is right.
    pub clock_ahead_s: i64,
}

/// What became of an entry.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum EntryFate {
    /// Kept.
    Kept,
    /// Kept; another version stands beside it.
    Beside,
    /// It was here already.
    Known,
    /// It cannot be kept.
    Refused,
}

/// What became of an entry.
#[derive(Debug, Serialize, ToSchema)]
pub struct EntryOutcome {
    /// Its id.
    pub id: String,
    /// What became of it.
    pub fate: EntryFate,
    /// Why it cannot be kept, or what it says at once.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub says: Option<String>,
    /// How pressing that is, when something hurts.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub alarm: Option<AlarmKind>,
}

impl EntryOutcome {
    pub(super) fn of(id: String, kept: Kept) -> Self {
        let (fate, says) = match kept {
            Kept::New => (EntryFate::Kept, None),
            Kept::Beside => (EntryFate::Beside, None),
            Kept::Known => (EntryFate::Known, None),
            Kept::Refused(why) => (EntryFate::Refused, Some(why)),
        };
        Self { id, fate, says, alarm: None }
    }
}

/// What is done next time instead of what the rules say.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveTarget {
    /// What; nothing takes it back.
    #[serde(default)]
    pub overrule: Option<Overrule>,
}

/// The log of a round's plan as a coach looks at it.
#[derive(Serialize, ToSchema)]
pub struct LogPage {
    /// This week.
    pub now: TrainingView,
    /// Sessions logged in the last twelve weeks.
    pub sessions: u32,
    /// The newest of them, and those in which something stands side by side.
    pub done: Vec<DoneSession>,
    /// Why the next week should be a lighter one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lighten: Option<String>,
    /// The block.
    pub weeks: Vec<BlockWeekEntry>,
}

/// A session as it was done.
#[derive(Serialize, ToSchema)]
pub struct DoneSession {
    /// The plan's version.
    pub version: i32,
    /// Week since the plan's first.
    pub week: u8,
    /// Weekday it was planned for.
    pub day: u8,
    /// The day it was trained.
    pub on: String,
    /// Whether it was finished.
    pub finished: bool,
    /// Exercises in the order done.
    pub exercises: Vec<LogEntryView>,
    /// What was written of it as a whole; more than one stand side by side.
    pub whole: Vec<LogEntryView>,
    /// Parts of it that stand side by side.
    pub conflicts: u32,
    /// The night before, 1 to 5.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub sleep: Option<u8>,
    /// Soreness, 1 to 5.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub soreness: Option<u8>,
    /// A line to the coach.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
}

/// What was reported of a client's form.
#[derive(Serialize, ToSchema)]
pub struct ReportedView {
    /// By exercise, as of the last time it was done; exercises of which nothing was reported are left out.
    pub reported: BTreeMap<ExerciseId, Vec<String>>,
}
