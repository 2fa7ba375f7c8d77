//! A round: its steps, its verdict, the choices made on it, its case file.

use crate::http::{ApiError, ProblemDetails, attachment};
use crate::state::AppState;
use actix_web::{HttpResponse, delete, get, put, web};
use desk::rounds::{RoundView, SaveChoices, SaveRound, VerdictView};
use desk::{Desk, RoundPage};
use units::RoundId;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config
        .service(save_round)
        .service(delete_round)
        .service(show_round)
        .service(show_verdict)
        .service(save_choices)
        .service(show_case_file);
}

/// Gives a round another day.
#[utoipa::path(tag = "rounds", params(RoundId), request_body = SaveRound, responses((status = 204), (status = 404, body = ProblemDetails),
    (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/rounds/{round_id}")]
pub(crate) async fn save_round(
    state: web::Data<AppState>,
    id: web::Path<RoundId>,
    body: web::Json<SaveRound>,
) -> Result<HttpResponse, ApiError> {
    state.done(move |desk| desk.redate_round(&id, &body)).await
}

/// Removes a round from which no week was given.
#[utoipa::path(tag = "rounds", params(RoundId), responses((status = 204), (status = 404, body = ProblemDetails),
    (status = 409, body = ProblemDetails)))]
#[delete("/rounds/{round_id}")]
pub(crate) async fn delete_round(state: web::Data<AppState>, id: web::Path<RoundId>) -> Result<HttpResponse, ApiError> {
    state.done(move |desk| Ok(desk.store.delete_round(&id)?)).await
}

/// A round with its steps.
#[utoipa::path(tag = "rounds", params(RoundId), responses((status = 200, body = RoundView), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}")]
pub(crate) async fn show_round(state: web::Data<AppState>, id: web::Path<RoundId>) -> Result<HttpResponse, ApiError> {
    state.page_of_round("round", (id.into_inner(), RoundPage::Now), Desk::round).await
}

/// The verdict of a round with its evidence.
#[utoipa::path(tag = "rounds", params(RoundId), responses((status = 200, body = VerdictView), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/verdict")]
pub(crate) async fn show_verdict(state: web::Data<AppState>, id: web::Path<RoundId>) -> Result<HttpResponse, ApiError> {
    state.page_of_round("verdict", (id.into_inner(), RoundPage::Sheet), Desk::verdict).await
}

/// Saves what to bring up, what to hold back, and verdicts overruled.
#[utoipa::path(tag = "rounds", params(RoundId), request_body = SaveChoices, responses(
    (status = 200, body = VerdictView), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/rounds/{round_id}/choices")]
pub(crate) async fn save_choices(
    state: web::Data<AppState>,
    id: web::Path<RoundId>,
    body: web::Json<SaveChoices>,
) -> Result<web::Json<VerdictView>, ApiError> {
    state.json(move |desk| desk.save_choices(&id, &body)).await
}

/// The client's case file as of a round, for the command line.
#[utoipa::path(tag = "rounds", params(RoundId), responses((status = 200, description = "orthomer-case, version 1",
    content_type = "application/json"), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/case")]
pub(crate) async fn show_case_file(
    state: web::Data<AppState>,
    id: web::Path<RoundId>,
) -> Result<HttpResponse, ApiError> {
    let file = state.ask(move |desk| desk.case_file(&id)).await?;
    let name = attachment(format!("case-{}.json", file.as_of));
    Ok(HttpResponse::Ok().insert_header(name).json(file))
}
