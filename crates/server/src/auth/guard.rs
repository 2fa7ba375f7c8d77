//! The guard before every route that needs someone to be signed in, and the limit on sign-in attempts.

use crate::auth::acts::{Doer, allowed, client_of, note, route};
use crate::http::{ApiError, ProblemDetails};
use crate::state::AppState;
use actix_governor::governor::clock::QuantaInstant;
use actix_governor::governor::middleware::NoOpMiddleware;
use actix_governor::{Governor, GovernorConfig, GovernorConfigBuilder, KeyExtractor, SimpleKeyExtractionError};
use actix_session::{Session, SessionExt};
use actix_web::body::{EitherBody, MessageBody};
use actix_web::dev::{Payload, ServiceRequest, ServiceResponse};
use actix_web::http::{Method, StatusCode};
use actix_web::middleware::Next;
use actix_web::{FromRequest, HttpMessage, HttpRequest, HttpResponse, HttpResponseBuilder, ResponseError, web};
use desk::DeskError;
use jiff::Timestamp;
use roles::Act;
use sha2::{Digest, Sha256};
use std::future::{Ready, ready};
use std::net::IpAddr;
use std::sync::LazyLock;
use store::{Account, Kind, Store, StoreError};
use units::ClientId;

/// Keys in a session: the account's id, and the mark of the password it was opened with.
const ACCOUNT: &str = "account";
const PASSWORD: &str = "password";
/// When it was opened, s since 1970: however much it is used, it ends some day.
const BEGUN: &str = "begun";
const LONGEST_S: i64 = 30 * 24 * 60 * 60;

/// Whoever is signed in; present on every request that passed [`require_sign_in`].
#[derive(Clone)]
pub(crate) struct SignedIn(pub Account);

impl FromRequest for SignedIn {
    type Error = ApiError;
    type Future = Ready<Result<Self, ApiError>>;
    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        ready(request.extensions().get::<Self>().cloned().ok_or(ApiError::SignInNeeded))
    }
}

/// Lets a request pass only when its session names an account that still exists and may do what the route does; notes what was
/// done.
///
/// A refusal is an answer, not an error, so that it carries the same headers as every other answer.
pub(crate) async fn require_sign_in<B: MessageBody + 'static>(
    request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<EitherBody<B>>, actix_web::Error> {
    let (account, done) = match entered(&request).await {
        Ok(entered) => entered,
        Err(refusal) => return Ok(request.into_response(refusal.error_response()).map_into_right_body()),
    };
    let state = request.app_data::<web::Data<AppState>>().cloned();
    // Before its body is read: a flood of one person's requests is turned away at the door.
    let place = state.as_ref().map(|state| state.crowd.enter(&account.id)).transpose();
    let _place = match place {
        Ok(place) => place,
        Err(refusal) => return Ok(request.into_response(refusal.error_response()).map_into_right_body()),
    };
    request.extensions_mut().insert(SignedIn(account.clone()));
    let response = next.call(request).await?;
    if let Some((state, (act, client))) = state.zip(done)
        && response.status().is_success()
    {
        note(&state, Doer::of(&account), act, client).await;
    }
    Ok(response.map_into_left_body())
}

/// What is to be noted once it is done: what, and for which client.
type Done = Option<(Act, Option<ClientId>)>;

/// Who it is, and what is to be noted; a refusal when nobody is signed in or they may not.
async fn entered(request: &ServiceRequest) -> Result<(Account, Done), ApiError> {
    let opened = Opened::of(&request.get_session());
    let state = request.app_data::<web::Data<AppState>>().cloned();
    let (Some(opened), Some(state)) = (opened, state) else { return Err(ApiError::SignInNeeded) };
    let (method, path) = (request.method().clone(), request.path().to_owned());
    let looked_up = state.run(move |store| {
        let account = opened.account(store)?.ok_or(ApiError::SignInNeeded)?;
        let none = || DeskError::NotFound(format!("there is no {method} {path}"));
        let route = route(method.as_str(), &path).ok_or_else(none)?;
        allowed(&account, route.act)?;
        // Before it is done: what is removed has no client any more.
        let client = match route.names(&path) {
            Some((place, id)) => client_of(store, (place, &id))?,
            None => None,
        };
        Ok((account, route.is_noted().then_some((route.act, client))))
    });
    looked_up.await
}

/// What a session was opened with. It ends when the account's password is another one: whoever has the old one is out at once.
pub(crate) struct Opened {
    account_id: String,
    password: String,
    begun_s: i64,
}

impl Opened {
    pub fn of(session: &Session) -> Option<Self> {
        let kept = |key| session.get(key).unwrap_or_default();
        let begun_s = session.get(BEGUN).unwrap_or_default()?;
        Some(Self { account_id: kept(ACCOUNT)?, password: kept(PASSWORD)?, begun_s })
    }

    /// Whose session it is, while it holds.
    pub fn account(&self, store: &Store) -> Result<Option<Account>, StoreError> {
        if Timestamp::now().as_second() - self.begun_s > LONGEST_S {
            return Ok(None);
        }
        match store.account(&self.account_id) {
            Err(error) if error.kind() == Kind::NotFound => Ok(None),
            other => Ok(Some(other?).filter(|account| mark(account) == self.password)),
        }
    }
}

/// Opens a session for an account, under a new key: one from before can not be used to ride along.
pub(crate) fn open_session(session: &Session, account: &Account) -> Result<(), ApiError> {
    session.renew();
    let inserted = session.insert(ACCOUNT, &account.id).and_then(|()| session.insert(PASSWORD, mark(account)));
    let inserted = inserted.and_then(|()| session.insert(BEGUN, Timestamp::now().as_second()));
    Ok(inserted.map_err(|error| DeskError::Internal(error.to_string()))?)
}

/// Tells passwords of an account apart without saying anything about them.
fn mark(account: &Account) -> String {
    hex::encode(Sha256::digest(account.password_hash.as_bytes()))
}

/// The caller's address: the other end of the line, or what a proxy that is trusted says of it. A proxy adds who called it at the
/// end of `X-Forwarded-For`; what stands before that anybody can have written.
fn caller(request: &ServiceRequest) -> Option<IpAddr> {
    let peer = request.peer_addr()?.ip();
    let proxies = request.app_data::<web::Data<AppState>>().map(|state| state.proxies.clone()).unwrap_or_default();
    if !proxies.contains(&peer) {
        return Some(peer);
    }
    let said = request.headers().get_all("X-Forwarded-For").last().and_then(|value| value.to_str().ok());
    let named = said.and_then(|said| said.rsplit(',').next()?.trim().parse().ok());
    Some(named.unwrap_or(peer))
}

/// Attempts are counted per address of the caller.
#[derive(Clone)]
pub(crate) struct ByAddress;

impl KeyExtractor for ByAddress {
    type Key = IpAddr;
    type KeyExtractionError = SimpleKeyExtractionError<&'static str>;

    fn extract(&self, request: &ServiceRequest) -> Result<Self::Key, Self::KeyExtractionError> {
        let unknown = || SimpleKeyExtractionError::new("the caller has no address");
        caller(request).ok_or_else(unknown)
    }

    fn exceed_rate_limit_response(
        &self,
        wait: &actix_governor::governor::NotUntil<QuantaInstant>,
        mut response: HttpResponseBuilder,
    ) -> HttpResponse {
        use actix_governor::governor::clock::{Clock, DefaultClock};
        let seconds = wait.wait_time_from(DefaultClock::default().now()).as_secs() + 1;
        let detail = format!("Too many attempts to sign in: try again in {seconds} s.");
        response
            .status(StatusCode::TOO_MANY_REQUESTS)
            .insert_header(("Retry-After", seconds.to_string()))
            .content_type("application/problem+json")
            .json(ProblemDetails::new(StatusCode::TOO_MANY_REQUESTS, detail))
    }
}

/// So many attempts at once, then one every so many seconds.
const BURST: u32 = 10;
const SECONDS_AN_ATTEMPT: u64 = 6;

/// One count for all workers. `finish` gives none only for a burst or period of 0, which these are not.
static LIMIT: LazyLock<GovernorConfig<ByAddress, NoOpMiddleware<QuantaInstant>>> = LazyLock::new(|| {
    GovernorConfigBuilder::default()
        .key_extractor(ByAddress)
        .burst_size(BURST)
        .seconds_per_request(SECONDS_AN_ATTEMPT)
        .methods(vec![Method::POST])
        .finish()
        .unwrap_or_else(|| unreachable!("burst and period are above 0"))
});

/// Limits sign-in attempts per address.
pub(crate) fn sign_in_limit() -> Governor<ByAddress, NoOpMiddleware<QuantaInstant>> {
    Governor::new(&LIMIT)
}
