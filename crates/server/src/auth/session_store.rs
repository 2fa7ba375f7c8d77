//! Sessions of signed-in browsers in the store, behind the session middleware.

use crate::http::ApiError;
use actix_session::SessionMiddleware;
use actix_session::config::{CookieContentSecurity, PersistentSession, TtlExtensionPolicy};
use actix_session::storage::{LoadError, SaveError, SessionKey, SessionStore, UpdateError, generate_session_key};
use actix_web::body::MessageBody;
use actix_web::cookie::time::Duration;
use actix_web::cookie::{Key, SameSite};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::middleware::Next;
use actix_web::web;
use desk::{DeskError, FULL};
use rand::RngExt;
use sha2::{Digest, Sha256};
use std::collections::HashMap;
use store::{Store, StoreError};

type State = HashMap<String, String>;

/// The session store. Only a hash of a session's key is kept, so that a copy of the database signs nobody in.
pub(crate) struct SqliteSessions(pub Store);

const COOKIE: &str = "orthomer-session";
/// Behind HTTPS: a browser takes it over HTTPS alone, and from this host alone.
const HOST_COOKIE: &str = "__Host-orthomer-session";
/// The names a session goes by.
pub(crate) const SESSION_COOKIES: [&str; 2] = [HOST_COOKIE, COOKIE];
/// A session that nobody used for so long is over.
const IDLE: Duration = Duration::days(14);
/// What is kept of a session's use is this much off: not every request writes.
const IDLE_STEP: Duration = Duration::days(1);

/// The middleware: an HttpOnly, SameSite=Strict cookie that names a session on the server.
pub(crate) fn middleware(store: &Store, key: &Key, https: bool) -> SessionMiddleware<SqliteSessions> {
    SessionMiddleware::builder(SqliteSessions(store.clone()), key.clone())
        .cookie_name(if https { HOST_COOKIE } else { COOKIE }.to_owned())
        .cookie_http_only(true)
        .cookie_same_site(SameSite::Strict)
        // The studio's own network may speak plain HTTP.
        .cookie_secure(https)
        .cookie_content_security(CookieContentSecurity::Signed)
        .session_lifecycle(
            PersistentSession::default()
                .session_ttl(IDLE)
                .session_ttl_extension_policy(TtlExtensionPolicy::OnEveryRequest),
        )
        .build()
}

/// The key that signs cookies, made at the first start.
pub(crate) fn cookie_key(store: &Store) -> Result<Key, StoreError> {
    let fresh = || hex::encode(rand::rng().random::<[u8; 64]>());
    let text = store.setting_or("cookie-key", fresh)?;
    Ok(Key::derive_from(text.as_bytes()))
}

fn hashed(key: &str) -> String {
    hex::encode(Sha256::digest(key.as_bytes()))
}

impl SqliteSessions {
    async fn run<T: Send + 'static>(
        &self,
        work: impl FnOnce(&Store) -> Result<T, StoreError> + Send + 'static,
    ) -> Result<T, anyhow::Error> {
        let store = self.0.clone();
        Ok(web::block(move || work(&store)).await??)
    }

    async fn keep(&self, key: &SessionKey, state: &State, ttl: &Duration) -> Result<(), anyhow::Error> {
        let (key, state, ttl_s) = (hashed(key.as_ref()), serde_json::to_string(state)?, ttl.whole_seconds());
        self.run(move |store| store.keep_browser_session(&key, &state, ttl_s)).await
    }
}

impl SessionStore for SqliteSessions {
    async fn load(&self, session_key: &SessionKey) -> Result<Option<State>, LoadError> {
        let key = hashed(session_key.as_ref());
        let found = self.run(move |store| store.browser_session(&key)).await.map_err(LoadError::Other)?;
        let parsed = found.map(|text| serde_json::from_str(&text)).transpose();
        parsed.map_err(|error| LoadError::Deserialization(error.into()))
    }

    async fn save(&self, session_state: State, ttl: &Duration) -> Result<SessionKey, SaveError> {
        let key = generate_session_key();
        self.keep(&key, &session_state, ttl).await.map_err(SaveError::Other)?;
        Ok(key)
    }

    async fn update(&self, session_key: SessionKey, state: State, ttl: &Duration) -> Result<SessionKey, UpdateError> {
        self.keep(&session_key, &state, ttl).await.map_err(UpdateError::Other)?;
        Ok(session_key)
    }

    async fn update_ttl(&self, session_key: &SessionKey, ttl: &Duration) -> Result<(), anyhow::Error> {
        let (key, ttl_s) = (hashed(session_key.as_ref()), ttl.whole_seconds());
        let longer = self.run(move |store| store.lengthen_browser_session(&key, ttl_s, IDLE_STEP.whole_seconds()));
        // On a full disk the pages can still be read: the session ends a day sooner.
        if let Err(why) = longer.await {
            tracing::error!(%why, "a session was not lengthened");
        }
        Ok(())
    }

    async fn delete(&self, session_key: &SessionKey) -> Result<(), anyhow::Error> {
        let key = hashed(session_key.as_ref());
        self.run(move |store| store.end_browser_session(&key)).await
    }
}

/// Tells in a sentence that a session could not be kept or ended, as it cannot on a full disk: the session layer answers with nothing.
pub(crate) async fn told<B: MessageBody>(
    request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<B>, actix_web::Error> {
    next.call(request).await.map_err(|error| in_a_sentence(&error).into())
}

/// The layer keeps its cause to itself; only the text for programmers has it.
fn in_a_sentence(error: &actix_web::Error) -> ApiError {
    let why = format!("{error:?}");
    let error = if store::is_full(&why) { DeskError::Full(FULL.to_owned()) } else { DeskError::Internal(why) };
    error.into()
}

#[cfg(test)]
mod tests {
    use super::*;
    use actix_web::HttpResponse;
    use actix_web::ResponseError;
    use actix_web::error::InternalError;
    use actix_web::http::StatusCode;
    use rstest::rstest;

    #[rstest]
    #[case::a_full_disk("database or disk is full", StatusCode::INSUFFICIENT_STORAGE, "is full: nothing was changed")]
    #[case::anything_else("a table is gone", StatusCode::INTERNAL_SERVER_ERROR, "Something went wrong here")]
    fn a_session_that_cannot_be_kept_is_told_in_a_sentence(
        #[case] why: &'static str,
        #[case] status: StatusCode,
        #[case] says: &str,
    ) {
        // As the session layer answers when its store fails: no body, the cause inside.
        let cause = SaveError::Other(anyhow::anyhow!(why));
        let layer = InternalError::from_response(cause, HttpResponse::InternalServerError().finish());
        let told = in_a_sentence(&layer.into());
        assert_eq!(told.status_code(), status);
        assert!(told.to_string().contains(says), "{told}");
    }
}
