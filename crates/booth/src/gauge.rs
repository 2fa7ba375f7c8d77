//! The stand-in for tape, gauge, calipers, scale and dynamometer: a reading of a known size, with the device's own error.

use rand::{Rng, RngExt};

/// A device with an error of its own.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Gauge {
    /// What it reads too much, in its unit.
    pub bias: f64,
    /// SD of a reading, in its unit.
    pub noise_sd: f64,
    /// The smallest step it shows, in its unit.
    pub step: f64,
}

impl Gauge {
    /// What it shows when held to something of size `truth`, in its unit. `None` when a number is none, the size or the
    /// noise is below 0, or nothing above 0 would be shown.
    pub fn read(&self, truth: f64, rng: &mut impl Rng) -> Option<f64> {
        let numbers = [truth, self.bias, self.noise_sd].into_iter().all(f64::is_finite);
        if !numbers || truth <= 0.0 || self.noise_sd < 0.0 {
            return None;
        }
        let shown = truth + self.bias + self.noise_sd * normal(rng);
        // Steps are decimal: divided by their number, not multiplied by the step, they leave no trace of binary fractions.
        let per_unit = (1.0 / self.step).round();
        let stepped = (shown * per_unit).round() / per_unit;
        (stepped > 0.0).then_some(stepped)
    }
}

/// A standard normal number (Box & Muller 1958).
fn normal(rng: &mut impl Rng) -> f64 {
    let (radius, angle): (f64, f64) = (rng.random_range(f64::EPSILON..1.0), rng.random_range(0.0..1.0));
    (-2.0 * radius.ln()).sqrt() * (std::f64::consts::TAU * angle).cos()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rand::SeedableRng;
    use rand::rngs::StdRng;
    use rstest::rstest;

    #[rstest]
    #[case::true_to_size(0.0, 0.0, 37.44, Some(37.4))]
    #[case::reads_long(0.5, 0.0, 37.4, Some(37.9))]
    #[case::nothing_below_zero(-40.0, 0.0, 37.4, None)]
    #[case::no_negative_noise(0.0, -1.0, 37.4, None)]
    #[case::no_number(f64::NAN, 0.0, 37.4, None)]
    fn a_reading_without_noise(
        #[case] bias: f64,
        #[case] noise_sd: f64,
        #[case] truth: f64,
        #[case] shown: Option<f64>,
    ) {
        let gauge = Gauge { bias, noise_sd, step: 0.1 };
        assert_eq!(gauge.read(truth, &mut StdRng::seed_from_u64(1)), shown);
    }

    // Mean and SD of 20,000 readings lie within five standard errors of what was set.
    #[test]
    fn readings_scatter_about_the_biased_size_as_set() {
        let gauge = Gauge { bias: 0.3, noise_sd: 0.4, step: 0.1 };
        let mut rng = StdRng::seed_from_u64(7);
        let readings: Vec<f64> = (0..20_000).filter_map(|_| gauge.read(37.0, &mut rng)).collect();
        let mean = readings.iter().sum::<f64>() / 20_000.0;
        let sd = (readings.iter().map(|r| (r - mean).powi(2)).sum::<f64>() / 19_999.0).sqrt();
        assert!((mean - 37.3).abs() < 5.0 * 0.4 / 20_000_f64.sqrt(), "{mean}");
        assert!((sd - 0.4).abs() < 0.02, "{sd}");
    }
}
