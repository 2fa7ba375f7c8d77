//! Taking a round's pictures with the studio's own camera: what is asked for, what is said of a picture on the spot, how the camera stands.

use super::{A_LOOK, too_heavy};
use crate::auth::SignedIn;
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{HttpResponse, get, post, put, web};
use desk::photos::{LookQuery, PicturesAsked};
use desk::{Desk, RoundPage};
use lighttable::CameraSetUp;
use units::RoundId;
use utoipa_actix_web::service_config::ServiceConfig;
use vision::Taken;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(show_to_take).service(look_at_taken).service(keep_camera);
}

/// The pictures to be taken in a round, with the outlines of last time.
#[utoipa::path(tag = "photos", params(RoundId), responses((status = 200, body = PicturesAsked), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/photos/asked")]
pub(crate) async fn show_to_take(state: web::Data<AppState>, id: web::Path<RoundId>) -> Result<HttpResponse, ApiError> {
    state.page_of_round("pictures-to-take", (id.into_inner(), RoundPage::Now), Desk::pictures_to_take).await
}

/// Says at once whether a picture will do, while the client still stands before the camera. Nothing of it is kept.
#[utoipa::path(tag = "photos", params(RoundId, LookQuery),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 200, body = Taken), (status = 403, body = ProblemDetails), (status = 404, body = ProblemDetails),
    (status = 413, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/rounds/{round_id}/photos/look")]
pub(crate) async fn look_at_taken(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<RoundId>,
    query: web::Query<LookQuery>,
    body: web::Payload,
) -> Result<web::Json<Taken>, ApiError> {
    let (body, turn) = state.received(&who.0.id, body, A_LOOK, too_heavy).await?;
    state.json(turn.around(move |desk| desk.say_of_round(&id, &query, &body.read()?))).await
}

/// Keeps where the camera stands.
#[utoipa::path(tag = "photos", params(RoundId), request_body = CameraSetUp, responses(
    (status = 204), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/rounds/{round_id}/photos/set-up")]
pub(crate) async fn keep_camera(
    state: web::Data<AppState>,
    id: web::Path<RoundId>,
    body: web::Json<CameraSetUp>,
) -> Result<HttpResponse, ApiError> {
    state.done(move |desk| desk.keep_camera_of_round(&id, &body)).await
}
