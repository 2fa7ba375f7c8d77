//! A value over the rounds or sessions with its noise band: what one measurement may differ by without anything having changed.

use crate::review::TWO_SIDED_95;

/// A value on a day.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct TrendPoint {
    /// The day.
    pub on: jiff::civil::Date,
    /// The value.
    pub value: f64,
    /// Half the width of its 95 % band, in the value's unit; 0 where no error is known.
    pub band: f64,
}

/// Half the width of the 95 % band of one measurement, in the unit of its standard error. Two such bands together are the
/// smallest real change between two measurements.
pub fn noise_band(se: f64) -> f64 {
    TWO_SIDED_95 * se
}

/// A line of points, oldest first.
#[derive(Clone, Debug, PartialEq)]
pub struct Trend {
    /// The points.
    pub points: Vec<TrendPoint>,
}

impl Trend {
    /// Whether the newest point lies outside what the first one and the noise of both explain.
    pub fn moved(&self) -> Option<f64> {
        let (first, last) = (self.points.first()?, self.points.last()?);
        let change = last.value - first.value;
        (self.points.len() > 1 && change.abs() > first.band.hypot(last.band)).then_some(change)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use assess::mdc95;
    use rstest::rstest;

    // A change is real beyond 1.96 sqrt(SE1^2 + SE2^2); bands are 1.96 SE.
    #[rstest]
    #[case::within_the_noise(&[(36.0, 0.5), (36.6, 0.5)], None)]
    #[case::beyond_it(&[(36.0, 0.5), (36.2, 0.5), (36.8, 0.5)], Some(0.8))]
    #[case::one_value_moves_nowhere(&[(36.0, 0.1)], None)]
    fn noise_is_no_trend(#[case] values: &[(f64, f64)], #[case] moved: Option<f64>) {
        let on = "2026-03-02".parse().unwrap();
        let points = values.iter().map(|(value, band)| TrendPoint { on, value: *value, band: *band }).collect();
        let found = Trend { points }.moved();
        assert_eq!(found.map(|change| (change * 10.0).round() / 10.0), moved);
    }

    #[rstest]
    #[case(0.1, 0.2)]
    #[case(0.0, 0.3)]
    fn two_bands_together_are_the_smallest_real_change(#[case] before: f64, #[case] now: f64) {
        let bands = noise_band(before).hypot(noise_band(now));
        // 1.96 is the factor of one comparison to three digits.
        assert!((bands / mdc95(before.hypot(now), 1) - 1.0).abs() < 1e-4);
    }
}
