//! Errors as problem details (RFC 9457). Kinds are mapped to statuses here and nowhere else.

use actix_web::http::StatusCode;
use actix_web::{HttpResponse, ResponseError};
use casefile::Problem;
use serde::{Deserialize, Serialize};
use std::path::PathBuf;
use store::{Kind, StoreError};
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
    /// The practice's stored settings do not fit this version.
    #[error("the practice's stored settings cannot be used: {0}")]
    Settings(String),
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
    /// The request does not have its shape.
    Malformed(String),
    /// Values break a rule.
    Invalid(Vec<Problem>),
    /// There is no such thing.
    NotFound(String),
    /// Someone was faster.
    Conflict {
        /// In a sentence.
        detail: String,
        /// What is stored now.
        current_revision: Option<i32>,
    },
    /// The rules of the job forbid it.
    Refused(String),
    /// Too much of the same person waits already.
    Busy(String),
    /// The password was right; the code of the second factor is missing or wrong.
    FactorNeeded(String),
    /// A login may be tried again after so many seconds.
    TooOften(u64),
    /// A body took too long.
    Slow(String),
    /// No room is left on the disk.
    Full(String),
    /// An upload is no picture to work with.
    Photo(PhotoError),
    /// A stored row does not read; the text goes to the log only.
    Unreadable(String),
    /// Not the caller's fault; the text goes to the log only.
    Internal(String),
}

impl From<StoreError> for ApiError {
    fn from(error: StoreError) -> Self {
        let current_revision = match &error {
            StoreError::Stale { current, .. } => Some(*current),
            _ => None,
        };
        match error.kind() {
            Kind::NotFound => Self::NotFound(error.to_string()),
            Kind::Conflict => Self::Conflict { detail: error.to_string(), current_revision },
            Kind::Refused => Self::Refused(error.to_string()),
            Kind::Invalid => Self::Malformed(error.to_string()),
            Kind::Full => Self::Full(full(&error)),
            Kind::Corrupt => Self::Unreadable(error.to_string()),
            Kind::Internal => Self::Internal(error.to_string()),
        }
    }
}

impl From<PhotoError> for ApiError {
    fn from(error: PhotoError) -> Self {
        match error {
            PhotoError::Model(why) => Self::Internal(why),
            refused => Self::Photo(refused),
        }
    }
}

/// A full disk in a sentence: a picture's own, else one for everything that is written to the database.
fn full(error: &StoreError) -> String {
    match error {
        StoreError::Full => error.to_string(),
        _ => FULL.to_owned(),
    }
}

/// What is said of rows that do not read.
pub(crate) const UNREADABLE: &str = "What is stored here cannot be read. Nothing was changed: `orthomer check` says where it is, and a backup \
                                     has it as it was.";

/// What is said of a full disk.
pub(crate) const FULL: &str =
    "The disk of the studio's computer is full: nothing was changed; make room and send it again.";

/// One value that breaks a rule.
pub(crate) fn invalid(pointer: &str, says: String) -> ApiError {
    ApiError::Invalid(vec![Problem { pointer: pointer.to_owned(), says }])
}

/// An upload that broke off.
impl From<actix_web::Error> for ApiError {
    fn from(error: actix_web::Error) -> Self {
        Self::Malformed(format!("the upload broke off: {error}"))
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
                let problem = Problem { pointer: "/code".to_owned(), says: says.clone() };
                ProblemDetails { errors: vec![problem], ..of(says) }
            }
            Self::SignInFailed => of("Login and password do not match."),
            Self::LinkShut(detail)
            | Self::Malformed(detail)
            | Self::NotFound(detail)
            | Self::Refused(detail)
            | Self::Busy(detail)
            | Self::Slow(detail)
            | Self::Full(detail) => of(detail),
            Self::Photo(error) => of(&error.to_string()),
            Self::Invalid(problems) => {
                let first = problems.first().map_or("Something is not valid.", |problem| problem.says.as_str());
                ProblemDetails { errors: problems.clone(), ..of(first) }
            }
            Self::Conflict { detail, current_revision } => {
                ProblemDetails { current_revision: *current_revision, ..of(detail) }
            }
            Self::Unreadable(_) => of(UNREADABLE),
            Self::Internal(_) => of("Something went wrong here; nothing was changed. The log says more."),
        }
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
            Self::Malformed(_) => StatusCode::BAD_REQUEST,
            Self::Photo(PhotoError::TooHeavy) => StatusCode::PAYLOAD_TOO_LARGE,
            Self::Invalid(_) | Self::Photo(_) => StatusCode::UNPROCESSABLE_ENTITY,
            Self::Refused(_) => StatusCode::FORBIDDEN,
            Self::TooOften(_) | Self::Busy(_) => StatusCode::TOO_MANY_REQUESTS,
            Self::Slow(_) => StatusCode::REQUEST_TIMEOUT,
            Self::Full(_) => StatusCode::INSUFFICIENT_STORAGE,
            Self::NotFound(_) => StatusCode::NOT_FOUND,
            Self::Conflict { .. } => StatusCode::CONFLICT,
            Self::Unreadable(_) | Self::Internal(_) => StatusCode::INTERNAL_SERVER_ERROR,
        }
    }

    fn error_response(&self) -> HttpResponse {
        if let Self::Unreadable(why) | Self::Internal(why) = self {
            tracing::error!(why, "internal error");
        }
        self.details().response()
    }
}
