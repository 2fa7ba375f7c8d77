//! What needs the coach, most pressing first.

use jiff::ToSpan;
use jiff::civil::Date;
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
/// A round taken at most so many days before the day that was agreed on is the one that was meant (common practice, no source).
const EARLY_DAYS: i64 = 7;

/// Why a round is due.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Due {
    /// The day that was agreed on has come.
    Agreed(Date),
    /// The block of the plan given since is over.
    BlockOver(Date),
    /// The last round is [`ROUND_WEEKS`] ago, and nothing was agreed on or given.
    LongAgo(Date),
}

impl Due {
    /// Whether and since when a client's next round is due `today`. `newest` is the day of their last round, `agreed` the day
    /// agreed on, `block_over` the end of the plan given since the last round. What was agreed on goes before the rest.
    pub fn on(today: Date, newest: Option<Date>, agreed: Option<Date>, block_over: Option<Date>) -> Option<Self> {
        let taken =
            |on: Date| newest.is_some_and(|newest| on.checked_sub(EARLY_DAYS.days()).is_ok_and(|from| newest >= from));
        if let Some(on) = agreed.filter(|on| !taken(*on)) {
            return (today >= on).then_some(Self::Agreed(on));
        }
        if let Some(over) = block_over {
            return (today >= over).then_some(Self::BlockOver(over));
        }
        let over = newest?.checked_add(ROUND_WEEKS.weeks()).ok()?;
        (today >= over).then_some(Self::LongAgo(over))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use jiff::civil::date;
    use rstest::rstest;

    const LAST: Option<Date> = Some(date(2026, 3, 2));
    const SOON: Option<Date> = Some(date(2026, 4, 20));

    // Common practice, no source.
    #[rstest]
    #[case::the_agreed_day_has_come((2026, 4, 20), LAST, SOON, None, Some(Due::Agreed(date(2026, 4, 20))))]
    #[case::it_has_not((2026, 4, 19), LAST, SOON, None, None)]
    #[case::a_round_of_that_week_was_it((2026, 4, 21), Some(date(2026, 4, 14)), SOON, None, None)]
    #[case::one_long_before_was_not((2026, 4, 21), Some(date(2026, 4, 10)), SOON, None, Some(Due::Agreed(date(2026, 4, 20))))]
    #[case::what_was_agreed_goes_before_the_block((2026, 4, 10), LAST, SOON, Some(date(2026, 4, 6)), None)]
    #[case::somebody_without_a_round((2026, 4, 20), None, SOON, None, Some(Due::Agreed(date(2026, 4, 20))))]
    #[case::the_block_is_over((2026, 4, 6), LAST, None, Some(date(2026, 4, 6)), Some(Due::BlockOver(date(2026, 4, 6))))]
    #[case::it_runs_on((2026, 6, 1), LAST, None, Some(date(2026, 6, 8)), None)]
    #[case::twelve_weeks_ago((2026, 5, 25), LAST, None, None, Some(Due::LongAgo(date(2026, 5, 25))))]
    #[case::eleven((2026, 5, 24), LAST, None, None, None)]
    #[case::nobody_was_measured_and_nothing_agreed((2026, 5, 25), None, None, None, None)]
    fn a_round_is_due_when_it_was_agreed_on_when_the_block_is_over_or_after_long(
        #[case] today: (i16, i8, i8),
        #[case] newest: Option<Date>,
        #[case] agreed: Option<Date>,
        #[case] block_over: Option<Date>,
        #[case] due: Option<Due>,
    ) {
        assert_eq!(Due::on(date(today.0, today.1, today.2), newest, agreed, block_over), due);
    }

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
