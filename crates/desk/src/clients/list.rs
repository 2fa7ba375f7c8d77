//! The list of clients, each with what their newest round says.

use super::{ClientPage, ClientSummary, PartName, UnreadableClient, VerdictSummary};
use crate::desk::{Desk, today};
use crate::error::{DeskError, UNREADABLE};
use crate::memo::Mark;
use crate::roster::{Assessor, readable, rests_on_all};
use assess::{Case, Knowledge, assess_each};
use serde::Deserialize;
use std::collections::{HashMap, HashSet};
use std::sync::Arc;
use store::{Page, RoundRecord, Store, StoreError};
use units::ClientId;
use utoipa::{IntoParams, ToSchema};

/// Clients on one page at most.
const PAGE_MOST: u32 = 100;

/// Which clients.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct ListQuery {
    /// Part of a name.
    pub find: Option<String>,
    /// Those put away instead of those in the lists.
    #[serde(default)]
    pub away: bool,
    /// Only those with this tag.
    pub tag: Option<String>,
    /// Only those in whom this part of the body is behind or leans behind; the site that mixes its muscles.
    pub behind: Option<String>,
    /// Only those whose next round is due.
    #[serde(default)]
    pub due: bool,
    /// In which order.
    #[serde(default)]
    #[param(inline)]
    pub order: ListOrder,
    /// From 1.
    #[serde(default = "first_page")]
    pub page: u32,
    /// 1 to 100.
    #[serde(default = "page_size")]
    pub per_page: u32,
}

/// The order of a list of clients.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum ListOrder {
    /// By name.
    #[default]
    Name,
    /// By the day agreed on for the next round, the soonest first; those without one after them.
    NextRound,
    /// By the day of the last round, the longest ago first; those without one before them.
    LastRound,
}

impl ListQuery {
    /// Whether it is the plain list by name: there are few enough of those to be kept.
    pub fn is_plain(&self) -> bool {
        self.find.is_none() && self.tag.is_none() && self.behind.is_none() && !self.due && self.order == ListOrder::Name
    }

    /// Whether what is asked about can only be told from what is worked out of each client.
    fn asks_about_each(&self) -> bool {
        self.tag.is_some() || self.behind.is_some() || self.due || self.order != ListOrder::Name
    }

    fn fits(&self, client: &ClientSummary) -> bool {
        let behind = |area: &String| {
            client
                .verdict
                .as_ref()
                .is_some_and(|verdict| verdict.behind.iter().any(|one| one.as_str() == area.as_str()))
        };
        self.tag.as_ref().is_none_or(|tag| client.tags.contains(tag))
            && self.behind.as_ref().is_none_or(behind)
            && (!self.due || client.due)
    }

    fn ordered(&self, clients: &mut [ClientSummary]) {
        // The names' order holds where days are the same.
        match self.order {
            ListOrder::Name => {}
            ListOrder::NextRound => {
                clients.sort_by_key(|client| (client.next_round_on.is_none(), client.next_round_on.clone()));
            }
            ListOrder::LastRound => {
                clients.sort_by_key(|client| client.newest.as_ref().map(|round| round.date.clone()));
            }
        }
    }
}

fn first_page() -> u32 {
    1
}

fn page_size() -> u32 {
    50
}

impl Desk {
    /// Clients as they are asked for.
    pub fn clients(&self, asked: &ListQuery) -> Result<ClientPage, DeskError> {
        let (store, knowledge) = (&self.store, &*self.knowledge());
        let page = Page { number: asked.page.max(1), size: asked.per_page.clamp(1, PAGE_MOST) };
        let whole = Page { number: 1, size: u32::MAX };
        let seen = if asked.asks_about_each() { whole } else { page };
        let (ids, mut total) = store.client_ids(asked.find.as_deref(), asked.away, seen)?;
        let mut items = self.summaries(knowledge, &ids)?;
        let days = self.days(today())?;
        let due: HashSet<&str> = days.iter().filter(|day| day.round_due).map(|day| day.client_id.as_str()).collect();
        for client in &mut items {
            client.due = due.contains(client.id.as_str());
        }
        // Whether somebody who cannot be read belongs to a narrowed list cannot be told: they are named on its first page.
        let lost = ids.iter().filter(|id| items.iter().all(|item| item.id != **id));
        let mut unreadable: Vec<_> =
            lost.filter_map(|id| unreadable(store, id).transpose()).collect::<Result<_, _>>()?;
        if asked.asks_about_each() {
            items.retain(|client| asked.fits(client));
            asked.ordered(&mut items);
            total = u32::try_from(items.len()).unwrap_or(u32::MAX);
            let before = page.number.saturating_sub(1).saturating_mul(page.size) as usize;
            items = items.into_iter().skip(before).take(page.size as usize).collect();
            unreadable.retain(|_| page.number == 1);
        }
        let (tags, parts) = (store.tags()?, PartName::all(&knowledge.atlas));
        Ok(ClientPage { items, tags, parts, unreadable, total, page: page.number, per_page: page.size })
    }

    /// Lines of the list; only those of clients about whom something changed are worked out.
    fn summaries(&self, knowledge: &Knowledge, ids: &[ClientId]) -> Result<Vec<ClientSummary>, DeskError> {
        let store = &self.store;
        let (stamps, today) = (store.stamps_of(ids)?, today());
        let total = store.total_stamp()?.all;
        // Where somebody stands does not follow from the log.
        let mark = |id: &ClientId| self.mark(stamps.get(id).copied().unwrap_or_default(), 0, today);
        let known = |id: &ClientId| {
            let (kept, summary) = self.books.summaries.find(id)?;
            (kept == Mark { all: kept.all.map(|_| total), ..mark(id) }).then_some(summary)
        };
        let mut found: HashMap<&ClientId, Arc<ClientSummary>> =
            ids.iter().filter_map(|id| Some((id, known(id)?))).collect();
        let missing: Vec<ClientId> = ids.iter().filter(|id| !found.contains_key(id)).cloned().collect();
        if !missing.is_empty() {
            let (records, newest) = readable(store, knowledge, &missing)?;
            let mut verdicts = verdicts(store, knowledge, &newest)?;
            for record in &records {
                let all = rests_on_all(knowledge, &record.client).then_some(total);
                let own = newest.iter().find(|(round, _)| round.client_id == record.id);
                let summary = ClientSummary::of(record, own, verdicts.remove(&record.id), today);
                let kept = self.books.summaries.keep(record.id.clone(), Mark { all, ..mark(&record.id) }, summary);
                found.extend(ids.iter().find(|id| **id == record.id).map(|id| (id, kept)));
            }
        }
        Ok(ids.iter().filter_map(|id| found.get(id)).map(|summary| (**summary).clone()).collect())
    }
}

/// `None` when they were removed meanwhile.
fn unreadable(store: &Store, id: &ClientId) -> Result<Option<UnreadableClient>, DeskError> {
    match store.client_name(id) {
        Ok(name) => Ok(Some(UnreadableClient { id: id.to_owned(), name, says: UNREADABLE.to_owned() })),
        Err(StoreError::NotFound { .. }) => Ok(None),
        Err(other) => Err(other.into()),
    }
}

/// What is said of each client's newest round, by client id. Those who are set against everybody else are worked out one by one.
fn verdicts(
    store: &Store,
    knowledge: &Knowledge,
    newest: &[(RoundRecord, Case)],
) -> Result<HashMap<ClientId, VerdictSummary>, DeskError> {
    let assessor = Assessor::new(store, knowledge);
    let (on_all, alone): (Vec<_>, Vec<_>) = newest.iter().partition(|(_, case)| rests_on_all(knowledge, &case.client));
    let cases: Vec<&Case> = alone.iter().map(|(_, case)| case).collect();
    let summary = |case: &Case, assessment| VerdictSummary::of(&knowledge.atlas, &assessment, &case.choices);
    let said = assess_each(knowledge, &cases, summary);
    let mut verdicts: HashMap<ClientId, VerdictSummary> =
        alone.iter().map(|(round, _)| round.client_id.clone()).zip(said).collect();
    for (round, case) in on_all {
        let assessment = assessor.assess(case, &round.client_id)?;
        verdicts.insert(round.client_id.clone(), summary(case, assessment));
    }
    Ok(verdicts)
}
