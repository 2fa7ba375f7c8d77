//! What a round's pictures can be asked.

use atlas::Atlas;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::{PoseId, RegionId};
use utoipa::ToSchema;

/// A region and the poses of this round in which it can be judged, the best first.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Question {
    /// The region.
    pub region: RegionId,
    /// Poses that show it, of those there are.
    pub poses: Vec<PoseId>,
    /// Whether left can be judged against right: a paired region seen from the front or the back.
    pub sides: bool,
}

/// Poses that show one flank only.
const FLANKS: [&str; 6] = ["SL", "SR", "SLA", "SRA", "SC", "ST"];

/// The regions that `poses` show, in the atlas's order. A pose that does not show a region is not offered for it.
pub fn questions(atlas: &Atlas, poses: &[PoseId]) -> Vec<Question> {
    let each = atlas.regions().iter().filter_map(|region| {
        let shown: Vec<PoseId> = region.poses.iter().filter(|pose| poses.contains(pose)).cloned().collect();
        let sides = region.paired && shown.iter().any(|pose| !FLANKS.contains(&pose.as_str()));
        (!shown.is_empty()).then(|| Question { region: region.id.clone(), poses: shown, sides })
    });
    each.collect()
}
