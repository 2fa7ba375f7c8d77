//! What is asked and answered of signing in.

use roles::Act;
use serde::{Deserialize, Serialize};
use units::Measures;
use utoipa::ToSchema;

/// How this browser stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum SessionStanding {
    /// The practice has no owner yet.
    New,
    /// Nobody is signed in here.
    SignedOut,
    /// Someone is.
    SignedIn,
}

/// How this browser stands, and as whom.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct SessionView {
    /// How it stands.
    pub standing: SessionStanding,
    /// The account of whoever is signed in: what a browser keeps belongs to it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub account: Option<String>,
    /// Who is signed in.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    /// Whether the first owner is asked for the code that the program printed.
    pub asks_for_code: bool,
    /// What they may do.
    pub acts: Vec<Act>,
    /// Units in which they read and type; everything sent and kept is metric.
    pub measures: Measures,
}

/// A try to sign in.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SignIn {
    /// The login.
    pub login: String,
    /// The password.
    pub password: String,
    /// The second factor's six digits, or a recovery code, where the account has one.
    #[serde(default)]
    pub code: String,
}

/// The owner's account, made at the first start.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewOwner {
    /// What others see.
    pub name: String,
    /// What is typed to sign in.
    pub login: String,
    /// At least ten characters.
    pub password: String,
    /// What the program printed when it started, where it asks for that.
    #[serde(default)]
    pub code: String,
}
