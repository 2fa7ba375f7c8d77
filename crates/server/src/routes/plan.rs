//! The plan of a round: the week under work, what could stand instead, how good it is proven to be, and what is given out.

use crate::auth::SignedIn;
use crate::dto::{
    AddableView, AskSwaps, IssuePlan, IssuedSummary, IssuedView, PlanView, ProofView, SavePlan, SolvePlan, SolvedPlan,
    SwapsView,
};
use crate::error::{ApiError, ProblemDetails, invalid};
use crate::planning::{Planned, Planning, Proofs};
use crate::state::{AppState, PageOf};
use crate::training::Training;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_ENCODING};
use actix_web::web::Bytes;
use actix_web::{HttpResponse, get, post, put, web};
use assess::Knowledge;
use casefile::WeekDraft;
use futures_util::stream::unfold;
use handout::{Handout, HandoutError};
use jiff::civil::{Date, Weekday};
use jiff::{ToSpan, Unit};
use plan::{Effort, Proof, prove, swaps};
use serde::Deserialize;
use std::time::Instant;
use store::{NewIssue, SetUpSaid, Store};
use tokio::sync::mpsc;
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
        .service(show_plan_file);
}

/// The week a round's board shows: as it is kept; else what the client was given in this round; else the planner's own.
fn shown(
    state: &AppState,
    store: &Store,
    planning: &Planning,
    id: &str,
) -> Result<(Planned, WeekDraft, i32), ApiError> {
    if let Some(kept) = store.plan_draft(id)? {
        return Ok((planning.of("/week", &kept.week)?, kept.week, kept.revision));
    }
    let given = store.issued_plans(&planning.client_id)?;
    if let Some(given) = given.first().filter(|given| given.round_id == id)
        && let Ok(planned) = planning.of("/week", &given.week)
    {
        return Ok((planned, given.week.clone(), 0));
    }
    let planned = planning.solved_once(&state.solved);
    let week = planning.week(&planned);
    Ok((planned, week, 0))
}

/// The view of a round's week.
fn view(state: &AppState, store: &Store, knowledge: &Knowledge, id: &str) -> Result<PlanView, ApiError> {
    let planning = Planning::read(store, knowledge, id)?;
    let (planned, week, revision) = shown(state, store, &planning, id)?;
    view_of(store, &planning, &planned, &state.proofs, week, revision)
}

fn view_of(
    store: &Store,
    planning: &Planning,
    planned: &Planned,
    proofs: &Proofs,
    week: WeekDraft,
    revision: i32,
) -> Result<PlanView, ApiError> {
    let issued = store.issued_plans(&planning.client_id)?;
    let client = &planning.case.client;
    Ok(PlanView {
        client_name: client.name.clone(),
        date: planning.case.as_of.to_string(),
        brief_minutes: client.minutes_per_session,
        brief_days: client.days_per_week,
        draft_because: planning.draft_because(),
        clearance: client.clearance.as_ref().map(|clearance| clearance.note.clone()),
        bring_up: planning.chosen(),
        choices_changed: week.bring_up != planning.bring_up(),
        revision,
        plan: planned.file(proofs),
        is_issued: issued.first().is_some_and(|last| last.week == week),
        week,
        issued: issued.iter().map(|given| IssuedSummary::from(given.as_ref())).collect(),
    })
}

/// The week's plan of a round.
#[utoipa::path(tag = "plan", responses((status = 200, body = PlanView), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/plan")]
pub(crate) async fn show_plan(state: web::Data<AppState>, id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    let shared = state.clone();
    // What was proven since belongs to it.
    let name = format!("plan {}", state.proofs.count());
    let page = state
        .page(name, PageOf::Round(id.into_inner()), move |store, knowledge, id| view(&shared, store, knowledge, id));
    page.await
}

/// Keeps a week as the coach has bent it, and says what that makes of it.
#[utoipa::path(tag = "plan", request_body = SavePlan, responses(
    (status = 200, body = PlanView), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/rounds/{round_id}/plan")]
pub(crate) async fn save_plan(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    id: web::Path<String>,
    body: web::Json<SavePlan>,
) -> Result<web::Json<PlanView>, ApiError> {
    let proofs = state.proofs.clone();
    let saved = state.run(move |store, knowledge| {
        let SavePlan { revision, week } = body.into_inner();
        let planning = Planning::read(store, knowledge, &id)?;
        let planned = planning.of("/week", &week)?;
        let revision = store.save_plan_draft(&id, revision, &signed_in.0.name, &week)?;
        view_of(store, &planning, &planned, &proofs, week, revision)
    });
    saved.await.map(web::Json)
}

/// The planner's own week for the brief's days and minutes. Nothing is kept.
#[utoipa::path(tag = "plan", responses((status = 200, body = WeekDraft), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/plan/own")]
pub(crate) async fn show_own_plan(
    state: web::Data<AppState>,
    id: web::Path<String>,
) -> Result<web::Json<WeekDraft>, ApiError> {
    let shared = state.clone();
    let own = state.run(move |store, knowledge| {
        let planning = Planning::read(store, knowledge, &id)?;
        Ok(planning.week(&planning.solved_once(&shared.solved)))
    });
    own.await.map(web::Json)
}

/// What may not be added to the week, each with its reason.
#[utoipa::path(tag = "plan", responses((status = 200, body = AddableView), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/plan/exercises")]
pub(crate) async fn show_addable(
    state: web::Data<AppState>,
    id: web::Path<String>,
) -> Result<web::Json<AddableView>, ApiError> {
    let found = state.run(move |store, knowledge| Ok(Planning::read(store, knowledge, &id)?.addable()));
    found.await.map(web::Json)
}

/// Solves a week anew around its locked cards, for as many days as asked and its own minutes. Nothing is kept.
#[utoipa::path(tag = "plan", request_body = SolvePlan, responses(
    (status = 200, body = SolvedPlan), (status = 422, body = ProblemDetails)))]
#[post("/rounds/{round_id}/plan/solve")]
pub(crate) async fn solve_plan(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<String>,
    body: web::Json<SolvePlan>,
) -> Result<web::Json<SolvedPlan>, ApiError> {
    let turn = state.working.turn(&who.0.id).await?;
    let workshop = state.workshop.clone();
    let solved = state.run(move |store, knowledge| {
        let _turn = turn;
        let SolvePlan { days, mut week, seed } = body.into_inner();
        if let Some(days) = days.filter(|days| !(1..=7).contains(days)) {
            return Err(invalid("/days", format!("{days} days a week is out of range: expected 1 to 7")));
        }
        let planning = Planning::read(store, knowledge, &id)?;
        let dropped = days.map_or_else(Vec::new, |days| planning.with_days(&mut week, days));
        let planned = planning.of("/week", &week)?;
        let effort = Effort { seed: u64::from(seed.unwrap_or(1)), ..Effort::usual(&planned.problem) };
        let week = planning.week(&planned.solved_around(&workshop, effort));
        Ok(SolvedPlan { week, dropped })
    });
    solved.await.map(web::Json)
}

/// What could stand in a card's place, and what each would change.
#[utoipa::path(tag = "plan", request_body = AskSwaps, responses(
    (status = 200, body = SwapsView), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/rounds/{round_id}/plan/swaps")]
pub(crate) async fn show_swaps(
    state: web::Data<AppState>,
    who: SignedIn,
    id: web::Path<String>,
    body: web::Json<AskSwaps>,
) -> Result<web::Json<SwapsView>, ApiError> {
    let turn = state.working.turn(&who.0.id).await?;
    let found = state.run(move |store, knowledge| {
        let _turn = turn;
        let Planned { problem, draft, .. } = Planning::read(store, knowledge, &id)?.of("/week", &body.week)?;
        let found = swaps(&problem, &draft, body.session, body.place);
        let none = || ApiError::NotFound(format!("there is no card {} on day {}", body.place, body.session));
        Ok(SwapsView::from(found.ok_or_else(none)?))
    });
    found.await.map(web::Json)
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
/// Between two looks at a proof.
const PROOF_STEP_MS: u128 = 150;

/// Raises the bound of the round's week, as server-sent events with a `ProofView` each; hanging up stops it. One proof at a
/// time: others wait their turn.
#[utoipa::path(tag = "plan", params(ProofQuery), responses(
    (status = 200, description = "text/event-stream of ProofView", body = ProofView), (status = 404, body = ProblemDetails)))]
#[get("/rounds/{round_id}/plan/proof")]
pub(crate) async fn prove_plan(
    state: web::Data<AppState>,
    id: web::Path<String>,
    query: web::Query<ProofQuery>,
) -> Result<HttpResponse, ApiError> {
    let shared = state.clone();
    let planned = state.run(move |store, knowledge| {
        let planning = Planning::read(store, knowledge, &id)?;
        Ok(shown(&shared, store, &planning, &id)?.0)
    });
    let planned = planned.await?;
    let seconds = query.seconds.unwrap_or(PROOF_S).min(PROOF_MOST_S);
    let turn = state.proof_turn().await?;
    let (sender, receiver) = mpsc::channel::<ProofView>(4);
    let (proofs, workshop) = (state.proofs.clone(), state.workshop.clone());
    actix_web::rt::task::spawn_blocking(move || {
        let _turn = turn;
        workshop.with(|| proven(&planned, &proofs, seconds, &sender));
    });
    let events = unfold(receiver, |mut receiver| async move {
        let text = serde_json::to_string(&receiver.recv().await?).unwrap_or_default();
        Some((Ok::<_, actix_web::Error>(Bytes::from(format!("data: {text}\n\n"))), receiver))
    });
    Ok(HttpResponse::Ok()
        .content_type("text/event-stream")
        // Compressed, an event would wait for the block to fill.
        .insert_header((CONTENT_ENCODING, "identity"))
        .insert_header((CACHE_CONTROL, "no-store"))
        .streaming(events))
}

/// Proves until the time is over, nothing more can be proven, or nobody listens any more.
fn proven(planned: &Planned, proofs: &Proofs, seconds: u32, listener: &mpsc::Sender<ProofView>) {
    let start = Instant::now();
    let mut told = 0;
    let week = planned.draft.week(&planned.problem);
    let go_on = |proof: &Proof| {
        let elapsed = start.elapsed();
        let in_time = elapsed.as_secs() < u64::from(seconds);
        if elapsed.as_millis() < told + PROOF_STEP_MS {
            return in_time;
        }
        told = elapsed.as_millis();
        in_time && listener.blocking_send(ProofView::of(proof, elapsed.as_secs_f64())).is_ok()
    };
    if let Some(proof) = prove(&planned.problem, &week, go_on) {
        proofs.keep(&planned.problem, proof);
        // Nobody may be listening any more; what was proven is kept all the same.
        let _ = listener.blocking_send(ProofView::of(&proof, start.elapsed().as_secs_f64()));
    }
}

/// A week starts within so many years of today.
const MOST_YEARS: i16 = 5;

/// The Monday of a day's week.
fn monday(text: &str) -> Result<Date, ApiError> {
    let says = || invalid("/starts_on", format!("{text:?} is not a date of the calendar: expected YYYY-MM-DD"));
    let day: Date = text.parse().ok().filter(|_| text.len() == 10).ok_or_else(says)?;
    let far = day.since((Unit::Year, AppState::today())).map_or(i16::MAX, |span| span.get_years().abs());
    if far >= MOST_YEARS {
        return Err(invalid("/starts_on", format!("{day} is more than {MOST_YEARS} years from today")));
    }
    day.checked_sub(i64::from(day.weekday().since(Weekday::Monday)).days()).map_err(|_| says())
}

/// Gives the client the week that is kept, as their next version.
#[utoipa::path(tag = "plan", request_body = IssuePlan, responses(
    (status = 201, body = IssuedSummary), (status = 403, body = ProblemDetails), (status = 409, body = ProblemDetails),
    (status = 422, body = ProblemDetails)))]
#[post("/rounds/{round_id}/plan/issue")]
pub(crate) async fn issue_plan(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    id: web::Path<String>,
    body: web::Json<IssuePlan>,
) -> Result<HttpResponse, ApiError> {
    let shared = state.clone();
    let issued = state.run(move |store, knowledge| {
        let starts_on = monday(&body.starts_on)?;
        let PlanView { week, plan, revision, draft_because, .. } = view(&shared, store, knowledge, &id)?;
        if let Some(why) = draft_because {
            return Err(ApiError::Refused(format!("The plan stays a draft: {why}.")));
        }
        if revision != body.revision {
            let detail = "The week was changed since it was shown; look at it again before it is given.".to_owned();
            return Err(ApiError::Conflict { detail, current_revision: Some(revision) });
        }
        if let Some(broken) = plan.broken.iter().find(|broken| broken.forbids) {
            return Err(ApiError::Refused(broken.says.clone()));
        }
        if plan.sessions.iter().all(|session| session.items.is_empty()) {
            return Err(ApiError::Refused("The week has no exercise yet: nothing can be given.".to_owned()));
        }
        let issued_on = AppState::today();
        let (issued_by, issued_by_id) = (signed_in.0.name, Some(signed_in.0.id));
        // What the coach wrote of a set-up is remembered for the next plans.
        let client_id = store.round(&id)?.client_id;
        let cards = week.sessions.iter().flat_map(|day| &day.items);
        let said = cards.filter_map(|card| {
            let (numbers, variant) = (card.written.set_up.clone(), card.written.variant.clone());
            Some(SetUpSaid { exercise: card.exercise.parse().ok()?, numbers, variant })
        });
        store.keep_said(&client_id, (issued_on, &issued_by), &said.collect::<Vec<_>>())?;
        let new = NewIssue { round_id: id.clone(), issued_on, starts_on, issued_by, issued_by_id, week, plan };
        Ok(IssuedSummary::from(&store.issue_plan(&new)?))
    });
    Ok(HttpResponse::Created().json(issued.await?))
}

/// A plan a client was given.
#[utoipa::path(tag = "plan", responses((status = 200, body = IssuedView), (status = 404, body = ProblemDetails)))]
#[get("/plans/{plan_id}")]
pub(crate) async fn show_issued_plan(
    state: web::Data<AppState>,
    id: web::Path<String>,
) -> Result<web::Json<IssuedView>, ApiError> {
    let shown = state.read(move |store, knowledge| {
        let record = store.issued_plan(&id)?;
        let client_name = store.client(&knowledge.atlas, &record.client_id)?.client.name;
        Ok(IssuedView { summary: IssuedSummary::from(&record), client_name, week: record.week, plan: record.plan })
    });
    shown.await.map(web::Json)
}

/// A kind of file.
#[derive(Clone, Copy, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum FileKind {
    /// A4, one session a page.
    Pdf,
    /// Calendar entries.
    Ics,
    /// A table.
    Csv,
}

impl FileKind {
    fn content_type(self) -> &'static str {
        match self {
            Self::Pdf => "application/pdf",
            Self::Ics => "text/calendar; charset=utf-8",
            Self::Csv => "text/csv; charset=utf-8",
        }
    }

    fn ending(self) -> &'static str {
        match self {
            Self::Pdf => "pdf",
            Self::Ics => "ics",
            Self::Csv => "csv",
        }
    }

    fn written(self, handout: &Handout) -> Result<Vec<u8>, HandoutError> {
        match self {
            Self::Pdf => handout::pdf(handout),
            Self::Ics => handout::calendar(handout).map(String::into_bytes),
            Self::Csv => handout::table(handout).map(String::into_bytes),
        }
    }
}

/// A plan a client was given, as a file for them.
#[utoipa::path(tag = "plan", params(("kind" = String, Path, description = "pdf, ics or csv")), responses(
    (status = 200, description = "PDF, iCalendar or CSV", content_type = "application/octet-stream"),
    (status = 404, body = ProblemDetails)))]
#[get("/plans/{plan_id}/files/{kind}")]
pub(crate) async fn show_plan_file(
    state: web::Data<AppState>,
    path: web::Path<(String, FileKind)>,
) -> Result<HttpResponse, ApiError> {
    let (id, kind) = path.into_inner();
    let written = state.run(move |store, knowledge| {
        let record = store.issued_plan(&id)?;
        let client = store.client(&knowledge.atlas, &record.client_id)?.client;
        let reported = Training::read(store, knowledge, &record.client_id, AppState::today())?.reported();
        let handout = Handout {
            id: &record.id,
            client_name: &client.name,
            version: record.version,
            issued_on: record.issued_on,
            starts_on: record.starts_on,
            plan: &record.plan,
            atlas: &knowledge.atlas,
            reported: &reported,
            measures: client.measures,
        };
        let bytes = kind.written(&handout).map_err(|error| ApiError::Internal(error.to_string()))?;
        Ok((format!("plan-{}-version-{}.{}", record.starts_on, record.version, kind.ending()), bytes))
    });
    let (name, bytes) = written.await?;
    Ok(HttpResponse::Ok()
        .content_type(kind.content_type())
        .insert_header(("Content-Disposition", format!("attachment; filename=\"{name}\"")))
        .insert_header((CACHE_CONTROL, "no-store"))
        .body(bytes))
}
