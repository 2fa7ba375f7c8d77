//! Signing in and out, and the owner's account at the first start.

use crate::auth::{Doer, Opened, PasswordError, hash_password, note, open_session, verify_password};
use crate::dto::{NewOwner, SessionStanding, SessionView, SignIn};
use crate::error::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_session::Session;
use actix_web::{HttpResponse, delete, get, post, web};
use casefile::{Problem, is_one_line};
use roles::{Act, Role};
use store::{Account, NewAccount};

fn standing(standing: SessionStanding, account: Option<&Account>) -> SessionView {
    let acts = account.map(|account| account.role.acts()).unwrap_or_default();
    SessionView { standing, name: account.map(|account| account.name.clone()), acts }
}

/// How this browser stands.
#[utoipa::path(tag = "session", responses((status = 200, body = SessionView), (status = 500, body = ProblemDetails)))]
#[get("")]
pub(crate) async fn show_session(
    state: web::Data<AppState>,
    session: Session,
) -> Result<web::Json<SessionView>, ApiError> {
    let opened = Opened::of(&session);
    let view = state.read(move |store, _| {
        if store.is_new()? {
            return Ok(standing(SessionStanding::New, None));
        }
        let account = opened.map(|opened| opened.account(store)).transpose()?.flatten();
        let how = if account.is_some() { SessionStanding::SignedIn } else { SessionStanding::SignedOut };
        Ok(standing(how, account.as_ref()))
    });
    view.await.map(web::Json)
}

/// Signs in.
#[utoipa::path(tag = "session", request_body = SignIn, responses(
    (status = 200, body = SessionView), (status = 401, body = ProblemDetails), (status = 429, body = ProblemDetails)))]
#[post("")]
pub(crate) async fn sign_in(
    state: web::Data<AppState>,
    session: Session,
    body: web::Json<SignIn>,
) -> Result<web::Json<SessionView>, ApiError> {
    let SignIn { login, password } = body.into_inner();
    let account = state
        .run(move |store, _| {
            let account = store.account_by_login(login.trim())?;
            let hash = account.as_ref().map(|account| account.password_hash.as_str());
            // Verified first and decided after, so that an unknown login takes as long as a wrong password.
            let matches = verify_password(&password, hash);
            account.filter(|_| matches).ok_or(ApiError::SignInFailed)
        })
        .await?;
    open_session(&session, &account)?;
    note(&state, Doer::of(&account), Act::SignIn, None).await;
    Ok(web::Json(standing(SessionStanding::SignedIn, Some(&account))))
}

/// Makes the owner's account, once, and signs in.
#[utoipa::path(tag = "session", request_body = NewOwner, responses(
    (status = 201, body = SessionView), (status = 409, body = ProblemDetails), (status = 422, body = ProblemDetails)))]
#[post("/owner")]
pub(crate) async fn make_owner(
    state: web::Data<AppState>,
    session: Session,
    body: web::Json<NewOwner>,
) -> Result<HttpResponse, ApiError> {
    let new = body.into_inner();
    let account = state
        .run(move |store, _| {
            let owner = checked(&new)?;
            Ok(store.add_owner(&owner)?)
        })
        .await?;
    open_session(&session, &account)?;
    Ok(HttpResponse::Created().json(standing(SessionStanding::SignedIn, Some(&account))))
}

fn checked(new: &NewOwner) -> Result<NewAccount, ApiError> {
    let mut problems = Vec::new();
    let mut needed = |pointer: &str, text: &str, what: &str| {
        if text.trim().is_empty() || text.chars().count() > 80 || !is_one_line(text.trim()) {
            problems.push(Problem {
                pointer: pointer.to_owned(),
                says: format!("{what} of 1 to 80 characters in one line is needed"),
            });
        }
    };
    needed("/name", &new.name, "a name");
    needed("/login", &new.login, "a login");
    let hash = hash_password(&new.password);
    if let Err(error) = hash {
        problems.push(Problem { pointer: "/password".to_owned(), says: error.to_string() });
    }
    if !problems.is_empty() {
        return Err(ApiError::Invalid(problems));
    }
    Ok(NewAccount {
        login: new.login.trim().to_owned(),
        name: new.name.trim().to_owned(),
        role: Role::Owner,
        password_hash: hash.map_err(|error: PasswordError| ApiError::Internal(error.to_string()))?,
    })
}

/// Signs out: the session ends on the server too.
#[utoipa::path(tag = "session", responses((status = 204), (status = 500, body = ProblemDetails)))]
#[delete("")]
pub(crate) async fn sign_out(session: Session) -> HttpResponse {
    session.purge();
    HttpResponse::NoContent().finish()
}
