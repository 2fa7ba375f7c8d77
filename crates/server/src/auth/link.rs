//! The guard before a client's own page: the token of a private link, scoped to that client, and nothing else.

use crate::auth::acts::{Doer, note};
use crate::http::ApiError;
use crate::state::AppState;
use actix_web::body::{EitherBody, MessageBody};
use actix_web::dev::{Payload, ServiceRequest, ServiceResponse};
use actix_web::http::Method;
use actix_web::http::header::AUTHORIZATION;
use actix_web::middleware::Next;
use actix_web::{FromRequest, HttpMessage, HttpRequest, ResponseError, web};
use desk::my::NewKey;
use desk::today;
use rand::Rng;
use roles::Act;
use sha2::{Digest, Sha256};
use std::future::{Ready, ready};
use units::ClientId;

/// Length of a token, bytes: nobody guesses 256 bits.
const TOKEN_BYTES: usize = 32;

/// The client whose link was opened; present on every request that passed [`require_link`].
#[derive(Clone)]
pub(crate) struct LinkedClient {
    /// Whose page it is.
    pub client_id: ClientId,
    /// The last day on which it opens.
    pub expires_on: jiff::civil::Date,
}

impl FromRequest for LinkedClient {
    type Error = ApiError;
    type Future = Ready<Result<Self, ApiError>>;
    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        ready(request.extensions().get::<Self>().cloned().ok_or_else(shut))
    }
}

fn shut() -> ApiError {
    ApiError::LinkShut("This link does not open anything: ask your coach for a new one.".to_owned())
}

/// A new key of a link. Its token is shown once and kept nowhere.
pub(crate) fn new_key() -> NewKey {
    let mut bytes = [0_u8; TOKEN_BYTES];
    rand::rng().fill_bytes(&mut bytes);
    let token = hex::encode(bytes);
    let sha256 = hashed(&token);
    NewKey { token, sha256 }
}

fn hashed(token: &str) -> String {
    hex::encode(Sha256::digest(token.as_bytes()))
}

/// Lets a request pass only with the token of a link that is neither over nor taken back.
pub(crate) async fn require_link<B: MessageBody + 'static>(
    request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<EitherBody<B>>, actix_web::Error> {
    match linked(&request).await {
        Ok(client) => {
            let act = if request.path().contains("/my/photos") { Act::Photograph } else { Act::Log };
            // What is only looked at leaves nothing behind.
            let writes = request.method() != Method::GET && !request.path().ends_with("/photos/look");
            let state = request.app_data::<web::Data<AppState>>().cloned().filter(|_| writes);
            let client_id = client.client_id.clone();
            request.extensions_mut().insert(client);
            let response = next.call(request).await?;
            if let Some(state) = state.filter(|_| response.status().is_success()) {
                let doer = Doer { account_id: None, name: String::new() };
                note(&state, doer, act, Some(client_id)).await;
            }
            Ok(response.map_into_left_body())
        }
        Err(refusal) => Ok(request.into_response(refusal.error_response()).map_into_right_body()),
    }
}

async fn linked(request: &ServiceRequest) -> Result<LinkedClient, ApiError> {
    let header = request.headers().get(AUTHORIZATION).and_then(|value| value.to_str().ok());
    let token = header.and_then(|value| value.strip_prefix("Bearer ")).ok_or_else(shut)?;
    let hash = hashed(token);
    let state = request.app_data::<web::Data<AppState>>().cloned().ok_or_else(shut)?;
    let today = today();
    let found = state.run(move |store| Ok(store.link_by_hash(&hash, today)?)).await?.ok_or_else(shut)?;
    if found.revoked_on.is_some() {
        let says = "This link was taken back by your coach: ask for a new one. What is on this phone stays here.";
        return Err(ApiError::LinkShut(says.to_owned()));
    }
    if !found.opens_on(today) {
        let says = format!(
            "This link was open until {}: ask your coach for a new one. What is on this phone stays here.",
            found.expires_on
        );
        return Err(ApiError::LinkShut(says));
    }
    Ok(LinkedClient { client_id: found.client_id, expires_on: found.expires_on })
}
