//! Where pictures are worked on, one at a time, and what sees who is in them.

use crate::error::DeskError;
use rayon::{ThreadPool, ThreadPoolBuilder};
use std::sync::{Arc, Mutex, PoisonError};
use vision::{Eye, Ingested, PhotoError, ingest};

/// One thread for all pictures: what a thread has freed the system keeps for that thread, so that decoding on whichever thread is free
/// would hold a picture's memory on each of them.
#[derive(Clone)]
pub(crate) struct Darkroom(Arc<ThreadPool>);

impl Darkroom {
    /// Opens it.
    ///
    /// # Errors
    /// When no thread can be started.
    pub fn open() -> Result<Self, std::io::Error> {
        ThreadPoolBuilder::new().num_threads(1).build().map(Arc::new).map(Self).map_err(std::io::Error::other)
    }

    /// Works on pictures, in turn with everybody else's.
    pub fn with<T: Send>(&self, work: impl FnOnce() -> T + Send) -> T {
        self.0.install(work)
    }

    /// Takes an upload apart.
    pub fn develop(&self, bytes: &[u8]) -> Result<Ingested, DeskError> {
        Ok(self.with(|| ingest(bytes))?)
    }
}

/// The pose model, loaded for the first picture: a practice without pictures starts at once and stays small. Clones share it.
#[derive(Clone, Default)]
pub(crate) struct OneEye(Arc<Mutex<Option<Arc<Eye>>>>);

impl OneEye {
    /// The model.
    ///
    /// # Errors
    /// [`PhotoError::Model`] when the shipped file does not load.
    pub fn open(&self) -> Result<Arc<Eye>, PhotoError> {
        let mut held = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(eye) = held.as_ref() {
            return Ok(Arc::clone(eye));
        }
        let eye = Arc::new(Eye::load()?);
        *held = Some(Arc::clone(&eye));
        Ok(eye)
    }
}
