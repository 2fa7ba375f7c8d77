//! What each route does, and the one place where it is asked whether somebody may, and noted that they did.

use crate::http::ApiError;
use crate::state::AppState;
use desk::DeskError;
use jiff::{Timestamp, Unit};
use roles::Act;
use std::collections::HashSet;
use std::sync::{Arc, Mutex, PoisonError};
use store::{Account, NewDeed, Store, StoreError};
use units::{ClientId, RoundId};

/// What a route does.
#[derive(Clone, Copy)]
pub(crate) struct Route {
    method: &'static str,
    /// Below `/api/v1`.
    pattern: &'static str,
    /// The kind of thing it is.
    pub act: Act,
    /// Whether it is noted who did it. What only reads or works something out is not.
    noted: bool,
}

const fn reads(pattern: &'static str, act: Act) -> Route {
    Route { method: "GET", pattern, act, noted: false }
}

const fn works_out(pattern: &'static str, act: Act) -> Route {
    Route { method: "POST", pattern, act, noted: false }
}

const fn does(method: &'static str, pattern: &'static str, act: Act) -> Route {
    Route { method, pattern, act, noted: true }
}

/// Every route that asks for somebody signed in.
const ROUTES: &[Route] = &[
    works_out("/account/second-factor", Act::OwnAccount),
    does("PUT", "/account/second-factor", Act::OwnAccount),
    // How one reads is nobody's business.
    Route { method: "PUT", pattern: "/account/measures", act: Act::OwnAccount, noted: false },
    does("DELETE", "/practice/people/{account_id}/second-factor", Act::OwnAccount),
    reads("/atlas", Act::See),
    reads("/clients", Act::See),
    does("POST", "/clients", Act::Brief),
    does("POST", "/clients/archive", Act::TakeIn),
    does("POST", "/clients/made-up", Act::Brief),
    does("POST", "/clients/next-round", Act::Measure),
    reads("/clients/{client_id}", Act::See),
    does("PUT", "/clients/{client_id}", Act::Brief),
    does("GET", "/clients/{client_id}/archive", Act::TakeOut),
    does("POST", "/clients/{client_id}/consent/withdraw", Act::Withdraw),
    reads("/clients/{client_id}/links", Act::See),
    does("POST", "/clients/{client_id}/links", Act::Link),
    does("DELETE", "/clients/{client_id}/links/{link_id}", Act::Link),
    does("DELETE", "/clients/{client_id}", Act::Erase),
    does("PUT", "/clients/{client_id}/away", Act::PutAway),
    reads("/clients/{client_id}/belongings", Act::See),
    does("PUT", "/rounds/{round_id}", Act::PutAway),
    does("DELETE", "/rounds/{round_id}", Act::PutAway),
    reads("/clients/{client_id}/log", Act::See),
    reads("/clients/{client_id}/reported", Act::See),
    does("POST", "/clients/{client_id}/log", Act::Log),
    reads("/clients/{client_id}/messages", Act::See),
    does("POST", "/clients/{client_id}/messages", Act::Log),
    does("PUT", "/clients/{client_id}/messages/read", Act::Log),
    reads("/clients/{client_id}/note", Act::See),
    does("PUT", "/clients/{client_id}/note", Act::Brief),
    reads("/clients/{client_id}/set-ups", Act::See),
    reads("/clients/{client_id}/set-ups/{exercise}", Act::See),
    does("PATCH", "/clients/{client_id}/set-ups/{exercise}", Act::Log),
    reads("/clients/{client_id}/repeats", Act::See),
    does("POST", "/clients/{client_id}/rounds", Act::Measure),
    does("PUT", "/clients/{client_id}/targets/{exercise}", Act::Judge),
    reads("/clients/{client_id}/trends", Act::See),
    reads("/clients/{client_id}/usual-week", Act::See),
    does("PUT", "/clients/{client_id}/usual-week", Act::Log),
    reads("/clients/{client_id}/week", Act::See),
    works_out("/angle", Act::Measure),
    works_out("/devices/asked", Act::Measure),
    reads("/devices/feed", Act::Measure),
    works_out("/devices/read", Act::Measure),
    reads("/exercises/{exercise}/best-set-up", Act::See),
    reads("/exercises/{exercise}/levers", Act::See),
    reads("/eye", Act::Practise),
    does("POST", "/eye/sittings", Act::Practise),
    reads("/eye/sittings/{sitting_id}", Act::Practise),
    works_out("/eye/sittings/{sitting_id}/answers", Act::Practise),
    reads("/eye/sittings/{sitting_id}/pictures/{place}", Act::Practise),
    works_out("/files/tape/csv", Act::Measure),
    does("PUT", "/library/exercises", Act::Settings),
    does("PUT", "/photos/{photo_id}", Act::Photograph),
    does("DELETE", "/photos/{photo_id}", Act::Photograph),
    does("PUT", "/photos/{photo_id}/counts", Act::Photograph),
    reads("/photos/{photo_id}/outline", Act::See),
    reads("/photos/{photo_id}/over/{onto_id}", Act::See),
    reads("/photos/{photo_id}/thumb", Act::See),
    reads("/photos/{photo_id}/view", Act::See),
    reads("/plans/{plan_id}", Act::See),
    reads("/plans/{plan_id}/files/{kind}", Act::See),
    reads("/practice", Act::See),
    does("PUT", "/practice", Act::Settings),
    reads("/practice/accuracy", Act::See),
    does("GET", "/practice/backup", Act::TakeAllOut),
    reads("/practice/deeds", Act::Audit),
    reads("/practice/measurers", Act::See),
    reads("/practice/people", Act::See),
    does("POST", "/practice/people", Act::People),
    does("PUT", "/practice/people/{account_id}", Act::OwnAccount),
    does("DELETE", "/practice/people/{account_id}", Act::People),
    reads("/practice/tables", Act::TakeAllOut),
    does("GET", "/practice/tables/{table}", Act::TakeAllOut),
    reads("/preferences/tape-order", Act::OwnAccount),
    works_out("/repeats", Act::Judge),
    Route { method: "PUT", pattern: "/preferences/tape-order", act: Act::OwnAccount, noted: false },
    reads("/rounds/{round_id}", Act::See),
    does("POST", "/rounds/{round_id}/asks", Act::Photograph),
    does("DELETE", "/rounds/{round_id}/asks/{pose}", Act::Photograph),
    does("POST", "/rounds/{round_id}/booth", Act::Photograph),
    does("GET", "/rounds/{round_id}/case", Act::TakeOut),
    does("PUT", "/rounds/{round_id}/choices", Act::Judge),
    reads("/rounds/{round_id}/note", Act::See),
    does("PUT", "/rounds/{round_id}/note", Act::Measure),
    reads("/rounds/{round_id}/photos", Act::See),
    does("POST", "/rounds/{round_id}/photos", Act::Photograph),
    reads("/rounds/{round_id}/photos/asked", Act::See),
    works_out("/rounds/{round_id}/photos/look", Act::Photograph),
    does("PUT", "/rounds/{round_id}/photos/set-up", Act::Photograph),
    reads("/rounds/{round_id}/plan", Act::See),
    does("PUT", "/rounds/{round_id}/plan", Act::Plan),
    does("POST", "/rounds/{round_id}/plan/copy", Act::Plan),
    reads("/rounds/{round_id}/plan/exercises", Act::See),
    does("POST", "/rounds/{round_id}/plan/issue", Act::Give),
    reads("/rounds/{round_id}/plan/own", Act::See),
    reads("/rounds/{round_id}/plan/proof", Act::See),
    works_out("/rounds/{round_id}/plan/solve", Act::Plan),
    works_out("/rounds/{round_id}/plan/swaps", Act::Plan),
    does("PUT", "/rounds/{round_id}/ratings", Act::Judge),
    does("DELETE", "/rounds/{round_id}/ratings", Act::Judge),
    reads("/rounds/{round_id}/review", Act::See),
    does("PUT", "/rounds/{round_id}/review", Act::Judge),
    reads("/rounds/{round_id}/tape", Act::See),
    does("PUT", "/rounds/{round_id}/tape", Act::Measure),
    reads("/rounds/{round_id}/tests", Act::See),
    does("PUT", "/rounds/{round_id}/tests", Act::Measure),
    reads("/rounds/{round_id}/verdict", Act::See),
    reads("/today", Act::See),
    does("POST", "/today/seen", Act::Judge),
    reads("/weeks", Act::See),
    does("POST", "/weeks", Act::Plan),
    does("DELETE", "/weeks/{week_id}", Act::Plan),
];

const BASE: &str = "/api/v1";

/// What a request does; `None` for one that is in no table, which nobody may use. A name in a path goes before a placeholder.
pub(crate) fn route(method: &str, path: &str) -> Option<Route> {
    let below = path.strip_prefix(BASE)?;
    let fits = |route: &&Route| {
        let places = route.pattern.split('/');
        route.method == method
            && places.clone().count() == below.split('/').count()
            && places.zip(below.split('/')).all(|(place, part)| place == part || place.starts_with('{'))
    };
    ROUTES.iter().filter(fits).min_by_key(|route| route.pattern.matches('{').count()).copied()
}

/// Whether an account may do it.
pub(crate) fn allowed(account: &Account, act: Act) -> Result<(), ApiError> {
    if account.role.may(act) { Ok(()) } else { Err(DeskError::Refused(act.refusal(account.role)).into()) }
}

/// What was noted in this hour, so that typing a sheet writes one line and not one for every number.
#[derive(Clone, Default)]
pub(crate) struct Noted {
    hour: Arc<Mutex<Hour>>,
}

#[derive(Default)]
struct Hour {
    since: Timestamp,
    done: HashSet<(String, Act, Option<ClientId>)>,
}

impl Noted {
    /// Whether this is the first time in this hour.
    fn first(&self, now: Timestamp, who: &str, act: Act, client: Option<&ClientId>) -> bool {
        let since = now.round(Unit::Hour).unwrap_or(now);
        let mut hour = self.hour.lock().unwrap_or_else(PoisonError::into_inner);
        if hour.since != since {
            *hour = Hour { since, done: HashSet::new() };
        }
        hour.done.insert((who.to_owned(), act, client.cloned()))
    }
}

/// Who did something.
pub(crate) struct Doer {
    /// The account; none for a client by their link.
    pub account_id: Option<String>,
    /// What others see.
    pub name: String,
}

impl Doer {
    pub fn of(account: &Account) -> Self {
        Self { account_id: Some(account.id.clone()), name: account.name.clone() }
    }
}

/// Notes that something was done. That it cannot be noted does not undo it: the log says so.
pub(crate) async fn note(state: &AppState, doer: Doer, act: Act, client_id: Option<ClientId>) {
    let now = Timestamp::now();
    let who = doer.account_id.as_deref().unwrap_or_default();
    if !state.noted.first(now, who, act, client_id.as_ref()) {
        return;
    }
    let noted = state.run(move |store| {
        let new = NewDeed {
            at: now,
            account_id: doer.account_id.as_deref(),
            name: &doer.name,
            act: act.as_str(),
            client_id: client_id.as_ref(),
        };
        Ok(store.note_deed(&new)?)
    });
    if let Err(why) = noted.await {
        tracing::error!(%why, act = act.as_str(), "a deed was not noted");
    }
}

impl Route {
    /// What of a path names the client it is for, when it is to be noted: the placeholder and what stands in its place.
    pub fn names(&self, path: &str) -> Option<(&'static str, String)> {
        let below = path.strip_prefix(BASE).filter(|_| self.noted)?;
        let parts = self.pattern.split('/').zip(below.split('/'));
        let named = |(place, _): &(&'static str, &str)| matches!(*place, "{client_id}" | "{round_id}" | "{photo_id}");
        parts.into_iter().find(named).map(|(place, id)| (place, id.to_owned()))
    }

    pub fn is_noted(&self) -> bool {
        self.noted
    }
}

/// The client that a part of a path is about; none when it is about nothing that is there.
pub(crate) fn client_of(store: &Store, (place, id): (&str, &str)) -> Result<Option<ClientId>, StoreError> {
    let round = |id: &RoundId| store.round(id).map(|round| round.client_id);
    let found = match place {
        "{client_id}" => Ok(id.into()),
        "{round_id}" => round(&id.into()),
        _ => store.photo(&id.into()).and_then(|photo| round(&photo.round_id)),
    };
    match found {
        Err(error) if error.kind() == store::Kind::NotFound => Ok(None),
        other => other.map(Some),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use jiff::ToSpan;

    #[test]
    fn the_same_is_noted_once_an_hour() {
        let (noted, now) = (Noted::default(), "2026-03-02T10:05:00Z".parse::<Timestamp>().unwrap());
        let first =
            |at, who, client: Option<&str>| noted.first(at, who, Act::Measure, client.map(ClientId::from).as_ref());
        assert!(first(now, "jo", Some("c")) && !first(now, "jo", Some("c")));
        assert!(first(now, "jo", None) && first(now, "mara", Some("c")) && first(now, "jo", Some("d")));
        assert!(!first(now + 20.minutes(), "jo", Some("c")));
        assert!(first(now + 1.hours(), "jo", Some("c")));
    }
}
