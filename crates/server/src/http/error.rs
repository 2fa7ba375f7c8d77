//! Errors as problem details (RFC 9457). Kinds are mapped to statuses here and nowhere else.

use actix_web::http::StatusCode;
use actix_web::{HttpResponse, ResponseError};
use casefile::Problem;
use desk::{DeskError, OpenError, UNREADABLE};
use serde::{Deserialize, Serialize};
use std::path::PathBuf;
use store::StoreError;
use utoipa::ToSchema;
use vision::PhotoError;

/// Why the server could not start.
#[derive(Debug, thiserror::Error)]
pub enum ServeError {
    /// The port is taken.
    #[error("port {port} on {host} is in use: stop the other program or choose another with {option}")]
    PortInUse {
        /// Where.
        host: String,
        /// Which.
        port: u16,
        /// The option that chooses it.
        option: &'static str,
    },
    /// The address cannot be listened on.
    #[error("cannot listen on {host}:{port}: {why}")]
    Address {
        /// Where.
        host: String,
        /// Which.
        port: u16,
        /// Why not.
        why: std::io::Error,
    },
    /// A certificate or its key cannot be used.
    #[error("{} cannot be used for HTTPS: {why}", path.display())]
    Certificate {
        /// The file.
        path: PathBuf,
        /// Why not.
        why: String,
    },
    /// The practice cannot be opened.
    #[error(transparent)]
    Open(#[from] OpenError),
    /// What counts how the program does cannot be set up.
    #[error("the figures of the program cannot be counted: {0}")]
    Metrics(String),
    /// The store failed.
    #[error(transparent)]
    Store(#[from] StoreError),
    /// The server stopped.
    #[error("the server stopped: {0}")]
    Stopped(#[from] std::io::Error),
}

/// An error of a request.
#[derive(Debug)]
pub enum ApiError {
    /// Nobody is signed in.
    SignInNeeded,
    /// Login and password do not match.
    SignInFailed,
    /// A private link does not open; the sentence says why.
    LinkShut(String),
    /// Too much of the same person waits already.
    Busy(String),
    /// The password was right; the code of the second factor is missing or wrong.
    FactorNeeded(String),
    /// A login may be tried again after so many seconds.
    TooOften(u64),
    /// A body took too long.
    Slow(String),
    /// The desk did not do what was asked.
    Desk(DeskError),
}

impl From<DeskError> for ApiError {
    fn from(error: DeskError) -> Self {
        Self::Desk(error)
    }
}

impl From<StoreError> for ApiError {
    fn from(error: StoreError) -> Self {
        Self::Desk(error.into())
    }
}

/// An upload that broke off.
impl From<actix_web::Error> for ApiError {
    fn from(error: actix_web::Error) -> Self {
        DeskError::Malformed(format!("the upload broke off: {error}")).into()
    }
}

/// The body of an error.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct ProblemDetails {
    /// `about:blank`: the status says the type.
    #[serde(rename = "type")]
    pub kind: String,
    /// The status in words.
    pub title: String,
    /// HTTP status.
    pub status: u16,
    /// One sentence for the coach.
    pub detail: String,
    /// Each place that is wrong.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub errors: Vec<Problem>,
    /// The stored revision, in a conflict.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub current_revision: Option<i32>,
}

impl ProblemDetails {
    pub(crate) fn new(status: StatusCode, detail: impl Into<String>) -> Self {
        Self {
            kind: "about:blank".to_owned(),
            title: status.canonical_reason().unwrap_or("Error").to_owned(),
            status: status.as_u16(),
            detail: detail.into(),
            errors: Vec::new(),
            current_revision: None,
        }
    }

    pub(crate) fn response(&self) -> HttpResponse {
        let status = StatusCode::from_u16(self.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR);
        HttpResponse::build(status).content_type("application/problem+json").json(self)
    }
}

impl ApiError {
    fn details(&self) -> ProblemDetails {
        let of = |detail: &str| ProblemDetails::new(self.status_code(), detail);
        match self {
            Self::SignInNeeded => of("Sign in first."),
            Self::TooOften(seconds) => of(&format!("Too many wrong passwords: try again in {seconds} s.")),
            Self::FactorNeeded(says) => {
                let problem = Problem::new("/code", says.clone());
                ProblemDetails { errors: vec![problem], ..of(says) }
            }
            Self::SignInFailed => of("Login and password do not match."),
            Self::LinkShut(detail) | Self::Busy(detail) | Self::Slow(detail) => of(detail),
            Self::Desk(error) => told(error, of),
        }
    }
}

/// What is told of something that the desk did not do; what is in its log only is told of to nobody.
fn told(error: &DeskError, of: impl Fn(&str) -> ProblemDetails) -> ProblemDetails {
    match error {
        DeskError::Malformed(detail)
        | DeskError::NotFound(detail)
        | DeskError::Refused(detail)
        | DeskError::TooMuch(detail)
        | DeskError::Full(detail) => of(detail),
        DeskError::Photo(error) => of(&error.to_string()),
        DeskError::Invalid(problems) => {
            let first = problems.first().map_or("Something is not valid.", |problem| problem.says.as_str());
            ProblemDetails { errors: problems.clone(), ..of(first) }
        }
        DeskError::Conflict { detail, current_revision } => {
            ProblemDetails { current_revision: *current_revision, ..of(detail) }
        }
        DeskError::Unreadable(_) => of(UNREADABLE),
        DeskError::Internal(_) => of("Something went wrong here; nothing was changed. The log says more."),
    }
}

impl std::fmt::Display for ApiError {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.write_str(&self.details().detail)
    }
}

impl ResponseError for ApiError {
    fn status_code(&self) -> StatusCode {
        match self {
            Self::SignInNeeded | Self::SignInFailed | Self::FactorNeeded(_) | Self::LinkShut(_) => {
                StatusCode::UNAUTHORIZED
            }
            Self::TooOften(_) | Self::Busy(_) => StatusCode::TOO_MANY_REQUESTS,
            Self::Slow(_) => StatusCode::REQUEST_TIMEOUT,
            Self::Desk(error) => status(error),
        }
    }

    fn error_response(&self) -> HttpResponse {
        if let Self::Desk(DeskError::Unreadable(why) | DeskError::Internal(why)) = self {
            tracing::error!(why, "internal error");
        }
        self.details().response()
    }
}

fn status(error: &DeskError) -> StatusCode {
    match error {
        DeskError::Malformed(_) => StatusCode::BAD_REQUEST,
        DeskError::Photo(PhotoError::TooHeavy) => StatusCode::PAYLOAD_TOO_LARGE,
        DeskError::Invalid(_) | DeskError::Photo(_) => StatusCode::UNPROCESSABLE_ENTITY,
        DeskError::Refused(_) => StatusCode::FORBIDDEN,
        DeskError::TooMuch(_) => StatusCode::TOO_MANY_REQUESTS,
        DeskError::Full(_) => StatusCode::INSUFFICIENT_STORAGE,
        DeskError::NotFound(_) => StatusCode::NOT_FOUND,
        DeskError::Conflict { .. } => StatusCode::CONFLICT,
        DeskError::Unreadable(_) | DeskError::Internal(_) => StatusCode::INTERNAL_SERVER_ERROR,
    }
}
