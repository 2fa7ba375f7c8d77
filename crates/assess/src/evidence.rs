//! The linear-Gaussian model that weighs all evidence together.

use crate::observe::{Observation, Target};
use atlas::Atlas;
use nalgebra::{DMatrix, DVector};
use std::sync::Arc;

/// The prior of one half of the state: which regions it has and how they hang together.
#[derive(Clone, Debug)]
struct Prior {
    /// Place in the state by region index; `None` for regions this half does not hold.
    places: Arc<[Option<usize>]>,
    /// Region index by place in the state.
    regions: Arc<[usize]>,
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
    places: Arc<[Option<usize>]>,
    regions: Arc<[usize]>,
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
    pub fn weigh<'a>(&self, target: Target, observations: impl IntoIterator<Item = &'a Observation>) -> Posterior {
        let prior = self.half(target);
        let mut posterior = Posterior {
            places: prior.places.clone(),
            regions: prior.regions.clone(),
            mean: DVector::zeros(prior.regions.len()),
            covariance: prior.covariance.clone(),
        };
        for observation in observations.into_iter().filter(|o| o.target == target) {
            posterior.observe(&observation.row, observation.y, observation.variance);
        }
        posterior
    }

    fn half(&self, target: Target) -> &Prior {
        match target {
            Target::Bulk => &self.bulk,
            Target::Asymmetry => &self.asymmetry,
        }
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
    let mut places = vec![None; atlas.regions().len()];
    for (place, region) in regions.iter().enumerate() {
        places[*region] = Some(place);
    }
    Prior { places: places.into(), regions: regions.into(), covariance }
}

impl Posterior {
    /// A Gaussian state with prior N(0, `covariance`), before any evidence; regions are numbered as the rows.
    pub fn before(covariance: DMatrix<f64>) -> Self {
        let size = covariance.nrows();
        let places = (0..size).map(Some).collect();
        Self { places, regions: (0..size).collect(), mean: DVector::zeros(size), covariance }
    }

    /// Takes one observation `y = row . state + e`, `e ~ N(0, variance)`, `variance` > 0, into account.
    ///
    /// Standard Bayesian linear regression, one row at a time: with `c = P h` and `d = v + h.c`, `mean += c (y - h.mean)/d`
    /// and `P -= c c'/d`. In any order that is the same as inverting `inv(C) + sum h h'/v` once, and cheaper for rows that
    /// touch few regions.
    pub fn observe(&mut self, row: &[(usize, f64)], y: f64, variance: f64) {
        let along = self.along(row);
        let (total, surprise) = (variance + along.variance, y - along.mean);
        let shared = along.shared;
        self.mean.axpy(surprise / total, &shared, 1.0);
        // Most of the state is untouched: regions of other parts of the body share nothing with this row.
        let touched: Vec<usize> = (0..shared.len()).filter(|&i| shared[i] != 0.0).collect();
        for &j in &touched {
            let scaled = shared[j] / total;
            for &i in &touched {
                self.covariance[(i, j)] -= scaled * shared[i];
            }
        }
    }

    /// Mean and SD of a region; `None` when this half of the state does not hold it.
    pub fn of(&self, region: usize) -> Option<(f64, f64)> {
        let place = self.places[region]?;
        // A negative zero would be written as such.
        Some((self.mean[place] + 0.0, self.covariance[(place, place)].max(0.0).sqrt()))
    }

    /// Covariance of all regions of this half.
    pub fn covariance(&self) -> &DMatrix<f64> {
        &self.covariance
    }

    /// What the state says along an observation's row.
    pub(crate) fn along(&self, row: &[(usize, f64)]) -> Along {
        let mut along = Along { variance: 0.0, mean: 0.0, shared: DVector::zeros(self.regions.len()) };
        let held = || row.iter().filter_map(|(region, weight)| Some((self.places[*region]?, *weight)));
        for (place, weight) in held() {
            along.mean += weight * self.mean[place];
            along.shared.axpy(weight, &self.covariance.column(place), 1.0);
        }
        along.variance = held().map(|(place, weight)| weight * along.shared[place]).sum();
        along
    }

    /// Covariance of a region with `h.state`; `None` when this half does not hold it.
    pub(crate) fn shared_with(&self, along: &Along, region: usize) -> Option<f64> {
        Some(along.shared[self.places[region]?])
    }

    /// By how much a further observation would lower the weighted sum of variances, whatever it turned out to be.
    ///
    /// `weights` are by region index.
    pub fn variance_fall(&self, row: &[(usize, f64)], variance: f64, weights: &[f64]) -> f64 {
        let along = self.along(row);
        let gained: f64 = self.regions.iter().zip(along.shared.iter()).map(|(r, c)| weights[*r] * c.powi(2)).sum();
        gained / (along.variance + variance)
    }
}

/// Moments of `h.state` for an observation's row `h`, and its covariance with every region.
pub(crate) struct Along {
    /// Variance of `h.state`.
    pub(crate) variance: f64,
    /// Mean of `h.state`.
    pub(crate) mean: f64,
    shared: DVector<f64>,
}
