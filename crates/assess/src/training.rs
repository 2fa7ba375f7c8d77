//! What the client has been doing lately, by region.

use crate::input::{Case, TrainingEntry};
use atlas::{Atlas, Exercise};
use jiff::ToSpan;
use jiff::civil::Date;
use std::collections::{BTreeMap, BTreeSet};
use units::RegionId;

/// Weeks of history that count as lately.
const RECENT_WEEKS: i64 = 4;

/// Training of the last four weeks before a case's day.
pub(crate) struct Recent<'a> {
    entries: Vec<(&'a TrainingEntry, &'a Exercise)>,
    weeks: usize,
}

impl<'a> Recent<'a> {
    /// `None` when no training is known for these weeks.
    pub(crate) fn of(atlas: &'a Atlas, case: &'a Case) -> Option<Self> {
        Self::since(atlas, case, RECENT_WEEKS)
    }

    /// The same for another number of weeks.
    pub(crate) fn since(atlas: &'a Atlas, case: &'a Case, weeks: i64) -> Option<Self> {
        let start = case.as_of.checked_sub(weeks.weeks()).unwrap_or(Date::MIN);
        let recent = case.training.iter().filter(|entry| entry.week_of >= start);
        let entries: Vec<_> = recent.filter_map(|entry| Some((entry, atlas.exercise(&entry.exercise)?))).collect();
        let weeks = entries.iter().map(|(entry, _)| entry.week_of).collect::<BTreeSet<_>>().len();
        (weeks > 0).then_some(Self { entries, weeks })
    }

    /// How many weeks have training.
    pub(crate) fn weeks(&self) -> usize {
        self.weeks
    }

    /// Fractional sets a week of a region.
    pub(crate) fn weekly_sets(&self, region: &RegionId) -> f64 {
        self.weekly(|exercise| exercise.fraction(region))
    }

    /// Fractional sets a week from exercises that have the region not as main target.
    pub(crate) fn weekly_indirect_sets(&self, region: &RegionId) -> f64 {
        self.weekly(|exercise| if exercise.trains(region) { 0.0 } else { exercise.fraction(region) })
    }

    fn weekly(&self, share: impl Fn(&Exercise) -> f64) -> f64 {
        let sets: f64 = self.entries.iter().map(|(entry, exercise)| f64::from(entry.sets) * share(exercise)).sum();
        sets / self.weeks as f64
    }

    /// Entries whose exercise has the region as main target.
    pub(crate) fn direct(&self, region: &RegionId) -> impl Iterator<Item = (&'a TrainingEntry, &'a Exercise)> {
        self.entries.iter().copied().filter(|(_, exercise)| exercise.trains(region))
    }

    /// Median place of the region's direct work in its sessions, 0 first to 1 last. `None` without direct work.
    pub(crate) fn median_place(&self, region: &RegionId) -> Option<f64> {
        let mut lengths: BTreeMap<(Date, u8), u8> = BTreeMap::new();
        for (entry, _) in &self.entries {
            let length = lengths.entry((entry.week_of, entry.session)).or_default();
            *length = (*length).max(entry.position);
        }
        let place = |entry: &TrainingEntry| {
            let length = lengths.get(&(entry.week_of, entry.session)).copied().unwrap_or(entry.position);
            // A session of one exercise is neither early nor late.
            if length < 2 { 0.5 } else { f64::from(entry.position.saturating_sub(1)) / f64::from(length - 1) }
        };
        let mut places: Vec<f64> = self.direct(region).map(|(entry, _)| place(entry)).collect();
        places.sort_by(f64::total_cmp);
        places.get(places.len() / 2).copied()
    }
}

/// Average weekly fractional sets of a region over the last four weeks; `None` when no training is known at all.
pub fn recent_average(atlas: &Atlas, case: &Case, region: &RegionId) -> Option<f64> {
    Recent::of(atlas, case).map(|recent| recent.weekly_sets(region))
}
