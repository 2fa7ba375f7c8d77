//! The review of a round, and everything over all rounds.

mod reviewing;
mod trends;
mod views;

pub(crate) use reviewing::last_review;
pub(crate) use trends::MeasuredTrends;
pub use views::{
    AreaReviewView, BulkMark, Carry, InLine, LiftTrend, MovedView, PicturePair, RegionReviewView, RegionTrend,
    ReviewView, SaveReview, SiteTrend, TrendMarks, TrendsView,
};

use crate::desk::Desk;
use crate::error::{DeskError, invalid};
use assess::{Choices, Knowledge};
use casefile::{ChoicesEntry, check_choices};
use reviewing::Reviewing;
use units::{RegionId, RoundId};

impl Desk {
    /// What moved over a round against what could be noise, what was done, and what is proposed.
    pub fn review(&self, round_id: &RoundId) -> Result<ReviewView, DeskError> {
        let knowledge = self.knowledge();
        Reviewing::read(&self.store, &knowledge, round_id)?.view(&self.store, &knowledge)
    }

    /// Saves decisions, and writes the choices that follow from them into the next round when asked to.
    pub fn save_review(&self, round_id: &RoundId, by: &str, save: SaveReview) -> Result<ReviewView, DeskError> {
        let SaveReview { revision, decisions, also, carry } = save;
        let (store, knowledge) = (&self.store, &*self.knowledge());
        let reviewing = Reviewing::read(store, knowledge, round_id)?;
        let also = chosen(knowledge, &also)?;
        if carry.is_some() && reviewing.next.is_none() {
            let says = "There is no next round yet: open and measure it, then the decisions can be carried over.";
            return Err(DeskError::Refused(says.to_owned()));
        }
        store.save_decisions(round_id, revision, by, &decisions)?;
        if let (Some(next), Some(how)) = (&reviewing.next, carry) {
            let carried = reviewing.carried(&knowledge.atlas, &decisions, &also, how);
            store.save_choices(&next.id, next.choices_revision, &carried)?;
        }
        self.review(round_id)
    }
}

fn chosen(knowledge: &Knowledge, also: &[String]) -> Result<Vec<RegionId>, DeskError> {
    if also.len() > Choices::MAX_BRING_UP {
        return Err(invalid("/also", format!("{} regions are more than {}", also.len(), Choices::MAX_BRING_UP)));
    }
    let entry = ChoicesEntry { bring_up: also.to_vec(), ..ChoicesEntry::default() };
    Ok(check_choices(&knowledge.atlas, &"/also".into(), &entry).map_err(DeskError::Invalid)?.bring_up)
}
