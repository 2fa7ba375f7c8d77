//! The rules of the case file, one part each. Every problem is collected, not only the first.

mod choices;
mod client;
mod minor;
mod practice;
mod round;
mod set_up;
mod tape;
mod tests;
mod training;

pub use choices::check_choices;
pub use client::{check_client, stored_client};
pub use practice::check_practice;
pub use round::{check_levels, check_rating, check_skinfolds, check_weight};
pub use set_up::check_set_up;
pub use tape::check_tape;
pub use tests::check_tests;
pub(crate) use tests::felt_where;
pub use training::check_training;

use crate::problem::{Problem, unknown};
use crate::raw::CaseFile;
use assess::Case;
use atlas::{Atlas, Exercise};
use jiff::civil::Date;
use units::{ExerciseId, Place, RegionId};

/// Collects problems while values are resolved.
pub(crate) struct Checker<'a> {
    pub atlas: &'a Atlas,
    pub problems: Vec<Problem>,
}

impl<'a> Checker<'a> {
    pub fn new(atlas: &'a Atlas) -> Self {
        Self { atlas, problems: Vec::new() }
    }

    pub fn fail<T>(&mut self, pointer: impl Into<Place>, says: impl Into<String>) -> Option<T> {
        self.problems.push(Problem::new(pointer, says));
        None
    }

    /// Notes the problem of a failed conversion.
    pub fn take<T, E: std::fmt::Display>(&mut self, pointer: &Place, result: Result<T, E>) -> Option<T> {
        result.map_or_else(|error| self.fail(pointer, error.to_string()), Some)
    }

    pub fn date(&mut self, pointer: &Place, text: &str) -> Option<Date> {
        let date = text.parse::<Date>().ok().filter(|_| text.len() == 10);
        date.or_else(|| self.fail(pointer, format!("{text:?} is not a date of the calendar: expected YYYY-MM-DD")))
    }

    pub fn number(
        &mut self,
        pointer: &Place,
        what: &str,
        value: f64,
        [low, high]: [f64; 2],
        unit: &str,
    ) -> Option<f64> {
        if value.is_finite() && (low..=high).contains(&value) {
            return Some(value);
        }
        self.fail(pointer, format!("{what} {value}{unit} is out of range: expected {low} to {high}{unit}"))
    }

    pub fn region(&mut self, pointer: &Place, id: &str) -> Option<RegionId> {
        let found = self.atlas.regions().iter().find(|region| region.id.as_str() == id);
        if let Some(region) = found {
            return Some(region.id.clone());
        }
        let says = unknown("region", id, self.atlas.regions().iter().map(|r| r.id.as_str()));
        self.fail(pointer, says)
    }

    pub fn exercise(&mut self, pointer: &Place, id: &str) -> Option<&'a Exercise> {
        let found = id.parse::<ExerciseId>().ok().and_then(|id| self.atlas.exercise(&id));
        if found.is_none() {
            let says = unknown("exercise", id, self.atlas.exercises().iter().map(|e| e.id.as_str()));
            self.problems.push(Problem::new(pointer, says));
        }
        found
    }
}

impl CaseFile {
    /// Checks every rule of the format and turns the file into a case.
    ///
    /// # Errors
    /// All problems, in the order of the file.
    pub fn resolve(&self, atlas: &Atlas) -> Result<Case, Vec<Problem>> {
        let mut check = Checker::new(atlas);
        if self.format != Self::FORMAT {
            check.fail::<()>("/format", format!("{:?} is not a case file: expected {:?}", self.format, Self::FORMAT));
        }
        if self.version != Self::VERSION {
            let says = format!("version {} is not known: expected {}", self.version, Self::VERSION);
            check.fail::<()>("/version", says);
        }
        let as_of = check.date(&"/as_of".into(), &self.as_of);
        let client = client::resolve(&mut check, &"/client".into(), &self.client, as_of);
        let rounds = round::resolve_all(&mut check, &self.rounds, as_of);
        if let Some(client) = &client {
            minor::resolve(&mut check, client, &self.rounds);
        }
        let training: Vec<_> = self
            .training
            .iter()
            .enumerate()
            .filter_map(|(i, row)| training::row(&mut check, &Place::root().at("training").at(i), row, as_of))
            .collect();
        let choices = choices::resolve(&mut check, &"/choices".into(), &self.choices);
        let set_ups = set_up::resolve(&mut check, &"/set_ups".into(), &self.set_ups);
        practice::resolve(&mut check, &"/practice".into(), &self.practice);
        match (as_of, client, check.problems.is_empty()) {
            (Some(as_of), Some(client), true) => {
                let (hurts, last_review) = (Vec::new(), None);
                Ok(Case { as_of, client, rounds, training, choices, set_ups, hurts, last_review })
            }
            _ => Err(check.problems),
        }
    }
}
