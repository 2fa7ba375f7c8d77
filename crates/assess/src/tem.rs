//! Technical error of measurement from repeated measurements, and agreement of a rater with themselves.

/// Error of repeated measurement.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct TechnicalError {
    /// TEM, in the unit of the readings: `sqrt(sum d^2 / 2n)`.
    pub tem: f64,
    /// TEM in percent of the mean of all readings.
    pub tem_pct: f64,
    /// Share of the variance between people that is not error: `1 - TEM^2 / SD^2`, SD of the pairs' means; negative when
    /// error is larger than the spread between people. `None` with fewer than two pairs or people all alike.
    pub reliability: Option<f64>,
}

/// Technical error from pairs of measurements of several people (Perini et al. 2005). `None` without pairs.
///
/// ```
/// let error = assess::technical_error(&[[37.4, 37.6], [35.0, 35.0]]);
/// assert!(error.is_some_and(|error| (error.tem - 0.1).abs() < 1e-12));
/// ```
pub fn technical_error(pairs: &[[f64; 2]]) -> Option<TechnicalError> {
    if pairs.is_empty() {
        return None;
    }
    let n = pairs.len() as f64;
    let squares: f64 = pairs.iter().map(|[a, b]| (a - b).powi(2)).sum();
    let tem = (squares / (2.0 * n)).sqrt();
    let means: Vec<f64> = pairs.iter().map(|[a, b]| f64::midpoint(*a, *b)).collect();
    let mean = means.iter().sum::<f64>() / n;
    let spread: f64 = means.iter().map(|m| (m - mean).powi(2)).sum();
    let reliability = (pairs.len() > 1 && spread > 0.0).then(|| 1.0 - tem.powi(2) / (spread / (n - 1.0)));
    Some(TechnicalError { tem, tem_pct: 100.0 * tem / mean, reliability })
}

/// A rater's own SD from pairs of ratings of the same picture: `sqrt(sum d^2 / 2n)`, rating steps.
///
/// ```
/// let sd = assess::within_rater_sd(&[[1, 0], [-1, -1], [0, 1]]).unwrap();
/// assert!((sd - (1.0_f64 / 3.0).sqrt()).abs() < 1e-12);
/// ```
pub fn within_rater_sd(pairs: &[[i8; 2]]) -> Option<f64> {
    let as_numbers: Vec<[f64; 2]> = pairs.iter().map(|pair| pair.map(f64::from)).collect();
    technical_error(&as_numbers).map(|error| error.tem)
}

/// Quadratic-weighted kappa of pairs of ratings from -2 to 2 (Cohen 1968). `None` without pairs, with a rating outside the
/// scale, or when chance alone leaves nothing to disagree about.
///
/// ```
/// assert_eq!(assess::weighted_kappa(&[[1, 1], [-1, -1], [0, 0]]), Some(1.0));
/// assert_eq!(assess::weighted_kappa(&[[1, -1], [-1, 1]]), Some(-1.0));
/// ```
pub fn weighted_kappa(pairs: &[[i8; 2]]) -> Option<f64> {
    const LOWEST: i8 = -2;
    const STEPS: usize = 5;
    let place = |rating: i8| usize::try_from(rating - LOWEST).ok().filter(|at| *at < STEPS);
    let mut observed = [[0.0_f64; STEPS]; STEPS];
    for [first, second] in pairs {
        observed[place(*first)?][place(*second)?] += 1.0;
    }
    let rows: [f64; STEPS] = std::array::from_fn(|i| observed[i].iter().sum());
    let columns: [f64; STEPS] = std::array::from_fn(|j| observed.iter().map(|row| row[j]).sum());
    let (mut disagreement, mut by_chance) = (0.0, 0.0);
    for (i, row) in observed.iter().enumerate() {
        for (j, count) in row.iter().enumerate() {
            let weight = (i.abs_diff(j) as f64).powi(2);
            disagreement += weight * count;
            by_chance += weight * rows[i] * columns[j] / pairs.len().max(1) as f64;
        }
    }
    (by_chance > 0.0).then(|| 1.0 - disagreement / by_chance)
}
