//! What a practice sets differently from what ships: answers to schools, numbers and shares of the evidence model.

use crate::planning::PREFIX;
use crate::{Atlas, EvidenceSettings, Exercise, PlanningSettings, numbers};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{AnswerId, RegionId, SchoolId, SiteId};
use utoipa::ToSchema;

/// A number of the evidence model or of the week that a practice may change.
#[derive(Clone, Debug, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Setting {
    /// Its path: in the evidence settings, such as `observation_sd.tape_bulk`, or after `planning.` in those of the week.
    pub id: String,
    /// What it was called in earlier versions.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub was: Option<String>,
    /// The heading it is shown under: `verdict`, `sides`, `weight`, `error` or `week`.
    pub about: String,
    /// What a coach calls it.
    pub name: String,
    /// Its unit.
    pub unit: String,
    /// Lowest and highest value with which the model still makes sense.
    pub bounds: [f64; 2],
    /// Whether it counts whole things.
    #[serde(default)]
    pub whole: bool,
}

/// What a practice sets for all its clients; what is not named keeps its shipped value.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct PracticeSettings {
    /// Answers to schools by the school's key; a client's own answer goes before them.
    pub schools: BTreeMap<SchoolId, AnswerId>,
    /// Numbers by [`Setting::id`].
    pub numbers: BTreeMap<String, f64>,
    /// Shares of a girth by region, whole rows.
    pub composition: BTreeMap<SiteId, BTreeMap<RegionId, f64>>,
    /// The practice's own exercises.
    pub exercises: Vec<Exercise>,
}

impl EvidenceSettings {
    /// The same settings with some numbers and rows replaced. Ids that are none are left alone.
    fn with(&self, practice: &PracticeSettings) -> Option<Self> {
        let mut settings = numbers::set(self, practice.numbers.iter().map(|(id, number)| (id.as_str(), *number)))?;
        settings.composition.extend(practice.composition.clone());
        Some(settings)
    }
}

impl PlanningSettings {
    /// The same settings with a practice's own numbers.
    fn with(&self, practice: &PracticeSettings) -> Option<Self> {
        let own = practice.numbers.iter().filter_map(|(id, number)| Some((id.strip_prefix(PREFIX)?, *number)));
        numbers::set(self, own)
    }
}

impl Atlas {
    /// This atlas as a practice has set it. `practice` is taken as checked.
    pub fn with_practice(&self, practice: &PracticeSettings) -> Self {
        let mut atlas = self.clone();
        if let Some(evidence) = self.evidence.with(practice) {
            atlas.evidence = evidence;
        }
        if let Some(planning) = self.planning.with(practice) {
            atlas.planning = planning;
        }
        for school in &mut atlas.schools {
            if let Some(answer) = practice.schools.get(&school.id) {
                school.default.clone_from(answer);
            }
        }
        for exercise in &practice.exercises {
            atlas.add_exercise(exercise.clone());
        }
        atlas
    }

    fn add_exercise(&mut self, exercise: Exercise) {
        let place = self.exercises.len();
        self.exercise_index.insert(exercise.id.clone(), place);
        for region in exercise.targets.keys().filter(|region| exercise.trains(region)) {
            self.exercises_by_region.entry(region.clone()).or_default().push(place);
        }
        self.exercises.push(exercise);
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_setting_names_a_number_within_its_bounds() {
        let atlas = Atlas::load().unwrap();
        for setting in atlas.settings() {
            let shipped = atlas.number(&setting.id).unwrap();
            assert!((setting.bounds[0]..=setting.bounds[1]).contains(&shipped), "{}: {shipped}", setting.id);
        }
    }

    // Five pounds: the smallest pair of plates where bars are loaded in pounds (common practice, no source).
    #[test]
    fn a_gym_of_pounds_steps_in_its_own_plates() {
        let shipped = Atlas::load().unwrap();
        let step = |atlas: &Atlas, id: &str| atlas.load_step(atlas.exercise(&id.parse().unwrap()).unwrap()).kg;
        let five = 2.267_961_85;
        let practice = PracticeSettings {
            numbers: BTreeMap::from([("planning.load_step.bar".to_owned(), five)]),
            ..PracticeSettings::default()
        };
        let own = shipped.with_practice(&practice);
        assert_eq!((step(&shipped, "bench-press"), step(&own, "bench-press")), (Some(2.5), Some(five)));
        assert_eq!(step(&own, "db-curl"), step(&shipped, "db-curl"), "dumbbells have a step of their own");
        assert_eq!(step(&own, "cable-curl"), None, "a stack says what its plates weigh");
    }

    #[test]
    fn a_practice_changes_what_it_names_and_nothing_else() {
        let shipped = Atlas::load().unwrap();
        let practice = PracticeSettings {
            numbers: BTreeMap::from([("observation_sd.tape_bulk".to_owned(), 0.8)]),
            schools: BTreeMap::from([("sizing".parse().unwrap(), "frame-ratios".parse().unwrap())]),
            ..PracticeSettings::default()
        };
        let own = shipped.with_practice(&practice);
        assert_eq!(own.number("observation_sd.tape_bulk"), Some(0.8));
        assert_eq!(own.number("observation_sd.strength"), shipped.number("observation_sd.strength"));
        assert_eq!(own.school("sizing").unwrap().default, "frame-ratios");
        assert_eq!(own.school("session_order").unwrap().default, shipped.school("session_order").unwrap().default);
    }
}
