//! What a client trained lately, as told.

use super::{SaveUsualWeek, UsualWeekView};
use crate::desk::{Desk, today};
use crate::error::DeskError;
use casefile::{Problem, check_training};
use logbook::weekly_sets;
use units::ClientId;

impl Desk {
    /// A client's usual week, and how many sets of it each region got.
    pub fn usual_week(&self, client_id: &ClientId) -> Result<UsualWeekView, DeskError> {
        let atlas = &self.knowledge().atlas;
        let (week, revision) = self.store.usual_week(client_id)?;
        let sets_by_region = week.as_ref().map(|week| week.sets_by_region(atlas)).unwrap_or_default();
        let logged = self.store.logged_training(client_id, today())?;
        let logged_since = logged.iter().map(|row| row.week_of).min().map(|day| day.to_string());
        Ok(UsualWeekView { revision, week, sets_by_region, logged_since, logged_sets: weekly_sets(atlas, &logged) })
    }

    /// Saves it, or forgets it.
    pub fn save_usual_week(&self, client_id: &ClientId, save: &SaveUsualWeek) -> Result<UsualWeekView, DeskError> {
        if let Some(week) = &save.week {
            let rows = week.rows(&"/week".into()).map_err(|problem| DeskError::Invalid(vec![problem]))?;
            // Every week holds the same exercises: the problems of the first are the problems of all.
            let one = rows.get(..week.exercises.len()).unwrap_or_default();
            check_training(&self.knowledge().atlas, &"/week/exercises".into(), one, today()).map_err(in_exercises)?;
        }
        self.store.save_usual_week(client_id, save.revision, save.week.as_ref())?;
        self.usual_week(client_id)
    }
}

/// A week that lies ahead is the fault of its last day, not of an exercise.
fn in_exercises(problems: Vec<Problem>) -> DeskError {
    let placed = problems.into_iter().map(|problem| {
        let of_week = problem.pointer.last().as_deref() == Some("week_of");
        if of_week { Problem::new("/week/until", problem.says) } else { problem }
    });
    DeskError::Invalid(placed.collect())
}
