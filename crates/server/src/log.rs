//! The log: this week for coach and phone, entries from devices, what the coach says instead of the rules.

use crate::auth::SignedIn;
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{HttpResponse, get, post, put, web};
use desk::Desk;
use desk::log::{LogPage, ReportedView, SaveTarget, SendEntries, SentEntries, TrainingView};
use serde::Deserialize;
use units::ClientId;
use utoipa::IntoParams;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(show_week).service(show_log).service(show_reported).service(send_entries).service(save_target);
}

/// This week of a client: sessions, targets, what was logged.
#[utoipa::path(tag = "log", params(ClientId), responses((status = 200, body = TrainingView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/week")]
pub(crate) async fn show_week(state: web::Data<AppState>, id: web::Path<ClientId>) -> Result<HttpResponse, ApiError> {
    state.page_of_client("week", id.into_inner(), Desk::week).await
}

/// What was reported of the form the last time each exercise was done, for a card and for paper.
#[utoipa::path(tag = "log", params(ClientId), responses((status = 200, body = ReportedView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/reported")]
pub(crate) async fn show_reported(
    state: web::Data<AppState>,
    id: web::Path<ClientId>,
) -> Result<HttpResponse, ApiError> {
    state.page_of_client("reported", id.into_inner(), Desk::reported).await
}

/// How much of the log.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub(crate) struct LogQuery {
    /// All sessions of the last twelve weeks instead of the newest few.
    #[serde(default)]
    all: bool,
}

/// The log of a client under their plans, newest first, with this week.
#[utoipa::path(tag = "log", params(ClientId, LogQuery), responses((status = 200, body = LogPage), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/log")]
pub(crate) async fn show_log(
    state: web::Data<AppState>,
    id: web::Path<ClientId>,
    query: web::Query<LogQuery>,
) -> Result<HttpResponse, ApiError> {
    let all = query.all;
    let name = if all { "whole log" } else { "log" };
    state.page_of_client(name, id.into_inner(), move |desk, id| desk.log(id, all)).await
}

/// Takes in what a coach's phone or laptop logged. What is sent again makes no double.
#[utoipa::path(tag = "log", params(ClientId), request_body = SendEntries, responses(
    (status = 200, body = SentEntries), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/clients/{client_id}/log")]
pub(crate) async fn send_entries(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<ClientId>,
    body: web::Json<SendEntries>,
) -> Result<web::Json<SentEntries>, ApiError> {
    state.json(move |desk| desk.receive(&id, Some(&who.0.name), body.into_inner())).await
}

/// Says what is done next time of an exercise, or takes that back.
#[utoipa::path(tag = "log", request_body = SaveTarget, responses((status = 204), (status = 422, body = ProblemDetails)))]
#[put("/clients/{client_id}/targets/{exercise}")]
pub(crate) async fn save_target(
    state: web::Data<AppState>,
    who: SignedIn,
    path: web::Path<(ClientId, String)>,
    body: web::Json<SaveTarget>,
) -> Result<HttpResponse, ApiError> {
    state.done(move |desk| desk.save_target(&path.0, &path.1, &who.0.name, &body)).await
}
