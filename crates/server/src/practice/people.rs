//! Who works in the practice: added, changed, taken out.

use super::views::{NewPerson, PersonView, SavePerson};
use crate::auth::{SignedIn, allowed, hash_password, open_session, verify_password};
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_session::Session;
use actix_web::{HttpResponse, delete, get, post, put, web};
use casefile::{Problem, is_one_line};
use desk::{DeskError, invalid};
use roles::Act;
use store::{Account, ChangedAccount, NewAccount};
use utoipa_actix_web::service_config::ServiceConfig;

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(list_people).service(add_person).service(save_person).service(remove_person);
}

/// `asking` is the id of whoever asks.
fn person(account: &Account, asking: &str) -> PersonView {
    PersonView {
        second_factor: account.factor.is_some(),
        you: account.id == asking,
        id: account.id.clone(),
        login: account.login.clone(),
        name: account.name.clone(),
        role: account.role,
    }
}

/// Everyone who may sign in.
#[utoipa::path(tag = "practice", responses((status = 200, body = Vec<PersonView>), (status = 401, body = ProblemDetails)))]
#[get("/practice/people")]
pub(crate) async fn list_people(
    state: web::Data<AppState>,
    who: SignedIn,
) -> Result<web::Json<Vec<PersonView>>, ApiError> {
    let people =
        state.run(move |store| Ok(store.accounts()?.iter().map(|account| person(account, &who.0.id)).collect()));
    people.await.map(web::Json)
}

/// Adds someone.
#[utoipa::path(tag = "practice", request_body = NewPerson, responses(
    (status = 201, body = PersonView), (status = 403, body = ProblemDetails), (status = 409, body = ProblemDetails),
    (status = 422, body = ProblemDetails)))]
#[post("/practice/people")]
pub(crate) async fn add_person(
    state: web::Data<AppState>,
    who: SignedIn,
    body: web::Json<NewPerson>,
) -> Result<HttpResponse, ApiError> {
    let added = state.run(move |store| {
        let hash = hashed(&body.password);
        let wrong = [named("/name", &body.name), named("/login", &body.login), hash.clone().err()];
        let problems: Vec<Problem> = wrong.into_iter().flatten().collect();
        let (Ok(password_hash), true) = (hash, problems.is_empty()) else {
            return Err(DeskError::Invalid(problems).into());
        };
        let (name, login) = (body.name.trim().to_owned(), body.login.trim().to_owned());
        let new = NewAccount { login, name, role: body.role, password_hash };
        Ok(person(&store.add_account(&new)?, &who.0.id))
    });
    Ok(HttpResponse::Created().json(added.await?))
}

fn named(pointer: &str, text: &str) -> Option<Problem> {
    let fits = (1..=80).contains(&text.trim().chars().count()) && is_one_line(text.trim());
    let says = "1 to 80 characters in one line are needed".to_owned();
    (!fits).then(|| Problem::new(pointer, says))
}

fn hashed(password: &str) -> Result<String, Problem> {
    hash_password(password).map_err(|error| Problem::new("/password", error.to_string()))
}

/// Changes someone's name, role or password. Everyone may change their own name and password.
#[utoipa::path(tag = "practice", request_body = SavePerson, responses(
    (status = 200, body = PersonView), (status = 403, body = ProblemDetails), (status = 404, body = ProblemDetails),
    (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[put("/practice/people/{account_id}")]
pub(crate) async fn save_person(
    state: web::Data<AppState>,
    who: SignedIn,
    session: Session,
    id: web::Path<String>,
    body: web::Json<SavePerson>,
) -> Result<web::Json<PersonView>, ApiError> {
    let own = who.0.id == *id;
    let renewed = body.password.is_some();
    if !own || body.role.is_some() {
        allowed(&who.0, Act::People)?;
    }
    let had = who.0.password_hash.clone();
    let saved = state.run(move |store| {
        let old = body.old_password.as_deref().unwrap_or_default();
        if own && renewed && !verify_password(old, Some(&had)) {
            return Err(invalid("/old_password", "this is not the password you have").into());
        }
        let wrong = body.name.as_ref().and_then(|name| named("/name", name));
        if let Some(problem) = wrong {
            return Err(DeskError::Invalid(vec![problem]).into());
        }
        let hash = body.password.as_deref().map(hashed).transpose();
        let change = ChangedAccount {
            name: body.name.as_ref().map(|name| name.trim().to_owned()),
            role: body.role,
            password_hash: hash.map_err(|problem| DeskError::Invalid(vec![problem]))?,
        };
        Ok(store.change_account(&id, &change)?)
    });
    let saved = saved.await?;
    if renewed {
        // Whoever listens with the old password is out.
        state.feed.close(&saved.id);
    }
    if own && renewed {
        // A new password ends every session but the one it was typed in.
        open_session(&session, &saved)?;
    }
    Ok(web::Json(person(&saved, &who.0.id)))
}

/// Takes someone's way in away.
#[utoipa::path(tag = "practice", responses((status = 204), (status = 403, body = ProblemDetails),
    (status = 404, body = ProblemDetails), (status = 409, body = ProblemDetails)))]
#[delete("/practice/people/{account_id}")]
pub(crate) async fn remove_person(state: web::Data<AppState>, id: web::Path<String>) -> Result<HttpResponse, ApiError> {
    let gone = id.clone();
    state.run(move |store| Ok(store.remove_account(&id)?)).await?;
    state.feed.close(&gone);
    Ok(HttpResponse::NoContent().finish())
}
