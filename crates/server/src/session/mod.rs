//! Signing in and out, and the owner's account at the first start.

mod views;

use crate::auth::{
    Doer, KNOWN_COOKIE, Opened, PasswordError, SignedIn, cookie_key, factor_step, hash_password, is_known,
    known_browser, note, open_session, recovery_hash, verify_password,
};
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_session::Session;
use actix_web::{HttpRequest, HttpResponse, delete, get, post, put, web};
use casefile::{Problem, is_one_line};
use desk::{DeskError, invalid};
use jiff::Timestamp;
use roles::{Act, Role};
use std::time::Instant;
use store::{Account, NewAccount, Store};
use units::Measures;
use utoipa_actix_web::service_config::ServiceConfig;
use views::{NewOwner, SessionStanding, SessionView, SignIn};

/// Its routes for those who are signed in.
pub(crate) fn configure(config: &mut ServiceConfig) {
    config.service(save_measures);
}

/// Its routes for those who are not.
pub(crate) fn at_the_door(config: &mut ServiceConfig) {
    config.service(show_session).service(sign_in).service(make_owner).service(sign_out);
}

fn standing(standing: SessionStanding, account: Option<&Account>) -> SessionView {
    let acts = account.map(|account| account.role.acts()).unwrap_or_default();
    SessionView {
        standing,
        account: account.map(|account| account.id.clone()),
        name: account.map(|account| account.name.clone()),
        asks_for_code: false,
        acts,
        measures: account.map(|account| account.measures).unwrap_or_default(),
    }
}

/// How this browser stands.
#[utoipa::path(tag = "session", responses((status = 200, body = SessionView), (status = 500, body = ProblemDetails)))]
#[get("")]
pub(crate) async fn show_session(
    state: web::Data<AppState>,
    session: Session,
) -> Result<web::Json<SessionView>, ApiError> {
    let opened = Opened::of(&session);
    let asks_for_code = state.first_code.is_some();
    let view = state.run(move |store| {
        if store.is_new()? {
            return Ok(SessionView { asks_for_code, ..standing(SessionStanding::New, None) });
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
    request: HttpRequest,
    body: web::Json<SignIn>,
) -> Result<HttpResponse, ApiError> {
    let SignIn { login, password, code } = body.into_inner();
    let known = request.cookie(KNOWN_COOKIE);
    let shared = state.clone();
    let (account, known) = state
        .run(move |store| {
            let account = store.account_by_login(login.trim())?;
            let key = cookie_key(store)?;
            let was_here = account.as_ref().is_some_and(|account| is_known(&key, known, &account.id));
            if !was_here {
                shared.attempts.admit(&login, Instant::now())?;
            }
            let hash = account.as_ref().map(|account| account.password_hash.as_str());
            // Verified first and decided after, so that an unknown login takes as long as a wrong password.
            let matches = verify_password(&password, hash);
            let found = account.filter(|_| matches).ok_or(ApiError::SignInFailed);
            let found = found.and_then(|account| second_factor(store, &account, &code).map(|()| account));
            // Asked for a code, nobody has tried anything yet.
            let asked = matches!(found, Err(ApiError::FactorNeeded(_))) && code.trim().is_empty();
            if !asked {
                shared.attempts.ended(&login, found.is_ok(), Instant::now());
            }
            let account = found?;
            let known = known_browser(&key, &account.id, shared.https);
            Ok((account, known))
        })
        .await?;
    open_session(&session, &account)?;
    note(&state, Doer::of(&account), Act::SignIn, None).await;
    Ok(HttpResponse::Ok().cookie(known).json(standing(SessionStanding::SignedIn, Some(&account))))
}

/// Lets an account with a second factor pass with its code of this moment, or with a recovery code, each of them once.
fn second_factor(store: &Store, account: &Account, code: &str) -> Result<(), ApiError> {
    let Some(factor) = &account.factor else { return Ok(()) };
    let refuse = |says: &str| Err(ApiError::FactorNeeded(says.to_owned()));
    if code.trim().is_empty() {
        return refuse("This account asks for a code too: the six digits on your phone, or a recovery code.");
    }
    let now_s = u64::try_from(Timestamp::now().as_second()).unwrap_or_default();
    let by_time = match factor_step(factor, code, now_s) {
        Some(step) => store.use_factor_step(&account.id, step)?,
        None => false,
    };
    if by_time || store.use_recovery_code(&account.id, &recovery_hash(code))? {
        return Ok(());
    }
    refuse("This code does not fit, or was used already: wait for the next one.")
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
    let (new, first_code) = (body.into_inner(), state.first_code.clone());
    let account = state
        .run(move |store| {
            // Who knows of the address is not yet who stands before the machine.
            let code = first_code.as_deref().is_none_or(|code| new.code.trim() == code);
            if !code && store.is_new()? {
                return Err(invalid("/code", "this is not the code that the program printed when it started").into());
            }
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
            problems.push(Problem::new(pointer, format!("{what} of 1 to 80 characters in one line is needed")));
        }
    };
    needed("/name", &new.name, "a name");
    needed("/login", &new.login, "a login");
    let hash = hash_password(&new.password);
    if let Err(error) = hash {
        problems.push(Problem::new("/password", error.to_string()));
    }
    if !problems.is_empty() {
        return Err(DeskError::Invalid(problems).into());
    }
    Ok(NewAccount {
        login: new.login.trim().to_owned(),
        name: new.name.trim().to_owned(),
        role: Role::Owner,
        password_hash: hash.map_err(|error: PasswordError| DeskError::Internal(error.to_string()))?,
    })
}

/// Keeps the units in which whoever is signed in reads and types.
#[utoipa::path(tag = "session", request_body = Measures, responses(
    (status = 200, body = SessionView), (status = 401, body = ProblemDetails)))]
#[put("/account/measures")]
pub(crate) async fn save_measures(
    state: web::Data<AppState>,
    who: SignedIn,
    body: web::Json<Measures>,
) -> Result<web::Json<SessionView>, ApiError> {
    let measures = body.into_inner();
    let kept = state.run(move |store| {
        store.set_measures(&who.0.id, measures)?;
        Ok(standing(SessionStanding::SignedIn, Some(&Account { measures, ..who.0 })))
    });
    kept.await.map(web::Json)
}

/// Signs out: the session ends on the server too.
#[utoipa::path(tag = "session", responses((status = 204), (status = 500, body = ProblemDetails)))]
#[delete("")]
pub(crate) async fn sign_out(session: Session) -> HttpResponse {
    session.purge();
    HttpResponse::NoContent().finish()
}
