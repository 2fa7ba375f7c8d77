//! Free words: the coach's on a client and on a round, and what coach and client write to each other.

use crate::auth::{LinkedClient, SignedIn};
use crate::dto::{MessagesView, NewMessage, NoteView, ReadMessages, SaveNote};
use crate::error::{ApiError, ProblemDetails, invalid};
use crate::state::AppState;
use actix_web::{get, post, put, web};
use jiff::Timestamp;
use store::Store;
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

/// Longest note of a coach, characters.
const NOTE_CHARS: usize = 4000;
/// Longest message, characters.
const MESSAGE_CHARS: usize = 1000;

fn words<'a>(at: &str, words: &'a str, most: usize) -> Result<&'a str, ApiError> {
    let words = words.trim();
    let count = words.chars().count();
    if count > most {
        return Err(invalid(at, format!("{count} characters are too many: expected at most {most}")));
    }
    Ok(words)
}

/// The coach's words on a client.
#[utoipa::path(tag = "clients", responses((status = 200, body = NoteView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/note")]
pub(crate) async fn show_client_note(
    state: web::Data<AppState>,
    id: web::Path<String>,
) -> Result<web::Json<NoteView>, ApiError> {
    state.run(move |store, _| Ok(NoteView { note: store.client_note(&id)? })).await.map(web::Json)
}

/// Puts other words in their place.
#[utoipa::path(tag = "clients", request_body = SaveNote, responses(
    (status = 200, body = NoteView), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/clients/{client_id}/note")]
pub(crate) async fn save_client_note(
    state: web::Data<AppState>,
    id: web::Path<String>,
    body: web::Json<SaveNote>,
) -> Result<web::Json<NoteView>, ApiError> {
    let saved = state.run(move |store, _| {
        let note = words("/note", &body.note, NOTE_CHARS)?;
        store.save_client_note(&id, &body.was, note)?;
        Ok(NoteView { note: note.to_owned() })
    });
    saved.await.map(web::Json)
}

/// The coach's words on a round.
#[utoipa::path(tag = "rounds", responses((status = 200, body = NoteView), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/note")]
pub(crate) async fn show_round_note(
    state: web::Data<AppState>,
    id: web::Path<String>,
) -> Result<web::Json<NoteView>, ApiError> {
    state.run(move |store, _| Ok(NoteView { note: store.round_note(&id)? })).await.map(web::Json)
}

/// Puts other words in their place.
#[utoipa::path(tag = "rounds", request_body = SaveNote, responses(
    (status = 200, body = NoteView), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/rounds/{round_id}/note")]
pub(crate) async fn save_round_note(
    state: web::Data<AppState>,
    id: web::Path<String>,
    body: web::Json<SaveNote>,
) -> Result<web::Json<NoteView>, ApiError> {
    let saved = state.run(move |store, _| {
        let note = words("/note", &body.note, NOTE_CHARS)?;
        store.save_round_note(&id, &body.was, note)?;
        Ok(NoteView { note: note.to_owned() })
    });
    saved.await.map(web::Json)
}

fn written(store: &Store, client_id: &str, by: (&str, bool), new: &NewMessage) -> Result<MessagesView, ApiError> {
    let said = words("/words", &new.words, MESSAGE_CHARS)?;
    if said.is_empty() {
        return Err(invalid("/words", "a message needs words: expected 1 to 1000 characters".to_owned()));
    }
    store.write_message(client_id, by, said, Timestamp::now())?;
    Ok(MessagesView::seen_by(by.1, store.messages(client_id)?))
}

fn seen(store: &Store, client_id: &str, by_client: bool, read: &ReadMessages) -> Result<MessagesView, ApiError> {
    if read.up_to.parse::<Timestamp>().is_err() {
        let says = format!("{:?} is no time: expected one such as 2026-03-02T18:05:00Z", read.up_to);
        return Err(invalid("/up_to", says));
    }
    store.read_messages(client_id, by_client, &read.up_to, Timestamp::now())?;
    Ok(MessagesView::seen_by(by_client, store.messages(client_id)?))
}

/// What coach and client wrote to each other.
#[utoipa::path(tag = "clients", responses((status = 200, body = MessagesView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/messages")]
pub(crate) async fn show_messages(
    state: web::Data<AppState>,
    id: web::Path<String>,
) -> Result<web::Json<MessagesView>, ApiError> {
    let found = state.run(move |store, knowledge| {
        store.client(&knowledge.atlas, &id)?;
        Ok(MessagesView::seen_by(false, store.messages(&id)?))
    });
    found.await.map(web::Json)
}

/// Writes to the client; they see it on their own page.
#[utoipa::path(tag = "clients", request_body = NewMessage, responses(
    (status = 200, body = MessagesView), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/clients/{client_id}/messages")]
pub(crate) async fn write_message(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    id: web::Path<String>,
    body: web::Json<NewMessage>,
) -> Result<web::Json<MessagesView>, ApiError> {
    let sent = state.run(move |store, knowledge| {
        store.client(&knowledge.atlas, &id)?;
        written(store, &id, (&signed_in.0.name, false), &body)
    });
    sent.await.map(web::Json)
}

/// Marks what the client wrote as seen.
#[utoipa::path(tag = "clients", request_body = ReadMessages, responses(
    (status = 200, body = MessagesView), (status = 404, body = ProblemDetails)))]
#[put("/clients/{client_id}/messages/read")]
pub(crate) async fn read_messages(
    state: web::Data<AppState>,
    id: web::Path<String>,
    body: web::Json<ReadMessages>,
) -> Result<web::Json<MessagesView>, ApiError> {
    let read = state.run(move |store, knowledge| {
        store.client(&knowledge.atlas, &id)?;
        seen(store, &id, false, &body)
    });
    read.await.map(web::Json)
}

/// The same on the client's own page.
#[utoipa::path(tag = "my", responses((status = 200, body = MessagesView), (status = 401, body = ProblemDetails)))]
#[get("/messages")]
pub(crate) async fn show_my_messages(
    state: web::Data<AppState>,
    who: LinkedClient,
) -> Result<web::Json<MessagesView>, ApiError> {
    let found = state.run(move |store, _| Ok(MessagesView::seen_by(true, store.messages(&who.client_id)?)));
    found.await.map(web::Json)
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
    let sent = state.run(move |store, knowledge| {
        let name = store.client(&knowledge.atlas, &who.client_id)?.client.name;
        written(store, &who.client_id, (&name, true), &body)
    });
    sent.await.map(web::Json)
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
    state.run(move |store, _| seen(store, &who.client_id, true, &body)).await.map(web::Json)
}
