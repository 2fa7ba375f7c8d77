//! Regions, poses, looks and equipment.

use crate::lift::{Day, Part};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{EquipmentId, LookId, PoseId, RegionId, SiteId};
use utoipa::ToSchema;

/// A head of a muscle, or a part of one with its own fibre direction, that a coach can see, emphasise and name.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Region {
    /// Stable id; the part before the dot is the muscle.
    pub id: RegionId,
    /// What a coach calls it.
    pub name: String,
    /// Whether it has a left and a right.
    pub paired: bool,
    /// What it does, anatomically.
    pub action: String,
    /// The big part it belongs to, where it belongs to one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub part: Option<Part>,
    /// The day it belongs to where days have themes; none for what fits any day.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub day: Option<Day>,
    /// The girth site whose tape speaks for it and its neighbours, where one does.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub area: Option<SiteId>,
    /// What it does in several ways, each of which a week that brings it up covers.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub actions: Vec<String>,
    /// The poses that show it.
    pub poses: Vec<PoseId>,
    /// Why it often lags.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lags_because: Option<String>,
    /// Regions or named causes that tend to take its work over.
    pub taken_over_by: Vec<String>,
    /// How much it shows, 0 to 1: how early it gets sets of its own when it is not chosen.
    #[serde(default = "fully_visible")]
    pub visibility: f64,
}

fn fully_visible() -> f64 {
    1.0
}

/// One of the sport's standard poses.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Pose {
    /// Stable id, such as `FDB`.
    pub id: PoseId,
    /// What a coach calls it.
    pub name: String,
}

/// A weighting over regions: what the client wants to see.
#[derive(Clone, Debug, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Look {
    /// Stable id, such as `taper`.
    pub id: LookId,
    /// What a coach calls it.
    pub name: String,
    /// One sentence why these regions.
    pub reason: String,
    /// Weight by region id, or by muscle for all its regions; 1 is neutral.
    pub weights: BTreeMap<String, f64>,
}

impl Look {
    /// The weight of a region: its own, else its muscle's, else 1.
    pub fn weight(&self, region: &RegionId) -> f64 {
        let own = self.weights.get(region.as_str());
        own.or_else(|| self.weights.get(region.muscle())).copied().unwrap_or(1.0)
    }
}

/// A piece of equipment an exercise may ask for.
#[derive(Clone, Debug, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Equipment {
    /// Stable id, such as `machine:leg-press`.
    pub id: EquipmentId,
    /// What a coach calls it.
    pub name: String,
    /// Whether every client has it.
    #[serde(default)]
    pub always: bool,
}

/// A named set of equipment a coach can start from.
#[derive(Clone, Debug, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Kit {
    /// Stable id.
    pub id: String,
    /// What a coach calls it.
    pub name: String,
    /// Its equipment.
    pub items: Vec<EquipmentId>,
}
