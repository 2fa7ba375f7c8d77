//! Past training: known exercises, plausible sets, weeks that have been.

use super::Checker;
use crate::problem::Problem;
use crate::raw::TrainingRow;
use assess::TrainingEntry;
use atlas::Atlas;
use jiff::civil::Date;
use units::Place;

/// Checks rows of past training as of a day. `at` is the pointer of the list.
///
/// # Errors
/// All problems.
pub fn check_training(
    atlas: &Atlas,
    at: &Place,
    rows: &[TrainingRow],
    as_of: Date,
) -> Result<Vec<TrainingEntry>, Vec<Problem>> {
    let mut check = Checker::new(atlas);
    let each = rows.iter().enumerate();
    let entries: Vec<_> = each.filter_map(|(i, row)| self::row(&mut check, &at.at(i), row, Some(as_of))).collect();
    if check.problems.is_empty() { Ok(entries) } else { Err(check.problems) }
}

pub(super) fn row(check: &mut Checker, at: &Place, row: &TrainingRow, as_of: Option<Date>) -> Option<TrainingEntry> {
    const SETS: [f64; 2] = [1.0, 40.0];
    let week_of = check.date(&at.at("week_of"), &row.week_of);
    if let (Some(week), Some(as_of)) = (week_of, as_of)
        && week > as_of
    {
        check.fail::<()>(at.at("week_of"), format!("the week of {week} is after as_of, {as_of}"));
    }
    let exercise = check.exercise(&at.at("exercise"), &row.exercise);
    let sets = check.number(&at.at("sets"), "sets", f64::from(row.sets), SETS, "");
    for (field, value) in [("session", row.session), ("position", row.position)] {
        check.number(&at.at(field), field, f64::from(value), [1.0, 20.0], "");
    }
    if let Some(reps) = row.reps {
        check.number(&at.at("reps"), "repetitions", f64::from(reps), [1.0, 100.0], "");
    }
    sets?;
    Some(TrainingEntry {
        week_of: week_of?,
        session: row.session,
        position: row.position,
        exercise: exercise?.id.clone(),
        sets: row.sets,
        one_sided: row.one_sided,
        reps: row.reps,
        swung: row.swung,
    })
}
