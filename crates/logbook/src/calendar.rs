//! Which session is due when.

use jiff::ToSpan;
use jiff::civil::{Date, Weekday};

/// A session of a plan on the calendar.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct DueSession {
    /// Week counted from the plan's first, from 1; runs on after the block.
    pub week: u8,
    /// Weekday, Monday = 1.
    pub day: u8,
    /// Its place among the plan's sessions.
    pub session: usize,
    /// The day.
    pub on: Date,
}

/// Monday of a day's week.
pub fn monday(day: Date) -> Date {
    day.checked_sub(i64::from(day.weekday().since(Weekday::Monday)).days()).unwrap_or(day)
}

/// The sessions of the week of `today`, for a plan that starts on the Monday `starts_on` with sessions on `days`. Empty
/// before the plan starts.
pub fn due(starts_on: Date, days: &[u8], today: Date) -> Vec<DueSession> {
    let monday = monday(today);
    let since = monday.duration_since(starts_on).as_hours() / 24;
    let Some(week) = u8::try_from(since / 7 + 1).ok().filter(|_| since >= 0) else { return Vec::new() };
    let on = |day: u8| monday.checked_add((i64::from(day) - 1).days()).unwrap_or(monday);
    days.iter().enumerate().map(|(session, day)| DueSession { week, day: *day, session, on: on(*day) }).collect()
}

/// The week of the block whose sets hold in a week: after the block its last full week goes on, until the next plan.
/// `lighter` says of each week of the block whether it is a lighter one.
pub fn block_week(lighter: &[bool], week: u8) -> usize {
    let index = usize::from(week.max(1)) - 1;
    if index < lighter.len() {
        return index;
    }
    lighter.iter().rposition(|lighter| !lighter).unwrap_or(0)
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::before_it_starts("2026-03-01", None)]
    #[case::its_first_monday("2026-03-02", Some((1, "2026-03-04")))]
    #[case::its_first_sunday("2026-03-08", Some((1, "2026-03-04")))]
    #[case::the_week_after("2026-03-09", Some((2, "2026-03-11")))]
    #[case::over_new_year("2027-01-03", Some((44, "2026-12-30")))]
    fn sessions_fall_on_their_weekday(#[case] today: &str, #[case] expected: Option<(u8, &str)>) {
        let due = due("2026-03-02".parse().unwrap(), &[1, 3, 5], today.parse().unwrap());
        let middle = due.get(1).map(|session| (session.week, session.on.to_string()));
        assert_eq!(middle, expected.map(|(week, on)| (week, on.to_owned())));
    }

    #[rstest]
    #[case::first(1, 0)]
    #[case::the_lighter_one(6, 5)]
    #[case::after_the_block_the_last_full_week(7, 4)]
    fn sets_go_on_after_the_block(#[case] week: u8, #[case] of: usize) {
        assert_eq!(block_week(&[false, false, false, false, false, true], week), of);
    }
}
