//! What is asked and answered of the people of a practice and of their ways in.

use roles::Role;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A second factor that is being set up: nothing is asked for until a code of it was shown.
#[derive(Serialize, ToSchema)]
pub struct FactorOffer {
    /// What phone and server will share, base32.
    pub secret: String,
    /// What a phone's authenticator reads.
    pub address: String,
}

/// A second factor set up: the secret that was offered, and a code that the phone made of it.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ConfirmFactor {
    /// As it was offered.
    pub secret: String,
    /// Six digits.
    pub code: String,
    /// The account's password: whoever finds a desk left open sets up nothing.
    pub password: String,
}

/// The password of whoever asks.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OwnPassword {
    /// As it was typed.
    pub password: String,
}

/// Codes for when the phone is lost, told once.
#[derive(Serialize, ToSchema)]
pub struct RecoveryCodes {
    /// Each opens once.
    pub codes: Vec<String>,
}

/// Someone who may sign in.
#[derive(Serialize, ToSchema)]
pub struct PersonView {
    /// Random id.
    pub id: String,
    /// What they type to sign in.
    pub login: String,
    /// What others see.
    pub name: String,
    /// What they may do.
    pub role: Role,
    /// Whether it is whoever asks.
    pub you: bool,
    /// Whether a second factor is set up.
    pub second_factor: bool,
}

/// Someone to be added.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewPerson {
    /// What they type to sign in.
    pub login: String,
    /// What others see.
    pub name: String,
    /// What they may do.
    pub role: Role,
    /// At least ten characters.
    pub password: String,
}

/// What is to be changed of someone; what is left out stays.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SavePerson {
    /// What others see.
    #[serde(default)]
    pub name: Option<String>,
    /// What they may do.
    #[serde(default)]
    pub role: Option<Role>,
    /// At least ten characters.
    #[serde(default)]
    pub password: Option<String>,
    /// The password of before, needed with a new one of one's own.
    #[serde(default)]
    pub old_password: Option<String>,
}
