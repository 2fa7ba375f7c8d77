//! A round as it is worked on: itself, its case, and the verdict that follows, each read or worked out once.

use crate::error::DeskError;
use crate::roster::Assessor;
use assess::{Assessment, Case, Knowledge};
use store::{RoundRecord, Store};
use units::RoundId;

/// A round with its case and verdict.
pub(crate) struct Opened {
    pub round: RoundRecord,
    pub case: Case,
    pub assessment: Assessment,
}

impl Opened {
    /// Opens a round by its id.
    pub fn read(store: &Store, knowledge: &Knowledge, round_id: &RoundId) -> Result<Self, DeskError> {
        Self::of(store, &Assessor::new(store, knowledge), store.round(round_id)?)
    }

    /// Opens a round that was read already, among others of one request.
    pub fn of(store: &Store, assessor: &Assessor, round: RoundRecord) -> Result<Self, DeskError> {
        let case = store.case_at(&assessor.knowledge().atlas, &round.id)?;
        let assessment = assessor.assess(&case, &round.client_id)?;
        Ok(Self { round, case, assessment })
    }
}
