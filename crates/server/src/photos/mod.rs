//! Pictures of a round: taking them in, showing them, what the coach says of them, laying them over each other.

mod ratings;
mod studio;

use crate::auth::SignedIn;
use crate::http::{ApiError, Limits, ProblemDetails};
use crate::state::AppState;
use actix_web::http::header::ContentType;
use actix_web::{HttpResponse, delete, get, post, put, web};
use desk::RoundPage;
use desk::photos::{
    AskAgain, BoothQuery, LightTable, NewPhotoQuery, OutlineView, OverView, PhotoView, SavePhoto, check_distance,
};
use std::time::Duration;
use store::PhotoFile;
use units::{PhotoId, RoundId};
use utoipa_actix_web::service_config::ServiceConfig;
use vision::{MAX_BYTES, PhotoError, PhotoPose};

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config
        .service(show_light_table)
        .service(add_photo)
        .service(use_booth)
        .service(save_photo)
        .service(let_photo_count)
        .service(delete_photo)
        .service(show_view)
        .service(show_thumb)
        .service(show_outline)
        .service(show_over)
        .service(ask_again)
        .service(ask_no_more)
        .configure(ratings::configure)
        .configure(studio::configure);
}

/// The light table of a round: every picture of the client, what can be asked, what was judged.
#[utoipa::path(tag = "photos", params(RoundId), responses((status = 200, body = LightTable), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/photos")]
pub(crate) async fn show_light_table(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<RoundId>,
) -> Result<HttpResponse, ApiError> {
    // Each rater sees their own ratings.
    let name = format!("photos {}", who.0.id);
    state.page_of_round(name, (id.into_inner(), RoundPage::Sheet), move |desk, id| desk.light_table(id, &who.0)).await
}

/// What a picture's upload may take.
pub(crate) const A_PICTURE: Limits =
    Limits { most: MAX_BYTES, idle: Duration::from_secs(20), whole: Duration::from_mins(5) };

/// Takes a picture in: the body is the file as it is. It is looked at afterwards, in turn.
#[utoipa::path(tag = "photos", params(RoundId, NewPhotoQuery),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 201, body = PhotoView), (status = 403, body = ProblemDetails), (status = 409, body = ProblemDetails),
    (status = 413, body = ProblemDetails), (status = 422, body = ProblemDetails), (status = 507, body = ProblemDetails)))]
#[post("/rounds/{round_id}/photos")]
pub(crate) async fn add_photo(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<RoundId>,
    query: web::Query<NewPhotoQuery>,
    body: web::Payload,
) -> Result<HttpResponse, ApiError> {
    check_distance("/distance_m", query.distance_m)?;
    let round = id.clone();
    state.ask(move |desk| desk.admits_photos(&round)).await?;
    let (body, turn) = state.received(&who.0.id, body, A_PICTURE, too_heavy).await?;
    state.created(turn.around(move |desk| desk.take_in(&id, &query, &who.0.name, &body.read()?))).await
}

/// What a picture's look may take: who stands before the camera waits.
pub(crate) const A_LOOK: Limits = Limits { idle: Duration::from_secs(10), whole: Duration::from_secs(30), ..A_PICTURE };

/// What is said of a picture that is too large.
pub(crate) fn too_heavy() -> ApiError {
    desk::DeskError::Photo(PhotoError::TooHeavy).into()
}

/// Takes a picture with the stand-in camera: a made-up figure with the girths of this round.
#[utoipa::path(tag = "photos", params(RoundId, BoothQuery), responses((status = 201, body = PhotoView),
    (status = 403, body = ProblemDetails), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/rounds/{round_id}/booth")]
pub(crate) async fn use_booth(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<RoundId>,
    query: web::Query<BoothQuery>,
) -> Result<HttpResponse, ApiError> {
    let turn = state.taking.turn(&who.0.id).await?;
    state.created(turn.around(move |desk| desk.stand_in(&id, query.pose, &who.0.name))).await
}

/// Saves what the coach says of a picture, measures it again, or sends it to be looked at again.
#[utoipa::path(tag = "photos", params(PhotoId), request_body = SavePhoto, responses((status = 200, body = PhotoView),
    (status = 404, body = ProblemDetails), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/photos/{photo_id}")]
pub(crate) async fn save_photo(
    state: web::Data<AppState>,
    id: web::Path<PhotoId>,
    body: web::Json<SavePhoto>,
) -> Result<web::Json<PhotoView>, ApiError> {
    state.json(move |desk| desk.save_photo(&id, &body)).await
}

/// Lets a picture count for its pose, instead of any other one of its round.
#[utoipa::path(tag = "photos", params(PhotoId), responses((status = 204), (status = 404, body = ProblemDetails)))]
#[put("/photos/{photo_id}/counts")]
pub(crate) async fn let_photo_count(
    state: web::Data<AppState>,
    id: web::Path<PhotoId>,
) -> Result<HttpResponse, ApiError> {
    state.done(move |desk| Ok(desk.store.let_photo_count(&id)?)).await
}

/// Asks the client for a pose once more: it stands on their page with its reason, and among the messages.
#[utoipa::path(tag = "photos", params(RoundId), request_body = AskAgain, responses((status = 204), (status = 403, body = ProblemDetails),
    (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/rounds/{round_id}/asks")]
pub(crate) async fn ask_again(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<RoundId>,
    body: web::Json<AskAgain>,
) -> Result<HttpResponse, ApiError> {
    state.done(move |desk| desk.ask_again(&id, &who.0.name, &body)).await
}

/// Takes back what was asked of a pose.
#[utoipa::path(tag = "photos", responses((status = 204), (status = 404, body = ProblemDetails)))]
#[delete("/rounds/{round_id}/asks/{pose}")]
pub(crate) async fn ask_no_more(
    state: web::Data<AppState>,
    path: web::Path<(RoundId, PhotoPose)>,
) -> Result<HttpResponse, ApiError> {
    state.done(move |desk| desk.ask_no_more(&path.0, path.1)).await
}

/// Removes a picture for good.
#[utoipa::path(tag = "photos", params(PhotoId), responses((status = 204), (status = 404, body = ProblemDetails)))]
#[delete("/photos/{photo_id}")]
pub(crate) async fn delete_photo(state: web::Data<AppState>, id: web::Path<PhotoId>) -> Result<HttpResponse, ApiError> {
    state.done(move |desk| Ok(desk.store.delete_photo(&id)?)).await
}

async fn bytes(state: &AppState, id: PhotoId, file: PhotoFile) -> Result<HttpResponse, ApiError> {
    Ok(picture(state.ask(move |desk| desk.photo_file(&id, file)).await?))
}

/// A picture that stays in nobody's cache.
pub(crate) fn picture(jpeg: Vec<u8>) -> HttpResponse {
    HttpResponse::Ok()
        .content_type(ContentType::jpeg())
        .insert_header(("Cache-Control", "private, no-store"))
        .body(jpeg)
}

/// The picture at the size it is judged in.
#[utoipa::path(tag = "photos", params(PhotoId), responses((status = 200, content_type = "image/jpeg"), (status = 404, body = ProblemDetails)))]
#[get("/photos/{photo_id}/view")]
pub(crate) async fn show_view(state: web::Data<AppState>, id: web::Path<PhotoId>) -> Result<HttpResponse, ApiError> {
    bytes(&state, id.into_inner(), PhotoFile::View).await
}

/// The picture small.
#[utoipa::path(tag = "photos", params(PhotoId), responses((status = 200, content_type = "image/jpeg"), (status = 404, body = ProblemDetails)))]
#[get("/photos/{photo_id}/thumb")]
pub(crate) async fn show_thumb(state: web::Data<AppState>, id: web::Path<PhotoId>) -> Result<HttpResponse, ApiError> {
    bytes(&state, id.into_inner(), PhotoFile::Thumb).await
}

/// The outline of the person, with the coach's strokes.
#[utoipa::path(tag = "photos", params(PhotoId), responses((status = 200, body = OutlineView), (status = 404, body = ProblemDetails)))]
#[get("/photos/{photo_id}/outline")]
pub(crate) async fn show_outline(
    state: web::Data<AppState>,
    id: web::Path<PhotoId>,
) -> Result<web::Json<OutlineView>, ApiError> {
    state.json(move |desk| desk.outline(&id)).await
}

/// How this picture lies over another one, and what changed between the two.
#[utoipa::path(tag = "photos", responses((status = 200, body = OverView), (status = 404, body = ProblemDetails)))]
#[get("/photos/{photo_id}/over/{onto_id}")]
pub(crate) async fn show_over(
    state: web::Data<AppState>,
    ids: web::Path<(PhotoId, PhotoId)>,
) -> Result<web::Json<OverView>, ApiError> {
    state.json(move |desk| desk.over(&ids.0, &ids.1)).await
}
