//! What the practice learns of its coaches' eyes from girths: once a day, beside the work.

use crate::desk::Desk;
use assess::{BesideGirths, Knowledge, beside_girths};
use std::collections::BTreeMap;
use std::time::Duration;
use store::{Store, StoreError};
use units::RegionId;

const A_DAY: Duration = Duration::from_hours(24);

impl Desk {
    /// Starts the thread that learns; it ends with the program.
    pub fn learn_daily(&self) {
        let desk = self.clone();
        std::thread::spawn(move || {
            loop {
                if let Err(why) = learn_eyes(&desk.store, &desk.knowledge()) {
                    tracing::error!(%why, "raters' eyes");
                }
                std::thread::sleep(A_DAY);
            }
        });
    }
}

/// Sets every rater's standings beside the tape of the same rounds and keeps what that says of them.
///
/// # Errors
/// When the store cannot be read or written.
pub fn learn_eyes(store: &Store, knowledge: &Knowledge) -> Result<(), StoreError> {
    let mut eyes: BTreeMap<String, BesideGirths> = BTreeMap::new();
    for (round_id, raters) in store.standings_beside_tape()? {
        let case = store.case_at(&knowledge.atlas, &round_id)?;
        for (rater, standings) in raters {
            let eye = eyes.entry(rater).or_default();
            *eye = eye.and(beside_girths(knowledge, &case, &means(standings)));
        }
    }
    store.keep_eyes_beside_girths(&eyes)
}

/// A region's mean over its poses.
fn means(standings: Vec<(RegionId, i8)>) -> Vec<(RegionId, f64)> {
    let mut by_region: BTreeMap<RegionId, Vec<f64>> = BTreeMap::new();
    for (region, value) in standings {
        by_region.entry(region).or_default().push(f64::from(value));
    }
    by_region.into_iter().map(|(region, all)| (region, all.iter().sum::<f64>() / all.len() as f64)).collect()
}
