//! What the practice learns from its own tape beside the work: of its coaches' eyes, and of the girths that pictures show.

use crate::desk::Desk;
use assess::{BesideGirths, Knowledge, beside_girths, practice_constants};
use std::collections::BTreeMap;
use std::time::Duration;
use store::{Store, StoreError};
use units::RegionId;

/// Between two looks at whether there is something to learn from.
const A_WHILE: Duration = Duration::from_hours(1);

impl Desk {
    /// Starts the thread that learns whenever something has changed; it ends with the program.
    pub fn go_on_learning(&self) {
        let desk = self.clone();
        std::thread::spawn(move || {
            let mut learned = None;
            loop {
                match desk.learn_since(learned) {
                    Ok(stamp) => learned = Some(stamp),
                    Err(why) => tracing::error!(%why, "learning from the tape"),
                }
                std::thread::sleep(A_WHILE);
            }
        });
    }

    /// Learns when anything has changed since the stamp at which it was learned last; gives the stamp now.
    fn learn_since(&self, learned: Option<i64>) -> Result<i64, StoreError> {
        let now = self.store.total_stamp()?.all;
        if learned != Some(now) {
            let knowledge = self.knowledge();
            learn_eyes(&self.store, &knowledge)?;
            learn_girths(&self.store, &knowledge)?;
        }
        // What was learned changes stamps itself, and is no reason to learn.
        Ok(self.store.total_stamp()?.all)
    }
}

/// Sets the girths that pictures show beside the tape of the same rounds, over all clients, and keeps what that says of the constants.
///
/// # Errors
/// When the store cannot be read or written.
pub fn learn_girths(store: &Store, knowledge: &Knowledge) -> Result<(), StoreError> {
    let clients = store.rounds_as_shipped(&knowledge.atlas)?;
    store.keep_girth_constants(&practice_constants(&knowledge.atlas, clients.iter().map(Vec::as_slice)))
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
