//! The questions asked before training.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A question with yes or no for an answer; yes asks for medical clearance.
#[derive(Clone, Debug, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ReadinessQuestion {
    /// Stable id, such as `heart`.
    pub id: String,
    /// The question as it is put to the client.
    pub asks: String,
}
