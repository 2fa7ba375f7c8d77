//! The practice: what it sets, what was done in it, how well its people measure and judge, how they like their sheets, taking it out as files.

mod factor;
mod people;
mod views;

use crate::auth::SignedIn;
use crate::clients::take_out;
use crate::http::{ApiError, ProblemDetails, attachment};
use crate::state::AppState;
use actix_files::NamedFile;
use actix_web::{HttpResponse, get, put, web};
use desk::practice::{AccuracyView, DeedView, MeasurerView, PracticeView, SaveExercise, SavePractice, TapeOrder};
use desk::{Desk, today};
use serde::Deserialize;
use store::TABLE_NAMES;
use utoipa::IntoParams;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config
        .service(show_practice)
        .service(save_practice)
        .service(save_exercise)
        .service(show_measurers)
        .service(show_accuracy)
        .service(show_deeds)
        .service(show_tape_order)
        .service(save_tape_order)
        .service(show_backup)
        .service(list_tables)
        .service(show_table)
        .configure(factor::configure)
        .configure(people::configure);
}

/// What the practice sets, beside what ships.
#[utoipa::path(tag = "practice", responses((status = 200, body = PracticeView), (status = 401, body = ProblemDetails)))]
#[get("/practice")]
pub(crate) async fn show_practice(state: web::Data<AppState>, who: SignedIn) -> Result<HttpResponse, ApiError> {
    let name = format!("practice {}", who.0.role.as_str());
    state.page_of_all(name, false, move |desk| desk.practice(&who.0)).await
}

/// Saves what the practice sets; every verdict from now on follows it.
#[utoipa::path(tag = "practice", request_body = SavePractice, responses(
    (status = 200, body = PracticeView), (status = 403, body = ProblemDetails), (status = 409, body = ProblemDetails),
    (status = 422, body = ProblemDetails)))]
#[put("/practice")]
pub(crate) async fn save_practice(
    state: web::Data<AppState>,
    who: SignedIn,
    body: web::Json<SavePractice>,
) -> Result<web::Json<PracticeView>, ApiError> {
    state.json(move |desk| desk.save_practice(&who.0, &body)).await
}

/// Adds an exercise of the practice's own, or changes one; the planner uses it from now on.
#[utoipa::path(tag = "library", request_body = SaveExercise, responses(
    (status = 200, body = PracticeView), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/library/exercises")]
pub(crate) async fn save_exercise(
    state: web::Data<AppState>,
    who: SignedIn,
    body: web::Json<SaveExercise>,
) -> Result<web::Json<PracticeView>, ApiError> {
    state.json(move |desk| desk.save_exercise(&who.0, body.into_inner())).await
}

/// Which page of deeds.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub(crate) struct DeedsQuery {
    /// How many newer ones are left out.
    #[serde(default)]
    skip: u32,
}

/// Who did what kind of thing, newest first.
#[utoipa::path(tag = "practice", params(DeedsQuery), responses((status = 200, body = Vec<DeedView>),
    (status = 403, body = ProblemDetails)))]
#[get("/practice/deeds")]
pub(crate) async fn show_deeds(
    state: web::Data<AppState>,
    query: web::Query<DeedsQuery>,
) -> Result<web::Json<Vec<DeedView>>, ApiError> {
    state.json(move |desk| desk.deeds(query.skip)).await
}

/// What was learned of everyone who held a tape, from all rounds.
#[utoipa::path(tag = "practice", responses((status = 200, body = Vec<MeasurerView>), (status = 401, body = ProblemDetails)))]
#[get("/practice/measurers")]
pub(crate) async fn show_measurers(state: web::Data<AppState>) -> Result<HttpResponse, ApiError> {
    state.page_of_all("measurers", false, Desk::measurers).await
}

/// How often the words are right, and what each coach's ratings weigh.
#[utoipa::path(tag = "practice", responses((status = 200, body = AccuracyView), (status = 401, body = ProblemDetails)))]
#[get("/practice/accuracy")]
pub(crate) async fn show_accuracy(state: web::Data<AppState>) -> Result<web::Json<AccuracyView>, ApiError> {
    state.json(Desk::accuracy).await
}

/// The order in which whoever is signed in tapes, and what they leave out.
#[utoipa::path(tag = "practice", responses((status = 200, body = TapeOrder), (status = 401, body = ProblemDetails)))]
#[get("/preferences/tape-order")]
pub(crate) async fn show_tape_order(
    state: web::Data<AppState>,
    who: SignedIn,
) -> Result<web::Json<TapeOrder>, ApiError> {
    state.json(move |desk| desk.tape_order(&who.0.id)).await
}

/// Keeps the order.
#[utoipa::path(tag = "practice", request_body = TapeOrder, responses(
    (status = 200, body = TapeOrder), (status = 422, body = ProblemDetails)))]
#[put("/preferences/tape-order")]
pub(crate) async fn save_tape_order(
    state: web::Data<AppState>,
    who: SignedIn,
    body: web::Json<TapeOrder>,
) -> Result<web::Json<TapeOrder>, ApiError> {
    state.json(move |desk| desk.save_tape_order(&who.0.id, body.into_inner())).await
}

/// One moment of the whole practice, while others go on.
#[utoipa::path(tag = "archive", responses((status = 200, description = "a zip archive",
    content_type = "application/zip"), (status = 403, body = ProblemDetails)))]
#[get("/practice/backup")]
pub(crate) async fn show_backup(state: web::Data<AppState>, who: SignedIn) -> Result<NamedFile, ApiError> {
    let turn = state.working.turn(&who.0.id).await?;
    let written = state.ask(turn.around(Desk::back_up)).await?;
    take_out(written, format!("orthomer-{}.zip", today()))
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
    let name = attachment(format!("{table}.csv"));
    let text = state.ask(move |desk| Ok(desk.store.table_csv(&table)?)).await?;
    Ok(HttpResponse::Ok().content_type("text/csv; charset=utf-8").insert_header(name).body(text))
}
