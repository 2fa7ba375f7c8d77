//! One exercise of one session as it was written down.

use jiff::civil::Date;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::{ExerciseId, Mass, Side};
use utoipa::ToSchema;

/// Bounds of what is told by feel: sleep and soreness, 1 to 5.
pub const SCALE: [u8; 2] = [1, 5];

/// Which session of which plan.
#[derive(Clone, Debug, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct SessionKey {
    /// The plan as it was given.
    pub plan_id: String,
    /// Week of the block, from 1.
    pub week: u8,
    /// The session's planned weekday, Monday = 1.
    pub day: u8,
}

/// What somebody wrote down, once.
#[derive(Clone, Debug, PartialEq)]
pub struct Entry {
    /// Made by the device that wrote it (UUID), so that sending it twice makes no double.
    pub id: String,
    /// Earlier versions of the same part that its writer had in sight.
    pub follows: Vec<String>,
    /// The session.
    pub session: SessionKey,
    /// The day it was trained.
    pub trained_on: Date,
    /// The part of the session it speaks of.
    pub part: Part,
}

impl Entry {
    /// What versions of one part have in common: the planned exercise, or the session itself.
    pub fn slot(&self) -> (&SessionKey, Option<&ExerciseId>) {
        let exercise = match &self.part {
            Part::Exercise(log) => Some(&log.exercise),
            Part::Session(_) => None,
        };
        (&self.session, exercise)
    }
}

/// A part of a session.
#[derive(Clone, Debug, PartialEq)]
pub enum Part {
    /// One exercise.
    Exercise(ExerciseLog),
    /// The session as a whole.
    Session(SessionLog),
}

/// An exercise as it was done.
#[derive(Clone, Debug, PartialEq)]
pub struct ExerciseLog {
    /// What was planned.
    pub exercise: ExerciseId,
    /// What was done instead, when it was swapped.
    pub instead: Option<ExerciseId>,
    /// Its place in the session, from 1.
    pub position: u8,
    /// The set scheme's id.
    pub scheme: String,
    /// Sets in the order done.
    pub sets: Vec<LoggedSet>,
    /// A region, a joint, or `nowhere`, when asked.
    pub felt: Option<String>,
    /// Pain during it.
    pub pain: Option<ExercisePain>,
    /// A line to the coach.
    pub note: Option<String>,
}

impl ExerciseLog {
    /// What was really done.
    pub fn done(&self) -> &ExerciseId {
        self.instead.as_ref().unwrap_or(&self.exercise)
    }

    /// Whether each side was trained on its own.
    pub fn one_sided(&self) -> bool {
        self.sets.iter().any(|set| set.side.is_some())
    }
}

/// One set, of one side or both.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct LoggedSet {
    /// From 1; both sides of a set share its number.
    pub number: u8,
    /// The side, when one at a time.
    pub side: Option<Side>,
    /// The load beside the body's own; none when nothing is held.
    pub load: Option<Mass>,
    /// How much of it.
    pub count: Count,
    /// Repetitions left, when said.
    pub reserve: Option<u8>,
}

/// How a set is counted.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Count {
    /// Repetitions.
    Reps(u16),
    /// Seconds under tension.
    Seconds(u16),
}

impl Count {
    /// The number, whatever its unit.
    pub fn number(self) -> u16 {
        match self {
            Self::Reps(number) | Self::Seconds(number) => number,
        }
    }
}

/// Signs that a doctor or physiotherapist should look at first.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum RedFlag {
    /// Sharp, not dull.
    SharpPain,
    /// Numbness or tingling.
    Numbness,
    /// Swelling.
    Swelling,
    /// It hurts at night.
    NightPain,
    /// One side is suddenly without strength.
    LossOfStrength,
}

impl RedFlag {
    /// In words, within a sentence.
    pub fn says(self) -> &'static str {
        match self {
            Self::SharpPain => "sharp pain",
            Self::Numbness => "numbness",
            Self::Swelling => "swelling",
            Self::NightPain => "pain at night",
            Self::LossOfStrength => "loss of strength on one side",
        }
    }
}

/// Pain during an exercise.
#[derive(Clone, Debug, PartialEq)]
pub struct ExercisePain {
    /// The joint or area, as in the brief.
    pub area: String,
    /// The painful side, when it has one.
    pub side: Option<Side>,
    /// 0 none to 10 worst.
    pub level: u8,
    /// What else was noticed.
    pub red_flags: Vec<RedFlag>,
    /// The exercise that hurt, when another was done instead of it.
    pub during: Option<ExerciseId>,
}

/// A session as a whole.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct SessionLog {
    /// Whether nothing more is to come.
    pub finished: bool,
    /// The night before, 1 bad to 5 good.
    pub sleep: Option<u8>,
    /// Soreness on coming in, 1 none to 5 very sore.
    pub soreness: Option<u8>,
    /// A line to the coach.
    pub note: Option<String>,
}
