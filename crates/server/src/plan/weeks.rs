//! Weeks that can be taken for a client: those the practice keeps under a name, and what its other clients have.

use crate::auth::SignedIn;
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{HttpResponse, delete, get, post, web};
use desk::Desk;
use desk::plan::{CopiedWeek, CopyWeek, KeepWeek, WeeksView};
use units::RoundId;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(list_weeks).service(keep_week).service(forget_week).service(copy_week);
}

/// Every week that can be taken.
#[utoipa::path(tag = "plan", responses((status = 200, body = WeeksView)))]
#[get("/weeks")]
pub(crate) async fn list_weeks(state: web::Data<AppState>) -> Result<web::Json<WeeksView>, ApiError> {
    state.json(Desk::weeks).await
}

/// Keeps a week under a name.
#[utoipa::path(tag = "plan", request_body = KeepWeek, responses(
    (status = 201, description = "kept"), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/weeks")]
pub(crate) async fn keep_week(
    state: web::Data<AppState>,
    who: SignedIn,
    body: web::Json<KeepWeek>,
) -> Result<HttpResponse, ApiError> {
    state.ask(move |desk| desk.keep_week(&who.0.name, &body)).await?;
    Ok(HttpResponse::Created().finish())
}

/// Forgets a week that was kept under a name.
#[utoipa::path(tag = "plan", responses((status = 204), (status = 404, body = ProblemDetails)))]
#[delete("/weeks/{week_id}")]
pub(crate) async fn forget_week(state: web::Data<AppState>, id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    state.done(move |desk| Ok(desk.store.forget_saved_week(&id)?)).await
}

/// A week of somebody else as this round's client can train it: on their days, in their minutes, with what pain, kit and the
/// brief rule out swapped or left out. Nothing is kept.
#[utoipa::path(tag = "plan", params(RoundId), request_body = CopyWeek, responses(
    (status = 200, body = CopiedWeek), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/rounds/{round_id}/plan/copy")]
pub(crate) async fn copy_week(
    state: web::Data<AppState>,
    id: web::Path<RoundId>,
    body: web::Json<CopyWeek>,
) -> Result<web::Json<CopiedWeek>, ApiError> {
    state.json(move |desk| desk.copy_week(&id, &body)).await
}
