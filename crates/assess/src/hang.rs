//! The timed hang from a bar: how long the grip holds.

use crate::input::{Round, Test};

/// A timed hang against what is common.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Hang {
    /// How long, s.
    pub seconds: f64,
    /// Whether it is shorter than [`Hang::GOOD_AVERAGE_S`].
    pub short: bool,
}

impl Hang {
    /// A good average time when fresh, s (common practice, no source).
    pub const GOOD_AVERAGE_S: f64 = 100.0;
    /// What to aim for at the end of a forearm session, s (common practice, no source).
    pub const TIRED_AIM_S: f64 = 60.0;
}

/// The longest hang of a round.
pub(crate) fn hang(round: &Round) -> Option<Hang> {
    let seconds = |test: &Test| match test {
        Test::Hang(seconds) => Some(*seconds),
        Test::OneSide(_) | Test::Feel(_) => None,
    };
    let longest = round.tests.iter().filter_map(seconds).max_by(f64::total_cmp)?;
    Some(Hang { seconds: longest, short: longest < Hang::GOOD_AVERAGE_S })
}
