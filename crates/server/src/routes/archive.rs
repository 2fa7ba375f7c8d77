//! Everything about a client as a file, the practice as a file, tables as CSV, and a client taken in from a file.

use crate::auth::SignedIn;
use crate::error::{ApiError, ProblemDetails};
use crate::spool::{Limits, spool};
use crate::state::AppState;
use actix_files::NamedFile;
use actix_web::http::header::{ContentDisposition, DispositionParam, DispositionType};
use actix_web::{HttpResponse, get, post, web};
use std::fs::File;
use std::io::{BufReader, Seek, SeekFrom};
use std::time::Duration;
use store::{Imported, TABLE_NAMES, backup};
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(export_client).service(import_client).service(show_backup).service(list_tables).service(show_table);
}

/// Largest archive of a client that is taken in through the browser: years of pictures.
const ARCHIVE_BYTES: usize = 512 * 1024 * 1024;
const AN_ARCHIVE: Limits =
    Limits { most: ARCHIVE_BYTES, idle: Duration::from_secs(20), whole: Duration::from_mins(30) };

fn attachment(name: String) -> ContentDisposition {
    ContentDisposition { disposition: DispositionType::Attachment, parameters: vec![DispositionParam::Filename(name)] }
}

/// Everything about a client: case file, every table, pictures.
#[utoipa::path(tag = "archive", responses((status = 200, description = "a zip archive",
    content_type = "application/zip"), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/archive")]
pub(crate) async fn export_client(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<String>,
) -> Result<NamedFile, ApiError> {
    let name = format!("client-{id}.zip");
    let turn = state.working.turn(&who.0.id).await?;
    let written = state.run(move |store, knowledge| {
        let _turn = turn;
        // Written whole before anything of it is sent: what fails is said, and years of pictures are not kept in memory.
        let mut file =
            tempfile::tempfile_in(store.directory()).map_err(|error| ApiError::Internal(error.to_string()))?;
        store.export_client(&knowledge.atlas, &id, &mut file)?;
        file.seek(SeekFrom::Start(0)).map_err(|error| ApiError::Internal(error.to_string()))?;
        Ok(file)
    });
    sent(written.await?, name)
}

fn sent(file: File, name: String) -> Result<NamedFile, ApiError> {
    let file = NamedFile::from_file(file, &name).map_err(|error| ApiError::Internal(error.to_string()))?;
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
        || ApiError::Malformed("this archive is larger than 512 MB: take it in with orthomer import".into());
    let own = state.taking.own_turn(&who.0.id).await?;
    let body = spool(state.store.directory(), body, AN_ARCHIVE, too_heavy).await?;
    let turn = own.and_shared().await?;
    let taken = state.read(move |store, knowledge| {
        let _turn = turn;
        store.import_client(&knowledge.atlas, BufReader::new(body.into_file()))
    });
    Ok(HttpResponse::Created().json(taken.await?))
}

/// One moment of the whole practice, while others go on.
#[utoipa::path(tag = "archive", responses((status = 200, description = "a zip archive",
    content_type = "application/zip"), (status = 403, body = ProblemDetails)))]
#[get("/practice/backup")]
pub(crate) async fn show_backup(state: web::Data<AppState>, who: SignedIn) -> Result<NamedFile, ApiError> {
    let turn = state.working.turn(&who.0.id).await?;
    let written = state.run(move |store, _| {
        let _turn = turn;
        let path = store.directory().join(format!("backup-{}.zip", rand::random::<u64>()));
        backup(store, &path)?;
        let open = File::open(&path);
        // Nobody finds it by its name: it goes when it was sent.
        let _ = std::fs::remove_file(&path);
        open.map_err(|error| ApiError::Internal(error.to_string()))
    });
    let name = format!("orthomer-{}.zip", AppState::today());
    sent(written.await?, name)
}

/// Names of the tables that can be had.
#[utoipa::path(tag = "archive", responses((status = 200, body = Vec<String>)))]
#[get("/practice/tables")]
pub(crate) async fn list_tables() -> web::Json<Vec<String>> {
    web::Json(TABLE_NAMES.iter().map(|name| (*name).to_owned()).collect())
}

/// A table of the practice.
#[utoipa::path(tag = "archive", responses((status = 200, description = "CSV", content_type = "text/csv"),
    (status = 403, body = ProblemDetails), (status = 404, body = ProblemDetails)))]
#[get("/practice/tables/{table}")]
pub(crate) async fn show_table(state: web::Data<AppState>, table: web::Path<String>) -> Result<HttpResponse, ApiError> {
    let name = format!("{table}.csv");
    let text = state.read(move |store, _| store.table_csv(&table)).await?;
    Ok(HttpResponse::Ok().content_type("text/csv; charset=utf-8").insert_header(attachment(name)).body(text))
}
