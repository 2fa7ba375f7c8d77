//! What is known about a client, already validated: the shape every computation takes.

use crate::consent::PhotoConsent;
use crate::photographed::{Outline, PictureGirth, Rating};
use crate::readiness::{Clearance, Readiness};
use crate::set_up::KeptSetUp;
use atlas::{Atlas, Exercise, Region, Screen};
use jiff::civil::Date;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};
use units::{
    AnswerId, EquipmentId, ExerciseId, Length, LookId, Mass, Measures, RegionId, SchoolId, Side, Sides, SiteId,
    Skinfold,
};
use utoipa::ToSchema;

/// Sex, as the reference data and the equations need it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum Sex {
    /// Reference of 247 men.
    Male,
    /// Reference of 260 women.
    Female,
}

/// The dominant hand.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum Hand {
    /// Left-handed.
    Left,
    /// Right-handed.
    Right,
    /// Neither hand leads.
    Both,
}

/// Training age in words.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum Experience {
    /// Less than about a year of regular training.
    Beginner,
    /// One to three years.
    Intermediate,
    /// More.
    Advanced,
}

/// The client as the brief describes them.
#[derive(Clone, Debug)]
pub struct Client {
    /// Display name.
    pub name: String,
    /// Sex for the reference.
    pub sex: Sex,
    /// Date of birth.
    pub birth_date: Date,
    /// Stature.
    pub height: Length,
    /// Dominant hand.
    pub dominant_hand: Hand,
    /// Training age.
    pub experience: Experience,
    /// The look aimed at.
    pub look: LookId,
    /// The coach's changes to the look's weights.
    pub look_weights: BTreeMap<RegionId, f64>,
    /// Training days a week, 1 to 7.
    pub days_per_week: u8,
    /// Minutes a session.
    pub minutes_per_session: u16,
    /// Exercises a session at most.
    pub max_exercises_per_session: u8,
    /// What there is to train with, at the gym.
    pub equipment: BTreeSet<EquipmentId>,
    /// Training at home, when some of it is there.
    pub home: Option<Home>,
    /// Where it hurts.
    pub pain: Vec<Pain>,
    /// Mobility screens.
    pub screens: Screens,
    /// Exercises the coach rules out.
    pub excluded_exercises: BTreeSet<ExerciseId>,
    /// Chosen schools by key.
    pub schools: BTreeMap<SchoolId, AnswerId>,
    /// Consent to pictures; `None` when not given or withdrawn.
    pub photo_consent: Option<PhotoConsent>,
    /// The readiness questions; `None` when nobody asked.
    pub readiness: Option<Readiness>,
    /// Medical clearance, when it was recorded.
    pub clearance: Option<Clearance>,
    /// Units of what they read and log.
    pub measures: Measures,
    /// Words by which a coach finds them; nothing follows from them.
    pub tags: Vec<String>,
}

/// Training at home: how many of the week's days, and with what.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Home {
    /// Days a week, at most those of the week.
    pub days_per_week: u8,
    /// What there is.
    pub equipment: BTreeSet<EquipmentId>,
}

impl Client {
    /// Nobody younger is photographed or tested to a maximum.
    pub const ADULT_YEARS: f64 = 18.0;

    /// Whether there is an item anywhere the client trains; body weight is always there.
    pub fn has(&self, item: &EquipmentId) -> bool {
        self.has_at(false, item) || (self.home_days() > 0 && self.has_at(true, item))
    }

    /// Whether there is an item at home or at the gym.
    pub fn has_at(&self, home: bool, item: &EquipmentId) -> bool {
        let there = |items: &BTreeSet<EquipmentId>| item.as_str() == "bodyweight" || items.contains(item);
        if home { self.home.as_ref().is_some_and(|home| there(&home.equipment)) } else { there(&self.equipment) }
    }

    /// How many of the week's days are at home.
    pub fn home_days(&self) -> u8 {
        self.home.as_ref().map_or(0, |home| home.days_per_week.min(self.days_per_week))
    }

    /// Age on a day, years.
    pub fn age_on(&self, day: Date) -> f64 {
        const DAYS_A_YEAR: f64 = 365.25;
        let days = day.duration_since(self.birth_date).as_hours() / 24;
        days as f64 / DAYS_A_YEAR
    }
}

/// A painful area.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Pain {
    /// `shoulder`, `elbow`, `wrist`, `low-back`, `neck`, `knee`, `hip` or `ankle`.
    pub area: String,
    /// The painful side, when it has one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// 0 none to 10 worst.
    pub level: u8,
}

/// Mobility screens, degrees by side; the ids are the atlas's with `_deg`.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Screens {
    /// How far the straight arm goes back; about 60 to 70 is normal.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub shoulder_extension_deg: Option<Sides<f64>>,
    /// How far the straight arm goes overhead.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub shoulder_flexion_deg: Option<Sides<f64>>,
    /// Turning in at the shoulder.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub shoulder_internal_rotation_deg: Option<Sides<f64>>,
    /// Turning out at the shoulder.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub shoulder_external_rotation_deg: Option<Sides<f64>>,
    /// The shin's angle from upright with the heel down.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ankle_dorsiflexion_deg: Option<Sides<f64>>,
    /// How far the bent knee comes up before the pelvis tucks.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hip_flexion_deg: Option<Sides<f64>>,
    /// Whether the shoulder blades can be drawn together without the arms.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub blades_retract: Option<bool>,
}

impl Screens {
    /// The screens that were taken, by the atlas's id.
    pub fn taken(&self) -> impl Iterator<Item = (&'static str, Sides<f64>)> {
        let all = [
            ("shoulder_extension", self.shoulder_extension_deg),
            ("shoulder_flexion", self.shoulder_flexion_deg),
            ("shoulder_internal_rotation", self.shoulder_internal_rotation_deg),
            ("shoulder_external_rotation", self.shoulder_external_rotation_deg),
            ("ankle_dorsiflexion", self.ankle_dorsiflexion_deg),
            ("hip_flexion", self.hip_flexion_deg),
        ];
        all.into_iter().filter_map(|(id, sides)| Some((id, sides?)))
    }

    /// The screen in which `exercise` asks for more than the lesser side reaches; both in degrees.
    pub fn short_for<'a>(&self, atlas: &'a Atlas, exercise: &Exercise) -> Option<ScreenShort<'a>> {
        self.taken().find_map(|(id, sides)| {
            let screen = atlas.screen(id)?;
            let needed_deg = screen.asked_by(exercise)?;
            let measured_deg = sides.left.min(sides.right);
            (measured_deg < needed_deg).then_some(ScreenShort { screen, measured_deg, needed_deg })
        })
    }
}

/// A range of motion that an exercise asks for and the client does not have.
#[derive(Clone, Copy, Debug)]
pub struct ScreenShort<'a> {
    /// Which range.
    pub screen: &'a Screen,
    /// The lesser side, degrees.
    pub measured_deg: f64,
    /// What the exercise asks for, degrees.
    pub needed_deg: f64,
}

/// One site of the tape or the breadth gauge in a round.
#[derive(Clone, Debug, PartialEq)]
pub struct TapeMeasure {
    /// The site.
    pub site: SiteId,
    /// The side at a paired site.
    pub side: Option<Side>,
    /// One to three readings in the order taken.
    pub readings: Vec<Length>,
}

/// One skinfold in a round.
#[derive(Clone, Debug, PartialEq)]
pub struct Skinfolds {
    /// The site.
    pub site: SiteId,
    /// The side, when noted.
    pub side: Option<Side>,
    /// One to three readings in the order taken.
    pub readings: Vec<Skinfold>,
}

/// Load and repetitions of one side.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct StrengthSet {
    /// The load.
    pub load: Mass,
    /// Repetitions to 0-2 in reserve.
    pub reps: u16,
}

/// The same exercise, one side at a time.
#[derive(Clone, Debug, PartialEq)]
pub struct OneSideTest {
    /// The exercise.
    pub exercise: ExerciseId,
    /// Both sides.
    pub sides: Sides<StrengthSet>,
}

/// Where an exercise was felt.
#[derive(Clone, Debug, PartialEq)]
pub struct Felt {
    /// The exercise.
    pub exercise: ExerciseId,
    /// The region it was meant for.
    pub region: RegionId,
    /// A region, a joint, or `nowhere`.
    pub felt: String,
}

/// A test.
#[derive(Clone, Debug, PartialEq)]
pub enum Test {
    /// Strength, one side at a time.
    OneSide(OneSideTest),
    /// Timed hang, seconds.
    Hang(f64),
    /// Where it was felt.
    Feel(Felt),
}

/// One assessment of a client.
#[derive(Clone, Debug)]
pub struct Round {
    /// The day it was taken.
    pub date: Date,
    /// Body mass.
    pub weight: Option<Mass>,
    /// Who held the tape.
    pub measured_by: String,
    /// Girths and breadths.
    pub tape: Vec<TapeMeasure>,
    /// How far from its bony point the tape lay, by site.
    pub levels: BTreeMap<SiteId, Length>,
    /// Skinfolds.
    pub skinfolds: Vec<Skinfolds>,
    /// Ratings.
    pub ratings: Vec<Rating>,
    /// Limb outlines from photos.
    pub outlines: Vec<Outline>,
    /// Girths from photos.
    pub picture_girths: Vec<PictureGirth>,
    /// Tests.
    pub tests: Vec<Test>,
}

/// One exercise of a past week.
#[derive(Clone, Debug, PartialEq)]
pub struct TrainingEntry {
    /// Monday of the week.
    pub week_of: Date,
    /// Session of the week, from 1.
    pub session: u8,
    /// Position in the session, from 1.
    pub position: u8,
    /// The exercise.
    pub exercise: ExerciseId,
    /// Hard sets.
    pub sets: u16,
    /// Whether each side was trained on its own.
    pub one_sided: bool,
    /// Repetitions of the hardest set, when noted.
    pub reps: Option<u16>,
    /// Whether the client swung or bounced the load.
    pub swung: bool,
}

/// The coach's own verdict for a region.
#[derive(Clone, Debug, PartialEq)]
pub struct Override {
    /// The region.
    pub region: RegionId,
    /// What the coach says.
    pub verdict: crate::Standing,
    /// Why.
    pub reason: String,
}

/// What of a verdict the client is shown; nothing unless the coach shares it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Shared {
    /// The regions that are brought up, and why these.
    Priorities,
    /// Where every region stands on the plumb line.
    Standings,
    /// Left against right.
    Sides,
    /// The girths and their change.
    Girths,
}

/// What the coach chose on the verdict.
#[derive(Clone, Debug, Default)]
pub struct Choices {
    /// Regions to bring up; with whole parts up to three.
    pub bring_up: Vec<RegionId>,
    /// Whole parts of the body to bring up, by the site that mixes their muscles.
    pub areas: Vec<SiteId>,
    /// Regions to hold back.
    pub hold_back: Vec<RegionId>,
    /// Verdicts overruled.
    pub overrides: Vec<Override>,
    /// What the client is shown.
    pub share: BTreeSet<Shared>,
}

impl Choices {
    /// More priorities than this are none.
    pub const MAX_BRING_UP: usize = 3;

    /// How many priorities there are: regions and whole parts.
    pub fn priorities(&self) -> usize {
        self.bring_up.len() + self.areas.len()
    }

    /// Whether a region is brought up, by itself or with its part; one that is held back is not brought up with its part.
    pub fn brings_up(&self, region: &Region) -> bool {
        self.bring_up.contains(&region.id) || self.with_its_part(region)
    }

    /// Whether a region is brought up with its part alone, and shares the part's dose.
    pub fn with_its_part(&self, region: &Region) -> bool {
        let part = region.area.as_ref().is_some_and(|area| self.areas.contains(area));
        part && !self.bring_up.contains(&region.id) && !self.hold_back.contains(&region.id)
    }

    /// Every region that is brought up: those chosen, in their order, then those of whole parts in the order of the atlas.
    pub fn brought_up(&self, atlas: &Atlas) -> Vec<RegionId> {
        let with_parts = atlas.regions().iter().filter(|region| self.with_its_part(region));
        self.bring_up.iter().cloned().chain(with_parts.map(|region| region.id.clone())).collect()
    }
}

/// Everything about one client up to a day.
#[derive(Clone, Debug)]
pub struct Case {
    /// The day the case is looked at.
    pub as_of: Date,
    /// The client.
    pub client: Client,
    /// Rounds, oldest first.
    pub rounds: Vec<Round>,
    /// Past training.
    pub training: Vec<TrainingEntry>,
    /// The coach's choices.
    pub choices: Choices,
    /// How the client's stations are set, by exercise.
    pub set_ups: BTreeMap<ExerciseId, KeptSetUp>,
    /// Exercises that hurt and that nobody has cleared since.
    pub hurts: Vec<Hurt>,
    /// What the review of the round before asks of the next week.
    pub last_review: Option<LastReview>,
}

/// What a review asks of the next week beside the choice of regions.
#[derive(Clone, Debug, PartialEq)]
pub struct LastReview {
    /// The day of the round that was reviewed.
    pub of: Date,
    /// Exercises to be left out for others.
    pub swapped: Vec<ExerciseId>,
    /// Regions that get more, with the weekly fractional sets they had.
    pub raised: Vec<(RegionId, f64)>,
    /// Kept regions that are trained for growth again.
    pub growing: Vec<RegionId>,
}

/// An exercise that hurt so much that it was stopped.
#[derive(Clone, Debug, PartialEq)]
pub struct Hurt {
    /// Which.
    pub exercise: ExerciseId,
    /// 0 to 10.
    pub level: u8,
    /// When.
    pub on: Date,
}
