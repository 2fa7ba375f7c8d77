//! Named causes of a lag: what a coach calls them and what to do.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// A cause of a lag.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct CauseText {
    /// Stable id.
    pub id: String,
    /// What a coach calls it.
    pub name: String,
    /// What to do about it.
    #[serde(rename = "do")]
    pub advice: String,
}
