//! Weeks that can be taken for a client: those the practice keeps under a name, and what its other clients have.

use crate::auth::SignedIn;
use crate::dto::{CopiedWeek, CopyWeek, KeepWeek, KeptWeek, OthersWeek, ReplacedView, WeekSource, WeeksView};
use crate::error::{ApiError, ProblemDetails};
use crate::planning::{Planned, Planning};
use crate::state::AppState;
use actix_web::{HttpResponse, delete, get, post, web};
use casefile::{WeekDraft, check_week, check_week_name};
use jiff::tz::TimeZone;
use plan::fitted;
use store::{GivenWeek, SavedWeek, Store};
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(list_weeks).service(keep_week).service(forget_week).service(copy_week);
}

fn trained_days(week: &WeekDraft) -> usize {
    week.sessions.iter().filter(|day| !day.items.is_empty()).count()
}

/// Every week that can be taken.
#[utoipa::path(tag = "plan", responses((status = 200, body = WeeksView)))]
#[get("/weeks")]
pub(crate) async fn list_weeks(state: web::Data<AppState>) -> Result<web::Json<WeeksView>, ApiError> {
    let listed = state.read(|store, _| {
        let kept = |SavedWeek { id, name, week, saved_by, saved_at }| KeptWeek {
            days: trained_days(&week),
            minutes: week.minutes,
            saved_on: saved_at.to_zoned_datetime(TimeZone::system()).date().to_string(),
            id,
            name,
            saved_by,
        };
        let other = |GivenWeek { client_id, client_name, plan_id, starts_on, week }| OthersWeek {
            days: trained_days(&week),
            minutes: week.minutes,
            client_id,
            client_name,
            plan: plan_id,
            starts_on,
        };
        Ok(WeeksView {
            kept: store.saved_weeks()?.into_iter().map(kept).collect(),
            others: store.given_weeks()?.into_iter().map(other).collect(),
        })
    });
    listed.await.map(web::Json)
}

/// Keeps a week under a name.
#[utoipa::path(tag = "plan", request_body = KeepWeek, responses(
    (status = 201, description = "kept"), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/weeks")]
pub(crate) async fn keep_week(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    body: web::Json<KeepWeek>,
) -> Result<HttpResponse, ApiError> {
    let kept = state.run(move |store, knowledge| {
        let KeepWeek { name, week, replace } = body.into_inner();
        let name = check_week_name("/name", &name).map_err(|problem| ApiError::Invalid(vec![problem]))?;
        check_week(&knowledge.atlas, "/week", &week).map_err(ApiError::Invalid)?;
        let taken = || ApiError::Conflict {
            detail: format!("There is a week called {name} already: replace it, or choose another name."),
            current_revision: None,
        };
        store.save_week(&name, &week, &signed_in.0.name, replace)?.then_some(()).ok_or_else(taken)
    });
    kept.await?;
    Ok(HttpResponse::Created().finish())
}

/// Forgets a week that was kept under a name.
#[utoipa::path(tag = "plan", responses((status = 204), (status = 404, body = ProblemDetails)))]
#[delete("/weeks/{week_id}")]
pub(crate) async fn forget_week(state: web::Data<AppState>, id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    state.run(move |store, _| Ok(store.forget_saved_week(&id)?)).await?;
    Ok(HttpResponse::NoContent().finish())
}

fn source(store: &Store, from: &WeekSource) -> Result<WeekDraft, ApiError> {
    Ok(match from {
        WeekSource::Kept(id) => store.saved_week(id)?.week,
        WeekSource::Plan(id) => store.issued_plan(id)?.week,
    })
}

/// A week of somebody else as this round's client can train it: on their days, in their minutes, with what pain, kit and the
/// brief rule out swapped or left out. Nothing is kept.
#[utoipa::path(tag = "plan", request_body = CopyWeek, responses(
    (status = 200, body = CopiedWeek), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/rounds/{round_id}/plan/copy")]
pub(crate) async fn copy_week(
    state: web::Data<AppState>,
    id: web::Path<String>,
    body: web::Json<CopyWeek>,
) -> Result<web::Json<CopiedWeek>, ApiError> {
    let copied = state.run(move |store, knowledge| {
        let mut week = source(store, &body.from)?;
        let planning = Planning::read(store, knowledge, &id)?;
        planning.onto_days(&mut week);
        let Planned { problem, draft, weeks } = planning.of("/from", &week)?;
        let (draft, replaced) = fitted(&problem, &draft);
        let week = planning.week(&Planned { problem, draft, weeks });
        let replaced = replaced.into_iter().map(|replaced| ReplacedView {
            day: week.sessions[replaced.session].day,
            name: replaced.name,
            because: replaced.because,
            instead: replaced.instead,
        });
        Ok(CopiedWeek { replaced: replaced.collect(), week })
    });
    copied.await.map(web::Json)
}
