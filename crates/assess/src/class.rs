//! What a region is trained for this round: bring up, grow, keep or hold back.

use crate::input::Choices;
use crate::verdict::{RegionVerdict, Standing};
use atlas::Region;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The training class of a region, which sets its dose.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Class {
    /// Chosen: gets the most.
    BringUp,
    /// Trained for growth.
    Grow,
    /// Kept at what it has, giving recovery to the chosen ones.
    Keep,
    /// Indirect work only.
    HoldBack,
}

/// The class of a region (docs/decisions/0003-classes.md).
///
/// Chosen regions are brought up, and all of a chosen part; regions that are ahead or that the coach holds back get indirect work only. Of the rest,
/// those behind or weighted above neutral by the look grow; once something is chosen, the others give way and are kept.
pub fn classify(region: &Region, verdict: &RegionVerdict, choices: &Choices) -> Class {
    if choices.brings_up(region) {
        return Class::BringUp;
    }
    if choices.hold_back.contains(&verdict.region) || verdict.standing() == Standing::Ahead {
        return Class::HoldBack;
    }
    let wanted = verdict.standing() == Standing::Behind || verdict.look_weight > 1.0;
    if wanted || choices.priorities() == 0 { Class::Grow } else { Class::Keep }
}
