//! Is it small, or is the rest big? The size a site should have given the frame and the rest of this body.

use crate::norms::SexNorms;
use nalgebra::{DMatrix, DVector};
use statrs::distribution::{ContinuousCDF, FisherSnedecor};

/// A client's logs at the sites of the norms that were measured: (index into the norms, ln cm).
pub type ObservedLn = Vec<(usize, f64)>;

/// The conditional size of one site.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct ConditionalSize {
    /// Expected size, cm.
    pub expected_cm: f64,
    /// Square root of the conditional variance of ln(cm), measuring error apart.
    pub sd_ln: f64,
    /// How far the observed size lies from the expected, SD with the measuring error in it; negative = behind.
    pub z: f64,
}

fn covariance(norms: &SexNorms, sites: &[usize]) -> DMatrix<f64> {
    DMatrix::from_fn(sites.len(), sites.len(), |i, j| norms.covariance_ln[(sites[i], sites[j])])
}

/// Expected size, conditional SD and z of site `of` from all the other observed sites.
///
/// With x = ln(cm) multivariate normal: `E = mu_i + S_iA inv(S_AA) (x_A - mu_A)`, `V = S_ii - S_iA inv(S_AA) S_Ai`,
/// `z = (x_i - E) / sqrt(V + error variance)`. `error_variance_ln` is (%TEM/100)^2 / readings.
/// `None` when `of` was not observed or the others do not determine it.
pub fn conditional_size(
    norms: &SexNorms,
    observed: &[(usize, f64)],
    of: usize,
    error_variance_ln: f64,
) -> Option<ConditionalSize> {
    let own = observed.iter().find(|(site, _)| *site == of)?.1;
    let others: Vec<(usize, f64)> = observed.iter().copied().filter(|(site, _)| *site != of).collect();
    let sites: Vec<usize> = others.iter().map(|(site, _)| *site).collect();
    let deviations = DVector::from_iterator(others.len(), others.iter().map(|(site, x)| x - norms.mean_ln[*site]));
    let shared = DVector::from_iterator(sites.len(), sites.iter().map(|&site| norms.covariance_ln[(of, site)]));
    let weights = covariance(norms, &sites).cholesky()?.solve(&shared);
    let expected = norms.mean_ln[of] + weights.dot(&deviations);
    let variance = norms.covariance_ln[(of, of)] - weights.dot(&shared);
    if variance <= 0.0 {
        return None;
    }
    Some(ConditionalSize {
        expected_cm: expected.exp(),
        sd_ln: variance.sqrt(),
        z: (own - expected) / (variance + error_variance_ln).sqrt(),
    })
}

/// Squared Mahalanobis distance of the observed logs from the reference; its degrees of freedom are their number.
pub fn mahalanobis2(norms: &SexNorms, observed: &[(usize, f64)]) -> Option<f64> {
    let sites: Vec<usize> = observed.iter().map(|(site, _)| *site).collect();
    let deviations = DVector::from_iterator(observed.len(), observed.iter().map(|(i, x)| x - norms.mean_ln[*i]));
    let solved = covariance(norms, &sites).cholesky()?.solve(&deviations);
    Some(deviations.dot(&solved))
}

/// Beyond it a body is outside a reference of `people`, of whom the moments were estimated: `p (n^2 - 1) / (n (n - p))` times
/// the 99 % point of F(p, n - p), exact for one more person of a normal population. `None` for nothing measured, or more
/// measured than there are people.
///
/// ```
/// assert!((assess::outside_limit(507, 5).unwrap() - 15.421).abs() < 0.001);
/// ```
pub fn outside_limit(people: usize, measured: usize) -> Option<f64> {
    const INSIDE: f64 = 0.99;
    let (n, p) = (people as f64, measured as f64);
    let f = FisherSnedecor::new(p, n - p).ok()?;
    Some(p * (n.powi(2) - 1.0) / (n * (n - p)) * f.inverse_cdf(INSIDE))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    // By scipy 1.16.3: p * (n * n - 1) / (n * (n - p)) * scipy.stats.f.ppf(0.99, p, n - p).
    #[rstest]
    #[case(247, 1, 6.766_302_593_717_247)]
    #[case(247, 19, 40.874_292_435_721_415)]
    #[case(260, 5, 15.751_233_457_785_286)]
    fn the_limit_is_that_of_one_more_person(#[case] people: usize, #[case] measured: usize, #[case] expected: f64) {
        assert!((outside_limit(people, measured).unwrap() / expected - 1.0).abs() < 1e-6);
    }

    #[rstest]
    #[case::nothing_measured(247, 0)]
    #[case::more_than_there_are_people(10, 12)]
    fn without_enough_there_is_no_limit(#[case] people: usize, #[case] measured: usize) {
        assert_eq!(outside_limit(people, measured), None);
    }
}
