//! Private links of clients: made, listed, taken back.

use super::{LinkView, NewLinkRequest};
use crate::desk::{Desk, today};
use crate::error::{DeskError, invalid};
use jiff::ToSpan;
use store::{Account, NewLink};
use units::ClientId;

/// Links made for a client on one day, at most.
const A_DAY: usize = 20;

/// Days a link may open.
const DAYS: [u16; 2] = [1, 366];

/// A key that opens a link, and what is kept of it.
pub struct NewKey {
    /// What the client is sent.
    pub token: String,
    /// Its digest, which opens nothing.
    pub sha256: String,
}

impl Desk {
    /// A client's links, newest first.
    pub fn links(&self, client_id: &ClientId) -> Result<Vec<LinkView>, DeskError> {
        Ok(self.store.links(client_id)?.iter().map(|link| LinkView::of(link, None)).collect())
    }

    /// Makes a link that a key opens. The key is in this answer and nowhere else.
    pub fn make_link(
        &self,
        client_id: &ClientId,
        by: &Account,
        asked: &NewLinkRequest,
        key: NewKey,
    ) -> Result<LinkView, DeskError> {
        let (days, [least, most]) = (asked.days, DAYS);
        if !(least..=most).contains(&days) {
            return Err(invalid("/days", format!("{days} days: expected {least} to {most}")));
        }
        let today = today();
        let made = self.store.links(client_id)?.iter().filter(|link| link.made_on == today).count();
        if made >= A_DAY {
            let says =
                format!("{made} links were made for this client today: take one of them, or make another tomorrow");
            return Err(DeskError::TooMuch(says));
        }
        let new = NewLink {
            client_id,
            token_sha256: &key.sha256,
            made_by: &by.name,
            made_by_id: &by.id,
            made_on: today,
            expires_on: today.checked_add((i64::from(days) - 1).days()).map_err(DeskError::internal)?,
        };
        Ok(LinkView::of(&self.store.add_link(&new)?, Some(key.token)))
    }

    /// Takes a link back for good.
    pub fn revoke_link(&self, client_id: &ClientId, link_id: &str) -> Result<(), DeskError> {
        Ok(self.store.revoke_link(client_id, link_id, today())?)
    }
}
