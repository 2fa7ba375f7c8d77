//! Whether pictures of a client may be taken in at all.

use crate::input::Client;
use jiff::civil::Date;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeSet;
use utoipa::ToSchema;

/// What pictures may be used for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum PhotoPurpose {
    /// Being judged by the coach: without this no picture is taken in.
    Assessment,
    /// Being shown to the client.
    SharingWithClient,
    /// Being shown to other coaches, to learn.
    Teaching,
}

/// Consent to pictures: when and what for. Withdrawn by taking it away, with every picture.
#[derive(Clone, Debug, PartialEq)]
pub struct PhotoConsent {
    /// The day it was given.
    pub given_on: Date,
    /// What for.
    pub purposes: BTreeSet<PhotoPurpose>,
}

/// Why no picture of a client is taken in.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
pub enum PhotoRefusal {
    /// Under 18, and no consent changes that.
    #[error("the client is under 18: Orthomer takes in no body pictures of minors")]
    Minor,
    /// Nobody agreed.
    #[error("there is no consent to photos for assessment in the brief: record it there first")]
    NoConsent,
}

impl Client {
    /// Why no picture taken on `day` may be taken in; `None` when it may.
    ///
    /// # Errors
    /// [`PhotoRefusal`].
    pub fn may_be_photographed(&self, day: Date) -> Result<(), PhotoRefusal> {
        if self.age_on(day) < Self::ADULT_YEARS {
            return Err(PhotoRefusal::Minor);
        }
        let agreed = self.photo_consent.as_ref();
        let agreed = agreed.is_some_and(|consent| consent.purposes.contains(&PhotoPurpose::Assessment));
        if agreed { Ok(()) } else { Err(PhotoRefusal::NoConsent) }
    }
}
