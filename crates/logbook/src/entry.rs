//! One exercise of one session as it was written down.

use atlas::{Effort, Exercise, PartKind};
use jiff::civil::Date;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{ExerciseId, Load, PlanId, Side};
use utoipa::ToSchema;

/// Bounds of what is told by feel: sleep and soreness, 1 to 5.
pub const SCALE: [u8; 2] = [1, 5];

/// Which session of which plan.
#[derive(Clone, Debug, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct SessionKey {
    /// The plan as it was given.
    pub plan_id: PlanId,
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
#[allow(clippy::large_enum_variant, reason = "nearly all parts are exercises: a box would cost more than it saves")]
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
    /// What spoiled the form, as reported.
    pub form: Vec<Form>,
    /// The variant it was done in, where it was not as planned.
    pub variant: Option<String>,
    /// How the station was set, number by name.
    pub set_up: BTreeMap<String, f64>,
    /// A line to the coach.
    pub note: Option<String>,
}

/// What spoils a set: each holds the load until it is gone.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Form {
    /// Thrown rather than lifted.
    Swung,
    /// The shoulders went up to the ears.
    Shrugged,
    /// The elbows sank out of their path.
    ElbowsDropped,
    /// The blades drew together where they should stay apart.
    BladesSqueezed,
    /// The lower back took over.
    LowerBack,
    /// Not the whole range.
    CutShort,
    /// Somebody helped.
    Helped,
}

impl Form {
    /// All, in the order in which they are offered.
    pub const ALL: [Self; 7] = [
        Self::Swung,
        Self::CutShort,
        Self::Shrugged,
        Self::ElbowsDropped,
        Self::BladesSqueezed,
        Self::LowerBack,
        Self::Helped,
    ];

    /// Whether it can happen to an exercise: shoulders rise, elbows sink and blades draw together only where the arms are
    /// loaded, the back takes over only where it is not held (common practice, no source).
    pub fn fits(self, exercise: &Exercise) -> bool {
        let trains = |muscles: &[&str]| exercise.targets.keys().any(|region| muscles.contains(&region.muscle()));
        match self {
            Self::Swung | Self::CutShort | Self::Helped => true,
            Self::Shrugged => trains(&["delts", "traps", "chest", "lats", "rhomboids"]),
            Self::ElbowsDropped => trains(&["delts", "chest"]) || trains(&["triceps"]),
            Self::BladesSqueezed => exercise.targets.keys().any(|region| region.as_str() == "delts.posterior"),
            Self::LowerBack => exercise.stability < 2 && exercise.effort != Effort::Small,
        }
    }

    /// In words, within a sentence.
    pub fn says(self) -> &'static str {
        match self {
            Self::Swung => "swung",
            Self::Shrugged => "shrugged",
            Self::ElbowsDropped => "elbows dropped",
            Self::BladesSqueezed => "blades squeezed",
            Self::LowerBack => "the lower back took over",
            Self::CutShort => "cut short",
            Self::Helped => "helped",
        }
    }
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
#[derive(Clone, Debug, PartialEq)]
pub struct LoggedSet {
    /// From 1; both sides of a set share its number.
    pub number: u8,
    /// The side, when one at a time.
    pub side: Option<Side>,
    /// The load beside the body's own, or help; none when neither.
    pub load: Option<Load>,
    /// How much of it.
    pub count: Count,
    /// Repetitions left, when said.
    pub reserve: Option<u8>,
    /// What followed straight on it.
    pub parts: Vec<LoggedPart>,
}

/// What followed straight on a set.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct LoggedPart {
    /// Which.
    pub kind: PartKind,
    /// With how much.
    pub load: Option<Load>,
    /// How much of it.
    pub count: Count,
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
    /// Whether it was made a lighter one on the day.
    pub lighter: bool,
    /// A line to the coach.
    pub note: Option<String>,
}

#[cfg(test)]
mod tests {
    use super::*;
    use atlas::Atlas;
    use rstest::rstest;

    // Common practice, no source.
    #[rstest]
    #[case::a_reverse_fly("one-arm-reverse-fly", Form::BladesSqueezed, true)]
    #[case::a_curl_squeezes_no_blades("db-curl", Form::BladesSqueezed, false)]
    #[case::a_side_raise("db-side-raise", Form::Shrugged, true)]
    #[case::the_back_is_held("leg-extension", Form::LowerBack, false)]
    #[case::anything_is_swung("db-curl", Form::Swung, true)]
    fn what_is_offered_to_report_can_happen(#[case] exercise: &str, #[case] form: Form, #[case] expected: bool) {
        let atlas = Atlas::load().unwrap();
        assert_eq!(form.fits(atlas.exercise(&exercise.parse().unwrap()).unwrap()), expected);
    }
}
