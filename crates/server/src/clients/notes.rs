//! Free words: the coach's on a client and on a round, and what coach and client write to each other.

use crate::auth::{LinkedClient, SignedIn};
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{get, post, put, web};
use desk::notes::{MessagesView, NewMessage, NoteView, Party, ReadMessages, SaveNote};
use units::{ClientId, RoundId};
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config
        .service(show_client_note)
        .service(save_client_note)
        .service(show_round_note)
        .service(save_round_note)
        .service(show_messages)
        .service(write_message)
        .service(read_messages);
}

/// The coach's words on a client.
#[utoipa::path(tag = "clients", params(ClientId), responses((status = 200, body = NoteView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/note")]
pub(crate) async fn show_client_note(
    state: web::Data<AppState>,
    id: web::Path<ClientId>,
) -> Result<web::Json<NoteView>, ApiError> {
    state.json(move |desk| desk.client_note(&id)).await
}

/// Puts other words in their place.
#[utoipa::path(tag = "clients", params(ClientId), request_body = SaveNote, responses(
    (status = 200, body = NoteView), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/clients/{client_id}/note")]
pub(crate) async fn save_client_note(
    state: web::Data<AppState>,
    id: web::Path<ClientId>,
    body: web::Json<SaveNote>,
) -> Result<web::Json<NoteView>, ApiError> {
    state.json(move |desk| desk.save_client_note(&id, &body)).await
}

/// The coach's words on a round.
#[utoipa::path(tag = "rounds", params(RoundId), responses((status = 200, body = NoteView), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/note")]
pub(crate) async fn show_round_note(
    state: web::Data<AppState>,
    id: web::Path<RoundId>,
) -> Result<web::Json<NoteView>, ApiError> {
    state.json(move |desk| desk.round_note(&id)).await
}

/// Puts other words in their place.
#[utoipa::path(tag = "rounds", params(RoundId), request_body = SaveNote, responses(
    (status = 200, body = NoteView), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/rounds/{round_id}/note")]
pub(crate) async fn save_round_note(
    state: web::Data<AppState>,
    id: web::Path<RoundId>,
    body: web::Json<SaveNote>,
) -> Result<web::Json<NoteView>, ApiError> {
    state.json(move |desk| desk.save_round_note(&id, &body)).await
}

/// What coach and client wrote to each other.
#[utoipa::path(tag = "clients", params(ClientId), responses((status = 200, body = MessagesView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/messages")]
pub(crate) async fn show_messages(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<ClientId>,
) -> Result<web::Json<MessagesView>, ApiError> {
    state.json(move |desk| desk.messages(&id, Party::Coach(&who.0.name))).await
}

/// Writes to the client; they see it on their own page.
#[utoipa::path(tag = "clients", params(ClientId), request_body = NewMessage, responses(
    (status = 200, body = MessagesView), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/clients/{client_id}/messages")]
pub(crate) async fn write_message(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<ClientId>,
    body: web::Json<NewMessage>,
) -> Result<web::Json<MessagesView>, ApiError> {
    state.json(move |desk| desk.write_message(&id, Party::Coach(&who.0.name), &body)).await
}

/// Marks what the client wrote as seen.
#[utoipa::path(tag = "clients", params(ClientId), request_body = ReadMessages, responses(
    (status = 200, body = MessagesView), (status = 404, body = ProblemDetails)))]
#[put("/clients/{client_id}/messages/read")]
pub(crate) async fn read_messages(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<ClientId>,
    body: web::Json<ReadMessages>,
) -> Result<web::Json<MessagesView>, ApiError> {
    state.json(move |desk| desk.read_messages(&id, Party::Coach(&who.0.name), &body)).await
}

/// The same on the client's own page.
#[utoipa::path(tag = "my", responses((status = 200, body = MessagesView), (status = 401, body = ProblemDetails)))]
#[get("/messages")]
pub(crate) async fn show_my_messages(
    state: web::Data<AppState>,
    who: LinkedClient,
) -> Result<web::Json<MessagesView>, ApiError> {
    state.json(move |desk| desk.messages(&who.client_id, Party::Client)).await
}

/// Writes to the coach.
#[utoipa::path(tag = "my", request_body = NewMessage, responses(
    (status = 200, body = MessagesView), (status = 401, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/messages")]
pub(crate) async fn write_my_message(
    state: web::Data<AppState>,
    who: LinkedClient,
    body: web::Json<NewMessage>,
) -> Result<web::Json<MessagesView>, ApiError> {
    state.json(move |desk| desk.write_message(&who.client_id, Party::Client, &body)).await
}

/// Marks what the coach wrote as seen.
#[utoipa::path(tag = "my", request_body = ReadMessages, responses(
    (status = 200, body = MessagesView), (status = 401, body = ProblemDetails)))]
#[put("/messages/read")]
pub(crate) async fn read_my_messages(
    state: web::Data<AppState>,
    who: LinkedClient,
    body: web::Json<ReadMessages>,
) -> Result<web::Json<MessagesView>, ApiError> {
    state.json(move |desk| desk.read_messages(&who.client_id, Party::Client, &body)).await
}
