//! Logged work as past training, so that the next verdict and plan follow from what was really done.

use crate::calendar::monday;
use crate::entry::{Count, Entry, ExerciseLog, Form, LoggedSet, Part};
use assess::TrainingEntry;
use atlas::{Atlas, STRAIGHT};
use jiff::civil::Date;
use std::collections::{BTreeMap, BTreeSet};
use units::RegionId;

/// More left than this and a set is not a hard one.
const HARD_RESERVE: u8 = 3;

/// The entry as a row of past training; none for a session as a whole and where no hard set was done. Both sides of a set are
/// one set.
pub fn training_entry(atlas: &Atlas, entry: &Entry) -> Option<TrainingEntry> {
    let Part::Exercise(log) = &entry.part else { return None };
    let hard = |set: &&LoggedSet| set.reserve.is_none_or(|left| left <= HARD_RESERVE);
    let numbers: BTreeSet<u8> = log.sets.iter().filter(hard).map(|set| set.number).collect();
    let sets = u16::try_from(numbers.len()).ok().filter(|sets| *sets > 0)?;
    let scheme = atlas.scheme(&log.scheme).or_else(|| atlas.scheme(STRAIGHT));
    let parts: f64 = numbers.iter().map(|number| parts_of(atlas, log, *number)).sum();
    let counted = scheme.map_or(f64::from(sets), |scheme| scheme.counted(sets)) + parts;
    let reps = log.sets.iter().filter_map(|set| match set.count {
        Count::Reps(reps) => Some(reps),
        Count::Seconds(_) => None,
    });
    Some(TrainingEntry {
        week_of: monday(entry.trained_on),
        session: entry.session.day,
        position: log.position,
        exercise: log.done().clone(),
        // At least one, at most what sets alone would be doubled to: a whole number within 16 bits.
        #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
        sets: counted.round().max(1.0) as u16,
        one_sided: log.one_sided(),
        reps: reps.min(),
        swung: log.form.contains(&Form::Swung),
    })
}

/// What followed on a set counts as, hard sets; of two sides the one with more.
fn parts_of(atlas: &Atlas, log: &ExerciseLog, number: u8) -> f64 {
    let of = |set: &LoggedSet| set.parts.iter().map(|part| atlas.part_rule(part.kind).counts).sum::<f64>();
    log.sets.iter().filter(|set| set.number == number).map(of).fold(0.0, f64::max)
}

/// Weeks that count as lately.
const LATELY: usize = 4;

/// Fractional sets a week by region, indirect work counted, in the last weeks that have any of these rows.
pub fn weekly_sets(atlas: &Atlas, rows: &[TrainingEntry]) -> BTreeMap<RegionId, f64> {
    let weeks: BTreeSet<Date> = rows.iter().map(|row| row.week_of).collect();
    let recent: Vec<Date> = weeks.into_iter().rev().take(LATELY).collect();
    let mut sets = BTreeMap::new();
    for row in rows.iter().filter(|row| recent.contains(&row.week_of)) {
        for (region, fraction) in atlas.exercise(&row.exercise).iter().flat_map(|exercise| &exercise.targets) {
            *sets.entry(region.clone()).or_insert(0.0) += f64::from(row.sets) * fraction / recent.len() as f64;
        }
    }
    sets
}

/// Past training of a client: what was logged, and before the first logged week what was told. A week that is logged in part is not
/// filled up with what was told of it.
pub fn past_training(told: Vec<TrainingEntry>, logged: Vec<TrainingEntry>) -> Vec<TrainingEntry> {
    let first = logged.iter().map(|row| row.week_of).min().unwrap_or(Date::MAX);
    told.into_iter().filter(|row| row.week_of < first).chain(logged).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::entry::LoggedPart;
    use crate::performance::tests::{entry, set};
    use atlas::PartKind;
    use rstest::rstest;
    use units::Side;

    fn of(change: impl Fn(&mut crate::entry::ExerciseLog)) -> Option<TrainingEntry> {
        let mut entry = entry("2026-03-05", "db-curl", &[(12.0, 12), (12.0, 10), (12.0, 9)]);
        let Part::Exercise(log) = &mut entry.part else { unreachable!() };
        change(log);
        training_entry(&Atlas::load().unwrap(), &entry)
    }

    #[test]
    fn three_sets_on_a_thursday_are_three_sets_of_that_week() {
        let row = of(|_| {}).unwrap();
        assert_eq!((row.week_of.to_string().as_str(), row.sets, row.reps), ("2026-03-02", 3, Some(9)));
    }

    #[rstest]
    #[case::both_sides_of_a_set_are_one(&[(1, Some(Side::Left)), (1, Some(Side::Right)), (2, Some(Side::Left)), (2, Some(Side::Right))], Some((2, true)))]
    #[case::nothing_done(&[], None)]
    fn sides_share_a_set(#[case] sets: &[(u8, Option<Side>)], #[case] expected: Option<(u16, bool)>) {
        let sets: Vec<LoggedSet> =
            sets.iter().map(|(n, side)| LoggedSet { side: *side, ..set(*n, 10.0, 10) }).collect();
        let row = of(|log| log.sets.clone_from(&sets));
        assert_eq!(row.map(|row| (row.sets, row.one_sided)), expected);
    }

    // A hard set ends 0 to 3 repetitions from failure.
    #[test]
    fn a_set_with_five_left_is_no_hard_set() {
        let row = of(|log| log.sets[0].reserve = Some(5)).unwrap();
        assert_eq!(row.sets, 2);
    }

    // One all-out top set counts as one, whatever warmed up to it.
    #[test]
    fn the_scheme_says_what_sets_count_as() {
        assert_eq!(of(|log| log.scheme = "ramp-top".into()).unwrap().sets, 2);
    }

    // A drop counts a half beside its set, and only where it was done.
    #[rstest]
    #[case::two_drops(2, 4)]
    #[case::none(0, 3)]
    fn what_followed_on_a_set_counts_when_it_was_done(#[case] drops: usize, #[case] expected: u16) {
        let drop = LoggedPart { kind: PartKind::Drop, load: None, count: Count::Reps(9) };
        let row = of(|log| {
            log.scheme = "drop".into();
            for set in log.sets.iter_mut().take(drops) {
                set.parts = vec![drop];
            }
        });
        assert_eq!(row.unwrap().sets, expected);
    }

    #[test]
    fn a_reported_swing_is_known_to_the_verdict() {
        assert!(of(|log| log.form = vec![Form::Swung]).unwrap().swung);
    }

    #[rstest]
    #[case::nothing_logged(&["2026-02-02", "2026-02-09"], &[], &["2026-02-02", "2026-02-09"])]
    #[case::logged_from_the_second_week_on(&["2026-02-02", "2026-02-09"], &["2026-02-09"], &["2026-02-02", "2026-02-09"])]
    #[case::a_gap_in_the_log_stays_one(&["2026-02-02", "2026-02-16"], &["2026-02-09", "2026-02-23"], &["2026-02-02", "2026-02-09", "2026-02-23"])]
    fn what_was_told_holds_until_the_first_logged_week(
        #[case] told: &[&str],
        #[case] logged: &[&str],
        #[case] expected: &[&str],
    ) {
        let rows = |weeks: &[&str], sets| -> Vec<TrainingEntry> {
            let row = |on: &&str| TrainingEntry { week_of: on.parse().unwrap(), sets, ..of(|_| {}).unwrap() };
            weeks.iter().map(row).collect()
        };
        let past = past_training(rows(told, 9), rows(logged, 3));
        let weeks: Vec<String> = past.iter().map(|row| row.week_of.to_string()).collect();
        assert_eq!(weeks, expected);
        assert!(past.iter().all(|row| (row.sets == 3) == logged.contains(&row.week_of.to_string().as_str())));
    }

    // Sets times the target's fraction; a curl is 1 for the long head.
    #[test]
    fn weekly_sets_are_the_mean_of_the_last_four_weeks_trained() {
        let atlas = Atlas::load().unwrap();
        let week = |on: &str, sets| TrainingEntry { week_of: on.parse().unwrap(), sets, ..of(|_| {}).unwrap() };
        let rows = [
            week("2026-01-05", 9),
            week("2026-02-02", 4),
            week("2026-02-09", 4),
            week("2026-02-16", 2),
            week("2026-03-02", 2),
        ];
        let curl = atlas.exercise(&rows[0].exercise).unwrap();
        let main = curl.targets.iter().find(|(_, fraction)| **fraction >= 1.0).unwrap().0;
        assert!((weekly_sets(&atlas, &rows)[main] - 3.0).abs() < 1e-9);
    }
}
