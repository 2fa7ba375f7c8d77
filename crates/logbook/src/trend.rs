//! A value over the rounds or sessions with its noise band: what one measurement may differ by without anything having changed.

use crate::review::TWO_SIDED_95;
use assess::slope;

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
    /// Change from first to last, when it is more than noise: by the line through all points where they are three or more with
    /// known errors, else by what the noise of both explains.
    pub fn moved(&self) -> Option<f64> {
        let (first, last) = (self.points.first()?, self.points.last()?);
        let days: Vec<f64> =
            self.points.iter().map(|p| p.on.duration_since(first.on).as_hours() as f64 / 24.0).collect();
        let values: Vec<f64> = self.points.iter().map(|p| p.value).collect();
        let weights: Vec<f64> = self.points.iter().map(|p| (p.band / TWO_SIDED_95).powi(-2)).collect();
        if let Some(line) = slope(&days, &values, &weights).filter(|_| weights.iter().all(|w| w.is_finite())) {
            let real = line.rise.abs() > TWO_SIDED_95 * line.se;
            return real.then(|| line.at(days[days.len() - 1]) - line.at(0.0));
        }
        let change = last.value - first.value;
        (self.points.len() > 1 && change.abs() > first.band.hypot(last.band)).then_some(change)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use assess::mdc95;
    use rstest::rstest;

    // Two: a change is real beyond 1.96 sqrt(SE1^2 + SE2^2); bands are 1.96 SE. Three, four weeks apart with alike errors: the
    // line rises by half of last less first over the eight weeks' half, its error that of the two ends.
    #[rstest]
    #[case::within_the_noise(&[(36.0, 0.5), (36.6, 0.5)], None)]
    #[case::beyond_it(&[(36.0, 0.5), (36.8, 0.5)], Some(0.8))]
    #[case::three_speak_together(&[(36.0, 0.5), (36.2, 0.5), (36.8, 0.5)], Some(0.8))]
    #[case::one_lucky_end_is_no_trend(&[(36.0, 0.5), (35.8, 0.5), (36.1, 0.5), (36.6, 0.5)], None)]
    #[case::one_value_moves_nowhere(&[(36.0, 0.1)], None)]
    #[case::without_an_error_the_ends_speak(&[(36.0, 0.0), (37.0, 0.0), (36.5, 0.0)], Some(0.5))]
    fn noise_is_no_trend(#[case] values: &[(f64, f64)], #[case] moved: Option<f64>) {
        let first = jiff::civil::date(2026, 3, 2);
        let on = |round: usize| first + jiff::Span::new().weeks(4 * i64::try_from(round).unwrap());
        let point = |(i, (value, band)): (usize, &(f64, f64))| TrendPoint { on: on(i), value: *value, band: *band };
        let found = Trend { points: values.iter().enumerate().map(point).collect() }.moved();
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
