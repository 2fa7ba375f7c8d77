//! Times from a device whose clock is wrong.

use jiff::{SignedDuration, Timestamp};

/// A device's clock may be off by so much before anybody is told, s (common practice, no source).
pub const MOST_SKEW_S: i64 = 120;

/// A time put right.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct ClockFix {
    /// When it happened.
    pub at: Timestamp,
    /// How far the device's clock is ahead, s; negative when it is slow. 0 when near enough.
    pub ahead_s: i64,
}

/// When something happened by the clock of whoever received it: `written` and `sent` are of the device's clock, `received`
/// is not. What would still lie ahead happened when it was received.
pub fn put_right(written: Timestamp, sent: Timestamp, received: Timestamp) -> ClockFix {
    let ahead = sent.duration_since(received);
    let off = ahead.abs() > SignedDuration::from_secs(MOST_SKEW_S);
    let shifted = if off { written.saturating_sub(ahead).unwrap_or(received) } else { written };
    ClockFix { at: shifted.min(received), ahead_s: if off { ahead.as_secs() } else { 0 } }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::right("10:00", "10:30", "10:30", "10:00", 0)]
    #[case::a_minute_off_is_near_enough("10:00", "10:31", "10:30", "10:00", 0)]
    #[case::three_hours_ahead("13:00", "13:30", "10:30", "10:00", 3 * 3600)]
    #[case::an_hour_slow("09:00", "09:30", "10:30", "10:00", -3600)]
    #[case::turned_back_between("12:00", "10:30", "10:30", "10:30", 0)]
    fn a_wrong_clock_is_put_right(
        #[case] written: &str,
        #[case] sent: &str,
        #[case] received: &str,
        #[case] at: &str,
        #[case] ahead_s: i64,
    ) {
        let time = |clock: &str| format!("2026-03-02T{clock}:00Z").parse::<Timestamp>().unwrap();
        assert_eq!(put_right(time(written), time(sent), time(received)), ClockFix { at: time(at), ahead_s });
    }
}
