//! Questions on which coaches disagree, each with a default, and what each answer changes.

use crate::exercise::{Effort, Exercise, Hardest};
use crate::lift::{Movement, Split};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{AnswerId, ExerciseId, RegionId, SchoolId};
use utoipa::ToSchema;

/// A practice setting that changes plans, cues or warnings.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct School {
    /// Key in the case file's `schools`.
    pub id: SchoolId,
    /// What it is about.
    pub about: SchoolAbout,
    /// The question.
    pub question: String,
    /// The option used when nothing is chosen.
    pub default: AnswerId,
    /// Why that is the default.
    pub reason: String,
    /// The answers.
    #[serde(rename = "option")]
    pub options: Vec<SchoolOption>,
}

/// What a question is about.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum SchoolAbout {
    /// How the week and its days are put together.
    Week,
    /// How sets are done.
    Sets,
    /// Which exercises are chosen.
    Choice,
    /// How they are done.
    Form,
    /// How a body is judged.
    Judging,
}

/// One answer, in words and in what it does to the computation.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(clippy::struct_excessive_bools, reason = "each is a line of a data file of its own")]
pub struct SchoolOption {
    /// Value in the case file.
    pub id: AnswerId,
    /// The answer in words.
    pub name: String,
    /// What it changes, in one sentence.
    pub effect: String,
    /// Sentences added to exercises.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub cues: Vec<SchoolCue>,
    /// Exercises that are not proposed.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub excludes: Vec<ExerciseId>,
    /// Families that rank higher among equals.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub prefers: Vec<String>,
    /// Hardest points that rank higher among equals.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub prefers_hardest: Vec<Hardest>,
    /// Whether exercises that hold the body rank higher among equals.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub prefers_supported: bool,
    /// Movements that a week need not have.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub drops: Vec<Movement>,
    /// How the body is shared out over the days.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub split: Option<Split>,
    /// Areas whose pain stands against it: then `instead` holds.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub not_with_pain: Vec<String>,
    /// Whether it is not for beginners: then `instead` holds.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub not_for_beginners: bool,
    /// The answer that holds where this one may not.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub instead: Option<AnswerId>,
    /// What exercises count for a region under it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub credits: Vec<SchoolCredit>,
    /// Repetitions under it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub ranges: Vec<SchoolRange>,
    /// How the sets of some exercises are done.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub schemes: Vec<SchoolScheme>,
    /// Rest after a set.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub rests: Vec<SchoolRest>,
    /// Regions or muscles whose exercises, where they allow it, are done one side at a time.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub in_turn: Vec<String>,
    /// Whether exercises that go well together are run in turns where a session has both.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub runs_pairs: bool,
    /// Whether exercises that differ in nothing but where they are hardest are one movement.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub one_per_plane: bool,
    /// Repetitions left in the last set of an exercise that may safely end so.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub last_reserve: Option<u8>,
    /// Factors on the look's weight, by region or muscle.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub region_weights: BTreeMap<String, f64>,
    /// Fewest sessions a week of a chosen region, by region or muscle.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub sessions_low: BTreeMap<String, u8>,
}

/// A sentence for the exercises it names: those that train one of the regions, belong to one of the families, or are of one
/// of the efforts; without any of these, for all.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SchoolCue {
    /// Region or muscle ids.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub regions: Vec<String>,
    /// Exercise families.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub families: Vec<String>,
    /// Exercise efforts.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub efforts: Vec<Effort>,
    /// The sentence.
    pub says: String,
}

/// What an exercise counts for a region in a coach's eyes.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SchoolCredit {
    /// Which exercises.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub exercises: Vec<ExerciseId>,
    /// Which families.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub families: Vec<String>,
    /// The region.
    pub region: RegionId,
    /// 1 main target, 0.5 clearly works, 0.25 works a little.
    pub fraction: f64,
}

/// In how many repetitions exercises for some regions are done.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SchoolRange {
    /// Region or muscle ids.
    pub regions: Vec<String>,
    /// Low and high.
    pub reps: [u16; 2],
}

/// How the sets of some exercises are done: those of one of the efforts that need one of the pieces of equipment; without
/// either, all that count repetitions.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SchoolScheme {
    /// Exercise efforts.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub efforts: Vec<Effort>,
    /// Equipment, each by its id or, ending in a colon, all of its kind: `machine:`.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub equipment: Vec<String>,
    /// The scheme.
    pub scheme: String,
}

/// How long is rested after a set of exercises of some efforts.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SchoolRest {
    /// Exercise efforts.
    pub efforts: Vec<Effort>,
    /// Rest, s.
    pub rest_s: u16,
}

/// Whether `key` names the region itself or its muscle.
pub(crate) fn names(key: &str, region: &RegionId) -> bool {
    key == region.as_str() || key == region.muscle()
}

/// The value under a region's own id, else under its muscle.
fn by_region<T: Copy>(map: &BTreeMap<String, T>, region: &RegionId) -> Option<T> {
    map.get(region.as_str()).or_else(|| map.get(region.muscle())).copied()
}

impl SchoolOption {
    /// Factor on the weight of a region; 1 when the option says nothing about it.
    pub fn weight_factor(&self, region: &RegionId) -> f64 {
        by_region(&self.region_weights, region).unwrap_or(1.0)
    }

    /// Fewest sessions a week of a chosen region, when the option says so.
    pub fn fewest_sessions(&self, region: &RegionId) -> Option<u8> {
        by_region(&self.sessions_low, region)
    }

    /// The sentences it adds to an exercise.
    pub fn cues_for<'a>(&'a self, exercise: &'a Exercise) -> impl Iterator<Item = &'a str> {
        self.cues.iter().filter(|cue| cue.is_for(exercise)).map(|cue| cue.says.as_str())
    }

    /// An exercise as it is in a coach's eyes who follows this answer.
    pub fn seen(&self, exercise: &mut Exercise) {
        for credit in &self.credits {
            if credit.exercises.contains(&exercise.id) || credit.families.contains(&exercise.family) {
                exercise.targets.insert(credit.region.clone(), credit.fraction);
            }
        }
        let trains = |key: &String| exercise.targets.iter().any(|(region, f)| *f >= 1.0 && names(key, region));
        let range = self.ranges.iter().find(|range| range.regions.iter().any(trains));
        if let (Some(range), true) = (range, exercise.reps.is_some() && exercise.effort != Effort::Compound) {
            exercise.reps = Some(range.reps);
        }
    }

    /// The scheme that an exercise is done in under it, when it says so. What is done for time, what is only lowered and
    /// compounds with nothing to load stay as they are.
    pub fn scheme_for(&self, exercise: &Exercise) -> Option<&str> {
        let loaded = exercise.effort != Effort::Compound || exercise.heavy();
        let counted = exercise.reps.is_some() && !exercise.eccentric && loaded;
        self.schemes.iter().find(|scheme| counted && scheme.is_for(exercise)).map(|scheme| scheme.scheme.as_str())
    }

    /// Whether an exercise that may be done either way is done one side at a time under it.
    pub fn in_turn(&self, exercise: &Exercise) -> bool {
        let trains = |key: &String| exercise.targets.iter().any(|(region, f)| *f >= 1.0 && names(key, region));
        self.in_turn.iter().any(trains)
    }

    /// Rest after a set of an exercise under it, when it says so, s.
    pub fn rest_for(&self, exercise: &Exercise) -> Option<u16> {
        self.rests.iter().find(|rest| rest.efforts.contains(&exercise.effort)).map(|rest| rest.rest_s)
    }

    /// Whether it ranks an exercise higher among equals.
    pub fn prefers(&self, exercise: &Exercise) -> bool {
        self.prefers.contains(&exercise.family)
            || exercise.hardest.iter().any(|at| self.prefers_hardest.contains(at))
            || (self.prefers_supported && exercise.stability == 2)
    }
}

impl SchoolScheme {
    fn is_for(&self, exercise: &Exercise) -> bool {
        let needs = |key: &String| {
            let fits = |item: &str| if key.ends_with(':') { item.starts_with(key.as_str()) } else { item == key };
            exercise.equipment.iter().any(|item| fits(item.as_str()))
        };
        (self.efforts.is_empty() || self.efforts.contains(&exercise.effort))
            && (self.equipment.is_empty() || self.equipment.iter().any(needs))
    }
}

impl SchoolCue {
    fn is_for(&self, exercise: &Exercise) -> bool {
        let everyone = self.regions.is_empty() && self.families.is_empty() && self.efforts.is_empty();
        let trains = |key: &String| exercise.targets.iter().any(|(region, f)| *f >= 1.0 && names(key, region));
        everyone
            || self.regions.iter().any(trains)
            || self.families.contains(&exercise.family)
            || self.efforts.contains(&exercise.effort)
    }
}
