//! What every handler shares.

use crate::auth::{Attempts, Noted};
use crate::budget::{Budget, Crowd};
use crate::dto::ClientSummary;
use crate::error::{ApiError, ServeError};
use crate::feed::Feed;
use crate::kept::{Kept, Mark};
use crate::looking::{Looker, OneEye};
use crate::metrics::Metrics;
use crate::planning::{Proofs, Solved};
use crate::queue::{ClientDay, client_day, put_away_day, unreadable_day};
use crate::roster::rests_on_all;
use crate::routes::{Drawn, MeasuredTrends};
use crate::standin::StandIn;
use crate::training::Instead;
use crate::workshop::Workshop;
use actix_web::web::Bytes;
use actix_web::{HttpResponse, web};
use assess::Knowledge;
use atlas::PracticeSettings;
use casefile::{PracticeEntry, check_practice};
use jiff::ZonedDateTime;
use jiff::civil::Date;
use lighttable::{Frames, GirthShapes};
use rayon::{ThreadPool, ThreadPoolBuilder};
use serde::Serialize;
use std::net::IpAddr;
use std::sync::atomic::{AtomicU64, Ordering};
use std::sync::{Arc, OnceLock, RwLock};
use store::{Account, Stamp, Store, StoreError};
use tokio::sync::{OwnedSemaphorePermit, Semaphore};
use utoipa::ToSchema;
use vision::{Ingested, PhotoError, ingest};

/// Uploads read at once; more wait in files.
const UPLOADS_AT_ONCE: usize = 2;
/// Searches, exports and the like at once: each has threads of its own.
const WORK_AT_ONCE: usize = 2;

/// Knowledge as a practice's stored settings have it. They were checked before they were stored.
fn set(shipped: &Knowledge, practice: &PracticeEntry) -> Result<Knowledge, ServeError> {
    let checked = check_practice(&shipped.atlas, "", practice).map_err(|problems| {
        let first = problems.first().map(ToString::to_string).unwrap_or_default();
        ServeError::Settings(first)
    })?;
    Ok(shipped.with_practice(&checked))
}

fn written(value: &impl Serialize) -> Result<Bytes, ApiError> {
    serde_json::to_vec(value).map(Bytes::from).map_err(|error| ApiError::Internal(error.to_string()))
}

/// What a page is of.
pub(crate) enum PageOf {
    /// Everybody's rounds.
    Practice,
    /// Everybody's rounds and logs.
    Days,
    /// A client, by id.
    Client(String),
    /// A round, by id, with everything logged since.
    Round(String),
    /// A round as it stood on its day, by id: what was logged later does not change it.
    Sheet(String),
    /// A round until the next one, by id.
    Review(String),
}

/// Makes a client up to look around with, for a coach on a day: the same one again while they are there.
pub type MakesUp = dyn Fn(&Store, &Knowledge, &Account, Date) -> Result<MadeUp, String> + Send + Sync;

/// A client who is made up to look around with.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct MadeUp {
    /// Who it is.
    pub client_id: String,
    /// Their newest round.
    pub round_id: String,
}

/// The store and the knowledge of the trade.
#[derive(Clone)]
pub struct AppState {
    /// What is kept.
    pub store: Store,
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
    /// What ships with the product.
    shipped: Arc<Knowledge>,
    /// What is known, as the practice has set it.
    known: Arc<RwLock<Arc<Knowledge>>>,
    /// Where regions lie in pictures.
    pub(crate) frames: Arc<Frames>,
    /// How girths follow from pictures.
    pub(crate) shapes: Arc<GirthShapes>,
    /// What stand-in devices send to the sheets.
    pub(crate) feed: Feed,
    /// Sees who is in a picture.
    pub(crate) eye: OneEye,
    /// Looks at pictures.
    pub(crate) looker: Looker,
    /// What has been proven of weeks.
    pub(crate) proofs: Proofs,
    /// Each client's part of the queue.
    client_days: Kept<ClientDay>,
    /// Each client's line in the list.
    pub(crate) summaries: Kept<ClientSummary>,
    /// Pictures of the eye's sittings.
    pub(crate) drawn: Drawn,
    /// Weeks as the planner solved them.
    pub(crate) solved: Solved,
    /// Where searches and proofs are worked on.
    pub(crate) workshop: Workshop,
    /// Pages of a client or a round, as they are sent.
    pages: Kept<Bytes>,
    /// The newest arrival of a client's log up to a day.
    arrivals: Kept<i64>,
    /// What moved in a client's measurements over the rounds.
    pub(crate) moved: Kept<MeasuredTrends>,
    /// What could be done instead of each exercise of a given plan, by plan.
    pub(crate) instead: Kept<Instead>,
    /// Grows whenever the practice's settings change.
    settings: Arc<AtomicU64>,
    prover: Arc<Semaphore>,
    /// Requests being answered.
    pub(crate) crowd: Crowd,
    /// Taking in pictures and clients.
    pub(crate) taking: Budget,
    /// Searching, drawing, and writing whole clients out.
    pub(crate) working: Budget,
    darkroom: Arc<ThreadPool>,
    camera: Arc<OnceLock<StandIn>>,
    /// How the program does.
    pub(crate) metrics: Metrics,
    /// What was noted in this hour.
    pub(crate) noted: Noted,
    /// Makes clients up.
    pub(crate) makes_up: Option<Arc<MakesUp>>,
}

impl AppState {
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
        Self { makes_up: Some(makes_up), ..self }
    }

    /// The same, reached over HTTPS alone or not.
    pub fn behind_https(self, https: bool) -> Self {
        Self { https, ..self }
    }

    /// Starts to serve a store: pictures that wait are looked at from now on.
    ///
    /// # Errors
    /// A sentence when the shipped places of regions do not load or no thread can be started.
    pub fn new(store: Store, knowledge: Arc<Knowledge>) -> Result<Self, ServeError> {
        let darkroom = ThreadPoolBuilder::new().num_threads(1).build().map_err(std::io::Error::other)?;
        let darkroom = Arc::new(darkroom);
        let workshop = Workshop::open()?;
        let eye = OneEye::default();
        let practice = store.practice()?.settings;
        let known = Arc::new(RwLock::new(Arc::new(set(&knowledge, &practice)?)));
        Ok(Self {
            names: Arc::default(),
            proxies: Arc::default(),
            first_code: None,
            attempts: Attempts::default(),
            https: false,
            known,
            feed: Feed::default(),
            proofs: Proofs::default(),
            client_days: Kept::default(),
            summaries: Kept::default(),
            drawn: Drawn::default(),
            solved: Solved::in_workshop(workshop.clone()),
            workshop,
            pages: Kept::default(),
            arrivals: Kept::default(),
            moved: Kept::default(),
            instead: Kept::default(),
            settings: Arc::default(),
            prover: Arc::new(Semaphore::new(1)),
            frames: Arc::new(Frames::load().map_err(std::io::Error::other)?),
            shapes: Arc::new(GirthShapes::shipped().map_err(std::io::Error::other)?),
            looker: Looker::start(store.clone(), knowledge.clone(), darkroom.clone(), eye.clone()),
            eye,
            shipped: knowledge,
            crowd: Crowd::default(),
            taking: Budget::new(UPLOADS_AT_ONCE),
            working: Budget::new(WORK_AT_ONCE),
            darkroom,
            camera: Arc::new(OnceLock::new()),
            noted: Noted::default(),
            makes_up: None,
            metrics: Metrics::new()?,
            store,
        })
    }

    /// What is known, as the practice has set it.
    pub fn knowledge(&self) -> Arc<Knowledge> {
        self.known.read().map_or_else(|held| held.into_inner().clone(), |known| known.clone())
    }

    /// What ships, before the practice changed anything.
    pub(crate) fn shipped(&self) -> &Knowledge {
        &self.shipped
    }

    /// Takes up settings the practice has just saved.
    pub(crate) fn take_up(&self, practice: &PracticeSettings) {
        let new = Arc::new(self.shipped.with_practice(practice));
        *self.known.write().unwrap_or_else(std::sync::PoisonError::into_inner) = new;
        self.settings.fetch_add(1, Ordering::Release);
    }

    /// What a value follows from that was worked out for something with this stamp, today.
    pub(crate) fn mark(&self, stamp: Stamp, log: i64, day: Date) -> Mark {
        Mark { stamp: stamp.all, log, all: None, settings: self.settings.load(Ordering::Acquire), day }
    }

    /// A page of a client or a round as it is sent: worked out when anything it follows from has changed.
    pub(crate) async fn page<T, F>(
        &self,
        name: impl Into<String>,
        of: PageOf,
        work: F,
    ) -> Result<HttpResponse, ApiError>
    where
        T: Serialize,
        F: FnOnce(&Store, &Knowledge, &str) -> Result<T, ApiError> + Send + 'static,
    {
        let (state, name) = (self.clone(), name.into());
        let body = self.run(move |store, knowledge| state.page_bytes(store, knowledge, (&name, &of), work));
        Ok(HttpResponse::Ok().content_type("application/json").body(body.await?))
    }

    fn page_bytes<T: Serialize>(
        &self,
        store: &Store,
        knowledge: &Knowledge,
        (name, of): (&str, &PageOf),
        work: impl FnOnce(&Store, &Knowledge, &str) -> Result<T, ApiError>,
    ) -> Result<Bytes, ApiError> {
        let (PageOf::Client(id) | PageOf::Round(id) | PageOf::Sheet(id) | PageOf::Review(id)) = of else {
            let stamp = store.total_stamp()?;
            let log = if matches!(of, PageOf::Days) { stamp.log } else { 0 };
            let mark = Mark { all: Some(stamp.all), ..self.mark(Stamp::default(), log, Self::today()) };
            let body = self.pages.get(name, mark, || written(&work(store, knowledge, "")?))?;
            return Ok(body.as_ref().clone());
        };
        let round = if matches!(of, PageOf::Client(_)) { None } else { Some(store.round(id)?) };
        let client_id = round.as_ref().map_or_else(|| id.clone(), |round| round.client_id.clone());
        let key = format!("{name} {id}");
        // Before anything is read: what changes meanwhile makes the kept page an old one.
        let stamp = store.stamp(&client_id)?;
        let until = match (of, &round) {
            (PageOf::Sheet(_), Some(round)) => Some(round.taken_on),
            (PageOf::Review(_), Some(round)) => {
                store.rounds(&client_id)?.iter().map(|other| other.taken_on).find(|day| *day > round.taken_on)
            }
            _ => None,
        };
        let log = match until {
            Some(until) => {
                let mark = self.mark(stamp, stamp.log, Self::today());
                let newest = || store.newest_arrival(&client_id, until);
                *self.arrivals.get(&format!("{client_id} {until}"), mark, newest)?
            }
            None => stamp.log,
        };
        let mark = self.mark(stamp, log, Self::today());
        if let Some(body) = self.page_known(store, &key, mark)? {
            return Ok(body);
        }
        let _turn = self.pages.turn(&key);
        if let Some(body) = self.page_known(store, &key, mark)? {
            return Ok(body);
        }
        let own_roster = rests_on_all(knowledge, &store.client(&knowledge.atlas, &client_id)?.client);
        let all = if own_roster { Some(store.total_stamp()?.all) } else { None };
        let body = written(&work(store, knowledge, id)?)?;
        Ok(self.pages.keep(&key, Mark { all, ..mark }, body).as_ref().clone())
    }

    /// A page that was worked out from the same.
    fn page_known(&self, store: &Store, key: &str, mark: Mark) -> Result<Option<Bytes>, ApiError> {
        let Some((kept, body)) = self.pages.find(key) else { return Ok(None) };
        let all = if kept.all.is_some() { Some(store.total_stamp()?.all) } else { None };
        Ok((kept == Mark { all, ..mark }).then(|| body.as_ref().clone()))
    }

    /// Forgets what was worked out of clients: nothing of one who was erased stays.
    pub(crate) fn forget(&self) {
        self.client_days.clear();
        self.summaries.clear();
        self.pages.clear();
        self.arrivals.clear();
        self.moved.clear();
        self.instead.clear();
    }

    /// Every client's part of the queue.
    pub(crate) fn days(
        &self,
        store: &Store,
        knowledge: &Knowledge,
        day: Date,
    ) -> Result<Vec<Arc<ClientDay>>, ApiError> {
        let mut days = Vec::new();
        for (client_id, stamp) in store.stamps()? {
            let worked_out = self.client_days.get_soon(&client_id, self.mark(stamp, stamp.log, day), || {
                let record = store.client(&knowledge.atlas, &client_id)?;
                // Who was put away asks for nothing but whether they are still needed.
                if record.put_away_on.is_some() {
                    return put_away_day(store, knowledge, &record, day);
                }
                client_day(store, knowledge, &record, day)
            });
            match worked_out {
                // A client that was removed meanwhile needs nobody.
                Err(ApiError::NotFound(_)) => {}
                // One whose rows cannot be read says so, and keeps nobody else's from being seen.
                Err(ApiError::Unreadable(why)) => days.push(Arc::new(unreadable_day(store, &client_id, &why, day)?)),
                other => days.push(other?),
            }
        }
        Ok(days)
    }

    /// Waits until a proof may be made; the turn ends when what is given is dropped.
    pub(crate) async fn proof_turn(&self) -> Result<OwnedSemaphorePermit, ApiError> {
        self.prover.clone().acquire_owned().await.map_err(|error| ApiError::Internal(error.to_string()))
    }

    /// Takes an upload apart, on one thread for all: what a thread has freed the system keeps for that thread, so that
    /// decoding on whichever thread is free would hold a picture's memory on each of them.
    pub(crate) fn develop(&self, bytes: &[u8]) -> Result<Ingested, PhotoError> {
        self.in_darkroom(|| ingest(bytes))
    }

    /// Works on pictures, in turn with everybody else's.
    pub(crate) fn in_darkroom<T: Send>(&self, work: impl FnOnce() -> T + Send) -> T {
        self.darkroom.install(work)
    }

    /// The stand-in camera, loaded when it is first needed.
    pub(crate) fn stand_in_camera(&self) -> Result<&StandIn, ApiError> {
        if let Some(camera) = self.camera.get() {
            return Ok(camera);
        }
        let camera = StandIn::load().map_err(|error| ApiError::Internal(error.to_string()))?;
        Ok(self.camera.get_or_init(|| camera))
    }

    /// Runs blocking work on the store off the event loop.
    pub(crate) async fn run<T, F>(&self, work: F) -> Result<T, ApiError>
    where
        T: Send + 'static,
        F: FnOnce(&Store, &Knowledge) -> Result<T, ApiError> + Send + 'static,
    {
        let state = self.clone();
        web::block(move || work(&state.store, &state.knowledge()))
            .await
            .map_err(|error| ApiError::Internal(error.to_string()))?
    }

    /// As [`Self::run`], for work whose only errors are the store's.
    pub(crate) async fn read<T, F>(&self, work: F) -> Result<T, ApiError>
    where
        T: Send + 'static,
        F: FnOnce(&Store, &Knowledge) -> Result<T, StoreError> + Send + 'static,
    {
        self.run(move |store, knowledge| Ok(work(store, knowledge)?)).await
    }

    /// Today where the studio is.
    pub(crate) fn today() -> Date {
        ZonedDateTime::now().date()
    }
}
