//! The movement behind an exercise: who works, and its picture.

use crate::dto::LeversView;
use crate::error::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::http::header::CACHE_CONTROL;
use actix_web::{HttpResponse, get, web};
use assess::Knowledge;
use atlas::{Atlas, Exercise, SidesUse};
use casefile::Problem;
use levers::{Drawing, Movement, Reach, Wanted, best, draw, levers, with};
use serde::Deserialize;
use std::sync::LazyLock;
use store::Store;
use units::Sides;
use utoipa::{IntoParams, ToSchema};
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(show_levers).service(find_set_up);
}

/// A set-up and a place in the range.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub(crate) struct LeversQuery {
    /// Numbers of the set-up, `name:value` with commas between.
    #[serde(default)]
    set: String,
    /// Where in the range the figure is drawn: 0 at the start, 1 at the end.
    #[serde(default = "at_the_end")]
    at: f64,
    /// The region tinted; what the exercise is for when none is given.
    tint: Option<String>,
    /// A client's id: what the set-up asks beyond their range of motion is said.
    client: Option<String>,
}

fn at_the_end() -> f64 {
    1.0
}

/// What a set-up is looked for.
#[derive(Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum LoadedBy {
    /// The most of the work.
    Most,
    /// The most load while long.
    Longest,
}

/// For which region a set-up is looked for.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub(crate) struct BestQuery {
    /// The region.
    region: String,
    /// By what.
    #[param(inline)]
    by: LoadedBy,
    /// A client's id: within their range of motion, where that is known.
    client: Option<String>,
}

/// How far a client's joints go on the lesser side; of nobody nothing is known.
fn reach_of(store: &Store, knowledge: &Knowledge, client: Option<&str>) -> Result<Reach, ApiError> {
    let Some(id) = client else { return Ok(Reach::default()) };
    let screens = store.client(&knowledge.atlas, id)?.client.screens;
    let lesser = |sides: Option<Sides<f64>>| sides.map(|sides| sides.left.min(sides.right));
    Ok(Reach {
        shoulder_extension: lesser(screens.shoulder_extension_deg),
        shoulder_flexion: lesser(screens.shoulder_flexion_deg),
        ankle_dorsiflexion: lesser(screens.ankle_dorsiflexion_deg),
        hip_flexion: lesser(screens.hip_flexion_deg),
    })
}

/// An exercise with its movement; the practice's own have none.
fn known<'a>(knowledge: &'a Knowledge, id: &str) -> Result<(&'a Exercise, &'static Movement), ApiError> {
    let exercise = id.parse().ok().and_then(|id| knowledge.atlas.exercise(&id));
    let exercise = exercise.ok_or_else(|| ApiError::NotFound("There is no such exercise.".to_owned()))?;
    let movement = Movement::of(exercise.id.as_str())
        .ok_or_else(|| ApiError::NotFound("This exercise has no movement yet.".to_owned()))?;
    Ok((exercise, movement))
}

fn invalid(place: &str, says: impl Into<String>) -> ApiError {
    ApiError::Invalid(vec![Problem { pointer: place.to_owned(), says: says.into() }])
}

fn numbers(set: &str) -> Result<Vec<(String, f64)>, ApiError> {
    let number = |text: &str| {
        let (name, value) = text.split_once(':')?;
        Some((name.to_owned(), value.parse().ok()?))
    };
    let wrong = |text: &str| invalid("/set", format!("{text:?} is no name:value with a number"));
    set.split(',').filter(|text| !text.is_empty()).map(|text| number(text).ok_or_else(|| wrong(text))).collect()
}

/// A region of the atlas; another is refused, or it would quietly stand for none.
fn known_region(knowledge: &Knowledge, place: &str, region: &str) -> Result<(), ApiError> {
    let there = knowledge.atlas.regions().iter().any(|known| known.id.as_str() == region);
    if there { Ok(()) } else { Err(invalid(place, format!("there is no region {region:?}"))) }
}

fn drawn(exercise: &Exercise, movement: &Movement, at: f64, tint: Option<&str>) -> String {
    let main = exercise.targets.iter().filter(|(_, fraction)| **fraction >= 1.0).map(|(region, _)| region.as_str());
    let tinted: Vec<&str> = tint.map_or_else(|| main.collect(), |region| vec![region]);
    let one_sided = exercise.sides == SidesUse::One;
    draw(movement, &Drawing { shares: &[0.0, at], tinted: &tinted, one_sided, title: &exercise.name })
}

/// Who works along a movement in a set-up.
#[utoipa::path(tag = "library", params(LeversQuery), responses((status = 200, body = LeversView),
    (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[get("/exercises/{exercise}/levers")]
pub(crate) async fn show_levers(
    state: web::Data<AppState>,
    id: web::Path<String>,
    query: web::Query<LeversQuery>,
) -> Result<web::Json<LeversView>, ApiError> {
    let found = state.run(move |store, knowledge| {
        let (exercise, own) = known(knowledge, &id)?;
        let reach = reach_of(store, knowledge, query.client.as_deref())?;
        if !(0.0..=1.0).contains(&query.at) {
            return Err(invalid("/at", format!("{} is outside 0 to 1", query.at)));
        }
        if let Some(region) = &query.tint {
            known_region(knowledge, "/tint", region)?;
        }
        let movement = with(own, &numbers(&query.set)?).map_err(|error| invalid("/set", error.to_string()))?;
        let figure = drawn(exercise, &movement, query.at, query.tint.as_deref());
        let mut found = levers(exercise, &movement, own);
        let beyond = reach.says(&found.range);
        found.says.extend(beyond);
        Ok(LeversView::of(found, figure))
    });
    found.await.map(web::Json)
}

/// The set-up that loads a region most, or most while it is long.
#[utoipa::path(tag = "library", params(BestQuery), responses((status = 200, body = LeversView),
    (status = 404, body = ProblemDetails)))]
#[get("/exercises/{exercise}/best-set-up")]
pub(crate) async fn find_set_up(
    state: web::Data<AppState>,
    id: web::Path<String>,
    query: web::Query<BestQuery>,
) -> Result<web::Json<LeversView>, ApiError> {
    let found = state.run(move |store, knowledge| {
        let (exercise, own) = known(knowledge, &id)?;
        let reach = reach_of(store, knowledge, query.client.as_deref())?;
        known_region(knowledge, "/region", &query.region)?;
        let wanted = match query.by {
            LoadedBy::Most => Wanted::Most,
            LoadedBy::Longest => Wanted::Longest,
        };
        let refused = |error: levers::SetUpError| ApiError::Internal(error.to_string());
        let (numbers, found) = best(exercise, own, &query.region, wanted, reach).map_err(refused)?;
        let numbers: Vec<(String, f64)> = numbers.into_iter().map(|number| (number.name, number.value)).collect();
        let movement = with(own, &numbers).map_err(refused)?;
        Ok(LeversView::of(found, drawn(exercise, &movement, 1.0, Some(&query.region))))
    });
    found.await.map(web::Json)
}

/// What ships: pictures of it are everybody's.
static SHIPPED: LazyLock<Option<Atlas>> = LazyLock::new(|| Atlas::load().ok());

/// The picture of an exercise of the catalogue: start and end. It says nothing of anybody, so that a client's page and a print may
/// have it too.
#[utoipa::path(tag = "library", responses((status = 200, content_type = "image/svg+xml", body = String),
    (status = 404, body = ProblemDetails)))]
#[get("/{exercise}")]
pub(crate) async fn show_figure(id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    let missing = || ApiError::NotFound("There is no picture of this exercise.".to_owned());
    let atlas = SHIPPED.as_ref().ok_or_else(missing)?;
    let picture = if let Some(movement) = Movement::of_move(&id) {
        let name = atlas.warm_ups().iter().find(|one| one.picture == *id).map_or("", |one| one.name.as_str());
        draw(movement, &Drawing { shares: &[0.0, 1.0], tinted: &[], one_sided: false, title: name })
    } else {
        let exercise = atlas.exercises().iter().find(|one| one.id.as_str() == id.as_str()).ok_or_else(missing)?;
        drawn(exercise, Movement::of(&id).ok_or_else(missing)?, 1.0, None)
    };
    Ok(HttpResponse::Ok()
        .content_type("image/svg+xml")
        .insert_header((CACHE_CONTROL, "public, max-age=86400"))
        .body(picture))
}
