//! The tape sheet: read, checked while it is typed, saved without overwriting anyone.

use crate::auth::SignedIn;
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{HttpResponse, get, post, put, web};
use casefile::CsvPreview;
use desk::tape::{ReadCsv, SaveTape, TapeSheet};
use desk::{Desk, RoundPage};
use units::RoundId;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(show_tape).service(save_tape);
}

/// The tape sheet of a round.
#[utoipa::path(tag = "tape", params(RoundId), responses((status = 200, body = TapeSheet), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/tape")]
pub(crate) async fn show_tape(state: web::Data<AppState>, id: web::Path<RoundId>) -> Result<HttpResponse, ApiError> {
    state.page_of_round("tape", (id.into_inner(), RoundPage::Sheet), Desk::tape).await
}

/// Saves the sheet. Entries that break a rule are not saved and are named in `problems`; what was stored for them stays.
#[utoipa::path(tag = "tape", params(RoundId), request_body = SaveTape, responses(
    (status = 200, body = TapeSheet), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/rounds/{round_id}/tape")]
pub(crate) async fn save_tape(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<RoundId>,
    body: web::Json<SaveTape>,
) -> Result<web::Json<TapeSheet>, ApiError> {
    state.json(move |desk| desk.save_tape(&id, &who.0.name, &body)).await
}

/// Reads a CSV file as a sheet and says row by row what is wrong; nothing is saved.
#[utoipa::path(tag = "tape", request_body = ReadCsv, responses(
    (status = 200, body = CsvPreview), (status = 401, body = ProblemDetails), (status = 413, body = ProblemDetails)))]
#[post("/tape/csv")]
pub(crate) async fn read_tape_csv(
    state: web::Data<AppState>,
    body: web::Json<ReadCsv>,
) -> Result<web::Json<CsvPreview>, ApiError> {
    state.json(move |desk| Ok(desk.read_tape_csv(&body))).await
}
