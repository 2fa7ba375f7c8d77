//! Judging pictures, judging them again blind, and taking consent back.

use crate::auth::SignedIn;
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{HttpResponse, delete, get, post, put, web};
use desk::photos::{RatingQuery, RatingView, RepeatsView, SaveRating, SaveRepeat, WithdrawConsent, Withdrawn};
use units::{ClientId, RoundId};
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config
        .service(save_rating)
        .service(delete_rating)
        .service(show_repeats)
        .service(save_repeat)
        .service(withdraw_consent);
}

/// Gives a rating, or changes it.
#[utoipa::path(tag = "photos", params(RoundId), request_body = SaveRating, responses((status = 200, body = RatingView),
    (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/rounds/{round_id}/ratings")]
pub(crate) async fn save_rating(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<RoundId>,
    body: web::Json<SaveRating>,
) -> Result<web::Json<RatingView>, ApiError> {
    state.json(move |desk| desk.save_rating(&id, &who.0.id, &body)).await
}

/// Takes a rating back.
#[utoipa::path(tag = "photos", params(RoundId, RatingQuery), responses((status = 204), (status = 422, body = ProblemDetails)))]
#[delete("/rounds/{round_id}/ratings")]
pub(crate) async fn delete_rating(
    state: web::Data<AppState>,
    id: web::Path<RoundId>,
    query: web::Query<RatingQuery>,
) -> Result<HttpResponse, ApiError> {
    state.done(move |desk| desk.delete_rating(&id, &query)).await
}

/// Own ratings of a client that are due to be asked again, and how well they agreed so far.
#[utoipa::path(tag = "photos", params(ClientId), responses((status = 200, body = RepeatsView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/repeats")]
pub(crate) async fn show_repeats(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<ClientId>,
) -> Result<web::Json<RepeatsView>, ApiError> {
    state.json(move |desk| desk.repeats(&id, &who.0.id)).await
}

/// Keeps a blind answer.
#[utoipa::path(tag = "photos", request_body = SaveRepeat, responses((status = 204),
    (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/repeats")]
pub(crate) async fn save_repeat(
    state: web::Data<AppState>,
    who: SignedIn,
    body: web::Json<SaveRepeat>,
) -> Result<HttpResponse, ApiError> {
    state.done(move |desk| desk.save_repeat(&who.0.id, &body)).await
}

/// Takes consent to photos back and removes every picture of the client.
#[utoipa::path(tag = "photos", params(ClientId), request_body = WithdrawConsent, responses((status = 200, body = Withdrawn),
    (status = 404, body = ProblemDetails), (status = 409, body = ProblemDetails)))]
#[post("/clients/{client_id}/consent/withdraw")]
pub(crate) async fn withdraw_consent(
    state: web::Data<AppState>,
    id: web::Path<ClientId>,
    body: web::Json<WithdrawConsent>,
) -> Result<web::Json<Withdrawn>, ApiError> {
    state.json(move |desk| desk.withdraw_consent(&id, &body)).await
}
