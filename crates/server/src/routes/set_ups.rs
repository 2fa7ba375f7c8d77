//! How a client's stations are set, and what the coach's hand found.

use crate::auth::SignedIn;
use crate::dto::{SetUpView, SetUpsView};
use crate::error::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_web::{get, patch, web};
use assess::{KeptSetUp, Knowledge};
use atlas::{Atlas, Exercise};
use casefile::check_set_up;
use serde_json::Value;
use units::ExerciseId;
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(list_set_ups).service(show_set_up).service(change_set_up);
}

fn view(atlas: &Atlas, exercise: &Exercise, kept: KeptSetUp) -> SetUpView {
    let fields = atlas.set_up_fields().iter();
    let shown = |field: &&atlas::SetUpField| kept.numbers.contains_key(&field.name) || field.is_of(exercise);
    SetUpView {
        exercise: exercise.id.clone(),
        fields: fields.filter(shown).cloned().collect(),
        variants: exercise.variants.clone(),
        kept,
    }
}

fn known<'a>(knowledge: &'a Knowledge, id: &str) -> Result<&'a Exercise, ApiError> {
    let found = id.parse().ok().and_then(|id| knowledge.atlas.exercise(&id));
    found.ok_or_else(|| ApiError::NotFound(format!("there is no exercise {id}")))
}

/// What is remembered of every exercise of a client.
#[utoipa::path(tag = "clients", responses((status = 200, body = SetUpsView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/set-ups")]
pub(crate) async fn list_set_ups(
    state: web::Data<AppState>,
    id: web::Path<String>,
) -> Result<web::Json<SetUpsView>, ApiError> {
    let found = state.run(move |store, knowledge| {
        store.client(&knowledge.atlas, &id)?;
        let kept = store.set_ups(&id)?.into_iter();
        let views = kept.filter_map(|(id, kept)| Some(view(&knowledge.atlas, knowledge.atlas.exercise(&id)?, kept)));
        Ok(SetUpsView { set_ups: views.collect() })
    });
    found.await.map(web::Json)
}

/// What is remembered of one, with the numbers its kit has.
#[utoipa::path(tag = "clients", responses((status = 200, body = SetUpView), (status = 404, body = ProblemDetails)))]
#[get("/clients/{client_id}/set-ups/{exercise}")]
pub(crate) async fn show_set_up(
    state: web::Data<AppState>,
    path: web::Path<(String, String)>,
) -> Result<web::Json<SetUpView>, ApiError> {
    let found = state.run(move |store, knowledge| {
        let (client_id, exercise) = path.into_inner();
        store.client(&knowledge.atlas, &client_id)?;
        let exercise = known(knowledge, &exercise)?;
        let kept = store.set_ups(&client_id)?.remove(&exercise.id).unwrap_or_default();
        Ok(view(&knowledge.atlas, exercise, kept))
    });
    found.await.map(web::Json)
}

/// What a change leaves of a set-up.
fn changed(atlas: &Atlas, id: &ExerciseId, kept: KeptSetUp, change: &Value) -> Result<KeptSetUp, ApiError> {
    let wrong = |error: serde_json::Error| ApiError::Malformed(format!("the set-up cannot be read: {error}"));
    let mut value = serde_json::to_value(kept).map_err(wrong)?;
    json_patch::merge(&mut value, change);
    let kept = serde_json::from_value(value).map_err(wrong)?;
    check_set_up(atlas, "", id, &kept).map_err(ApiError::Invalid)?;
    Ok(kept)
}

/// Remembers it otherwise: what the change names takes the place of what was, null forgets it, and the rest stays as it is
/// stored (a merge patch, RFC 7396).
#[utoipa::path(tag = "clients", request_body = KeptSetUp, responses((status = 200, body = SetUpView),
    (status = 400, body = ProblemDetails), (status = 404, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[patch("/clients/{client_id}/set-ups/{exercise}")]
pub(crate) async fn change_set_up(
    state: web::Data<AppState>,
    signed_in: SignedIn,
    path: web::Path<(String, String)>,
    body: web::Json<Value>,
) -> Result<web::Json<SetUpView>, ApiError> {
    let saved = state.run(move |store, knowledge| {
        let (client_id, exercise) = path.into_inner();
        store.client(&knowledge.atlas, &client_id)?;
        let exercise = known(knowledge, &exercise)?;
        let said = (AppState::today(), signed_in.0.name.as_str());
        let change = |kept| changed(&knowledge.atlas, &exercise.id, kept, &body);
        let kept = store.change_set_up(&client_id, &exercise.id, said, change)?;
        Ok(view(&knowledge.atlas, exercise, kept))
    });
    saved.await.map(web::Json)
}
