//! Days in sentences that a coach reads.

use jiff::civil::Date;
use std::fmt::Display;

/// A day as the pages write it.
///
/// ```
/// let day = jiff::civil::date(2026, 3, 2);
/// assert_eq!(assess::day_in_words(day).to_string(), "2 Mar 2026");
/// ```
pub fn day_in_words(day: Date) -> impl Display {
    day.strftime("%-d %b %Y")
}
