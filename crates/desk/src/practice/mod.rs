//! The practice: what it sets, what was done in it, how well each of its people measures and judges, how they like their sheets.

mod measurers;
mod settings;
mod tape_order;
mod views;

pub use views::{
    AccuracyView, ActView, DeedView, LearnedView, MeasurerView, MeasuringPoint, PracticeView, RaterView, SaveExercise,
    SavePractice, SettingView, TapeOrder,
};

use crate::desk::Desk;
use crate::error::DeskError;
use roles::Act;
use store::Deed;

/// Deeds on one page.
const DEEDS_A_PAGE: u32 = 100;

impl Desk {
    /// Who did what kind of thing, newest first, after so many newer ones.
    pub fn deeds(&self, skip: u32) -> Result<Vec<DeedView>, DeskError> {
        let view = |deed: Deed| {
            let act = Act::parse(&deed.act).ok_or_else(|| DeskError::Internal(format!("{:?} is no act", deed.act)))?;
            Ok(DeedView { at: deed.at, name: deed.name, act, client_name: deed.client_name })
        };
        self.store.deeds(skip, DEEDS_A_PAGE)?.into_iter().map(view).collect()
    }
}
