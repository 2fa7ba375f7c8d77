//! Private links of clients: made, listed, taken back.

use crate::auth::{SignedIn, new_key};
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{HttpResponse, delete, get, post, web};
use desk::my::{LinkView, NewLinkRequest};
use units::ClientId;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(list_links).service(make_link).service(revoke_link);
}

/// A client's links, newest first.
#[utoipa::path(tag = "links", params(ClientId), responses((status = 200, body = Vec<LinkView>), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/links")]
pub(crate) async fn list_links(
    state: web::Data<AppState>,
    id: web::Path<ClientId>,
) -> Result<web::Json<Vec<LinkView>>, ApiError> {
    state.json(move |desk| desk.links(&id)).await
}

/// Makes a link. Its token is in this answer and nowhere else.
#[utoipa::path(tag = "links", params(ClientId), request_body = NewLinkRequest, responses(
    (status = 201, body = LinkView), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/clients/{client_id}/links")]
pub(crate) async fn make_link(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<ClientId>,
    body: web::Json<NewLinkRequest>,
) -> Result<HttpResponse, ApiError> {
    state.created(move |desk| desk.make_link(&id, &who.0, &body, new_key())).await
}

/// Takes a link back for good.
#[utoipa::path(tag = "links", responses((status = 204), (status = 404, body = ProblemDetails)))]
#[delete("/clients/{client_id}/links/{link_id}")]
pub(crate) async fn revoke_link(
    state: web::Data<AppState>,
    path: web::Path<(ClientId, String)>,
) -> Result<HttpResponse, ApiError> {
    let (client_id, id) = path.into_inner();
    state.done(move |desk| desk.revoke_link(&client_id, &id)).await
}
