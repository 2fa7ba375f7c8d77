//! The eye: a coach's sittings before made-up figures.

use crate::auth::SignedIn;
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::http::header::{CACHE_CONTROL, ContentType};
use actix_web::{HttpResponse, get, post, web};
use desk::eye::{AnswerEye, EyePage, EyeSittingView};
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(show_eye).service(start_sitting).service(show_sitting).service(show_eye_picture).service(answer_eye);
}

/// What the own eye is worth, and the sitting that was left open.
#[utoipa::path(tag = "eye", responses((status = 200, body = EyePage), (status = 500, body = ProblemDetails)))]
#[get("/eye")]
pub(crate) async fn show_eye(state: web::Data<AppState>, who: SignedIn) -> Result<web::Json<EyePage>, ApiError> {
    state.json(move |desk| desk.eye_page(&who.0.id)).await
}

/// Begins a sitting, or goes on with the one that was left open.
#[utoipa::path(tag = "eye", responses((status = 201, body = EyeSittingView), (status = 500, body = ProblemDetails)))]
#[post("/eye/sittings")]
pub(crate) async fn start_sitting(state: web::Data<AppState>, who: SignedIn) -> Result<HttpResponse, ApiError> {
    state.created(move |desk| desk.start_sitting(&who.0.id)).await
}

/// One of the own sittings.
#[utoipa::path(tag = "eye", responses((status = 200, body = EyeSittingView), (status = 404, body = ProblemDetails)))]
#[get("/eye/sittings/{sitting_id}")]
pub(crate) async fn show_sitting(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<String>,
) -> Result<web::Json<EyeSittingView>, ApiError> {
    state.json(move |desk| desk.sitting(&who.0.id, &id)).await
}

/// A picture of one of the own sittings. Whether it is mirrored cannot be seen from it.
#[utoipa::path(tag = "eye", params(("sitting_id" = String, Path), ("place" = usize, Path, description = "from 0")),
    responses((status = 200, content_type = "image/jpeg"), (status = 404, body = ProblemDetails)))]
#[get("/eye/sittings/{sitting_id}/pictures/{place}")]
pub(crate) async fn show_eye_picture(
    state: web::Data<AppState>,
    who: SignedIn,
    path: web::Path<(String, usize)>,
) -> Result<HttpResponse, ApiError> {
    let (id, place) = path.into_inner();
    let jpeg = state.ask(move |desk| desk.eye_picture(&who.0.id, &id, place)).await?;
    Ok(HttpResponse::Ok()
        .insert_header(ContentType::jpeg())
        // A place of a sitting always shows the same.
        .insert_header((CACHE_CONTROL, "private, max-age=86400"))
        .body(jpeg))
}

/// Answers the next picture of one of the own sittings. An answer stays: its truth may have been told.
#[utoipa::path(tag = "eye", request_body = AnswerEye, responses(
    (status = 200, body = EyeSittingView), (status = 404, body = ProblemDetails), (status = 409, body = ProblemDetails),
    (status = 422, body = ProblemDetails)))]
#[post("/eye/sittings/{sitting_id}/answers")]
pub(crate) async fn answer_eye(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<String>,
    body: web::Json<AnswerEye>,
) -> Result<web::Json<EyeSittingView>, ApiError> {
    state.json(move |desk| desk.answer_eye(&who.0.id, &id, &body)).await
}
