//! Private links of clients: made, listed, taken back.

use crate::auth::{SignedIn, new_token};
use crate::dto::{LinkView, NewLinkRequest};
use crate::error::{ApiError, ProblemDetails, invalid};
use crate::state::AppState;
use actix_web::{HttpResponse, delete, get, post, web};
use jiff::ToSpan;
use store::NewLink;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(list_links).service(make_link).service(revoke_link);
}

/// Links made for a client on one day, at most.
const A_DAY: usize = 20;
/// Days a link may open.
const DAYS: [u16; 2] = [1, 366];

/// A client's links, newest first.
#[utoipa::path(tag = "links", responses((status = 200, body = Vec<LinkView>), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/links")]
pub(crate) async fn list_links(
    state: web::Data<AppState>,
    id: web::Path<String>,
) -> Result<web::Json<Vec<LinkView>>, ApiError> {
    let listed = state.run(move |store, _| {
        let links = store.links(&id)?;
        Ok(links.iter().map(|link| LinkView::of(link, None)).collect())
    });
    listed.await.map(web::Json)
}

/// Makes a link. Its token is in this answer and nowhere else.
#[utoipa::path(tag = "links", request_body = NewLinkRequest, responses(
    (status = 201, body = LinkView), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/clients/{client_id}/links")]
pub(crate) async fn make_link(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    id: web::Path<String>,
    body: web::Json<NewLinkRequest>,
) -> Result<HttpResponse, ApiError> {
    if !(DAYS[0]..=DAYS[1]).contains(&body.days) {
        return Err(invalid("/days", format!("{} days: expected {} to {}", body.days, DAYS[0], DAYS[1])));
    }
    let made = state.run(move |store, _| {
        let (token, hash) = new_token();
        let today = AppState::today();
        let made = store.links(&id)?.iter().filter(|link| link.made_on == today).count();
        if made >= A_DAY {
            let says =
                format!("{made} links were made for this client today: take one of them, or make another tomorrow");
            return Err(ApiError::Busy(says));
        }
        let last = today.checked_add((i64::from(body.days) - 1).days());
        let new = NewLink {
            client_id: &id,
            token_sha256: &hash,
            made_by: &signed_in.0.name,
            made_by_id: &signed_in.0.id,
            made_on: today,
            expires_on: last.map_err(|error| ApiError::Internal(error.to_string()))?,
        };
        Ok(LinkView::of(&store.add_link(&new)?, Some(token)))
    });
    Ok(HttpResponse::Created().json(made.await?))
}

/// Takes a link back for good.
#[utoipa::path(tag = "links", responses((status = 204), (status = 404, body = ProblemDetails)))]
#[delete("/clients/{client_id}/links/{link_id}")]
pub(crate) async fn revoke_link(
    state: web::Data<AppState>,
    path: web::Path<(String, String)>,
) -> Result<HttpResponse, ApiError> {
    let (client_id, id) = path.into_inner();
    state.run(move |store, _| Ok(store.revoke_link(&client_id, &id, AppState::today())?)).await?;
    Ok(HttpResponse::NoContent().finish())
}
