//! One value from two or three readings, and whether a third is needed.

/// The value of a site from its readings.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Replicate {
    /// Mean of one or two readings, median of three; in the unit of the readings.
    pub value: f64,
    /// How many readings it rests on.
    pub readings: usize,
    /// First against second reading, percent of their mean; `None` with one reading.
    pub difference_pct: Option<f64>,
    /// Two readings that disagree by more than the rule allows.
    pub needs_third: bool,
}

/// Combines readings by ISAK practice (from memory): the mean of two, the median of three; a third reading when two differ
/// by more than `third_reading_pct` percent of their mean. `None` without readings.
///
/// ```
/// let arm = assess::replicate(&[37.4, 37.6], 1.0);
/// assert!(arm.is_some_and(|arm| arm.value == 37.5 && !arm.needs_third));
/// ```
pub fn replicate(readings: &[f64], third_reading_pct: f64) -> Option<Replicate> {
    let difference_pct = match readings {
        [first, second, ..] => Some(100.0 * (first - second).abs() / f64::midpoint(*first, *second)),
        _ => None,
    };
    let value = match readings {
        [] => return None,
        [one] => *one,
        [first, second] => f64::midpoint(*first, *second),
        more => median(more),
    };
    let needs_third = readings.len() == 2 && difference_pct.is_some_and(|d| d > third_reading_pct);
    Some(Replicate { value, readings: readings.len(), difference_pct, needs_third })
}

fn median(readings: &[f64]) -> f64 {
    let mut sorted = readings.to_vec();
    sorted.sort_by(f64::total_cmp);
    let middle = sorted.len() / 2;
    if sorted.len() % 2 == 1 { sorted[middle] } else { f64::midpoint(sorted[middle - 1], sorted[middle]) }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::one_reading_stands_alone(&[37.4], 37.4, false)]
    #[case::two_that_agree_are_averaged(&[37.4, 37.6], 37.5, false)]
    #[case::two_that_disagree_ask_for_a_third(&[37.0, 38.0], 37.5, true)]
    #[case::three_give_the_median(&[37.0, 38.0, 37.2], 37.2, false)]
    fn readings_become_one_value(#[case] readings: &[f64], #[case] value: f64, #[case] needs_third: bool) {
        let combined = replicate(readings, 1.0).unwrap();
        assert!((combined.value - value).abs() < 1e-12);
        assert_eq!((combined.readings, combined.needs_third), (readings.len(), needs_third));
    }

    #[test]
    fn no_readings_give_no_value() {
        assert_eq!(replicate(&[], 1.0), None);
    }
}
