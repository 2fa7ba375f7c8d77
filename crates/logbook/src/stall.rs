//! Exercises that do not move: no change in three weeks.

use crate::performance::Performed;
use jiff::ToSpan;
use jiff::civil::Date;
use units::Side;

/// Weeks without a better set before something is changed.
const STALL_WEEKS: i64 = 3;
/// Fewer sessions in that time say nothing.
const SESSIONS: usize = 3;
/// Anything less is no change: loads and repetitions are whole steps.
const BETTER: f64 = 1e-6;

/// An exercise that does not move.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Stall {
    /// The day of the best set.
    pub best_on: Date,
    /// What to do.
    pub says: String,
}

/// Whether an exercise has stood still up to `today`. `history` is of this exercise, oldest first; `side` is the one that
/// sets the pace.
pub fn stall(history: &[Performed], side: Option<Side>, today: Date) -> Option<Stall> {
    let since = today.checked_sub(STALL_WEEKS.weeks()).ok()?;
    let full: Vec<&Performed> =
        history.iter().filter(|done| !done.lighter && done.sets(side).next().is_some()).collect();
    let lately = full.iter().filter(|done| done.on > since).count();
    let best_on = last_better(&full, side)?;
    if lately < SESSIONS || best_on > since {
        return None;
    }
    let weeks = today.duration_since(best_on).as_hours() / 24 / 7;
    // A changed range or scheme shows within the same time again; then it is the exercise.
    let what = if weeks < 2 * STALL_WEEKS { "change its range or scheme" } else { "change the exercise" };
    Some(Stall { best_on, says: format!("No better set in {weeks} weeks: {what}.") })
}

/// The day of the last session that had a better set or a heavier load than any before it.
fn last_better(full: &[&Performed], side: Option<Side>) -> Option<Date> {
    let mut best: Option<(Date, f64, f64)> = None;
    for done in full {
        let loads = done.sets(side).filter_map(|set| set.load).map(units::Load::kg);
        let (set, load_kg) = (done.best(side)?, loads.reduce(f64::max).unwrap_or(0.0));
        best = match best {
            Some((on, set_before, load_before)) if set <= set_before + BETTER && load_kg <= load_before + BETTER => {
                Some((on, set_before, load_before))
            }
            Some((_, set_before, load_before)) => Some((done.on, set.max(set_before), load_kg.max(load_before))),
            None => Some((done.on, set, load_kg)),
        };
    }
    best.map(|(on, ..)| on)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::performance::tests::log;
    use rstest::rstest;

    fn of(sessions: &[(&str, f64, u16)]) -> Option<Stall> {
        let logs: Vec<(Date, crate::entry::ExerciseLog)> =
            sessions.iter().map(|(on, kg, reps)| (on.parse().unwrap(), log("db-curl", &[(*kg, *reps)]))).collect();
        let history: Vec<Performed> = logs.iter().map(|(on, log)| Performed { on: *on, lighter: false, log }).collect();
        stall(&history, None, "2026-04-01".parse().unwrap())
    }

    // No change in three weeks; common practice, no source.
    #[rstest]
    #[case::no_better_in_three_weeks(
        &[("2026-03-05", 12.0, 12), ("2026-03-12", 12.0, 12), ("2026-03-19", 12.0, 11), ("2026-03-26", 12.0, 12)], Some("range or scheme")
    )]
    #[case::still_none_after_six(
        &[("2026-02-10", 12.0, 12), ("2026-03-12", 12.0, 12), ("2026-03-19", 12.0, 11), ("2026-03-26", 12.0, 12)], Some("change the exercise")
    )]
    #[case::one_repetition_more_is_a_change(
        &[("2026-03-05", 12.0, 11), ("2026-03-12", 12.0, 12), ("2026-03-19", 12.0, 12), ("2026-03-26", 12.0, 12)], None
    )]
    // Fewer repetitions with more load are a step on, whatever the estimated maximum makes of them.
    #[case::more_load_is_a_change(
        &[("2026-03-05", 6.0, 20), ("2026-03-12", 8.0, 9), ("2026-03-19", 8.0, 9), ("2026-03-26", 8.0, 9)], None
    )]
    #[case::hardly_trained(&[("2026-03-05", 12.0, 12), ("2026-03-26", 12.0, 12)], None)]
    fn three_weeks_without_a_better_set_are_a_stall(#[case] sessions: &[(&str, f64, u16)], #[case] says: Option<&str>) {
        let stall = of(sessions);
        match says {
            Some(says) => assert!(stall.as_ref().is_some_and(|stall| stall.says.contains(says)), "{stall:?}"),
            None => assert_eq!(stall, None),
        }
    }
}
