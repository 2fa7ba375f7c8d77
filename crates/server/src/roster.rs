//! The practice's own clients as the yardstick of size, for clients whose school asks for it.

use crate::error::ApiError;
use assess::{Assessment, Case, Knowledge, Roster, assess_beside};
use store::{Page, Store};

/// Assesses the case of `client_id`.
pub(crate) fn assessed(
    store: &Store,
    knowledge: &Knowledge,
    case: &Case,
    client_id: &str,
) -> Result<Assessment, ApiError> {
    let own = knowledge.atlas.school_option(&case.client.schools, "sizing").is_some_and(|o| o.id == "own-roster");
    // Reading every client is only worth it when the verdict rests on them.
    let roster = if own { others(store, knowledge, client_id)? } else { Roster::default() };
    Ok(assess_beside(knowledge, case, &roster))
}

/// Everyone but the client, at their newest round.
fn others(store: &Store, knowledge: &Knowledge, client_id: &str) -> Result<Roster, ApiError> {
    let everyone = Page { number: 1, size: u32::MAX };
    let (clients, _) = store.clients(&knowledge.atlas, None, everyone)?;
    let mut roster = Roster::default();
    for (round, case) in store.newest_cases(&clients)? {
        if round.client_id != client_id {
            roster.add_case(knowledge, &case);
        }
    }
    Ok(roster)
}
