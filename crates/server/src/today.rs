//! Today: what needs the coach, most pressing first, and the sessions of the day.

use crate::auth::SignedIn;
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{HttpResponse, get, post, web};
use desk::Desk;
use desk::today::{SeeTo, TodayView};
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(show_today).service(see_to);
}

/// The queue of the whole practice.
#[utoipa::path(tag = "today", responses((status = 200, body = TodayView), (status = 401, body = ProblemDetails)))]
#[get("/today")]
pub(crate) async fn show_today(state: web::Data<AppState>) -> Result<HttpResponse, ApiError> {
    state.page_of_all("today", true, Desk::today).await
}

/// Notes that something of the queue was seen to, or puts it back.
#[utoipa::path(tag = "today", request_body = SeeTo, responses((status = 204), (status = 404, body = ProblemDetails)))]
#[post("/today/seen")]
pub(crate) async fn see_to(
    state: web::Data<AppState>,
    who: SignedIn,
    body: web::Json<SeeTo>,
) -> Result<HttpResponse, ApiError> {
    state.done(move |desk| desk.see_to(&who.0.name, body.into_inner())).await
}
