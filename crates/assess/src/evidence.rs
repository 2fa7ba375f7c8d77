//! The linear-Gaussian model that weighs all evidence together (measuring.md 6).

use crate::observe::{Observation, Target};
use atlas::Atlas;
use nalgebra::{DMatrix, DVector};

/// The prior of one half of the state: which regions it has and how they hang together.
#[derive(Clone, Debug)]
struct Prior {
    /// Region index of each place of the state.
    regions: Vec<usize>,
    /// Covariance.
    covariance: DMatrix<f64>,
}

/// Both halves' priors, ready for any client.
#[derive(Clone, Debug)]
pub struct Evidence {
    bulk: Prior,
    asymmetry: Prior,
}

/// Mean and covariance of one half of the state after the evidence.
#[derive(Clone, Debug)]
pub struct Posterior {
    regions: Vec<usize>,
    mean: DVector<f64>,
    covariance: DMatrix<f64>,
}

impl Evidence {
    /// Priors from the atlas: b ~ N(0, C) over all regions and a ~ N(0, 9 C) over the paired ones, C with 1 on the
    /// diagonal and 0.5 between regions of one muscle.
    pub fn new(atlas: &Atlas) -> Self {
        let all = (0..atlas.regions().len()).collect();
        let paired = (0..atlas.regions().len()).filter(|&i| atlas.regions()[i].paired).collect();
        Self {
            bulk: prior(atlas, all, 1.0),
            asymmetry: prior(atlas, paired, atlas.evidence().asymmetry_prior_variance),
        }
    }

    /// The state after `observations`, for one half; observations of the other half are passed over.
    ///
    /// `None` when the precision matrix is not positive definite, which a positive prior and positive variances rule out.
    pub fn weigh(&self, target: Target, observations: &[Observation]) -> Option<Posterior> {
        let prior = match target {
            Target::Bulk => &self.bulk,
            Target::Asymmetry => &self.asymmetry,
        };
        let size = prior.regions.len();
        let rows: Vec<&Observation> = observations.iter().filter(|o| o.target == target).collect();
        let mut h = DMatrix::zeros(rows.len(), size);
        for (i, observation) in rows.iter().enumerate() {
            for (region, weight) in &observation.row {
                if let Some(place) = prior.regions.iter().position(|r| r == region) {
                    h[(i, place)] = *weight;
                }
            }
        }
        let y = DVector::from_iterator(rows.len(), rows.iter().map(|o| o.y));
        let variances: Vec<f64> = rows.iter().map(|o| o.variance).collect();
        let (mean, covariance) = posterior(&prior.covariance, &h, &y, &variances)?;
        Some(Posterior { regions: prior.regions.clone(), mean, covariance })
    }
}

impl Evidence {
    /// SD of a region before any evidence; `None` when this half does not hold it.
    pub(crate) fn prior_sd(&self, target: Target, region: usize) -> Option<f64> {
        let prior = match target {
            Target::Bulk => &self.bulk,
            Target::Asymmetry => &self.asymmetry,
        };
        let place = prior.regions.iter().position(|r| *r == region)?;
        Some(prior.covariance[(place, place)].sqrt())
    }
}

fn prior(atlas: &Atlas, regions: Vec<usize>, variance: f64) -> Prior {
    let correlation = atlas.evidence().same_muscle_correlation;
    let covariance = DMatrix::from_fn(regions.len(), regions.len(), |i, j| {
        let (one, other) = (&atlas.regions()[regions[i]].id, &atlas.regions()[regions[j]].id);
        if i == j {
            variance
        } else if one.muscle() == other.muscle() {
            variance * correlation
        } else {
            0.0
        }
    });
    Prior { regions, covariance }
}

/// Mean and covariance of a Gaussian state with prior N(0, `prior`) after `y = h.state + e`, `e ~ N(0, variances)`.
///
/// Standard Bayesian linear regression. The form with one row and column per observation, `C - C h' inv(h C h' + V) h C`,
/// is the same as inverting `inv(C) + h' inv(V) h` and cheaper here, where there are fewer observations than regions.
pub fn posterior(
    prior: &DMatrix<f64>,
    h: &DMatrix<f64>,
    y: &DVector<f64>,
    variances: &[f64],
) -> Option<(DVector<f64>, DMatrix<f64>)> {
    if y.is_empty() {
        return Some((DVector::zeros(prior.nrows()), prior.clone()));
    }
    let seen = h * prior;
    let mut innovation = &seen * h.transpose();
    for (i, variance) in variances.iter().enumerate() {
        innovation[(i, i)] += variance;
    }
    let solver = innovation.cholesky()?;
    let mean = seen.transpose() * solver.solve(y);
    let covariance = prior - seen.transpose() * solver.solve(&seen);
    Some((mean, covariance))
}

impl Posterior {
    /// Mean and SD of a region; `None` when this half of the state does not hold it.
    pub fn of(&self, region: usize) -> Option<(f64, f64)> {
        let place = self.regions.iter().position(|r| *r == region)?;
        // A negative zero would be written as such.
        Some((self.mean[place] + 0.0, self.covariance[(place, place)].max(0.0).sqrt()))
    }

    /// What the state says along an observation's row.
    pub(crate) fn along(&self, row: &[(usize, f64)]) -> Along<'_> {
        let mut h = DVector::zeros(self.regions.len());
        for (region, weight) in row {
            if let Some(place) = self.regions.iter().position(|r| r == region) {
                h[place] = *weight;
            }
        }
        let shared = &self.covariance * &h;
        Along { variance: h.dot(&shared), mean: h.dot(&self.mean), shared, regions: &self.regions }
    }

    /// By how much a further observation would lower the weighted sum of variances, whatever it turned out to be.
    ///
    /// `weights` are by region index.
    pub fn variance_fall(&self, row: &[(usize, f64)], variance: f64, weights: &[f64]) -> f64 {
        let along = self.along(row);
        let denominator = along.variance + variance;
        let gained: f64 = self.regions.iter().zip(along.shared.iter()).map(|(r, c)| weights[*r] * c.powi(2)).sum();
        gained / denominator
    }
}

/// Moments of `h.state` for an observation's row `h`, and its covariance with every region.
pub(crate) struct Along<'a> {
    /// Variance of `h.state`.
    pub(crate) variance: f64,
    /// Mean of `h.state`.
    pub(crate) mean: f64,
    shared: DVector<f64>,
    regions: &'a [usize],
}

impl Along<'_> {
    /// Covariance of `h.state` with a region; `None` when this half does not hold it.
    pub(crate) fn shared_with(&self, region: usize) -> Option<f64> {
        let place = self.regions.iter().position(|r| *r == region)?;
        Some(self.shared[place])
    }
}
