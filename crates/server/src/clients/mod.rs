//! Clients: listed, one, new, saved, put away, erased; what belongs to them.

mod archive;
mod links;
mod notes;
mod set_ups;
mod usual_week;

pub(crate) use archive::take_out;
pub(crate) use notes::{read_my_messages, show_my_messages, write_my_message};

use crate::auth::SignedIn;
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{HttpResponse, delete, get, post, put, web};
use casefile::ClientEntry;
use desk::clients::{AgreedRound, ClientPage, ClientView, ListQuery, MadeUp, PutAway, RoundSummary, SaveClient};
use desk::rounds::NewRoundRequest;
use store::Belongings;
use units::ClientId;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config
        .service(list_clients)
        .service(add_client)
        .service(make_client_up)
        .service(show_client)
        .service(save_client)
        .service(open_round)
        .service(show_belongings)
        .service(put_away)
        .service(agree_on_round)
        .service(erase_client)
        .configure(archive::configure)
        .configure(links::configure)
        .configure(notes::configure)
        .configure(set_ups::configure)
        .configure(usual_week::configure);
}

/// Clients by name with what their newest round says.
#[utoipa::path(tag = "clients", params(ListQuery), responses(
    (status = 200, body = ClientPage), (status = 400, body = ProblemDetails), (status = 401, body = ProblemDetails)))]
#[get("/clients")]
pub(crate) async fn list_clients(
    state: web::Data<AppState>,
    query: web::Query<ListQuery>,
) -> Result<HttpResponse, ApiError> {
    let asked = query.into_inner();
    if !asked.is_plain() {
        // Too many different ones to keep.
        return Ok(HttpResponse::Ok().json(state.ask(move |desk| desk.clients(&asked)).await?));
    }
    let name = format!("clients {} {} {}", asked.page, asked.per_page, asked.away);
    state.page_of_all(name, false, move |desk| desk.clients(&asked)).await
}

/// What of a client would go with them.
#[utoipa::path(tag = "clients", params(ClientId), responses((status = 200, body = Belongings), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/belongings")]
pub(crate) async fn show_belongings(
    state: web::Data<AppState>,
    id: web::Path<ClientId>,
) -> Result<web::Json<Belongings>, ApiError> {
    state.json(move |desk| desk.belongings(&id)).await
}

/// Agrees on a day for the next round of some clients, or takes it back.
#[utoipa::path(tag = "clients", request_body = AgreedRound, responses(
    (status = 204), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/clients/next-round")]
pub(crate) async fn agree_on_round(
    state: web::Data<AppState>,
    body: web::Json<AgreedRound>,
) -> Result<HttpResponse, ApiError> {
    state.done(move |desk| desk.agree_on_round(&body)).await
}

/// Puts a client away, out of the lists, or back.
#[utoipa::path(tag = "clients", params(ClientId), request_body = PutAway, responses(
    (status = 200, body = ClientView), (status = 404, body = ProblemDetails)))]
#[put("/clients/{client_id}/away")]
pub(crate) async fn put_away(
    state: web::Data<AppState>,
    id: web::Path<ClientId>,
    body: web::Json<PutAway>,
) -> Result<web::Json<ClientView>, ApiError> {
    state.json(move |desk| desk.put_away(&id, body.away)).await
}

/// Removes a client for good, with everything about them.
#[utoipa::path(tag = "clients", params(ClientId), responses((status = 204), (status = 403, body = ProblemDetails),
    (status = 404, body = ProblemDetails)))]
#[delete("/clients/{client_id}")]
pub(crate) async fn erase_client(
    state: web::Data<AppState>,
    id: web::Path<ClientId>,
) -> Result<HttpResponse, ApiError> {
    state.done(move |desk| desk.erase_client(&id)).await
}

/// A client with brief and rounds.
#[utoipa::path(tag = "clients", params(ClientId), responses((status = 200, body = ClientView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}")]
pub(crate) async fn show_client(
    state: web::Data<AppState>,
    id: web::Path<ClientId>,
) -> Result<web::Json<ClientView>, ApiError> {
    state.json(move |desk| desk.client(&id)).await
}

/// Adds a client.
#[utoipa::path(tag = "clients", request_body = ClientEntry, responses(
    (status = 201, body = ClientView), (status = 422, body = ProblemDetails)))]
#[post("/clients")]
pub(crate) async fn add_client(
    state: web::Data<AppState>,
    body: web::Json<ClientEntry>,
) -> Result<HttpResponse, ApiError> {
    state.created(move |desk| desk.add_client(&body)).await
}

/// Makes a client up to look around with; the one who is there already, if there is one.
#[utoipa::path(tag = "clients", responses(
    (status = 201, body = MadeUp), (status = 404, body = ProblemDetails)))]
#[post("/clients/made-up")]
pub(crate) async fn make_client_up(state: web::Data<AppState>, who: SignedIn) -> Result<HttpResponse, ApiError> {
    // A second press waits for the first and finds the client it made.
    let turn = state.working.turn(&who.0.id).await?;
    state.created(turn.around(move |desk| desk.make_client_up(&who.0))).await
}

/// Saves a brief.
#[utoipa::path(tag = "clients", params(ClientId), request_body = SaveClient, responses(
    (status = 200, body = ClientView), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/clients/{client_id}")]
pub(crate) async fn save_client(
    state: web::Data<AppState>,
    id: web::Path<ClientId>,
    body: web::Json<SaveClient>,
) -> Result<web::Json<ClientView>, ApiError> {
    state.json(move |desk| desk.save_client(&id, &body)).await
}

/// Opens a round.
#[utoipa::path(tag = "clients", params(ClientId), request_body = NewRoundRequest, responses(
    (status = 201, body = RoundSummary), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/clients/{client_id}/rounds")]
pub(crate) async fn open_round(
    state: web::Data<AppState>,
    id: web::Path<ClientId>,
    body: web::Json<NewRoundRequest>,
) -> Result<HttpResponse, ApiError> {
    state.created(move |desk| desk.open_round(&id, &body)).await
}
