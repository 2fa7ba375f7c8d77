//! Is it small, or is the rest big? The size a site should have given the frame and the rest of this body.

use crate::norms::SexNorms;
use nalgebra::{DMatrix, DVector};
use statrs::distribution::{ChiSquared, ContinuousCDF};

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

/// The 99 % point of chi-square: beyond it a body is outside the reference. `None` for 0 degrees of freedom.
pub fn outside_limit(degrees_of_freedom: usize) -> Option<f64> {
    const INSIDE: f64 = 0.99;
    ChiSquared::new(degrees_of_freedom as f64).ok().map(|chi2| chi2.inverse_cdf(INSIDE))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    // scipy.stats.chi2.ppf(0.99, df), scipy 1.16.3.
    #[rstest]
    #[case(1, 6.634_896_601_021_214)]
    #[case(5, 15.086_272_469_388_99)]
    #[case(19, 36.190_869_129_270_05)]
    fn the_limit_is_the_99_percent_point_of_chi_square(#[case] df: usize, #[case] expected: f64) {
        assert!((outside_limit(df).unwrap() - expected).abs() < 1e-6);
    }

    #[test]
    fn without_anything_observed_there_is_no_limit() {
        assert_eq!(outside_limit(0), None);
    }
}
