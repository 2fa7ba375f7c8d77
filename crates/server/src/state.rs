//! What every handler shares.

use crate::error::ApiError;
use actix_web::web;
use assess::Knowledge;
use jiff::ZonedDateTime;
use jiff::civil::Date;
use std::sync::Arc;
use store::{Store, StoreError};

/// The store and the knowledge of the trade.
#[derive(Clone)]
pub struct AppState {
    /// What is kept.
    pub store: Store,
    /// What is known.
    pub knowledge: Arc<Knowledge>,
}

impl AppState {
    /// Runs blocking work on the store off the event loop.
    pub(crate) async fn run<T, F>(&self, work: F) -> Result<T, ApiError>
    where
        T: Send + 'static,
        F: FnOnce(&Store, &Knowledge) -> Result<T, ApiError> + Send + 'static,
    {
        let state = self.clone();
        web::block(move || work(&state.store, &state.knowledge))
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
