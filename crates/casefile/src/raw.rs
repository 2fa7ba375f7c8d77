//! The case file as it stands on disk (`orthomer-case`, version 1).

use crate::problem::Problem;
use assess::{Experience, GirthFrom, Hand, KeptSetUp, Pain, PhotoPurpose, Screens, Sex, Shared, Standing};
use atlas::Exercise;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{Measures, Place, Segment, Side, Sides};
use utoipa::ToSchema;

/// Everything about one client up to a day.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct CaseFile {
    /// `orthomer-case`.
    pub format: String,
    /// 1.
    pub version: u32,
    /// The day the case is looked at, `YYYY-MM-DD`.
    pub as_of: String,
    /// The client.
    pub client: ClientEntry,
    /// Rounds of assessment.
    #[serde(default)]
    pub rounds: Vec<RoundEntry>,
    /// Past training.
    #[serde(default)]
    pub training: Vec<TrainingRow>,
    /// The coach's choices.
    #[serde(default)]
    pub choices: ChoicesEntry,
    /// How the client's stations are set, by exercise.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub set_ups: BTreeMap<String, KeptSetUp>,
    /// What the practice sets differently from what ships.
    #[serde(default, skip_serializing_if = "PracticeEntry::is_shipped")]
    pub practice: PracticeEntry,
}

/// What a practice sets for all its clients; what is not named keeps its shipped value.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct PracticeEntry {
    /// Answers to schools.
    pub schools: BTreeMap<String, String>,
    /// Numbers of the evidence model by id, such as `observation_sd.tape_bulk`.
    pub numbers: BTreeMap<String, f64>,
    /// Shares of a girth by region, whole rows; each adds to 1.
    pub composition: BTreeMap<String, BTreeMap<String, f64>>,
    /// The practice's own exercises, in the shape of the catalogue.
    pub exercises: Vec<Exercise>,
}

impl PracticeEntry {
    fn is_shipped(&self) -> bool {
        *self == Self::default()
    }
}

/// The brief.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ClientEntry {
    /// Display name.
    pub name: String,
    /// Sex for the reference.
    pub sex: Sex,
    /// `YYYY-MM-DD`.
    pub birth_date: String,
    /// Stature, cm.
    pub height_cm: f64,
    /// Dominant hand.
    pub dominant_hand: Hand,
    /// Training age.
    pub experience: Experience,
    /// The look aimed at.
    pub look: String,
    /// Changes to the look's weights, 0 to 3; 1 is neutral.
    #[serde(default)]
    pub look_weights: BTreeMap<String, f64>,
    /// Training days a week, 1 to 7.
    pub days_per_week: u8,
    /// Minutes a session, 10 to 240.
    pub minutes_per_session: u16,
    /// Exercises a session at most, 1 to 12.
    #[serde(default = "most_exercises")]
    pub max_exercises_per_session: u8,
    /// What there is to train with, at the gym.
    #[serde(default)]
    pub equipment: Vec<String>,
    /// Training at home; all of it at the gym without it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub home: Option<HomeEntry>,
    /// Where it hurts.
    #[serde(default)]
    pub pain: Vec<Pain>,
    /// Mobility screens.
    #[serde(default)]
    pub screens: Screens,
    /// Exercises ruled out.
    #[serde(default)]
    pub excluded_exercises: Vec<String>,
    /// Chosen schools.
    #[serde(default)]
    pub schools: BTreeMap<String, String>,
    /// Consent to pictures; none without it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub photo_consent: Option<ConsentEntry>,
    /// The readiness questions; not asked yet without it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub readiness: Option<ReadinessEntry>,
    /// Medical clearance, when it was given.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub clearance: Option<ClearanceEntry>,
    /// Units in which the client reads and logs; centimetres and kilograms without it. The file itself is metric.
    #[serde(default, skip_serializing_if = "Measures::are_metric")]
    pub measures: Measures,
    /// Words by which a coach finds the client, at most 12; nothing follows from them.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub tags: Vec<String>,
}

/// Training at home.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HomeEntry {
    /// How many of the week's days, 0 to all of them.
    pub days_per_week: u8,
    /// What there is.
    pub equipment: Vec<String>,
}

/// The readiness questions as answered.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ReadinessEntry {
    /// The day they were asked, `YYYY-MM-DD`.
    pub asked_on: String,
    /// Ids of the questions answered with yes.
    pub yes: Vec<String>,
}

/// Medical clearance.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ClearanceEntry {
    /// The day it was given, `YYYY-MM-DD`.
    pub given_on: String,
    /// By whom, and with what limits.
    pub note: String,
}

/// Consent to pictures.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ConsentEntry {
    /// The day it was given, `YYYY-MM-DD`.
    pub given_on: String,
    /// What for; `assessment` at least.
    pub purposes: Vec<PhotoPurpose>,
}

fn most_exercises() -> u8 {
    8
}

/// One assessment.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct RoundEntry {
    /// `YYYY-MM-DD`.
    pub date: String,
    /// Body mass, kg.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub weight_kg: Option<f64>,
    /// Who held the tape.
    pub measured_by: String,
    /// Girths and breadths.
    #[serde(default)]
    pub tape: Vec<TapeEntry>,
    /// How far from its bony point the tape lay, cm by site.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub levels_cm: BTreeMap<String, f64>,
    /// Skinfolds.
    #[serde(default)]
    pub skinfolds: Vec<SkinfoldEntry>,
    /// Ratings.
    #[serde(default)]
    pub ratings: Vec<RatingEntry>,
    /// Limb outlines from photos.
    #[serde(default)]
    pub outlines: Vec<OutlineEntry>,
    /// Girths from photos.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub picture_girths: Vec<PictureGirthEntry>,
    /// Tests.
    #[serde(default)]
    pub tests: Vec<TestEntry>,
}

/// Readings of one tape or breadth site.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TapeEntry {
    /// The site.
    pub site: String,
    /// The client's side, at paired sites.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// One to three readings, cm.
    pub readings_cm: Vec<f64>,
}

/// Readings of one skinfold.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SkinfoldEntry {
    /// The site.
    pub site: String,
    /// The client's side, when noted.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// One to three readings, mm.
    pub readings_mm: Vec<f64>,
}

/// A rating: a score or a left-right judgement.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct RatingEntry {
    /// The region.
    pub region: String,
    /// The pose it was judged in.
    pub pose: String,
    /// -2 clearly behind to 2 clearly ahead.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub score: Option<i8>,
    /// -2 right much larger to 2 left much larger.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub left_right: Option<i8>,
    /// How far the rater's scores are off the truth, SD in steps, as learned; the default when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub rater_sd_steps: Option<f64>,
    /// Whose sitting it belongs to: ratings of one sitting are off together. One for the round when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sitting: Option<String>,
}

/// Mean widths of a limb segment.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct OutlineEntry {
    /// The segment.
    pub segment: Segment,
    /// The client's left, cm.
    pub left_width_cm: f64,
    /// The client's right, cm.
    pub right_width_cm: f64,
}

/// A girth from photos, by constants common to everybody.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PictureGirthEntry {
    /// The site.
    pub site: String,
    /// The client's side, at paired sites.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// The girth, cm.
    pub cm: f64,
    /// What it rests on.
    pub from: GirthFrom,
}

/// Load and repetitions of one side.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StrengthEntry {
    /// Load, kg.
    pub load_kg: f64,
    /// Repetitions.
    pub reps: u16,
}

/// A test.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(tag = "kind", rename_all = "kebab-case", deny_unknown_fields)]
pub enum TestEntry {
    /// The same exercise one side at a time.
    OneSide {
        /// The exercise.
        exercise: String,
        /// The client's left.
        left: StrengthEntry,
        /// The client's right.
        right: StrengthEntry,
    },
    /// A timed hang.
    Hang {
        /// Seconds.
        seconds: f64,
    },
    /// Where it was felt.
    Feel {
        /// The exercise.
        exercise: String,
        /// The region it was meant for.
        region: String,
        /// A region, a joint, or `nowhere`.
        felt: String,
    },
}

/// One exercise of a past week.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TrainingRow {
    /// Monday of the week, `YYYY-MM-DD`.
    pub week_of: String,
    /// Session of the week, from 1.
    pub session: u8,
    /// Position in the session, from 1.
    pub position: u8,
    /// The exercise.
    pub exercise: String,
    /// Hard sets.
    pub sets: u16,
    /// Whether each side was trained on its own.
    pub one_sided: bool,
    /// Repetitions of the hardest set, when noted.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reps: Option<u16>,
    /// Whether the client swung or bounced the load.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub swung: bool,
}

/// What the coach chose.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct ChoicesEntry {
    /// Regions to bring up; with whole parts up to three.
    pub bring_up: Vec<String>,
    /// Whole parts of the body to bring up, by the site that mixes their muscles.
    pub areas: Vec<String>,
    /// Regions to hold back.
    pub hold_back: Vec<String>,
    /// Verdicts overruled.
    pub overrides: Vec<OverrideEntry>,
    /// What the client is shown; nothing unless named.
    pub share: Vec<Shared>,
}

/// The coach's own verdict.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OverrideEntry {
    /// The region.
    pub region: String,
    /// What the coach says.
    pub verdict: Standing,
    /// Why.
    pub reason: String,
}

impl CaseFile {
    /// The format's name.
    pub const FORMAT: &'static str = "orthomer-case";
    /// The version this program reads and writes.
    pub const VERSION: u32 = 1;

    /// Reads a case file. A file that is not of the shape gives one problem with its place.
    ///
    /// # Errors
    /// The one problem.
    pub fn parse(text: &str) -> Result<Self, Problem> {
        parse_json(text)
    }
}

/// Reads any of the open files, or says at which place it does not have its shape.
///
/// # Errors
/// The place, and what is wrong there.
pub fn parse_json<T: serde::de::DeserializeOwned>(text: &str) -> Result<T, Problem> {
    let mut reader = serde_json::Deserializer::from_str(text);
    let file = serde_path_to_error::deserialize(&mut reader).map_err(|error| misshapen(&error))?;
    reader.end().map_err(|error| Problem::new(Place::root(), error.to_string()))?;
    Ok(file)
}

fn misshapen(error: &serde_path_to_error::Error<serde_json::Error>) -> Problem {
    use serde_path_to_error::Segment as Part;
    let pointer = error.path().iter().fold(Place::root(), |pointer, part| match part {
        Part::Seq { index } => pointer.at(*index),
        Part::Map { key } => pointer.at(key),
        Part::Enum { variant } => pointer.at(variant),
        Part::Unknown => pointer,
    });
    Problem::new(pointer, error.inner().to_string())
}

impl OutlineEntry {
    pub(crate) fn widths(&self) -> Sides<f64> {
        Sides { left: self.left_width_cm, right: self.right_width_cm }
    }
}
