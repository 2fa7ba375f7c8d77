//! Everything about a client as a file, and a client taken in from one.

use crate::auth::SignedIn;
use crate::http::{ApiError, Limits, ProblemDetails, attachment};
use crate::state::AppState;
use actix_files::NamedFile;
use actix_web::{HttpResponse, get, post, web};
use desk::DeskError;
use std::fs::File;
use std::time::Duration;
use store::Imported;
use units::ClientId;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(export_client).service(import_client);
}

/// Largest archive of a client that is taken in through the browser: years of pictures.
const ARCHIVE_BYTES: usize = 512 * 1024 * 1024;

const AN_ARCHIVE: Limits =
    Limits { most: ARCHIVE_BYTES, idle: Duration::from_secs(20), whole: Duration::from_mins(30) };

/// Everything about a client: case file, every table, pictures.
#[utoipa::path(tag = "archive", params(ClientId), responses((status = 200, description = "a zip archive",
    content_type = "application/zip"), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/archive")]
pub(crate) async fn export_client(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<ClientId>,
) -> Result<NamedFile, ApiError> {
    let name = format!("client-{id}.zip");
    let turn = state.working.turn(&who.0.id).await?;
    take_out(state.ask(turn.around(move |desk| desk.export_client(&id))).await?, name)
}

/// A file that is sent to be kept under a name.
pub(crate) fn take_out(file: File, name: String) -> Result<NamedFile, ApiError> {
    let file = NamedFile::from_file(file, &name).map_err(|error| DeskError::Internal(error.to_string()))?;
    Ok(file.set_content_disposition(attachment(name)))
}

/// Takes in a client that was exported: the body is the archive.
#[utoipa::path(tag = "archive", request_body(content = Vec<u8>, content_type = "application/zip"), responses(
    (status = 201, body = Imported), (status = 400, body = ProblemDetails), (status = 409, body = ProblemDetails)))]
#[post("/clients/archive")]
pub(crate) async fn import_client(
    state: web::Data<AppState>,
    who: SignedIn,
    body: web::Payload,
) -> Result<HttpResponse, ApiError> {
    let too_heavy =
        || DeskError::Malformed("this archive is larger than 512 MB: take it in with orthomer import".into()).into();
    let (body, turn) = state.received(&who.0.id, body, AN_ARCHIVE, too_heavy).await?;
    state.created(turn.around(move |desk| desk.import_client(body.into_file()))).await
}
