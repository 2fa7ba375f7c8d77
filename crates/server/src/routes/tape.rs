//! The tape sheet: read, checked while it is typed, saved without overwriting anyone.

use crate::auth::SignedIn;
use crate::dto::{EarlierValue, SaveTape, TapeSheet};
use crate::error::{ApiError, ProblemDetails};
use crate::roster::Assessor;
use crate::state::AppState;
use actix_web::{get, put, web};
use assess::{Case, Knowledge, MeasurerErrors, TapeMeasure, measure_round};
use casefile::{Problem, TapeEntry, assessment_file, case_file, check_tape};
use store::{RoundRecord, SavedTape, Store};

/// The tape sheet of a round.
#[utoipa::path(tag = "tape", responses((status = 200, body = TapeSheet), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/tape")]
pub(crate) async fn show_tape(
    state: web::Data<AppState>,
    id: web::Path<String>,
) -> Result<web::Json<TapeSheet>, ApiError> {
    let sheet = state.run(move |store, knowledge| sheet(store, knowledge, &store.round(&id)?, Vec::new()));
    sheet.await.map(web::Json)
}

/// Saves the sheet. Entries that break a rule are not saved and are named in `problems`; what was stored for them stays.
#[utoipa::path(tag = "tape", request_body = SaveTape, responses(
    (status = 200, body = TapeSheet), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/rounds/{round_id}/tape")]
pub(crate) async fn save_tape(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    id: web::Path<String>,
    body: web::Json<SaveTape>,
) -> Result<web::Json<TapeSheet>, ApiError> {
    let saved = state.run(move |store, knowledge| {
        let measured_by = measured_by(&body)?;
        let (measures, problems) = check_tape(&knowledge.atlas, "/entries", &body.entries);
        let measures = with_stored(measures, &problems, &body.entries, &store.tape(&id)?);
        let tape = SavedTape { revision: body.revision, saved_by: &signed_in.0.name, measured_by, measures: &measures };
        let round = store.save_tape(&id, &tape)?;
        sheet(store, knowledge, &round, problems)
    });
    saved.await.map(web::Json)
}

fn measured_by(body: &SaveTape) -> Result<&str, ApiError> {
    let name = body.measured_by.trim();
    if name.is_empty() || name.chars().count() > 40 {
        let says = "who holds the tape is needed: expected initials or a name".to_owned();
        return Err(ApiError::Invalid(vec![Problem { pointer: "/measured_by".to_owned(), says }]));
    }
    Ok(name)
}

/// Adds what is stored for places whose new readings were refused, so that a slip of the finger deletes nothing.
fn with_stored(
    mut measures: Vec<TapeMeasure>,
    problems: &[Problem],
    entries: &[TapeEntry],
    stored: &[TapeMeasure],
) -> Vec<TapeMeasure> {
    let refused = entries.iter().enumerate().filter(|(i, _)| {
        let (own, inside) = (format!("/entries/{i}"), format!("/entries/{i}/"));
        problems.iter().any(|p| p.pointer == own || p.pointer.starts_with(&inside))
    });
    for (_, entry) in refused {
        let kept = stored.iter().find(|m| m.site.as_str() == entry.site && m.side == entry.side);
        let kept = kept.filter(|kept| !measures.iter().any(|m| m.site == kept.site && m.side == kept.side));
        measures.extend(kept.cloned());
    }
    measures
}

fn sheet(
    store: &Store,
    knowledge: &Knowledge,
    round: &RoundRecord,
    problems: Vec<Problem>,
) -> Result<TapeSheet, ApiError> {
    let case = store.case_at(&knowledge.atlas, &round.id)?;
    let assessment = Assessor::new(store, knowledge).assess(&case, &round.client_id)?;
    let file = assessment_file(knowledge, &case, &assessment, false);
    let mut entries = case_file(&case).rounds.pop().map(|round| round.tape).unwrap_or_default();
    let order = |site: &str| knowledge.atlas.sites().iter().position(|s| s.id.as_str() == site);
    entries.sort_by_key(|entry| (order(&entry.site), entry.side));
    let (earlier_date, earlier) = earlier(knowledge, &case);
    Ok(TapeSheet {
        revision: round.tape_revision,
        saved_by: round.tape_saved_by.clone(),
        measured_by: round.measured_by.clone(),
        entries,
        sites: file.sites,
        asymmetries: file.asymmetries,
        changes: file.changes,
        warnings: file.warnings,
        problems,
        earlier_date,
        earlier,
    })
}

/// The values of the round before, so that a new reading can be read against them.
fn earlier(knowledge: &Knowledge, case: &Case) -> (Option<String>, Vec<EarlierValue>) {
    let mut before = case.clone();
    before.rounds.pop();
    let Some(date) = before.rounds.last().map(|round| round.date.to_string()) else { return (None, Vec::new()) };
    let errors = MeasurerErrors::learn(&before.rounds);
    let values = measure_round(&knowledge.atlas, &before.rounds, &errors).sites.into_iter();
    (Some(date), values.map(|m| EarlierValue { site: m.site, side: m.side, value_cm: m.value_cm }).collect())
}
