//! The application over HTTP: JSON under `/api/v1`, the embedded front end everywhere else.
//!
//! Thin: a handler extracts, asks the desk, and wraps. What is done, and by which rules, is not decided here.

mod app;
mod auth;
mod clients;
mod devices;
mod eye;
mod health;
mod http;
mod library;
mod log;
mod my;
mod photos;
mod plan;
mod practice;
mod review;
mod rounds;
mod session;
mod state;
mod tape;
mod today;
mod trials;

pub use app::{Line, application, openapi, serve};
pub use auth::{PasswordError, hash_password};
pub use http::{Certificate, ServeError};
pub use state::AppState;
