//! The line of pull of an exercise, as told to the bench of a movement.

use levers::{Levers, RegionWork, SetUpNumber};
use serde::Serialize;
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// Who works along a movement in a set-up, with the figure at one place of its range.
#[derive(Serialize, ToSchema)]
pub(crate) struct LeversView {
    exercise: String,
    /// Whether muscles are worked out.
    modelled: bool,
    /// What to know about the answer, a sentence each.
    says: Vec<String>,
    /// Numbers of the set-up; those that may be turned.
    set_up: Vec<SetUpNumber>,
    /// Regions, hardest worked first.
    regions: Vec<RegionWork>,
    /// Torque to hold along the range, Nm, by joint of the model.
    torque_nm: BTreeMap<String, Vec<f64>>,
    /// The figure as SVG: its start pale, in ink where it is.
    figure: String,
}

impl LeversView {
    pub fn of(found: Levers, figure: String) -> Self {
        let mut torque_nm: BTreeMap<String, Vec<f64>> = BTreeMap::new();
        for point in &found.range {
            for (joint, nm) in &point.torque_nm {
                torque_nm.entry(joint.clone()).or_default().push(*nm);
            }
        }
        let Levers { exercise, set_up, modelled, says, regions, .. } = found;
        Self { exercise, modelled, says, set_up, regions, torque_nm, figure }
    }
}
