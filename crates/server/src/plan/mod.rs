//! The plan of a round: the week under work, what could stand instead, how good it is proven to be, and what is given out.

mod weeks;

use crate::auth::SignedIn;
use crate::http::{ApiError, ProblemDetails, attachment, events};
use crate::state::AppState;
use actix_web::http::header::CACHE_CONTROL;
use actix_web::{HttpResponse, get, post, put, web};
use casefile::WeekDraft;
use desk::plan::{
    AddableView, AskSwaps, FileKind, IssuePlan, IssuedSummary, IssuedView, PlanPaper, PlanView, ProofView, SavePlan,
    SolvePlan, SolvedPlan, SwapsView,
};
use desk::{Desk, RoundPage};
use serde::Deserialize;
use tokio::sync::mpsc;
use units::{PlanId, RoundId};
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config
        .service(show_plan)
        .service(save_plan)
        .service(show_own_plan)
        .service(show_addable)
        .service(solve_plan)
        .service(show_swaps)
        .service(prove_plan)
        .service(issue_plan)
        .service(show_issued_plan)
        .service(show_plan_file)
        .configure(weeks::configure);
}

/// The week's plan of a round.
#[utoipa::path(tag = "plan", params(RoundId), responses((status = 200, body = PlanView), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/plan")]
pub(crate) async fn show_plan(state: web::Data<AppState>, id: web::Path<RoundId>) -> Result<HttpResponse, ApiError> {
    state.page_of_round("plan", (id.into_inner(), RoundPage::Board), Desk::plan).await
}

/// Keeps a week as the coach has bent it, and says what that makes of it.
#[utoipa::path(tag = "plan", params(RoundId), request_body = SavePlan, responses(
    (status = 200, body = PlanView), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/rounds/{round_id}/plan")]
pub(crate) async fn save_plan(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<RoundId>,
    body: web::Json<SavePlan>,
) -> Result<web::Json<PlanView>, ApiError> {
    state.json(move |desk| desk.save_plan(&id, &who.0.name, body.into_inner())).await
}

/// The planner's own week for the brief's days and minutes. Nothing is kept.
#[utoipa::path(tag = "plan", params(RoundId), responses((status = 200, body = WeekDraft), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/plan/own")]
pub(crate) async fn show_own_plan(
    state: web::Data<AppState>,
    id: web::Path<RoundId>,
) -> Result<web::Json<WeekDraft>, ApiError> {
    state.json(move |desk| desk.own_plan(&id)).await
}

/// What may not be added to the week, each with its reason.
#[utoipa::path(tag = "plan", params(RoundId), responses((status = 200, body = AddableView), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/plan/exercises")]
pub(crate) async fn show_addable(
    state: web::Data<AppState>,
    id: web::Path<RoundId>,
) -> Result<web::Json<AddableView>, ApiError> {
    state.json(move |desk| desk.addable(&id)).await
}

/// Solves a week anew around its locked cards, for as many days as asked and its own minutes. Nothing is kept.
#[utoipa::path(tag = "plan", params(RoundId), request_body = SolvePlan, responses(
    (status = 200, body = SolvedPlan), (status = 422, body = ProblemDetails)))]
#[post("/rounds/{round_id}/plan/solve")]
pub(crate) async fn solve_plan(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<RoundId>,
    body: web::Json<SolvePlan>,
) -> Result<web::Json<SolvedPlan>, ApiError> {
    let turn = state.working.turn(&who.0.id).await?;
    state.json(turn.around(move |desk| desk.solve_plan(&id, body.into_inner()))).await
}

/// What could stand in a card's place, and what each would change.
#[utoipa::path(tag = "plan", params(RoundId), request_body = AskSwaps, responses(
    (status = 200, body = SwapsView), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/rounds/{round_id}/plan/swaps")]
pub(crate) async fn show_swaps(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<RoundId>,
    body: web::Json<AskSwaps>,
) -> Result<web::Json<SwapsView>, ApiError> {
    let turn = state.working.turn(&who.0.id).await?;
    state.json(turn.around(move |desk| desk.swaps(&id, &body))).await
}

/// How long to prove, s.
#[derive(Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct ProofQuery {
    /// At most so long; 10 when left out.
    #[serde(default)]
    seconds: Option<u32>,
}

const PROOF_S: u32 = 10;

const PROOF_MOST_S: u32 = 120;

/// Raises the bound of the round's week, as server-sent events with a `ProofView` each; hanging up stops it. One proof at a
/// time: others wait their turn.
#[utoipa::path(tag = "plan", params(RoundId, ProofQuery), responses(
    (status = 200, description = "text/event-stream of ProofView", body = ProofView), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/plan/proof")]
pub(crate) async fn prove_plan(
    state: web::Data<AppState>,
    id: web::Path<RoundId>,
    query: web::Query<ProofQuery>,
) -> Result<HttpResponse, ApiError> {
    let week = state.ask(move |desk| desk.to_prove(&id)).await?;
    let seconds = query.seconds.unwrap_or(PROOF_S).min(PROOF_MOST_S);
    let turn = state.proof_turn().await?;
    let (sender, receiver) = mpsc::channel::<ProofView>(4);
    let desk = state.desk.clone();
    actix_web::rt::task::spawn_blocking(move || {
        let _turn = turn;
        desk.prove(&week, seconds, |proof| sender.blocking_send(proof).is_ok());
    });
    Ok(events(receiver, async |receiver| receiver.recv().await))
}

/// Gives the client the week that is kept, as their next version.
#[utoipa::path(tag = "plan", params(RoundId), request_body = IssuePlan, responses(
    (status = 201, body = IssuedSummary), (status = 403, body = ProblemDetails), (status = 409, body = ProblemDetails),
    (status = 422, body = ProblemDetails)))]
#[post("/rounds/{round_id}/plan/issue")]
pub(crate) async fn issue_plan(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<RoundId>,
    body: web::Json<IssuePlan>,
) -> Result<HttpResponse, ApiError> {
    state.created(move |desk| desk.issue_plan(&id, &who.0, &body)).await
}

/// A plan a client was given.
#[utoipa::path(tag = "plan", params(PlanId), responses((status = 200, body = IssuedView), (status = 404, body = ProblemDetails)))]
#[get("/plans/{plan_id}")]
pub(crate) async fn show_issued_plan(
    state: web::Data<AppState>,
    id: web::Path<PlanId>,
) -> Result<web::Json<IssuedView>, ApiError> {
    state.json(move |desk| desk.issued_plan(&id)).await
}

/// A plan a client was given, as a file for them.
#[utoipa::path(tag = "plan", params(("kind" = String, Path, description = "pdf, ics or csv")), responses(
    (status = 200, description = "PDF, iCalendar or CSV", content_type = "application/octet-stream"),
    (status = 404, body = ProblemDetails)))]
#[get("/plans/{plan_id}/files/{kind}")]
pub(crate) async fn show_plan_file(
    state: web::Data<AppState>,
    path: web::Path<(PlanId, FileKind)>,
) -> Result<HttpResponse, ApiError> {
    let (id, kind) = path.into_inner();
    let PlanPaper { name, bytes } = state.ask(move |desk| desk.plan_paper(&id, kind)).await?;
    Ok(HttpResponse::Ok()
        .content_type(kind.content_type())
        .insert_header(attachment(name))
        .insert_header((CACHE_CONTROL, "no-store"))
        .body(bytes))
}
