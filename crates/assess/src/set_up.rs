//! How a client's stations are set, and what a hand on the muscle found.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// How an exercise's station is set for one client, and what the coach's hand found.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KeptSetUp {
    /// Which variant.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub variant: Option<String>,
    /// Numbers by name, in the units of the names.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub numbers: BTreeMap<String, f64>,
    /// What else to remember of it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
    /// The hands-on check.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub check: Option<HandsOn>,
}

/// A hand on the muscle: soft at rest and hard at work is what is looked for.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HandsOn {
    /// Soft while it rests.
    pub soft_at_rest: bool,
    /// Hard while it works.
    pub hard_at_work: bool,
    /// The joint angle at which a partner's resistance made it hardest, degrees.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hardest_deg: Option<f64>,
}

impl KeptSetUp {
    /// What the hand says for the exercise: 1 when the muscle works, -1 when it stays soft, 0 when nobody felt.
    pub fn speaks(&self) -> f64 {
        match &self.check {
            None => 0.0,
            Some(check) if check.hard_at_work => 1.0,
            Some(_) => -1.0,
        }
    }
}
