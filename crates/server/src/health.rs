//! Whether the server answers.

use actix_web::{get, web};
use serde::Serialize;
use utoipa::ToSchema;

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
