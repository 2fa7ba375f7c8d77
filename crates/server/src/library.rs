//! What is known: the atlas, and the movement behind an exercise.

use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::http::header::CACHE_CONTROL;
use actix_web::{HttpResponse, get, web};
use desk::library::{AtlasView, BestQuery, LeversQuery, LeversView, picture};
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(atlas).service(show_levers).service(find_set_up);
}

/// Regions, sites, looks, equipment and exercises.
#[utoipa::path(tag = "general", responses((status = 200, body = AtlasView), (status = 401, body = ProblemDetails)))]
#[get("/atlas")]
pub(crate) async fn atlas(state: web::Data<AppState>) -> HttpResponse {
    HttpResponse::Ok().json(state.desk.atlas())
}

/// Who works along a movement in a set-up.
#[utoipa::path(tag = "library", params(LeversQuery), responses((status = 200, body = LeversView),
    (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[get("/exercises/{exercise}/levers")]
pub(crate) async fn show_levers(
    state: web::Data<AppState>,
    id: web::Path<String>,
    query: web::Query<LeversQuery>,
) -> Result<web::Json<LeversView>, ApiError> {
    state.json(move |desk| desk.levers(&id, &query)).await
}

/// The set-up that loads a region most, or most while it is long.
#[utoipa::path(tag = "library", params(BestQuery), responses((status = 200, body = LeversView),
    (status = 404, body = ProblemDetails)))]
#[get("/exercises/{exercise}/best-set-up")]
pub(crate) async fn find_set_up(
    state: web::Data<AppState>,
    id: web::Path<String>,
    query: web::Query<BestQuery>,
) -> Result<web::Json<LeversView>, ApiError> {
    state.json(move |desk| desk.best_set_up(&id, &query)).await
}

/// The picture of an exercise of the catalogue: start and end. It says nothing of anybody, so that a client's page and a print may
/// have it too.
#[utoipa::path(tag = "library", responses((status = 200, content_type = "image/svg+xml", body = String),
    (status = 404, body = ProblemDetails)))]
#[get("/{exercise}")]
pub(crate) async fn show_figure(id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    let picture = picture(&id)?;
    Ok(HttpResponse::Ok()
        .content_type("image/svg+xml")
        .insert_header((CACHE_CONTROL, "public, max-age=86400"))
        .body(picture))
}
