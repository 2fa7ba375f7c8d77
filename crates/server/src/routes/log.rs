//! The log: this week for coach and phone, entries from devices, what the coach says instead of the rules.

use crate::auth::SignedIn;
use crate::dto::{
    DoneSession, LogEntryView, LogPage, ReportedView, SaveTarget, SendEntries, SentEntries, TrainingView,
};
use crate::error::{ApiError, ProblemDetails, invalid};
use crate::receiving::receive;
use crate::state::{AppState, PageOf};
use crate::training::Training;
use actix_web::{HttpResponse, get, post, put, web};
use casefile::LogPart;
use jiff::Timestamp;
use serde::Deserialize;
use std::collections::BTreeMap;
use std::sync::Arc;
use store::{IssuedRecord, LogRecord};
use utoipa::IntoParams;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(show_week).service(show_log).service(show_reported).service(send_entries).service(save_target);
}

/// This week of a client: sessions, targets, what was logged.
#[utoipa::path(tag = "log", responses((status = 200, body = TrainingView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/week")]
pub(crate) async fn show_week(state: web::Data<AppState>, id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    let shared = state.clone();
    let page = state.page("week", PageOf::Client(id.into_inner()), move |store, knowledge, id| {
        Training::read(store, knowledge, id, AppState::today())?.view(&shared, id)
    });
    page.await
}

/// What was reported of the form the last time each exercise was done, for a card and for paper.
#[utoipa::path(tag = "log", responses((status = 200, body = ReportedView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/reported")]
pub(crate) async fn show_reported(state: web::Data<AppState>, id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    let page = state.page("reported", PageOf::Client(id.into_inner()), |store, knowledge, id| {
        Ok(ReportedView { reported: Training::read(store, knowledge, id, AppState::today())?.reported() })
    });
    page.await
}

/// How much of the log.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub(crate) struct LogQuery {
    /// All sessions of the last twelve weeks instead of the newest few.
    #[serde(default)]
    all: bool,
}

/// Sessions shown before all are asked for.
const SESSIONS: usize = 6;

/// The log of a client under their plans, newest first, with this week.
#[utoipa::path(tag = "log", params(LogQuery), responses((status = 200, body = LogPage), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/log")]
pub(crate) async fn show_log(
    state: web::Data<AppState>,
    id: web::Path<String>,
    query: web::Query<LogQuery>,
) -> Result<HttpResponse, ApiError> {
    let shared = state.clone();
    let (name, count) = if query.all { ("whole log", usize::MAX) } else { ("log", SESSIONS) };
    let page = state.page(name, PageOf::Client(id.into_inner()), move |store, knowledge, id| {
        let training = Training::read(store, knowledge, id, AppState::today())?;
        let all = done(&training.plans, &training.records);
        Ok(LogPage {
            now: training.view(&shared, id)?,
            sessions: u32::try_from(all.len()).unwrap_or(u32::MAX),
            done: newest(all, count),
            lighten: training.lighten(),
            weeks: training.plan().map(|issued| issued.plan.weeks.clone()).unwrap_or_default(),
        })
    });
    page.await
}

/// The newest sessions, and all in which something stands side by side.
fn newest(all: Vec<DoneSession>, count: usize) -> Vec<DoneSession> {
    let shown = all.into_iter().enumerate().filter(|(place, session)| *place < count || session.conflicts > 0);
    shown.map(|(_, session)| session).collect()
}

/// Sessions as they were done, newest first.
fn done(plans: &[Arc<IssuedRecord>], records: &[LogRecord]) -> Vec<DoneSession> {
    let mut sessions: BTreeMap<(&str, u8, u8), Vec<&LogRecord>> = BTreeMap::new();
    for record in records {
        let entry = &record.entry;
        sessions.entry((&entry.plan, entry.week, entry.day)).or_default().push(record);
    }
    let mut all: Vec<DoneSession> = sessions
        .into_iter()
        .map(|((plan, week, day), records)| {
            let version = plans.iter().find(|issued| issued.id == plan).map_or(0, |issued| issued.version);
            session(version, week, day, &records)
        })
        .collect();
    all.sort_by(|a, b| b.on.cmp(&a.on));
    all
}

fn session(version: i32, week: u8, day: u8, records: &[&LogRecord]) -> DoneSession {
    let mut parts: BTreeMap<&str, u32> = BTreeMap::new();
    let mut exercises: Vec<(u8, LogEntryView)> = Vec::new();
    let mut done = DoneSession {
        version,
        week,
        day,
        on: records.iter().map(|record| record.entry.trained_on.clone()).max().unwrap_or_default(),
        finished: false,
        exercises: Vec::new(),
        whole: Vec::new(),
        conflicts: 0,
        sleep: None,
        soreness: None,
        note: None,
    };
    for record in records {
        match &record.entry.part {
            LogPart::Exercise { exercise, position, .. } => {
                *parts.entry(exercise).or_default() += 1;
                exercises.push((*position, LogEntryView::from(*record)));
            }
            LogPart::Session { finished, sleep, soreness, note, lighter: _ } => {
                *parts.entry("").or_default() += 1;
                done.whole.push(LogEntryView::from(*record));
                done.finished |= finished;
                done.sleep = done.sleep.or(*sleep);
                done.soreness = done.soreness.or(*soreness);
                done.note = done.note.or_else(|| note.clone());
            }
        }
    }
    exercises.sort_by_key(|(position, _)| *position);
    done.exercises = exercises.into_iter().map(|(_, view)| view).collect();
    done.conflicts = u32::try_from(parts.values().filter(|count| **count > 1).count()).unwrap_or(u32::MAX);
    done
}

/// Takes in what a coach's phone or laptop logged. What is sent again makes no double.
#[utoipa::path(tag = "log", request_body = SendEntries, responses(
    (status = 200, body = SentEntries), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/clients/{client_id}/log")]
pub(crate) async fn send_entries(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    id: web::Path<String>,
    body: web::Json<SendEntries>,
) -> Result<web::Json<SentEntries>, ApiError> {
    let kept = state.run(move |store, knowledge| {
        store.client(&knowledge.atlas, &id)?;
        receive(store, knowledge, &id, &signed_in.0.name, body.into_inner())
    });
    kept.await.map(web::Json)
}

/// Says what is done next time of an exercise, or takes that back.
#[utoipa::path(tag = "log", request_body = SaveTarget, responses((status = 204), (status = 422, body = ProblemDetails)))]
#[put("/clients/{client_id}/targets/{exercise}")]
pub(crate) async fn save_target(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    path: web::Path<(String, String)>,
    body: web::Json<SaveTarget>,
) -> Result<HttpResponse, ApiError> {
    /// The same bounds as a logged set has.
    const LOAD_KG: [f64; 2] = [0.25, 600.0];
    const COUNT: [u16; 2] = [1, 200];
    let (client_id, exercise) = path.into_inner();
    let saved = state.run(move |store, knowledge| {
        store.client(&knowledge.atlas, &client_id)?;
        let known = exercise.parse().ok().and_then(|id| knowledge.atlas.exercise(&id));
        if known.is_none() {
            return Err(ApiError::NotFound(format!("there is no exercise {exercise:?}")));
        }
        if let Some(said) = &body.overrule {
            let load = said.load_kg.is_none_or(|kg| (LOAD_KG[0]..=LOAD_KG[1]).contains(&kg));
            if !load {
                return Err(invalid("/overrule/load_kg", "a load is 0.25 to 600 kg".to_owned()));
            }
            if !(COUNT[0]..=COUNT[1]).contains(&said.count) {
                return Err(invalid("/overrule/count", "repetitions or seconds are 1 to 200".to_owned()));
            }
            if said.note.trim().is_empty() {
                return Err(invalid("/overrule/note", "a reason is needed: it is shown to the client".to_owned()));
            }
        }
        let by = &signed_in.0.name;
        Ok(store.save_overrule(&client_id, &exercise, body.overrule.as_ref(), by, Timestamp::now())?)
    });
    saved.await?;
    Ok(HttpResponse::NoContent().finish())
}
