//! What needs the coach, most pressing first.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Kinds of what needs the coach. The order is the order of pressing.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum QueueKind {
    /// A sign for a doctor or physiotherapist was logged.
    Refer,
    /// Pain that stops an exercise was logged.
    Pain,
    /// What is stored of a client cannot be read.
    Unreadable,
    /// The client wrote to the coach, and nobody has read it.
    Message,
    /// Two versions of an exercise stand side by side.
    Conflict,
    /// Pictures came in that nobody has judged.
    Photos,
    /// The client left a line in the log.
    Line,
    /// The block is over, or the last round is long ago.
    RoundDue,
    /// Something was chosen, and no plan was given for it.
    PlanToIssue,
    /// Falling lifts, sleep or soreness ask for a lighter week.
    Lighten,
    /// An exercise stands still.
    Stall,
    /// Nobody measured them for years: whether what is kept is still needed.
    Retention,
}

/// Weeks after which a round is due when no plan says so (common practice, no source).
pub const ROUND_WEEKS: i64 = 12;

#[cfg(test)]
mod tests {
    use super::*;

    // Today: pain or red flags, photos to inspect, rounds due, plans to issue, stalls.
    #[test]
    fn what_hurts_comes_before_what_waits() {
        let mut kinds = [
            QueueKind::Stall,
            QueueKind::RoundDue,
            QueueKind::Pain,
            QueueKind::PlanToIssue,
            QueueKind::Photos,
            QueueKind::Refer,
        ];
        kinds.sort_unstable();
        assert_eq!(
            kinds,
            [
                QueueKind::Refer,
                QueueKind::Pain,
                QueueKind::Photos,
                QueueKind::RoundDue,
                QueueKind::PlanToIssue,
                QueueKind::Stall
            ]
        );
    }
}
