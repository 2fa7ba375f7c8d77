//! How a client's stations are set, and what the coach's hand found.

use crate::auth::SignedIn;
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{get, patch, web};
use assess::KeptSetUp;
use desk::plan::{SetUpView, SetUpsView};
use serde_json::Value;
use units::ClientId;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(list_set_ups).service(show_set_up).service(change_set_up);
}

/// What is remembered of every exercise of a client.
#[utoipa::path(tag = "clients", params(ClientId), responses((status = 200, body = SetUpsView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/set-ups")]
pub(crate) async fn list_set_ups(
    state: web::Data<AppState>,
    id: web::Path<ClientId>,
) -> Result<web::Json<SetUpsView>, ApiError> {
    state.json(move |desk| desk.set_ups(&id)).await
}

/// What is remembered of one, with the numbers its kit has.
#[utoipa::path(tag = "clients", responses((status = 200, body = SetUpView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/set-ups/{exercise}")]
pub(crate) async fn show_set_up(
    state: web::Data<AppState>,
    path: web::Path<(ClientId, String)>,
) -> Result<web::Json<SetUpView>, ApiError> {
    state.json(move |desk| desk.set_up(&path.0, &path.1)).await
}

/// Remembers it otherwise: what the change names takes the place of what was, null forgets it, and the rest stays as it is
/// stored (a merge patch, RFC 7396).
#[utoipa::path(tag = "clients", request_body = KeptSetUp, responses((status = 200, body = SetUpView),
    (status = 400, body = ProblemDetails), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[patch("/clients/{client_id}/set-ups/{exercise}")]
pub(crate) async fn change_set_up(
    state: web::Data<AppState>,
    who: SignedIn,
    path: web::Path<(ClientId, String)>,
    body: web::Json<Value>,
) -> Result<web::Json<SetUpView>, ApiError> {
    state.json(move |desk| desk.change_set_up(&path.0, &path.1, &who.0.name, &body)).await
}
