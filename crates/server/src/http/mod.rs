//! What every answer has in common: errors, headers, limits, the front end, how the program does.

mod assets;
mod budget;
mod error;
mod events;
mod headers;
mod logging;
mod metrics;
mod spool;
mod tls;

pub(crate) use assets::serve as serve_asset;
pub(crate) use budget::{Budget, Crowd, Turn, at_the_door};
pub use error::ServeError;
pub(crate) use error::{ApiError, ProblemDetails};
pub(crate) use events::events;
pub(crate) use headers::{attachment, from_here, headers};
pub(crate) use logging::Impersonal;
pub(crate) use metrics::{Metrics, counted, serve as serve_metrics};
pub(crate) use spool::{Limits, Spooled, spool};
pub use tls::Certificate;
