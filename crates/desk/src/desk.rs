//! The desk: what is kept, what is known as the practice has set it, and what was worked out before.

use crate::clients::{ClientSummary, MakesUp};
use crate::error::DeskError;
use crate::eye::Drawn;
use crate::log::Instead;
use crate::memo::{Mark, Memo};
use crate::photos::{Darkroom, Looker, OneEye, StandIn};
use crate::plan::{Proofs, Solved};
use crate::review::MeasuredTrends;
use crate::today::ClientDay;
use crate::workshop::Workshop;
use assess::Knowledge;
use atlas::PracticeSettings;
use bytes::Bytes;
use casefile::{PracticeEntry, check_practice};
use jiff::ZonedDateTime;
use jiff::civil::Date;
use lighttable::{Frames, GirthShapes};
use std::sync::atomic::{AtomicU64, Ordering};
use std::sync::{Arc, OnceLock, PoisonError, RwLock};
use store::{Stamp, Store, StoreError};
use units::{ClientId, Place, PlanId};

/// Today where the studio is.
pub fn today() -> Date {
    ZonedDateTime::now().date()
}

/// Why a practice cannot be worked with.
#[derive(Debug, thiserror::Error)]
pub enum OpenError {
    /// The practice's stored settings do not fit this version.
    #[error("the practice's stored settings cannot be used: {0}")]
    Settings(String),
    /// The store failed.
    #[error(transparent)]
    Store(#[from] StoreError),
    /// A thread cannot be started, or what ships does not load.
    #[error("the practice cannot be opened: {0}")]
    Machine(#[from] std::io::Error),
}

/// Values kept at most: a few for each client of a large practice.
const MOST: u64 = 8192;
/// Pages kept at most, bytes.
const PAGES_BYTES: u64 = 96 * 1024 * 1024;

/// What was worked out before.
#[derive(Clone)]
pub(crate) struct Books {
    /// What has been proven of weeks.
    pub proofs: Proofs,
    /// Weeks as the planner solved them.
    pub solved: Solved,
    /// Each client's part of the queue, by id.
    pub days: Memo<ClientId, ClientDay>,
    /// Each client's line in the list, by id.
    pub summaries: Memo<ClientId, ClientSummary>,
    /// Pages as they are sent, by name and what they are of.
    pub pages: Memo<(String, String), Bytes>,
    /// The newest arrival of a client's log up to a day.
    pub arrivals: Memo<(ClientId, Date), i64>,
    /// What moved in a client's measurements over the rounds, by id.
    pub moved: Memo<ClientId, MeasuredTrends>,
    /// What could be done instead of each exercise of a given plan, by plan.
    pub instead: Memo<PlanId, Instead>,
    /// Pictures of the eye's sittings.
    pub drawn: Drawn,
}

impl Books {
    fn new(workshop: Workshop) -> Self {
        Self {
            proofs: Proofs::default(),
            solved: Solved::in_workshop(workshop),
            days: Memo::of(MOST),
            summaries: Memo::of(MOST),
            pages: Memo::weighing(PAGES_BYTES, |page: &Bytes| u32::try_from(page.len()).unwrap_or(u32::MAX)),
            arrivals: Memo::of(MOST),
            moved: Memo::of(MOST),
            instead: Memo::of(MOST),
            drawn: Drawn::default(),
        }
    }

    /// Forgets what was worked out of clients.
    fn forget(&self) {
        self.days.clear();
        self.summaries.clear();
        self.pages.clear();
        self.arrivals.clear();
        self.moved.clear();
        self.instead.clear();
    }
}

/// A practice as it is worked with. Clones are the same desk.
#[derive(Clone)]
pub struct Desk {
    /// What is kept.
    pub store: Store,
    /// What ships with the product.
    shipped: Arc<Knowledge>,
    /// What is known, as the practice has set it.
    known: Arc<RwLock<Arc<Knowledge>>>,
    /// Grows whenever the practice's settings change.
    settings: Arc<AtomicU64>,
    /// Where regions lie in pictures.
    pub(crate) frames: Arc<Frames>,
    /// How girths follow from pictures.
    pub(crate) shapes: Arc<GirthShapes>,
    /// Sees who is in a picture.
    pub(crate) eye: OneEye,
    /// Looks at pictures.
    pub(crate) looker: Looker,
    /// Where pictures are worked on.
    pub(crate) darkroom: Darkroom,
    camera: Arc<OnceLock<StandIn>>,
    /// Where searches and proofs are worked on.
    pub(crate) workshop: Workshop,
    /// What was worked out before.
    pub(crate) books: Books,
    /// Makes clients up.
    pub(crate) makes_up: Option<Arc<MakesUp>>,
}

impl Desk {
    /// Opens a practice: pictures that wait are looked at from now on.
    ///
    /// # Errors
    /// A sentence when the practice's settings do not fit, the shipped places of regions do not load or no thread can be started.
    pub fn open(store: Store, shipped: Arc<Knowledge>) -> Result<Self, OpenError> {
        let (darkroom, workshop) = (Darkroom::open()?, Workshop::open()?);
        let eye = OneEye::default();
        let known = as_set(&shipped, &store.practice()?.settings)?;
        Ok(Self {
            known: Arc::new(RwLock::new(Arc::new(known))),
            settings: Arc::default(),
            frames: Arc::new(Frames::load().map_err(std::io::Error::other)?),
            shapes: Arc::new(GirthShapes::shipped().map_err(std::io::Error::other)?),
            looker: Looker::start(store.clone(), shipped.clone(), darkroom.clone(), eye.clone()),
            eye,
            darkroom,
            camera: Arc::default(),
            books: Books::new(workshop.clone()),
            workshop,
            makes_up: None,
            shipped,
            store,
        })
    }

    /// The same, that makes clients up in this way.
    pub fn making_up(self, makes_up: Arc<MakesUp>) -> Self {
        Self { makes_up: Some(makes_up), ..self }
    }

    /// What is known, as the practice has set it.
    pub fn knowledge(&self) -> Arc<Knowledge> {
        self.known.read().unwrap_or_else(PoisonError::into_inner).clone()
    }

    /// What ships, before the practice changed anything.
    pub(crate) fn shipped(&self) -> &Knowledge {
        &self.shipped
    }

    /// Takes up settings the practice has just saved.
    pub(crate) fn take_up(&self, practice: &PracticeSettings) {
        let new = Arc::new(self.shipped.with_practice(practice));
        *self.known.write().unwrap_or_else(PoisonError::into_inner) = new;
        self.settings.fetch_add(1, Ordering::Release);
    }

    /// What a value follows from that was worked out for something with this stamp, on a day.
    pub(crate) fn mark(&self, stamp: Stamp, log: i64, day: Date) -> Mark {
        let settings = self.settings.load(Ordering::Acquire);
        Mark { stamp: stamp.all, log, all: None, proven: 0, settings, day }
    }

    /// Forgets what was worked out of clients: nothing of one who was erased stays.
    pub(crate) fn forget(&self) {
        self.books.forget();
    }

    /// The stand-in camera, loaded when it is first needed.
    pub(crate) fn stand_in_camera(&self) -> Result<&StandIn, DeskError> {
        if let Some(camera) = self.camera.get() {
            return Ok(camera);
        }
        let camera = StandIn::load().map_err(DeskError::internal)?;
        Ok(self.camera.get_or_init(|| camera))
    }
}

/// Knowledge as a practice's stored settings have it. They were checked before they were stored.
fn as_set(shipped: &Knowledge, practice: &PracticeEntry) -> Result<Knowledge, OpenError> {
    let checked = check_practice(&shipped.atlas, &Place::root(), practice).map_err(|problems| {
        let first = problems.first().map(ToString::to_string).unwrap_or_default();
        OpenError::Settings(first)
    })?;
    Ok(shipped.with_practice(&checked))
}
