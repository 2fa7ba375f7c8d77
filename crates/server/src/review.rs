//! The review of a round, and everything over all rounds.

use crate::auth::SignedIn;
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{HttpResponse, get, put, web};
use desk::review::{ReviewView, SaveReview, TrendsView};
use desk::{Desk, RoundPage};
use units::{ClientId, RoundId};
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(show_review).service(save_review).service(show_trends);
}

/// What moved over a round against what could be noise, what was done, and what is proposed.
#[utoipa::path(tag = "review", params(RoundId), responses((status = 200, body = ReviewView), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/review")]
pub(crate) async fn show_review(state: web::Data<AppState>, id: web::Path<RoundId>) -> Result<HttpResponse, ApiError> {
    state.page_of_round("review", (id.into_inner(), RoundPage::Review), Desk::review).await
}

/// Saves decisions, and writes the choices that follow from them into the next round when asked to.
#[utoipa::path(tag = "review", params(RoundId), request_body = SaveReview, responses(
    (status = 200, body = ReviewView), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/rounds/{round_id}/review")]
pub(crate) async fn save_review(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<RoundId>,
    body: web::Json<SaveReview>,
) -> Result<web::Json<ReviewView>, ApiError> {
    state.json(move |desk| desk.save_review(&id, &who.0.name, body.into_inner())).await
}

/// Every site, side, region and lift over all rounds, with what is noise.
#[utoipa::path(tag = "review", params(ClientId), responses((status = 200, body = TrendsView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/trends")]
pub(crate) async fn show_trends(state: web::Data<AppState>, id: web::Path<ClientId>) -> Result<HttpResponse, ApiError> {
    state.page_of_client("trends", id.into_inner(), Desk::trends).await
}
