//! What the trade knows, as data: regions, sites, poses, looks, equipment, exercises, schools and evidence settings.
//!
//! The files under `data/` are the one place for each fact. This crate reads them, checks that they fit together and
//! answers look-ups; it decides nothing about a client.

#![warn(clippy::missing_errors_doc)]

mod cause;
mod check;
mod compose;
mod evidence;
mod exercise;
mod files;
mod ideals;
mod lift;
mod nearest;
mod numbers;
mod planning;
mod practice;
mod readiness;
mod region;
mod scheme;
mod school;
mod screen;
mod site;
mod substitute;
mod variant;
mod warm_up;

pub use cause::CauseText;
pub use check::ExerciseProblem;
pub use compose::Opposite;
use compose::Stand;
pub use evidence::{
    ActThresholds, ErrorSettings, EvidenceSettings, ObservationScale, ObservationSd, PictureErrors, ReferSettings,
};
pub use exercise::{Avoid, Effort, Exercise, Fault, Hardest, SidesUse, Work};
pub use files::AtlasError;
pub use ideals::{FrameRatio, Ideals, Silhouette};
pub use lift::{Day, Movement, Part, Split};
pub use nearest::nearest;
pub use planning::{ByExperience, PlanningSettings};
pub use practice::{PracticeSettings, Setting};
pub use readiness::ReadinessQuestion;
pub use region::{Equipment, Kit, Look, Pose, Region};
pub use scheme::{Fails, LoadStep, Pairing, PartKind, PartRule, PlannedPart, STRAIGHT, Scheme, StepWeight};
pub use school::{School, SchoolAbout, SchoolCue, SchoolOption, SchoolRest, SchoolScheme};
pub use screen::{Screen, ScreenPoints};
pub use site::{Site, SiteKind, SkinfoldSite};
pub use variant::{SetUpField, Variant};
pub use warm_up::WarmUpMove;

use std::collections::{BTreeMap, HashMap};
use units::{AnswerId, EquipmentId, ExerciseId, LookId, PoseId, RegionId, SchoolId, SiteId};

/// Everything the trade knows, checked and indexed.
#[derive(Clone, Debug)]
pub struct Atlas {
    regions: Vec<Region>,
    region_index: BTreeMap<RegionId, usize>,
    sites: Vec<Site>,
    skinfolds: Vec<SkinfoldSite>,
    poses: Vec<Pose>,
    looks: Vec<Look>,
    equipment: Vec<Equipment>,
    kits: Vec<Kit>,
    exercises: Vec<Exercise>,
    exercise_index: BTreeMap<ExerciseId, usize>,
    exercises_by_region: BTreeMap<RegionId, Vec<usize>>,
    schools: Vec<School>,
    evidence: EvidenceSettings,
    planning: PlanningSettings,
    ideals: Ideals,
    screens: Vec<Screen>,
    readiness: Vec<ReadinessQuestion>,
    settings: Vec<Setting>,
    takes_over: BTreeMap<String, String>,
    causes: Vec<CauseText>,
    schemes: Vec<Scheme>,
    part_rules: Vec<PartRule>,
    opposites: Vec<Opposite>,
    stands: HashMap<String, Stand>,
    warm_ups: Vec<WarmUpMove>,
    set_up_fields: Vec<SetUpField>,
    pairings: Vec<Pairing>,
    steps: Vec<LoadStep>,
}

impl Atlas {
    /// Reads the atlas that ships with the product.
    ///
    /// # Errors
    /// When a data file does not parse or names something that does not exist.
    pub fn load() -> Result<Self, AtlasError> {
        let atlas = files::read()?;
        check::consistent(&atlas)?;
        Ok(atlas)
    }

    /// All regions, head to foot within each part of the body.
    pub fn regions(&self) -> &[Region] {
        &self.regions
    }

    /// A region by id.
    pub fn region(&self, id: &RegionId) -> Option<&Region> {
        self.region_index(id).map(|i| &self.regions[i])
    }

    /// The place of a region in [`Self::regions`].
    pub fn region_index(&self, id: &RegionId) -> Option<usize> {
        self.region_index.get(id).copied()
    }

    /// All girth and breadth sites in the order a coach tapes them.
    pub fn sites(&self) -> &[Site] {
        &self.sites
    }

    /// A girth or breadth site by id.
    pub fn site(&self, id: &SiteId) -> Option<&Site> {
        self.sites.iter().find(|site| site.id == *id)
    }

    /// What the part of the body is called whose muscles a site mixes.
    pub fn part_name(&self, id: &SiteId) -> String {
        self.site(id).map_or_else(|| id.to_string(), |site| site.part_name().to_owned())
    }

    /// All skinfold sites.
    pub fn skinfolds(&self) -> &[SkinfoldSite] {
        &self.skinfolds
    }

    /// A skinfold site by id.
    pub fn skinfold(&self, id: &SiteId) -> Option<&SkinfoldSite> {
        self.skinfolds.iter().find(|site| site.id == *id)
    }

    /// All poses.
    pub fn poses(&self) -> &[Pose] {
        &self.poses
    }

    /// A pose by id.
    pub fn pose(&self, id: &PoseId) -> Option<&Pose> {
        self.poses.iter().find(|pose| pose.id == *id)
    }

    /// All looks.
    pub fn looks(&self) -> &[Look] {
        &self.looks
    }

    /// A look by id.
    pub fn look(&self, id: &LookId) -> Option<&Look> {
        self.looks.iter().find(|look| look.id == *id)
    }

    /// All equipment.
    pub fn equipment(&self) -> &[Equipment] {
        &self.equipment
    }

    /// A piece of equipment by id.
    pub fn equipment_item(&self, id: &EquipmentId) -> Option<&Equipment> {
        self.equipment.iter().find(|item| item.id == *id)
    }

    /// Named sets of equipment a coach can start from.
    pub fn kits(&self) -> &[Kit] {
        &self.kits
    }

    /// All exercises.
    pub fn exercises(&self) -> &[Exercise] {
        &self.exercises
    }

    /// An exercise by id.
    pub fn exercise(&self, id: &ExerciseId) -> Option<&Exercise> {
        self.exercise_index.get(id).map(|&i| &self.exercises[i])
    }

    /// The exercises that have a region as main target, in the order of the catalogue.
    pub fn exercises_for(&self, region: &RegionId) -> impl Iterator<Item = &Exercise> {
        self.exercises_by_region.get(region).into_iter().flatten().map(|&i| &self.exercises[i])
    }

    /// The questions on which coaches disagree.
    pub fn schools(&self) -> &[School] {
        &self.schools
    }

    /// A school by its key in the case file.
    pub fn school(&self, id: &str) -> Option<&School> {
        self.schools.iter().find(|school| school.id == *id)
    }

    /// Sets that are all alike.
    pub fn straight(&self) -> &Scheme {
        self.scheme(STRAIGHT).unwrap_or(&self.schemes[0])
    }

    /// Settings of the evidence model.
    pub fn evidence(&self) -> &EvidenceSettings {
        &self.evidence
    }

    /// Settings of the week: limits, floors and prices.
    pub fn planning(&self) -> &PlanningSettings {
        &self.planning
    }

    /// The number behind a [`Setting::id`], of the evidence model or of the week; `None` where there is none.
    pub fn number(&self, id: &str) -> Option<f64> {
        match id.strip_prefix(planning::PREFIX) {
            Some(path) => numbers::get(&self.planning, path),
            None => numbers::get(&self.evidence, id),
        }
    }

    /// A client's answer to a school, else its default.
    pub fn school_option(&self, chosen: &BTreeMap<SchoolId, AnswerId>, id: &str) -> Option<&SchoolOption> {
        let school = self.school(id)?;
        let option = chosen.get(id).unwrap_or(&school.default);
        school.options.iter().find(|o| o.id == *option)
    }

    /// A client's answers to all schools, defaults where nothing was chosen.
    pub fn school_options<'a>(
        &'a self,
        chosen: &'a BTreeMap<SchoolId, AnswerId>,
    ) -> impl Iterator<Item = &'a SchoolOption> {
        self.schools.iter().filter_map(|school| self.school_option(chosen, school.id.as_str()))
    }

    /// The answers that hold for a client: where a pain or too little training stands against one, the answer that it names
    /// instead.
    pub fn holding_options<'a>(
        &'a self,
        chosen: &'a BTreeMap<SchoolId, AnswerId>,
        hurts: impl Fn(&str) -> bool + 'a,
        beginner: bool,
    ) -> impl Iterator<Item = &'a SchoolOption> {
        self.schools.iter().filter_map(move |school| {
            let option = self.school_option(chosen, school.id.as_str())?;
            let barred = option.not_with_pain.iter().any(|area| hurts(area)) || (beginner && option.not_for_beginners);
            let instead = option.instead.as_ref().filter(|_| barred);
            instead.map_or(Some(option), |id| school.options.iter().find(|other| other.id == *id))
        })
    }

    /// Frame ratios, silhouettes, covering skinfolds.
    pub fn ideals(&self) -> &Ideals {
        &self.ideals
    }

    /// All screens of ranges of motion.
    pub fn screens(&self) -> &[Screen] {
        &self.screens
    }

    /// A screen by id.
    pub fn screen(&self, id: &str) -> Option<&Screen> {
        self.screens.iter().find(|screen| screen.id == id)
    }

    /// The questions asked before training.
    pub fn readiness(&self) -> &[ReadinessQuestion] {
        &self.readiness
    }

    /// The numbers of the evidence model that a practice may change.
    pub fn settings(&self) -> &[Setting] {
        &self.settings
    }

    /// The text of a cause of a lag.
    pub fn cause(&self, id: &str) -> Option<&CauseText> {
        self.causes.iter().find(|cause| cause.id == id)
    }

    /// The numbers by which stations are set.
    pub fn set_up_fields(&self) -> &[SetUpField] {
        &self.set_up_fields
    }

    /// One of them by its name.
    pub fn set_up_field(&self, name: &str) -> Option<&SetUpField> {
        self.set_up_fields.iter().find(|field| field.name == name)
    }

    /// Moves that warm up and restore, in the order in which they are taken.
    pub fn warm_ups(&self) -> &[WarmUpMove] {
        &self.warm_ups
    }

    /// What every kind of part counts as and takes, in the order of [`PartKind::ALL`].
    pub fn part_rules(&self) -> &[PartRule] {
        &self.part_rules
    }

    /// What a part counts as and takes.
    pub fn part_rule(&self, kind: PartKind) -> &PartRule {
        &self.part_rules[PartKind::ALL.iter().position(|other| *other == kind).unwrap_or_default()]
    }

    /// All set schemes, straight sets first.
    pub fn schemes(&self) -> &[Scheme] {
        &self.schemes
    }

    /// A set scheme by id.
    pub fn scheme(&self, id: &str) -> Option<&Scheme> {
        self.schemes.iter().find(|scheme| scheme.id == id)
    }

    /// What goes well one straight into the other.
    pub fn pairings(&self) -> &[Pairing] {
        &self.pairings
    }

    /// The smallest step by which the load of an exercise goes up.
    pub fn load_step(&self, exercise: &Exercise) -> LoadStep {
        let fits = |step: &&LoadStep| step.equipment.iter().any(|item| exercise.equipment.contains(item));
        let step = self.steps.iter().find(fits).cloned().unwrap_or_else(|| LoadStep::other(exercise));
        let kg = step.weight.map(|weight| self.planning.load_step.kg(weight));
        LoadStep { kg, ..step }
    }

    /// What can take over in an exercise and is no region, by id.
    pub fn takeovers(&self) -> &BTreeMap<String, String> {
        &self.takes_over
    }

    /// What a takeover that is no region is called, such as `momentum`.
    pub fn named_takeover(&self, id: &str) -> Option<&str> {
        self.takes_over.get(id).map(String::as_str)
    }
}
