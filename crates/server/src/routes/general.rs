//! Health and the atlas.

use crate::dto::AtlasView;
use crate::error::ProblemDetails;
use crate::state::AppState;
use actix_web::{HttpResponse, get, web};
use serde::Serialize;
use utoipa::ToSchema;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(atlas);
}

/// That the server answers, and which version.
#[derive(Serialize, ToSchema)]
pub struct Health {
    status: &'static str,
    version: &'static str,
}

/// Whether the server answers.
#[utoipa::path(tag = "general", responses((status = 200, body = Health)))]
#[get("")]
pub(crate) async fn health() -> web::Json<Health> {
    web::Json(Health { status: "ok", version: env!("CARGO_PKG_VERSION") })
}

/// Regions, sites, looks, equipment and exercises.
#[utoipa::path(tag = "general", responses((status = 200, body = AtlasView), (status = 401, body = ProblemDetails)))]
#[get("/atlas")]
pub(crate) async fn atlas(state: web::Data<AppState>) -> HttpResponse {
    HttpResponse::Ok().json(AtlasView::of(&state.knowledge().atlas))
}
