//! A client's own page, behind a private link: their week, their log, and what the coach shares.

mod photos;

use crate::auth::LinkedClient;
use crate::clients::{read_my_messages, show_my_messages, write_my_message};
use crate::http::{ApiError, ProblemDetails};
use crate::photos::picture;
use crate::state::AppState;
use actix_web::{HttpResponse, get, post, web};
use desk::Desk;
use desk::log::{SendEntries, SentEntries, TrainingView};
use desk::my::MyPage;
use units::PhotoId;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for whoever has opened a link: only what the link is scoped to.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config
        .service(show_my_week)
        .service(send_my_entries)
        .service(show_my_page)
        .configure(photos::configure)
        .service(show_my_photo)
        .service(show_my_messages)
        .service(write_my_message)
        .service(read_my_messages);
}

/// The client's week.
#[utoipa::path(tag = "my", responses((status = 200, body = TrainingView), (status = 401, body = ProblemDetails)))]
#[get("/week")]
pub(crate) async fn show_my_week(state: web::Data<AppState>, who: LinkedClient) -> Result<HttpResponse, ApiError> {
    state.page_of_client("week", who.client_id, Desk::week).await
}

/// Takes in what the client logged. What is sent again makes no double.
#[utoipa::path(tag = "my", request_body = SendEntries, responses(
    (status = 200, body = SentEntries), (status = 401, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/log")]
pub(crate) async fn send_my_entries(
    state: web::Data<AppState>,
    who: LinkedClient,
    body: web::Json<SendEntries>,
) -> Result<web::Json<SentEntries>, ApiError> {
    state.json(move |desk| desk.receive(&who.client_id, None, body.into_inner())).await
}

/// What the client's page is for, beside the week.
#[utoipa::path(tag = "my", responses((status = 200, body = MyPage), (status = 401, body = ProblemDetails)))]
#[get("/page")]
pub(crate) async fn show_my_page(state: web::Data<AppState>, who: LinkedClient) -> Result<web::Json<MyPage>, ApiError> {
    state.json(move |desk| desk.my_page(&who.client_id, who.expires_on)).await
}

/// A picture of the client's own, when they agreed to be shown it.
#[utoipa::path(tag = "my", params(PhotoId), responses((status = 200, content_type = "image/jpeg"), (status = 404, body = ProblemDetails)))]
#[get("/photos/{photo_id}/view")]
pub(crate) async fn show_my_photo(
    state: web::Data<AppState>,
    who: LinkedClient,
    id: web::Path<PhotoId>,
) -> Result<HttpResponse, ApiError> {
    Ok(picture(state.ask(move |desk| desk.my_photo(&who.client_id, &id)).await?))
}
