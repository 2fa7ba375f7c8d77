//! A round: its steps, its verdict, the choices made on it, its case file.

use crate::dto::SaveRound;
use crate::dto::{RoundSummary, RoundView, SaveChoices, VerdictView};
use crate::error::invalid;
use crate::error::{ApiError, ProblemDetails};
use crate::roster::Assessor;
use crate::routes::clients::{not_before_birth, past_day};
use crate::routes::steps::{Afterwards, steps};
use crate::state::{AppState, PageOf};
use actix_web::{HttpResponse, delete, get, put, web};
use assess::Knowledge;
use casefile::{CaseFile, ChoicesEntry, assessment_file, case_file, check_choices};
use store::Store;
use units::Mass;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config
        .service(save_round)
        .service(delete_round)
        .service(show_round)
        .service(show_verdict)
        .service(save_choices)
        .service(show_case_file);
}

/// Gives a round another day.
#[utoipa::path(tag = "rounds", request_body = SaveRound, responses((status = 204), (status = 404, body = ProblemDetails),
    (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/rounds/{round_id}")]
pub(crate) async fn save_round(
    state: web::Data<AppState>,
    id: web::Path<String>,
    body: web::Json<SaveRound>,
) -> Result<HttpResponse, ApiError> {
    let day = past_day(&body.date, AppState::today()).map_err(|says| invalid("/date", says))?;
    let saved = state.run(move |store, knowledge| {
        let client_id = store.round(&id)?.client_id;
        not_before_birth(&store.client(&knowledge.atlas, &client_id)?, day)?;
        Ok(store.redate_round(&id, day)?)
    });
    saved.await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Removes a round from which no week was given.
#[utoipa::path(tag = "rounds", responses((status = 204), (status = 404, body = ProblemDetails),
    (status = 409, body = ProblemDetails)))]
#[delete("/rounds/{round_id}")]
pub(crate) async fn delete_round(state: web::Data<AppState>, id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    state.run(move |store, _| Ok(store.delete_round(&id)?)).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// A round with its steps.
#[utoipa::path(tag = "rounds", responses((status = 200, body = RoundView), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}")]
pub(crate) async fn show_round(state: web::Data<AppState>, id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    let page = state.page("round", PageOf::Round(id.into_inner()), |store, knowledge, id| {
        let round = store.round(id)?;
        let case = store.case_at(&knowledge.atlas, id)?;
        let assessment = Assessor::new(store, knowledge).assess(&case, &round.client_id)?;
        let rounds = store.rounds(&round.client_id)?;
        let mut own = store.client_photos(&round.client_id)?;
        own.retain(|photo| photo.round_id == round.id);
        let after = Afterwards {
            sessions: store.logged_sessions(&round.id)?,
            measured_again: rounds.iter().any(|other| other.taken_on > round.taken_on),
            decided: store.decisions(&round.id)?.1 > 0,
        };
        Ok(RoundView {
            id: round.id,
            client_id: round.client_id,
            client_name: case.client.name.clone(),
            date: round.taken_on.to_string(),
            measured_by: round.measured_by,
            weight_kg: round.weight.map(Mass::kg),
            rounds: rounds.iter().rev().map(RoundSummary::from).collect(),
            steps: steps(&case, &assessment, &own, &after),
        })
    });
    page.await
}

fn verdict_view(store: &Store, knowledge: &Knowledge, id: &str) -> Result<VerdictView, ApiError> {
    let round = store.round(id)?;
    let case = store.case_at(&knowledge.atlas, id)?;
    let assessment = Assessor::new(store, knowledge).assess(&case, &round.client_id)?;
    Ok(VerdictView {
        assessment: assessment_file(knowledge, &case, &assessment, true),
        choices: ChoicesEntry::from(&case.choices),
        choices_revision: round.choices_revision,
    })
}

/// The verdict of a round with its evidence.
#[utoipa::path(tag = "rounds", responses((status = 200, body = VerdictView), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/verdict")]
pub(crate) async fn show_verdict(state: web::Data<AppState>, id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    state.page("verdict", PageOf::Sheet(id.into_inner()), verdict_view).await
}

/// Saves what to bring up, what to hold back, and verdicts overruled.
#[utoipa::path(tag = "rounds", request_body = SaveChoices, responses(
    (status = 200, body = VerdictView), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/rounds/{round_id}/choices")]
pub(crate) async fn save_choices(
    state: web::Data<AppState>,
    id: web::Path<String>,
    body: web::Json<SaveChoices>,
) -> Result<web::Json<VerdictView>, ApiError> {
    let saved = state.run(move |store, knowledge| {
        let choices = check_choices(&knowledge.atlas, "/choices", &body.choices).map_err(ApiError::Invalid)?;
        store.save_choices(&id, body.revision, &choices)?;
        verdict_view(store, knowledge, &id)
    });
    saved.await.map(web::Json)
}

/// The client's case file as of a round, for the command line.
#[utoipa::path(tag = "rounds", responses((status = 200, description = "orthomer-case, version 1",
    content_type = "application/json"), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/case")]
pub(crate) async fn show_case_file(
    state: web::Data<AppState>,
    id: web::Path<String>,
) -> Result<HttpResponse, ApiError> {
    let file = state.read(move |store, knowledge| {
        let case = store.case_at(&knowledge.atlas, &id)?;
        // With the practice's settings the command line comes to the same verdict as the screen.
        Ok(CaseFile { practice: store.practice()?.settings, ..case_file(&case) })
    });
    let file = file.await?;
    let name = format!("attachment; filename=\"case-{}.json\"", file.as_of);
    Ok(HttpResponse::Ok().insert_header(("Content-Disposition", name)).json(file))
}
