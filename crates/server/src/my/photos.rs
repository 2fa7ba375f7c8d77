//! Pictures on a client's own page: what is asked for, how the camera stands, what is said of a picture on the spot, sending it.

use crate::auth::LinkedClient;
use crate::http::{ApiError, ProblemDetails};
use crate::photos::{A_LOOK, A_PICTURE, too_heavy};
use crate::state::AppState;
use actix_web::{HttpResponse, get, post, put, web};
use desk::Desk;
use desk::photos::{LookQuery, NewPhotoQuery, PicturesAsked};
use lighttable::CameraSetUp;
use utoipa_actix_web::service_config::ServiceConfig;
use vision::Taken;

/// Its routes, below a client's own page.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(show_asked).service(send_my_photo).service(look_at_mine).service(keep_my_camera);
}

/// The pictures asked for, with the outlines of last time.
#[utoipa::path(tag = "my", responses((status = 200, body = PicturesAsked), (status = 401, body = ProblemDetails)))]
#[get("/photos")]
pub(crate) async fn show_asked(state: web::Data<AppState>, who: LinkedClient) -> Result<HttpResponse, ApiError> {
    state.page_of_client("pictures-asked", who.client_id, Desk::pictures_asked).await
}

/// Takes in a picture from the client, for the newest round. What is sent again is there already.
#[utoipa::path(tag = "my", params(NewPhotoQuery),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 204), (status = 401, body = ProblemDetails), (status = 403, body = ProblemDetails),
    (status = 413, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/photos")]
pub(crate) async fn send_my_photo(
    state: web::Data<AppState>,
    who: LinkedClient,
    query: web::Query<NewPhotoQuery>,
    body: web::Payload,
) -> Result<HttpResponse, ApiError> {
    let (id, asked) = (who.client_id.clone(), query.0.clone());
    state.ask(move |desk| desk.admits_photo_of(&id, &asked)).await?;
    let (body, turn) = state.received(who.client_id.as_str(), body, A_PICTURE, too_heavy).await?;
    state.done(turn.around(move |desk| desk.take_in_from(&who.client_id, &query, &body.read()?))).await
}

/// Says at once whether a picture will do, while the client still stands before the camera. Nothing of it is kept.
#[utoipa::path(tag = "my", params(LookQuery),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 200, body = Taken), (status = 401, body = ProblemDetails), (status = 403, body = ProblemDetails),
    (status = 413, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/photos/look")]
pub(crate) async fn look_at_mine(
    state: web::Data<AppState>,
    who: LinkedClient,
    query: web::Query<LookQuery>,
    body: web::Payload,
) -> Result<web::Json<Taken>, ApiError> {
    let (body, turn) = state.received(who.client_id.as_str(), body, A_LOOK, too_heavy).await?;
    state.json(turn.around(move |desk| desk.say_of(&who.client_id, &query, &body.read()?))).await
}

/// Keeps where the client's camera stands.
#[utoipa::path(tag = "my", request_body = CameraSetUp, responses(
    (status = 204), (status = 401, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/photos/set-up")]
pub(crate) async fn keep_my_camera(
    state: web::Data<AppState>,
    who: LinkedClient,
    body: web::Json<CameraSetUp>,
) -> Result<HttpResponse, ApiError> {
    state.done(move |desk| desk.keep_camera(&who.client_id, &body)).await
}
