//! The practice's own clients as the yardstick of size, for clients whose school asks for it.

use crate::error::ApiError;
use assess::{Assessment, Case, Client, Knowledge, Roster, assess_beside};
use std::cell::OnceCell;
use store::{Page, RoundRecord, Store};

/// Whether a client's verdict rests on everybody else's.
pub(crate) fn rests_on_all(knowledge: &Knowledge, client: &Client) -> bool {
    let school = knowledge.atlas.school_option(&client.schools, "sizing");
    school.is_some_and(|option| option.id == "own-roster")
}

/// Assesses the clients of one request. Everyone's newest round is read once, and only when a verdict rests on it.
pub(crate) struct Assessor<'a> {
    store: &'a Store,
    knowledge: &'a Knowledge,
    everyone: OnceCell<Vec<(RoundRecord, Case)>>,
}

impl<'a> Assessor<'a> {
    pub(crate) fn new(store: &'a Store, knowledge: &'a Knowledge) -> Self {
        Self { store, knowledge, everyone: OnceCell::new() }
    }

    /// Assesses the case of `client_id`.
    pub(crate) fn assess(&self, case: &Case, client_id: &str) -> Result<Assessment, ApiError> {
        let roster =
            if rests_on_all(self.knowledge, &case.client) { self.others(client_id)? } else { Roster::default() };
        Ok(assess_beside(self.knowledge, case, &roster))
    }

    /// Everyone but the client.
    fn others(&self, client_id: &str) -> Result<Roster, ApiError> {
        let mut roster = Roster::default();
        for (_, case) in self.everyone()?.iter().filter(|(round, _)| round.client_id != client_id) {
            roster.add_case(self.knowledge, case);
        }
        Ok(roster)
    }

    fn everyone(&self) -> Result<&[(RoundRecord, Case)], ApiError> {
        if let Some(known) = self.everyone.get() {
            return Ok(known);
        }
        let (clients, _) = self.store.clients(&self.knowledge.atlas, None, Page { number: 1, size: u32::MAX })?;
        let read = self.store.newest_cases(&self.knowledge.atlas, &clients)?;
        Ok(self.everyone.get_or_init(|| read))
    }
}
