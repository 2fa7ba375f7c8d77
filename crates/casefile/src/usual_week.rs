//! What a client trained lately, as a coach hears it: a usual week, and for how many weeks it was like that.

use crate::problem::Problem;
use crate::raw::TrainingRow;
use atlas::Atlas;
use jiff::ToSpan;
use jiff::civil::{Date, Weekday};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{Place, RegionId};
use utoipa::ToSchema;

/// A usual week and how long it was kept up.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct UsualWeek {
    /// Any day of the last such week, `YYYY-MM-DD`.
    pub until: String,
    /// How many weeks, 1 to 12.
    pub weeks: u8,
    /// Exercises in the order of the week.
    pub exercises: Vec<UsualExercise>,
}

/// One exercise of the week.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct UsualExercise {
    /// Session of the week, from 1.
    pub session: u8,
    /// The exercise.
    pub exercise: String,
    /// Hard sets.
    pub sets: u16,
    /// Whether each side was trained on its own.
    pub one_sided: bool,
    /// Repetitions of the hardest set, when known.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reps: Option<u16>,
    /// Whether the client swung or bounced the load.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub swung: bool,
}

const MOST_WEEKS: u8 = 12;

impl UsualWeek {
    /// The rows of every week, oldest first; those of the newest week come last, in the order of the exercises.
    ///
    /// # Errors
    /// A problem when day or number of weeks is none. `at` is the pointer of the week.
    pub fn rows(&self, at: &Place) -> Result<Vec<TrainingRow>, Problem> {
        let wrong = |field: &str, says: String| Problem::new(at.at(field), says);
        if self.weeks == 0 || self.weeks > MOST_WEEKS {
            return Err(wrong("weeks", format!("{} weeks is out of range: expected 1 to {MOST_WEEKS}", self.weeks)));
        }
        let day = self.until.parse::<Date>().map_err(|_| {
            wrong("until", format!("{:?} is not a date of the calendar: expected YYYY-MM-DD", self.until))
        })?;
        let monday = day.checked_sub(i64::from(day.weekday().since(Weekday::Monday)).days());
        let monday = monday.map_err(|error| wrong("until", error.to_string()))?;
        let mut rows = Vec::new();
        for back in (0..i64::from(self.weeks)).rev() {
            let week_of = monday.checked_sub(back.weeks()).map_err(|error| wrong("until", error.to_string()))?;
            rows.extend(self.week(week_of));
        }
        Ok(rows)
    }

    /// Fractional sets of one week by region, indirect work counted.
    pub fn sets_by_region(&self, atlas: &Atlas) -> BTreeMap<RegionId, f64> {
        let mut sets = BTreeMap::new();
        for entry in &self.exercises {
            let exercise = entry.exercise.parse().ok().and_then(|id| atlas.exercise(&id));
            for (region, fraction) in exercise.iter().flat_map(|exercise| &exercise.targets) {
                *sets.entry(region.clone()).or_insert(0.0) += f64::from(entry.sets) * fraction;
            }
        }
        sets
    }

    fn week(&self, week_of: Date) -> impl Iterator<Item = TrainingRow> {
        self.exercises.iter().enumerate().map(move |(index, entry)| {
            let before = self.exercises[..index].iter().filter(|other| other.session == entry.session).count();
            TrainingRow {
                week_of: week_of.to_string(),
                session: entry.session,
                position: u8::try_from(before + 1).unwrap_or(u8::MAX),
                exercise: entry.exercise.clone(),
                sets: entry.sets,
                one_sided: entry.one_sided,
                reps: entry.reps,
                swung: entry.swung,
            }
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn exercise(session: u8, exercise: &str) -> UsualExercise {
        UsualExercise { session, exercise: exercise.to_owned(), sets: 3, one_sided: false, reps: None, swung: false }
    }

    #[test]
    fn a_usual_week_is_written_out_week_by_week_with_places_in_each_session() {
        let exercises = vec![exercise(1, "bench-press"), exercise(2, "leg-press"), exercise(1, "db-curl")];
        let rows = UsualWeek { until: "2026-03-04".into(), weeks: 2, exercises }.rows(&Place::root()).unwrap();
        let said: Vec<_> =
            rows.iter().map(|r| (r.week_of.as_str(), r.session, r.position, r.exercise.as_str())).collect();
        let week = |of| [(of, 1, 1, "bench-press"), (of, 2, 1, "leg-press"), (of, 1, 2, "db-curl")];
        assert_eq!(said, [week("2026-02-23"), week("2026-03-02")].concat());
    }

    #[test]
    fn no_weeks_are_no_usual_week() {
        let none = UsualWeek { until: "2026-03-04".into(), weeks: 0, exercises: Vec::new() };
        assert_eq!(none.rows(&"/usual".into()).unwrap_err().pointer, "/usual/weeks".into());
    }
}
