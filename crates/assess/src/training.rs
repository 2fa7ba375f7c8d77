//! What the client has been doing lately, by region.

use crate::input::{Case, TrainingEntry};
use atlas::{Atlas, Exercise};
use jiff::ToSpan;
use jiff::civil::Date;
use std::collections::BTreeMap;
use units::RegionId;

/// Weeks of history that count as lately.
const RECENT_WEEKS: i64 = 4;

/// Training of the last four weeks before a case's day, by region.
pub(crate) struct Recent<'a> {
    atlas: &'a Atlas,
    weeks: usize,
    /// In the order of the atlas.
    by_region: Vec<Share<'a>>,
}

/// What a region got.
#[derive(Default)]
struct Share<'a> {
    /// Fractional sets in all.
    sets: f64,
    /// Those from exercises that have it not as main target.
    indirect_sets: f64,
    /// Entries whose exercise has it as main target, with their place in the session, 0 first to 1 last.
    direct: Vec<(&'a TrainingEntry, &'a Exercise, f64)>,
}

impl<'a> Recent<'a> {
    /// `None` when no training is known for these weeks.
    pub(crate) fn of(atlas: &'a Atlas, case: &'a Case) -> Option<Self> {
        Self::since(atlas, case, RECENT_WEEKS)
    }

    /// The same for another number of weeks.
    pub(crate) fn since(atlas: &'a Atlas, case: &'a Case, weeks: i64) -> Option<Self> {
        let start = case.as_of.checked_sub(weeks.weeks()).unwrap_or(Date::MIN);
        let recent = || case.training.iter().filter(|entry| entry.week_of >= start);
        let mut known: Vec<Date> = recent().map(|entry| entry.week_of).collect();
        known.sort_unstable();
        known.dedup();
        let weeks = known.len();
        let mut lengths: BTreeMap<(Date, u8), u8> = BTreeMap::new();
        for entry in recent() {
            let length = lengths.entry((entry.week_of, entry.session)).or_default();
            *length = (*length).max(entry.position);
        }
        let mut by_region: Vec<Share> = atlas.regions().iter().map(|_| Share::default()).collect();
        for entry in recent() {
            let Some(exercise) = atlas.exercise(&entry.exercise) else { continue };
            let length = lengths.get(&(entry.week_of, entry.session)).copied().unwrap_or_default();
            for (region, fraction) in &exercise.targets {
                if let Some(region) = atlas.region_index(region) {
                    by_region[region].add(entry, exercise, *fraction, length);
                }
            }
        }
        (weeks > 0).then_some(Self { atlas, weeks, by_region })
    }

    fn share(&self, region: &RegionId) -> Option<&Share<'a>> {
        self.by_region.get(self.atlas.region_index(region)?)
    }

    /// How many weeks have training.
    pub(crate) fn weeks(&self) -> usize {
        self.weeks
    }

    /// Fractional sets a week of a region.
    pub(crate) fn weekly_sets(&self, region: &RegionId) -> f64 {
        self.share(region).map_or(0.0, |share| share.sets) / self.weeks as f64
    }

    /// Fractional sets a week from exercises that have the region not as main target.
    pub(crate) fn weekly_indirect_sets(&self, region: &RegionId) -> f64 {
        self.share(region).map_or(0.0, |share| share.indirect_sets) / self.weeks as f64
    }

    /// Entries whose exercise has the region as main target.
    pub(crate) fn direct(&self, region: &RegionId) -> impl Iterator<Item = (&'a TrainingEntry, &'a Exercise)> {
        let direct = self.share(region).map(|share| share.direct.iter());
        direct.into_iter().flatten().map(|(entry, exercise, _)| (*entry, *exercise))
    }

    /// Median place of the region's direct work in its sessions, 0 first to 1 last. `None` without direct work.
    pub(crate) fn median_place(&self, region: &RegionId) -> Option<f64> {
        let mut places: Vec<f64> = self.share(region)?.direct.iter().map(|(_, _, place)| *place).collect();
        places.sort_by(f64::total_cmp);
        places.get(places.len() / 2).copied()
    }
}

impl<'a> Share<'a> {
    fn add(&mut self, entry: &'a TrainingEntry, exercise: &'a Exercise, fraction: f64, session_length: u8) {
        let sets = f64::from(entry.sets) * fraction;
        self.sets += sets;
        if fraction < 1.0 {
            self.indirect_sets += sets;
            return;
        }
        // A session of one exercise is neither early nor late.
        let place = match session_length {
            0 | 1 => 0.5,
            length => f64::from(entry.position.saturating_sub(1)) / f64::from(length - 1),
        };
        self.direct.push((entry, exercise, place));
    }
}

/// Average weekly fractional sets of a region over the last four weeks; `None` when no training is known at all.
pub fn recent_average(atlas: &Atlas, case: &Case, region: &RegionId) -> Option<f64> {
    Recent::of(atlas, case).map(|recent| recent.weekly_sets(region))
}
