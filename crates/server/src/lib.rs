//! The application over HTTP: JSON under `/api/v1`, the embedded front end everywhere else.
//!
//! Thin: a handler extracts, calls the store and the core, and wraps. Rules of the job live in the core.

mod app;
mod assets;
mod auth;
mod budget;
mod dto;
mod error;
mod feed;
mod kept;
mod learning;
mod logging;
mod looking;
mod metrics;
mod planning;
mod queue;
mod receiving;
mod reviewing;
mod roster;
mod routes;
mod security;
mod since;
mod spool;
mod standin;
mod state;
mod taking;
mod tls;
mod training;
mod workshop;

pub use app::{Line, application, openapi, serve};
pub use auth::{PasswordError, hash_password};
pub use error::ServeError;
pub use learning::learn_eyes;
pub use state::{AppState, MadeUp, MakesUp};
pub use tls::Certificate;
