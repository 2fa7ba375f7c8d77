//! What a client trained lately, as told.

use crate::dto::{SaveUsualWeek, UsualWeekView};
use crate::error::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{get, put, web};
use assess::Knowledge;
use casefile::{Problem, check_training};
use logbook::weekly_sets;
use store::Store;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(show_usual_week).service(save_usual_week);
}

fn view(store: &Store, knowledge: &Knowledge, client_id: &str) -> Result<UsualWeekView, ApiError> {
    let (week, revision) = store.usual_week(client_id)?;
    let sets_by_region = week.as_ref().map(|week| week.sets_by_region(&knowledge.atlas)).unwrap_or_default();
    let logged = store.logged_training(client_id, AppState::today())?;
    let logged_since = logged.iter().map(|row| row.week_of).min().map(|day| day.to_string());
    Ok(UsualWeekView {
        revision,
        week,
        sets_by_region,
        logged_since,
        logged_sets: weekly_sets(&knowledge.atlas, &logged),
    })
}

/// A client's usual week, and how many sets of it each region got.
#[utoipa::path(tag = "clients", responses((status = 200, body = UsualWeekView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/usual-week")]
pub(crate) async fn show_usual_week(
    state: web::Data<AppState>,
    id: web::Path<String>,
) -> Result<web::Json<UsualWeekView>, ApiError> {
    state.run(move |store, knowledge| view(store, knowledge, &id)).await.map(web::Json)
}

/// Saves it, or forgets it.
#[utoipa::path(tag = "clients", request_body = SaveUsualWeek, responses(
    (status = 200, body = UsualWeekView), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/clients/{client_id}/usual-week")]
pub(crate) async fn save_usual_week(
    state: web::Data<AppState>,
    id: web::Path<String>,
    body: web::Json<SaveUsualWeek>,
) -> Result<web::Json<UsualWeekView>, ApiError> {
    let saved = state.run(move |store, knowledge| {
        if let Some(week) = &body.week {
            let rows = week.rows("/week").map_err(|problem| ApiError::Invalid(vec![problem]))?;
            // Every week holds the same exercises: the problems of the first are the problems of all.
            let one = rows.get(..week.exercises.len()).unwrap_or_default();
            check_training(&knowledge.atlas, "/week/exercises", one, AppState::today()).map_err(in_exercises)?;
        }
        store.save_usual_week(&id, body.revision, body.week.as_ref())?;
        view(store, knowledge, &id)
    });
    saved.await.map(web::Json)
}

/// A week that lies ahead is the fault of its last day, not of an exercise.
fn in_exercises(problems: Vec<Problem>) -> ApiError {
    let placed = problems.into_iter().map(|problem| {
        let of_week = problem.pointer.ends_with("/week_of");
        if of_week { Problem { pointer: "/week/until".to_owned(), ..problem } } else { problem }
    });
    ApiError::Invalid(placed.collect())
}
