//! What was planned and done for each region over a round, and what hurt or was felt elsewhere while it was trained.

use crate::entry::{Entry, ExerciseLog, Part};
use crate::heads::{Heads, heads};
use crate::review::WorkDone;
use crate::training::training_entry;
use atlas::Atlas;
use jiff::civil::Date;
use std::collections::BTreeMap;
use units::{ExerciseId, RegionId};

/// A session of the plan on its day.
#[derive(Clone, Debug)]
pub struct PlannedSession {
    /// The day.
    pub on: Date,
    /// Exercises with their sets and the region each is there for.
    pub items: Vec<(ExerciseId, u16, RegionId)>,
}

/// What a round held.
#[derive(Clone, Debug, Default)]
pub struct RoundWork {
    /// By region.
    pub by_region: BTreeMap<RegionId, WorkDone>,
    /// Sessions planned up to the day.
    pub sessions_planned: usize,
    /// Sessions in which something was done.
    pub sessions_kept: usize,
    /// Weeks trained.
    pub weeks: f64,
}

/// Times the same neighbour has to take over before it counts.
const FELT_TWICE: usize = 2;

/// Sums a round up to `until`, that day left out. `bands` are the plan's, by region.
pub fn round_work(
    atlas: &Atlas,
    planned: &[PlannedSession],
    entries: &[Entry],
    bands: &BTreeMap<RegionId, [f64; 2]>,
    until: Date,
) -> RoundWork {
    let due: Vec<&PlannedSession> = planned.iter().filter(|session| session.on < until).collect();
    let before: Vec<Entry> = entries.iter().filter(|entry| entry.trained_on < until).cloned().collect();
    let counted: Vec<&Entry> = heads(&before).iter().filter_map(Heads::counts).collect();
    let first = due.iter().map(|session| session.on).min();
    let weeks = first.map_or(0.0, |first| (until.duration_since(first).as_hours() as f64 / 24.0 / 7.0).max(1.0));
    let mut by_region: BTreeMap<RegionId, WorkDone> = BTreeMap::new();
    for (region, band) in bands {
        by_region.entry(region.clone()).or_default().band = Some(*band);
    }
    for (exercise, sets, _) in due.iter().flat_map(|session| &session.items) {
        for (region, fraction) in atlas.exercise(exercise).iter().flat_map(|exercise| &exercise.targets) {
            by_region.entry(region.clone()).or_default().planned_sets += f64::from(*sets) * fraction;
        }
    }
    let mut kept: Vec<_> = Vec::new();
    for entry in &counted {
        let Some(row) = training_entry(atlas, entry) else { continue };
        if !kept.contains(&&entry.session) {
            kept.push(&entry.session);
        }
        for (region, fraction) in atlas.exercise(&row.exercise).iter().flat_map(|exercise| &exercise.targets) {
            by_region.entry(region.clone()).or_default().done_sets += f64::from(row.sets) * fraction;
        }
    }
    for (region, work) in &mut by_region {
        work.weekly_sets = if weeks > 0.0 { work.done_sets / weeks } else { 0.0 };
        let logs: Vec<&ExerciseLog> = counted.iter().filter_map(|entry| log_for(atlas, entry, region)).collect();
        let (hurt, felt) = (pain(atlas, &logs), felt_elsewhere(atlas, &logs, region));
        work.blamed = [&hurt, &felt].into_iter().flatten().map(|(exercise, _)| exercise.clone()).collect();
        work.main = main(&due, region);
        work.pain = hurt.map(|(_, says)| says);
        work.felt = felt.map(|(_, says)| says);
    }
    RoundWork { by_region, sessions_planned: due.len(), sessions_kept: kept.len(), weeks }
}

/// The log of an entry whose exercise has the region as main target.
fn log_for<'a>(atlas: &Atlas, entry: &'a Entry, region: &RegionId) -> Option<&'a ExerciseLog> {
    let Part::Exercise(log) = &entry.part else { return None };
    atlas.exercise(log.done()).is_some_and(|exercise| exercise.trains(region)).then_some(log)
}

fn name(atlas: &Atlas, exercise: &ExerciseId) -> String {
    atlas.exercise(exercise).map_or_else(|| exercise.to_string(), |exercise| exercise.name.clone())
}

/// The exercise that has most sets for a region.
fn main(due: &[&PlannedSession], region: &RegionId) -> Option<ExerciseId> {
    let mut sets: BTreeMap<&ExerciseId, u32> = BTreeMap::new();
    for (exercise, count, _) in due.iter().flat_map(|session| &session.items).filter(|(_, _, of)| of == region) {
        *sets.entry(exercise).or_default() += u32::from(*count);
    }
    sets.into_iter().max_by_key(|(_, sets)| *sets).map(|(exercise, _)| exercise.clone())
}

fn pain(atlas: &Atlas, logs: &[&ExerciseLog]) -> Option<(ExerciseId, String)> {
    let (log, pain) = logs.iter().rev().find_map(|log| Some((log, log.pain.as_ref().filter(|pain| pain.stops())?)))?;
    let during = pain.during.as_ref().unwrap_or_else(|| log.done());
    let says = format!("{}: pain {} of 10, {}", name(atlas, during), pain.level, pain.area.replace('-', " "));
    Some((during.clone(), says))
}

fn felt_elsewhere(atlas: &Atlas, logs: &[&ExerciseLog], region: &RegionId) -> Option<(ExerciseId, String)> {
    let mut times: BTreeMap<(&ExerciseId, &str), usize> = BTreeMap::new();
    for log in logs {
        if let Some(felt) = log.felt.as_deref().filter(|felt| *felt != region.as_str()) {
            *times.entry((log.done(), felt)).or_default() += 1;
        }
    }
    let ((exercise, felt), _) = times.into_iter().find(|(_, times)| *times >= FELT_TWICE)?;
    let named = atlas.regions().iter().find(|known| known.id.as_str() == felt).map(|known| known.name.clone());
    let place = named.or_else(|| atlas.named_takeover(felt).map(ToOwned::to_owned)).unwrap_or_else(|| felt.to_owned());
    let name = name(atlas, exercise);
    Some((exercise.clone(), format!("{name} was felt twice or more elsewhere: {place}")))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::entry::{ExercisePain, SessionKey};
    use crate::performance::tests::entry;
    use rstest::{fixture, rstest};

    #[fixture]
    fn atlas() -> Atlas {
        Atlas::load().unwrap()
    }

    fn session(on: &str) -> PlannedSession {
        let item = ("standing-calf-raise".parse().unwrap(), 3, "calves.gastrocnemius".parse().unwrap());
        PlannedSession { on: on.parse().unwrap(), items: vec![item] }
    }

    fn calves(on: &str, week: u8, sets: &[(f64, u16)]) -> Entry {
        let done = entry(on, "standing-calf-raise", sets);
        Entry { session: SessionKey { week, ..done.session.clone() }, ..done }
    }

    fn of(atlas: &Atlas, entries: &[Entry]) -> (RoundWork, WorkDone) {
        let planned = ["2026-03-02", "2026-03-09", "2026-03-16", "2026-04-06"].map(session);
        let bands = BTreeMap::from([("calves.gastrocnemius".parse().unwrap(), [10.0, 20.0])]);
        let work = round_work(atlas, &planned, entries, &bands, "2026-03-23".parse().unwrap());
        let calf = work.by_region["calves.gastrocnemius"].clone();
        (work, calf)
    }

    const THREE: [(f64, u16); 3] = [(60.0, 12), (60.0, 11), (60.0, 10)];

    #[rstest]
    fn sets_planned_and_done_are_counted_up_to_the_day(atlas: Atlas) {
        let done =
            [calves("2026-03-02", 1, &THREE), calves("2026-03-09", 2, &THREE[..2]), calves("2026-03-24", 4, &THREE)];
        let (work, calf) = of(&atlas, &done);
        assert_eq!((work.sessions_planned, work.sessions_kept), (3, 2));
        assert!((calf.planned_sets - 9.0).abs() < 1e-9 && (calf.done_sets - 5.0).abs() < 1e-9);
        assert!((calf.weekly_sets - 5.0 / 3.0).abs() < 1e-9 && calf.band == Some([10.0, 20.0]));
    }

    #[rstest]
    fn what_was_logged_twice_side_by_side_counts_once(atlas: Atlas) {
        let twice = [calves("2026-03-02", 1, &THREE), Entry { id: "other".into(), ..calves("2026-03-02", 1, &THREE) }];
        assert!((of(&atlas, &twice).1.done_sets - 3.0).abs() < 1e-9);
    }

    #[rstest]
    fn pain_and_a_neighbour_felt_twice_are_said(atlas: Atlas) {
        let felt = |on, week| {
            let mut entry = calves(on, week, &THREE);
            let Part::Exercise(log) = &mut entry.part else { unreachable!() };
            log.felt = Some("quads.rectus-femoris".into());
            log.pain =
                Some(ExercisePain { area: "ankle".into(), side: None, level: 4, red_flags: Vec::new(), during: None });
            entry
        };
        let (_, once) = of(&atlas, &[felt("2026-03-02", 1)]);
        assert!(once.felt.is_none() && once.pain.unwrap().contains("pain 4 of 10, ankle"));
        assert!(of(&atlas, &[felt("2026-03-02", 1), felt("2026-03-09", 2)]).1.felt.is_some());
    }
}
