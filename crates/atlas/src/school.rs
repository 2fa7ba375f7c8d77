//! Questions on which coaches disagree, each with a default.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A practice setting that changes plans, cues or warnings.
#[derive(Clone, Debug, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct School {
    /// Key in the case file's `schools`.
    pub id: String,
    /// The question.
    pub question: String,
    /// The option used when nothing is chosen.
    pub default: String,
    /// Why that is the default.
    pub reason: String,
    /// The answers.
    #[serde(rename = "option")]
    pub options: Vec<SchoolOption>,
}

/// One answer.
#[derive(Clone, Debug, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SchoolOption {
    /// Value in the case file.
    pub id: String,
    /// The answer in words.
    pub name: String,
}
