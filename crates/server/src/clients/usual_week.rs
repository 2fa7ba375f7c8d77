//! What a client trained lately, as told.

use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{get, put, web};
use desk::clients::{SaveUsualWeek, UsualWeekView};
use units::ClientId;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(show_usual_week).service(save_usual_week);
}

/// A client's usual week, and how many sets of it each region got.
#[utoipa::path(tag = "clients", params(ClientId), responses((status = 200, body = UsualWeekView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/usual-week")]
pub(crate) async fn show_usual_week(
    state: web::Data<AppState>,
    id: web::Path<ClientId>,
) -> Result<web::Json<UsualWeekView>, ApiError> {
    state.json(move |desk| desk.usual_week(&id)).await
}

/// Saves it, or forgets it.
#[utoipa::path(tag = "clients", params(ClientId), request_body = SaveUsualWeek, responses(
    (status = 200, body = UsualWeekView), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/clients/{client_id}/usual-week")]
pub(crate) async fn save_usual_week(
    state: web::Data<AppState>,
    id: web::Path<ClientId>,
    body: web::Json<SaveUsualWeek>,
) -> Result<web::Json<UsualWeekView>, ApiError> {
    state.json(move |desk| desk.save_usual_week(&id, &body)).await
}
