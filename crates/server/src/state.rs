//! What every handler shares: the desk, and what is asked of it off the event loop.

use crate::auth::{Attempts, Noted};
use crate::devices::Feed;
use crate::http::{ApiError, Budget, Crowd, Limits, Metrics, ServeError, Spooled, Turn, spool};
use actix_web::{HttpResponse, web};
use assess::Knowledge;
use desk::clients::MakesUp;
use desk::{Desk, DeskError, RoundPage};
use serde::Serialize;
use std::net::IpAddr;
use std::sync::Arc;
use store::Store;
use tokio::sync::{OwnedSemaphorePermit, Semaphore};
use units::{ClientId, RoundId};

/// Uploads read at once; more wait in files.
const UPLOADS_AT_ONCE: usize = 2;
/// Searches, exports and the like at once: each has threads of its own.
const WORK_AT_ONCE: usize = 2;

/// The desk, and who is at the door.
#[derive(Clone)]
pub struct AppState {
    /// What is kept, known and worked out.
    pub desk: Desk,
    /// Names by which the practice is called beside its addresses.
    pub(crate) names: Arc<[String]>,
    /// Proxies whose word on a caller's address is taken.
    pub(crate) proxies: Arc<[IpAddr]>,
    /// What the first owner is asked for.
    pub(crate) first_code: Option<Arc<str>>,
    /// Sign-ins that failed lately.
    pub(crate) attempts: Attempts,
    /// Whether browsers reach it over HTTPS alone, by a proxy that speaks it.
    pub(crate) https: bool,
    /// What stand-in devices send to the sheets.
    pub(crate) feed: Feed,
    prover: Arc<Semaphore>,
    /// Requests being answered.
    pub(crate) crowd: Crowd,
    /// Taking in pictures and clients.
    pub(crate) taking: Budget,
    /// Searching, drawing, and writing whole clients out.
    pub(crate) working: Budget,
    /// How the program does.
    pub(crate) metrics: Metrics,
    /// What was noted in this hour.
    pub(crate) noted: Noted,
}

fn sent(body: web::Bytes) -> HttpResponse {
    HttpResponse::Ok().content_type("application/json").body(body)
}

impl AppState {
    /// Starts to serve a store: pictures that wait are looked at from now on.
    ///
    /// # Errors
    /// A sentence when the practice cannot be opened.
    pub fn new(store: Store, shipped: Arc<Knowledge>) -> Result<Self, ServeError> {
        Ok(Self {
            desk: Desk::open(store, shipped)?,
            names: Arc::default(),
            proxies: Arc::default(),
            first_code: None,
            attempts: Attempts::default(),
            https: false,
            feed: Feed::default(),
            prover: Arc::new(Semaphore::new(1)),
            crowd: Crowd::default(),
            taking: Budget::new(UPLOADS_AT_ONCE),
            working: Budget::new(WORK_AT_ONCE),
            metrics: Metrics::new()?,
            noted: Noted::default(),
        })
    }

    /// The same, told callers' addresses by these proxies.
    pub fn behind_proxies(self, proxies: impl Into<Arc<[IpAddr]>>) -> Self {
        Self { proxies: proxies.into(), ..self }
    }

    /// The same, whose first owner shows that they see what the program prints by a code.
    pub fn asking_for(self, code: Option<String>) -> Self {
        Self { first_code: code.map(Into::into), ..self }
    }

    /// The same, called by names too.
    pub fn called(self, names: impl Into<Arc<[String]>>) -> Self {
        Self { names: names.into(), ..self }
    }

    /// The same, that makes clients up in this way.
    pub fn making_up(self, makes_up: Arc<MakesUp>) -> Self {
        Self { desk: self.desk.making_up(makes_up), ..self }
    }

    /// The same, reached over HTTPS alone or not.
    pub fn behind_https(self, https: bool) -> Self {
        Self { https, ..self }
    }

    /// Asks the desk, off the event loop.
    pub(crate) async fn ask<T, F>(&self, work: F) -> Result<T, ApiError>
    where
        T: Send + 'static,
        F: FnOnce(&Desk) -> Result<T, DeskError> + Send + 'static,
    {
        let desk = self.desk.clone();
        let done = web::block(move || work(&desk)).await.map_err(|error| DeskError::Internal(error.to_string()))?;
        Ok(done?)
    }

    /// What the desk says, as JSON.
    pub(crate) async fn json<T, F>(&self, work: F) -> Result<web::Json<T>, ApiError>
    where
        T: Send + 'static,
        F: FnOnce(&Desk) -> Result<T, DeskError> + Send + 'static,
    {
        self.ask(work).await.map(web::Json)
    }

    /// The same, of something new.
    pub(crate) async fn created<T, F>(&self, work: F) -> Result<HttpResponse, ApiError>
    where
        T: Serialize + Send + 'static,
        F: FnOnce(&Desk) -> Result<T, DeskError> + Send + 'static,
    {
        Ok(HttpResponse::Created().json(self.ask(work).await?))
    }

    /// That it was done: there is nothing to say.
    pub(crate) async fn done<F>(&self, work: F) -> Result<HttpResponse, ApiError>
    where
        F: FnOnce(&Desk) -> Result<(), DeskError> + Send + 'static,
    {
        self.ask(work).await?;
        Ok(HttpResponse::NoContent().finish())
    }

    /// A page of everybody as it is sent, with their logs where `logs` says so: worked out when anything it follows from has changed.
    pub(crate) async fn page_of_all<T, F>(
        &self,
        name: impl Into<String>,
        logs: bool,
        work: F,
    ) -> Result<HttpResponse, ApiError>
    where
        T: Serialize,
        F: FnOnce(&Desk) -> Result<T, DeskError> + Send + 'static,
    {
        let name = name.into();
        Ok(sent(self.ask(move |desk| desk.page_of_all(&name, logs, work)).await?))
    }

    /// The same, of a client.
    pub(crate) async fn page_of_client<T, F>(
        &self,
        name: impl Into<String>,
        id: ClientId,
        work: F,
    ) -> Result<HttpResponse, ApiError>
    where
        T: Serialize,
        F: FnOnce(&Desk, &ClientId) -> Result<T, DeskError> + Send + 'static,
    {
        let name = name.into();
        Ok(sent(self.ask(move |desk| desk.page_of_client(&name, &id, work)).await?))
    }

    /// The same, of a round.
    pub(crate) async fn page_of_round<T, F>(
        &self,
        name: impl Into<String>,
        (id, of): (RoundId, RoundPage),
        work: F,
    ) -> Result<HttpResponse, ApiError>
    where
        T: Serialize,
        F: FnOnce(&Desk, &RoundId) -> Result<T, DeskError> + Send + 'static,
    {
        let name = name.into();
        Ok(sent(self.ask(move |desk| desk.page_of_round(&name, (&id, of), work)).await?))
    }

    /// Works on the store with errors of signing in, off the event loop.
    pub(crate) async fn run<T, F>(&self, work: F) -> Result<T, ApiError>
    where
        T: Send + 'static,
        F: FnOnce(&Store) -> Result<T, ApiError> + Send + 'static,
    {
        let store = self.desk.store.clone();
        web::block(move || work(&store)).await.map_err(|error| DeskError::Internal(error.to_string()))?
    }

    /// A body that is whole, and a turn to take it in. Of one person one at a time, and none takes a turn before it is whole: who sends
    /// slowly waits for nobody but themselves.
    pub(crate) async fn received(
        &self,
        who: &str,
        body: web::Payload,
        limits: Limits,
        too_large: impl Fn() -> ApiError,
    ) -> Result<(Spooled, Turn), ApiError> {
        let own = self.taking.own_turn(who).await?;
        let body = spool(self.desk.store.directory(), body, limits, too_large).await?;
        Ok((body, own.and_shared().await?))
    }

    /// Waits until a proof may be made; the turn ends when what is given is dropped.
    pub(crate) async fn proof_turn(&self) -> Result<OwnedSemaphorePermit, ApiError> {
        let turn = self.prover.clone().acquire_owned().await;
        Ok(turn.map_err(|error| DeskError::Internal(error.to_string()))?)
    }
}
