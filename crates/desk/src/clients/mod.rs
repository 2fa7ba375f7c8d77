//! Clients: one, new, saved, put away, erased, made up.

mod archive;
mod list;
mod usual_week;
mod views;

pub use list::{ListOrder, ListQuery};
pub use views::{
    AgreedRound, AreaMark, ClientPage, ClientSummary, ClientView, LeanMark, PartName, PutAway, RegionMark,
    RoundSummary, SaveClient, SaveUsualWeek, UnreadableClient, UsualWeekView, VerdictSummary,
};

use crate::desk::{Desk, today};
use crate::error::{DeskError, invalid};
use assess::{Client, Knowledge};
use casefile::{ClientEntry, check_client};
use jiff::ToSpan;
use jiff::civil::Date;
use serde::Serialize;
use store::{Account, Belongings, ClientRecord, Store};
use units::{ClientId, Place, RoundId};
use utoipa::ToSchema;

/// Clients with whom a day is agreed on at once, at most.
const MOST_AT_ONCE: usize = 200;
/// Years ahead for which a day can be agreed on.
const AGREED_YEARS: i64 = 2;

/// Makes a client up to look around with, for a coach on a day: the same one again while they are there.
pub type MakesUp = dyn Fn(&Store, &Knowledge, &Account, Date) -> Result<MadeUp, String> + Send + Sync;

/// A client who is made up to look around with.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct MadeUp {
    /// Who it is.
    pub client_id: ClientId,
    /// Their newest round.
    pub round_id: RoundId,
}

impl Desk {
    /// A client with brief and rounds.
    pub fn client(&self, id: &ClientId) -> Result<ClientView, DeskError> {
        view(&self.store, &self.store.client(&self.knowledge().atlas, id)?)
    }

    /// Adds a client.
    pub fn add_client(&self, brief: &ClientEntry) -> Result<ClientView, DeskError> {
        let atlas = &self.knowledge().atlas;
        let client = check_client(atlas, &Place::root(), brief, today()).map_err(DeskError::Invalid)?;
        view(&self.store, &self.store.add_client(atlas, &client)?)
    }

    /// Saves a brief.
    pub fn save_client(&self, id: &ClientId, save: &SaveClient) -> Result<ClientView, DeskError> {
        let atlas = &self.knowledge().atlas;
        let client = check_client(atlas, &"/brief".into(), &save.brief, today()).map_err(DeskError::Invalid)?;
        keeps_consent(&self.store, &client, id)?;
        view(&self.store, &self.store.save_client(atlas, id, save.revision, &client)?)
    }

    /// What of a client would go with them.
    pub fn belongings(&self, id: &ClientId) -> Result<Belongings, DeskError> {
        Ok(self.store.belongings(&self.knowledge().atlas, id)?)
    }

    /// Agrees on a day for the next round of some clients, or takes it back.
    pub fn agree_on_round(&self, agreed: &AgreedRound) -> Result<(), DeskError> {
        let AgreedRound { client_ids, on } = agreed;
        if client_ids.is_empty() || client_ids.len() > MOST_AT_ONCE {
            let says = format!("{} clients: a day is agreed on with 1 to {MOST_AT_ONCE} at once", client_ids.len());
            return Err(invalid("/client_ids", says));
        }
        let on = on.as_ref().map(|text| agreed_day(text, today())).transpose()?;
        Ok(self.store.agree_on_round(client_ids, on)?)
    }

    /// Puts a client away, out of the lists, or back.
    pub fn put_away(&self, id: &ClientId, away: bool) -> Result<ClientView, DeskError> {
        self.store.put_away(id, away.then(today))?;
        self.client(id)
    }

    /// Removes a client for good, with everything about them.
    pub fn erase_client(&self, id: &ClientId) -> Result<(), DeskError> {
        self.store.client(&self.knowledge().atlas, id)?;
        self.store.erase_client(id)?;
        self.forget();
        Ok(())
    }

    /// Makes a client up to look around with; the one who is there already, if there is one.
    pub fn make_client_up(&self, who: &Account) -> Result<MadeUp, DeskError> {
        let none = || DeskError::NotFound("this server makes no clients up".into());
        let makes_up = self.makes_up.as_ref().ok_or_else(none)?;
        makes_up(&self.store, &self.knowledge(), who, today()).map_err(DeskError::Internal)
    }
}

fn view(store: &Store, record: &ClientRecord) -> Result<ClientView, DeskError> {
    let rounds = store.rounds(&record.id)?;
    Ok(ClientView {
        id: record.id.clone(),
        revision: record.revision,
        brief: ClientEntry::from(&record.client),
        rounds: rounds.iter().rev().map(RoundSummary::from).collect(),
        put_away_on: record.put_away_on.map(|on| on.to_string()),
        next_round_on: record.next_round_on.map(|on| on.to_string()),
    })
}

/// A day from today to two years from now.
fn agreed_day(text: &str, today: Date) -> Result<Date, DeskError> {
    let refused = |says: String| invalid("/on", says);
    let day: Date =
        text.parse().map_err(|_| refused(format!("{text:?} is not a date of the calendar: expected YYYY-MM-DD")))?;
    let last = today.checked_add(AGREED_YEARS.years()).unwrap_or(Date::MAX);
    if day < today || day > last {
        return Err(refused(format!("{day} is not a day to agree on: expected {today} to {last}")));
    }
    Ok(day)
}

/// Consent goes with every picture, so it is not taken back by leaving a field out.
fn keeps_consent(store: &Store, client: &Client, id: &ClientId) -> Result<(), DeskError> {
    let pictures = if client.photo_consent.is_none() { store.photo_count(id)? } else { 0 };
    if pictures == 0 {
        return Ok(());
    }
    let says = format!("there are {pictures} pictures of this client: withdraw the consent, which removes them");
    Err(invalid("/brief/photo_consent", says))
}
