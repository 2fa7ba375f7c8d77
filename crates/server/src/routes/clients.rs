//! Clients: list, one, new, saved.

use crate::auth::SignedIn;
use crate::dto::{
    AgreedRound, ClientPage, ClientSummary, ClientView, NewRoundRequest, PartName, PutAway, RoundSummary, SaveClient,
    UnreadableClient, VerdictSummary,
};
use crate::error::{ApiError, ProblemDetails, UNREADABLE, invalid};
use crate::kept::Mark;
use crate::roster::{Assessor, readable, rests_on_all};
use crate::state::{AppState, MadeUp, PageOf};
use actix_web::{HttpResponse, delete, get, post, put, web};
use assess::{Case, Client, Knowledge, assess_each};
use casefile::{ClientEntry, Problem, check_client, is_one_line};
use jiff::ToSpan;
use jiff::civil::Date;
use serde::Deserialize;
use std::collections::{HashMap, HashSet};
use std::sync::Arc;
use store::{Belongings, ClientRecord, NewRound, Page, RoundRecord, Store, StoreError};
use units::Mass;
use utoipa::{IntoParams, ToSchema};
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config
        .service(list_clients)
        .service(add_client)
        .service(make_client_up)
        .service(show_client)
        .service(save_client)
        .service(open_round)
        .service(show_belongings)
        .service(put_away)
        .service(agree_on_round)
        .service(erase_client);
}

/// Clients with whom a day is agreed on at once, at most.
const MOST_AT_ONCE: usize = 200;
/// Years ahead for which a day can be agreed on.
const AGREED_YEARS: i64 = 2;

/// Which clients.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub(crate) struct ListQuery {
    /// Part of a name.
    find: Option<String>,
    /// Those put away instead of those in the lists.
    #[serde(default)]
    away: bool,
    /// Only those with this tag.
    tag: Option<String>,
    /// Only those in whom this part of the body is behind or leans behind; the site that mixes its muscles.
    behind: Option<String>,
    /// Only those whose next round is due.
    #[serde(default)]
    due: bool,
    /// In which order.
    #[serde(default)]
    #[param(inline)]
    order: ListOrder,
    /// From 1.
    #[serde(default = "first_page")]
    page: u32,
    /// 1 to 100.
    #[serde(default = "page_size")]
    per_page: u32,
}

/// The order of a list of clients.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum ListOrder {
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
    fn is_plain(&self) -> bool {
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

/// Clients by name with what their newest round says.
#[utoipa::path(tag = "clients", params(ListQuery), responses(
    (status = 200, body = ClientPage), (status = 400, body = ProblemDetails), (status = 401, body = ProblemDetails)))]
#[get("/clients")]
pub(crate) async fn list_clients(
    state: web::Data<AppState>,
    query: web::Query<ListQuery>,
) -> Result<HttpResponse, ApiError> {
    let page = Page { number: query.page.max(1), size: query.per_page.clamp(1, 100) };
    let asked = query.into_inner();
    let shared = state.clone();
    let (number, size, away) = (page.number, page.size, asked.away);
    let plain = asked.is_plain();
    let view = move |store: &Store, knowledge: &Knowledge| {
        let whole = Page { number: 1, size: u32::MAX };
        let seen = if asked.asks_about_each() { whole } else { page };
        let (ids, total) = store.client_ids(asked.find.as_deref(), away, seen)?;
        let mut items = summaries(&shared, store, knowledge, &ids)?;
        let due: HashSet<String> = shared
            .days(store, knowledge, AppState::today())?
            .iter()
            .filter(|day| day.round_due)
            .map(|day| day.client_id.clone())
            .collect();
        for client in &mut items {
            client.due = due.contains(&client.id);
        }
        let (tags, parts) = (store.tags()?, PartName::all(&knowledge.atlas));
        // Whether somebody who cannot be read belongs to a narrowed list cannot be told: they are named on its first page.
        let lost = ids.iter().filter(|id| items.iter().all(|item| item.id != **id));
        let unreadable: Vec<_> = lost.filter_map(|id| unreadable(store, id).transpose()).collect::<Result<_, _>>()?;
        if asked.asks_about_each() {
            items.retain(|client| asked.fits(client));
            asked.ordered(&mut items);
            let total = u32::try_from(items.len()).unwrap_or(u32::MAX);
            let before = page.number.saturating_sub(1).saturating_mul(page.size) as usize;
            let items = items.into_iter().skip(before).take(page.size as usize).collect();
            let unreadable = if number == 1 { unreadable } else { Vec::new() };
            return Ok(ClientPage { items, tags, parts, unreadable, total, page: number, per_page: size });
        }
        Ok(ClientPage { items, tags, parts, unreadable, total, page: number, per_page: size })
    };
    if !plain {
        // Too many different ones to keep.
        return Ok(HttpResponse::Ok().json(state.run(view).await?));
    }
    let name = format!("clients {number} {size} {away}");
    state.page(name, PageOf::Practice, move |store, knowledge, _| view(store, knowledge)).await
}

/// `None` when they were removed meanwhile.
fn unreadable(store: &Store, id: &str) -> Result<Option<UnreadableClient>, ApiError> {
    match store.client_name(id) {
        Ok(name) => Ok(Some(UnreadableClient { id: id.to_owned(), name, says: UNREADABLE.to_owned() })),
        Err(StoreError::NotFound { .. }) => Ok(None),
        Err(other) => Err(other.into()),
    }
}

/// Lines of the list; only those of clients about whom something changed are worked out.
fn summaries(
    state: &AppState,
    store: &Store,
    knowledge: &Knowledge,
    ids: &[String],
) -> Result<Vec<ClientSummary>, ApiError> {
    let (stamps, today) = (store.stamps_of(ids)?, AppState::today());
    let total = store.total_stamp()?.all;
    // Where somebody stands does not follow from the log.
    let mark = |id: &str| state.mark(stamps.get(id).copied().unwrap_or_default(), 0, today);
    let known = |id: &String| {
        let (kept, summary) = state.summaries.find(id)?;
        (kept == Mark { all: kept.all.map(|_| total), ..mark(id) }).then_some(summary)
    };
    let mut found: HashMap<&String, Arc<ClientSummary>> = ids.iter().filter_map(|id| Some((id, known(id)?))).collect();
    let missing: Vec<String> = ids.iter().filter(|id| !found.contains_key(id)).cloned().collect();
    if !missing.is_empty() {
        let (records, newest) = readable(store, knowledge, &missing)?;
        let mut verdicts = verdicts(store, knowledge, &newest)?;
        for record in &records {
            let all = rests_on_all(knowledge, &record.client).then_some(total);
            let own = newest.iter().find(|(round, _)| round.client_id == record.id);
            let summary = ClientSummary::of(record, own, verdicts.remove(&record.id), today);
            let kept = state.summaries.keep(&record.id, Mark { all, ..mark(&record.id) }, summary);
            found.extend(ids.iter().find(|id| **id == record.id).map(|id| (id, kept)));
        }
    }
    Ok(ids.iter().filter_map(|id| found.get(id)).map(|summary| (**summary).clone()).collect())
}

/// What is said of each client's newest round, by client id. Those who are set against everybody else are worked out one by one.
fn verdicts(
    store: &Store,
    knowledge: &Knowledge,
    newest: &[(RoundRecord, Case)],
) -> Result<HashMap<String, VerdictSummary>, ApiError> {
    let assessor = Assessor::new(store, knowledge);
    let (on_all, alone): (Vec<_>, Vec<_>) = newest.iter().partition(|(_, case)| rests_on_all(knowledge, &case.client));
    let cases: Vec<&Case> = alone.iter().map(|(_, case)| case).collect();
    let summary = |case: &Case, assessment| VerdictSummary::of(&knowledge.atlas, &assessment, &case.choices);
    let said = assess_each(knowledge, &cases, summary);
    let mut verdicts: HashMap<String, VerdictSummary> =
        alone.iter().map(|(round, _)| round.client_id.clone()).zip(said).collect();
    for (round, case) in on_all {
        let assessment = assessor.assess(case, &round.client_id)?;
        verdicts.insert(round.client_id.clone(), summary(case, assessment));
    }
    Ok(verdicts)
}

fn view(store: &Store, record: &ClientRecord) -> Result<ClientView, ApiError> {
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

/// What of a client would go with them.
#[utoipa::path(tag = "clients", responses((status = 200, body = Belongings), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/belongings")]
pub(crate) async fn show_belongings(
    state: web::Data<AppState>,
    id: web::Path<String>,
) -> Result<web::Json<Belongings>, ApiError> {
    let all = state.run(move |store, knowledge| Ok(store.belongings(&knowledge.atlas, &id)?));
    all.await.map(web::Json)
}

/// Agrees on a day for the next round of some clients, or takes it back.
#[utoipa::path(tag = "clients", request_body = AgreedRound, responses(
    (status = 204), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/clients/next-round")]
pub(crate) async fn agree_on_round(
    state: web::Data<AppState>,
    body: web::Json<AgreedRound>,
) -> Result<HttpResponse, ApiError> {
    let AgreedRound { client_ids, on } = body.into_inner();
    if client_ids.is_empty() || client_ids.len() > MOST_AT_ONCE {
        let says = format!("{} clients: a day is agreed on with 1 to {MOST_AT_ONCE} at once", client_ids.len());
        return Err(invalid("/client_ids", says));
    }
    let on = on.map(|text| agreed_day(&text, AppState::today())).transpose()?;
    state.run(move |store, _| Ok(store.agree_on_round(&client_ids, on)?)).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// A day from today to two years from now.
fn agreed_day(text: &str, today: Date) -> Result<Date, ApiError> {
    let refused = |says: String| invalid("/on", says);
    let day: Date =
        text.parse().map_err(|_| refused(format!("{text:?} is not a date of the calendar: expected YYYY-MM-DD")))?;
    let last = today.checked_add(AGREED_YEARS.years()).unwrap_or(Date::MAX);
    if day < today || day > last {
        return Err(refused(format!("{day} is not a day to agree on: expected {today} to {last}")));
    }
    Ok(day)
}

/// Puts a client away, out of the lists, or back.
#[utoipa::path(tag = "clients", request_body = PutAway, responses(
    (status = 200, body = ClientView), (status = 404, body = ProblemDetails)))]
#[put("/clients/{client_id}/away")]
pub(crate) async fn put_away(
    state: web::Data<AppState>,
    id: web::Path<String>,
    body: web::Json<PutAway>,
) -> Result<web::Json<ClientView>, ApiError> {
    let put = state.run(move |store, knowledge| {
        store.put_away(&id, body.away.then(AppState::today))?;
        view(store, &store.client(&knowledge.atlas, &id)?)
    });
    put.await.map(web::Json)
}

/// Removes a client for good, with everything about them.
#[utoipa::path(tag = "clients", responses((status = 204), (status = 403, body = ProblemDetails),
    (status = 404, body = ProblemDetails)))]
#[delete("/clients/{client_id}")]
pub(crate) async fn erase_client(state: web::Data<AppState>, id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    let shared = state.clone();
    let erased = state.run(move |store, knowledge| {
        store.client(&knowledge.atlas, &id)?;
        store.erase_client(&id)?;
        shared.forget();
        Ok(())
    });
    erased.await?;
    Ok(HttpResponse::NoContent().finish())
}

/// A client with brief and rounds.
#[utoipa::path(tag = "clients", responses((status = 200, body = ClientView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}")]
pub(crate) async fn show_client(
    state: web::Data<AppState>,
    id: web::Path<String>,
) -> Result<web::Json<ClientView>, ApiError> {
    let found = state.run(move |store, knowledge| view(store, &store.client(&knowledge.atlas, &id)?));
    found.await.map(web::Json)
}

/// Adds a client.
#[utoipa::path(tag = "clients", request_body = ClientEntry, responses(
    (status = 201, body = ClientView), (status = 422, body = ProblemDetails)))]
#[post("/clients")]
pub(crate) async fn add_client(
    state: web::Data<AppState>,
    body: web::Json<ClientEntry>,
) -> Result<HttpResponse, ApiError> {
    let added = state.run(move |store, knowledge| {
        let client = check_client(&knowledge.atlas, "", &body, AppState::today()).map_err(ApiError::Invalid)?;
        view(store, &store.add_client(&knowledge.atlas, &client)?)
    });
    Ok(HttpResponse::Created().json(added.await?))
}

/// Makes a client up to look around with; the one who is there already, if there is one.
#[utoipa::path(tag = "clients", responses(
    (status = 201, body = MadeUp), (status = 404, body = ProblemDetails)))]
#[post("/clients/made-up")]
pub(crate) async fn make_client_up(state: web::Data<AppState>, who: SignedIn) -> Result<HttpResponse, ApiError> {
    let none = || ApiError::NotFound("this server makes no clients up".into());
    let makes_up = state.makes_up.clone().ok_or_else(none)?;
    // A second press waits for the first and finds the client it made.
    let turn = state.working.turn(&who.0.id).await?;
    let made = state.run(move |store, knowledge| {
        let _turn = turn;
        makes_up(store, knowledge, &who.0, AppState::today()).map_err(ApiError::Internal)
    });
    Ok(HttpResponse::Created().json(made.await?))
}

/// Saves a brief.
#[utoipa::path(tag = "clients", request_body = SaveClient, responses(
    (status = 200, body = ClientView), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/clients/{client_id}")]
pub(crate) async fn save_client(
    state: web::Data<AppState>,
    id: web::Path<String>,
    body: web::Json<SaveClient>,
) -> Result<web::Json<ClientView>, ApiError> {
    let saved = state.run(move |store, knowledge| {
        let client =
            check_client(&knowledge.atlas, "/brief", &body.brief, AppState::today()).map_err(ApiError::Invalid)?;
        keeps_consent(store, &client, &id)?;
        view(store, &store.save_client(&knowledge.atlas, &id, body.revision, &client)?)
    });
    saved.await.map(web::Json)
}

/// Consent goes with every picture, so it is not taken back by leaving a field out.
fn keeps_consent(store: &Store, client: &Client, id: &str) -> Result<(), ApiError> {
    let pictures = if client.photo_consent.is_none() { store.photo_count(id)? } else { 0 };
    if pictures == 0 {
        return Ok(());
    }
    let says = format!("there are {pictures} pictures of this client: withdraw the consent, which removes them");
    Err(ApiError::Invalid(vec![Problem { pointer: "/brief/photo_consent".to_owned(), says }]))
}

/// Opens a round.
#[utoipa::path(tag = "clients", request_body = NewRoundRequest, responses(
    (status = 201, body = RoundSummary), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/clients/{client_id}/rounds")]
pub(crate) async fn open_round(
    state: web::Data<AppState>,
    id: web::Path<String>,
    body: web::Json<NewRoundRequest>,
) -> Result<HttpResponse, ApiError> {
    let new = checked_round(&body, AppState::today())?;
    let opened = state.run(move |store, knowledge| {
        not_before_birth(&store.client(&knowledge.atlas, &id)?, new.taken_on)?;
        Ok(RoundSummary::from(&store.add_round(&id, &new)?))
    });
    Ok(HttpResponse::Created().json(opened.await?))
}

/// A round of a day on which the client was there.
pub(crate) fn not_before_birth(record: &ClientRecord, day: Date) -> Result<(), ApiError> {
    let born = record.client.birth_date;
    if day >= born {
        return Ok(());
    }
    let says = format!("{day} is before the client was born, on {born}");
    Err(ApiError::Invalid(vec![Problem { pointer: "/date".to_owned(), says }]))
}

/// A day that is over or today, from what was typed.
pub(crate) fn past_day(text: &str, today: Date) -> Result<Date, String> {
    match text.parse::<Date>() {
        Err(_) => Err(format!("{text:?} is not a date of the calendar: expected YYYY-MM-DD")),
        Ok(date) if date > today => Err(format!("{date} is in the future: today is {today}")),
        Ok(date) => Ok(date),
    }
}

fn checked_round(request: &NewRoundRequest, today: Date) -> Result<NewRound, ApiError> {
    let mut problems = Vec::new();
    let mut fail = |pointer: &str, says: String| problems.push(Problem { pointer: pointer.to_owned(), says });
    let date = past_day(&request.date, today);
    if let Err(says) = &date {
        fail("/date", says.clone());
    }
    if request.measured_by.trim().is_empty() || !is_one_line(request.measured_by.trim()) {
        fail("/measured_by", "who holds the tape is needed: expected initials or a name".to_owned());
    }
    let weight = request.weight_kg.map(Mass::from_kg).transpose();
    if let Err(error) = &weight {
        fail("/weight_kg", error.to_string());
    }
    match (date, weight, problems.is_empty()) {
        (Ok(taken_on), Ok(weight), true) => {
            Ok(NewRound { taken_on, measured_by: request.measured_by.trim().to_owned(), weight })
        }
        _ => Err(ApiError::Invalid(problems)),
    }
}
