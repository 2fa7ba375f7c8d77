//! The practice's own clients as the yardstick of size, for clients whose school asks for it.

use crate::error::DeskError;
use assess::{Assessment, Case, Client, Knowledge, Roster, assess_beside};
use std::cell::OnceCell;
use store::{ClientRecord, Kind, Page, RoundRecord, Store, is_made_up};
use units::ClientId;

/// Whether a client's verdict rests on everybody else's.
pub(crate) fn rests_on_all(knowledge: &Knowledge, client: &Client) -> bool {
    let school = knowledge.atlas.school_option(&client.schools, "sizing");
    school.is_some_and(|option| option.id == "own-roster")
}

/// Newest rounds of clients with what is to be assessed.
pub(crate) type Newest = Vec<(RoundRecord, Case)>;

/// Clients with their newest rounds; one whose rows cannot be read is left out and keeps nobody else's from being read.
pub(crate) fn readable(
    store: &Store,
    knowledge: &Knowledge,
    ids: &[ClientId],
) -> Result<(Vec<ClientRecord>, Newest), DeskError> {
    let read = |ids: &[ClientId]| {
        let records = store.clients_by_id(&knowledge.atlas, ids)?;
        let newest = store.newest_cases(&knowledge.atlas, &records)?;
        Ok::<_, store::StoreError>((records, newest))
    };
    match read(ids) {
        Err(why) if why.kind() == Kind::Corrupt => {
            let (mut records, mut newest) = (Vec::new(), Vec::new());
            for id in ids {
                match read(std::slice::from_ref(id)) {
                    Ok((record, case)) => {
                        records.extend(record);
                        newest.extend(case);
                    }
                    Err(why) if why.kind() == Kind::Corrupt => {
                        tracing::error!(client_id = %id, %why, "what is stored of a client cannot be read");
                    }
                    Err(other) => return Err(other.into()),
                }
            }
            Ok((records, newest))
        }
        other => Ok(other?),
    }
}

/// Assesses the clients of one request. Everyone's newest round is read once, and only when a verdict rests on it.
pub(crate) struct Assessor<'a> {
    store: &'a Store,
    knowledge: &'a Knowledge,
    everyone: OnceCell<Newest>,
}

impl<'a> Assessor<'a> {
    /// Reads from a store, with what is known.
    pub fn new(store: &'a Store, knowledge: &'a Knowledge) -> Self {
        Self { store, knowledge, everyone: OnceCell::new() }
    }

    /// What is known.
    pub fn knowledge(&self) -> &'a Knowledge {
        self.knowledge
    }

    /// Assesses the case of `client_id`.
    pub fn assess(&self, case: &Case, client_id: &ClientId) -> Result<Assessment, DeskError> {
        let roster =
            if rests_on_all(self.knowledge, &case.client) { self.others(client_id)? } else { Roster::default() };
        Ok(assess_beside(self.knowledge, case, &roster))
    }

    /// Everyone but the client and those who are made up.
    fn others(&self, client_id: &ClientId) -> Result<Roster, DeskError> {
        let mut roster = Roster::default();
        let real = |(round, case): &&(RoundRecord, Case)| round.client_id != *client_id && !is_made_up(&case.client);
        for (_, case) in self.everyone()?.iter().filter(real) {
            roster.add_case(self.knowledge, case);
        }
        Ok(roster)
    }

    fn everyone(&self) -> Result<&[(RoundRecord, Case)], DeskError> {
        if let Some(known) = self.everyone.get() {
            return Ok(known);
        }
        let whole = Page { number: 1, size: u32::MAX };
        let (mut ids, _) = self.store.client_ids(None, false, whole)?;
        ids.extend(self.store.client_ids(None, true, whole)?.0);
        let (_, read) = readable(self.store, self.knowledge, &ids)?;
        Ok(self.everyone.get_or_init(|| read))
    }
}
