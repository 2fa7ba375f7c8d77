//! A Gaussian state after all its evidence at once.

use nalgebra::{DMatrix, DVector};
use std::sync::Arc;

/// The prior of one half of the state: which regions it has, where they stand and how they hang together.
#[derive(Clone, Debug)]
pub(crate) struct Prior {
    /// Place in the state by region index; `None` for regions this half does not hold.
    pub(crate) places: Arc<[Option<usize>]>,
    /// Region index by place in the state.
    pub(crate) regions: Arc<[usize]>,
    /// Mean.
    pub(crate) mean: DVector<f64>,
    /// Covariance.
    pub(crate) covariance: DMatrix<f64>,
}

/// Observations with their joint moments, before their values are taken into account.
#[derive(Clone, Debug)]
pub struct Stack {
    /// Observed less expected.
    pub(crate) deviation: DVector<f64>,
    /// Covariance of the state with each observation: places of the state by observations.
    pub(crate) cross: DMatrix<f64>,
    /// Covariance of the observations, their errors included.
    pub(crate) covariance: DMatrix<f64>,
}

impl Stack {
    /// Some of the observations, as if the others were not there.
    pub(crate) fn part(&self, which: &[usize]) -> Self {
        Self {
            deviation: self.deviation.select_rows(which),
            cross: self.cross.select_columns(which),
            covariance: DMatrix::from_fn(which.len(), which.len(), |i, j| self.covariance[(which[i], which[j])]),
        }
    }
}

/// Mean and covariance of one half of the state after the evidence.
#[derive(Clone, Debug)]
pub struct Posterior {
    places: Arc<[Option<usize>]>,
    regions: Arc<[usize]>,
    mean: DVector<f64>,
    covariance: DMatrix<f64>,
    /// Inverse of the lower root of the observations' covariance K: `root' root = inv(K)`.
    root: DMatrix<f64>,
    /// `cross root'`: places of the state by observations.
    spread: DMatrix<f64>,
    /// How much the state moves per unit of each observation: `cross inv(K)`.
    gain: DMatrix<f64>,
    /// Diagonal of `inv(K)`.
    own: Vec<f64>,
    /// `inv(K) deviation`.
    pull: DVector<f64>,
}

/// Mean and SD of each region of one half of the state after the evidence, and nothing else of it.
pub(crate) struct Said {
    places: Arc<[Option<usize>]>,
    moments: Vec<(f64, f64)>,
}

impl Said {
    /// As [`Posterior::after`]; the prior's own where that has no answer.
    pub(crate) fn after(prior: &Prior, stack: &Stack) -> Self {
        let before = |place: usize| (prior.mean[place], prior.covariance[(place, place)].sqrt());
        let cholesky = stack.covariance.clone().cholesky().filter(|_| !stack.deviation.is_empty());
        let moments: Vec<(f64, f64)> = match cholesky {
            None => (0..prior.regions.len()).map(before).collect(),
            Some(cholesky) => {
                let root = inverse_root(cholesky.l_dirty());
                let (spread, pull) = (&root * stack.cross.transpose(), &root * &stack.deviation);
                let moments = spread.column_iter().enumerate().map(|(place, column)| {
                    let variance = prior.covariance[(place, place)] - column.norm_squared();
                    (prior.mean[place] + column.dot(&pull), variance.max(0.0).sqrt())
                });
                moments.collect()
            }
        };
        Self { places: prior.places.clone(), moments }
    }

    /// Mean and SD of a region; `None` when this half of the state does not hold it.
    pub(crate) fn of(&self, region: usize) -> Option<(f64, f64)> {
        Some(self.moments[self.places[region]?])
    }
}

/// An observation not yet made: its moments before the evidence.
pub(crate) struct Unseen {
    /// Covariance with the places of the state.
    pub(crate) cross: DVector<f64>,
    /// Covariance with the observations already made.
    pub(crate) shared: DVector<f64>,
    /// Variance, its error included.
    pub(crate) variance: f64,
}

impl Prior {
    /// Covariance of the state with `h.state`.
    pub(crate) fn along(&self, row: &[(usize, f64)]) -> DVector<f64> {
        let mut along = DVector::zeros(self.regions.len());
        for (place, weight) in self.held(row) {
            along.axpy(weight, &self.covariance.column(place), 1.0);
        }
        along
    }

    /// `h.vector` over the regions this half holds.
    pub(crate) fn dot(&self, row: &[(usize, f64)], vector: &DVector<f64>) -> f64 {
        self.held(row).map(|(place, weight)| weight * vector[place]).sum()
    }

    /// An observation's row by place in the state.
    pub(crate) fn held<'a>(&'a self, row: &'a [(usize, f64)]) -> impl Iterator<Item = (usize, f64)> + 'a {
        row.iter().filter_map(|(region, weight)| Some((self.places[*region]?, *weight)))
    }
}

/// A row, what was observed along it, and the variance of its error.
pub type Row = (Vec<(usize, f64)>, f64, f64);

/// The inverse of a lower triangle, what stands above it passed over. Column by column, in runs that lie together in memory: a
/// sixth of the work of solving for every unit vector.
fn inverse_root(lower: &DMatrix<f64>) -> DMatrix<f64> {
    let size = lower.nrows();
    let rows = lower.transpose();
    let mut inverse = DMatrix::zeros(size, size);
    for column in 0..size {
        inverse[(column, column)] = rows[(column, column)].recip();
        for row in column + 1..size {
            let known = &inverse.as_slice()[column * size + column..column * size + row];
            let along = &rows.as_slice()[row * size + column..row * size + row];
            let sum: f64 = known.iter().zip(along).map(|(x, l)| x * l).sum();
            inverse[(row, column)] = -sum / rows[(row, row)];
        }
    }
    inverse
}

impl Posterior {
    /// The state after a stack of observations: with `G = cross inv(K)`, `mean = prior + G deviation` and `P = C - G cross'`.
    ///
    /// `None` when the observations' covariance is not positive definite.
    pub(crate) fn after(prior: &Prior, stack: Stack) -> Option<Self> {
        let Stack { deviation, cross, covariance } = stack;
        if deviation.is_empty() {
            return Some(Self::before(prior));
        }
        let root = inverse_root(covariance.cholesky()?.l_dirty());
        // Products are of matrices laid out as they are multiplied: a transposed copy costs less than products along it.
        let spread = cross * root.transpose();
        let half = &root * &deviation;
        Some(Self {
            places: prior.places.clone(),
            regions: prior.regions.clone(),
            mean: &prior.mean + &spread * &half,
            covariance: &prior.covariance - &spread * spread.transpose(),
            gain: &spread * &root,
            own: root.column_iter().map(|column| column.norm_squared()).collect(),
            pull: root.tr_mul(&half),
            spread,
            root,
        })
    }

    /// The state before any evidence.
    pub(crate) fn before(prior: &Prior) -> Self {
        let size = prior.regions.len();
        Self {
            places: prior.places.clone(),
            regions: prior.regions.clone(),
            mean: prior.mean.clone(),
            covariance: prior.covariance.clone(),
            root: DMatrix::zeros(0, 0),
            spread: DMatrix::zeros(size, 0),
            gain: DMatrix::zeros(size, 0),
            own: Vec::new(),
            pull: DVector::zeros(0),
        }
    }

    /// The state with prior N(0, `covariance`) after rows `y = h.state + e`, `e ~ N(0, variance)`, errors apart from each
    /// other; regions are numbered as the prior's rows. `None` when a variance is not positive.
    pub fn of_rows(covariance: DMatrix<f64>, rows: &[Row]) -> Option<Self> {
        let size = covariance.nrows();
        let places: Vec<Option<usize>> = (0..size).map(Some).collect();
        let prior =
            Prior { places: places.into(), regions: (0..size).collect(), mean: DVector::zeros(size), covariance };
        let along: Vec<DVector<f64>> = rows.iter().map(|(row, ..)| prior.along(row)).collect();
        let stack = Stack {
            deviation: DVector::from_iterator(rows.len(), rows.iter().map(|(_, y, _)| *y)),
            cross: DMatrix::from_fn(size, rows.len(), |place, i| along[i][place]),
            covariance: DMatrix::from_fn(rows.len(), rows.len(), |i, j| {
                prior.dot(&rows[i].0, &along[j]) + if i == j { rows[i].2 } else { 0.0 }
            }),
        };
        Self::after(&prior, stack)
    }

    /// Mean and SD of a region; `None` when this half of the state does not hold it.
    pub fn of(&self, region: usize) -> Option<(f64, f64)> {
        let place = self.places[region]?;
        // A negative zero would be written as such.
        Some((self.mean[place] + 0.0, self.covariance[(place, place)].max(0.0).sqrt()))
    }

    /// Mean and SD of `h.state`.
    pub fn along(&self, row: &[(usize, f64)]) -> (f64, f64) {
        let held: Vec<(usize, f64)> =
            row.iter().filter_map(|(region, weight)| Some((self.places[*region]?, *weight))).collect();
        let mean: f64 = held.iter().map(|(place, weight)| weight * self.mean[*place]).sum();
        let pairs = held.iter().flat_map(|(i, u)| held.iter().map(move |(j, v)| u * v * self.covariance[(*i, *j)]));
        (mean + 0.0, pairs.sum::<f64>().max(0.0).sqrt())
    }

    /// Covariance of all regions of this half.
    pub fn covariance(&self) -> &DMatrix<f64> {
        &self.covariance
    }

    /// How much a region moves per unit of an observation; `None` when this half does not hold it.
    pub(crate) fn weight(&self, region: usize, observation: usize) -> Option<f64> {
        Some(self.gain[(self.places[region]?, observation)])
    }

    /// Mean and SD of a region as they would be without one observation, exactly: with `q` the observation's column of the
    /// inverse, `mean' = mean - (cross q) (q.deviation) / q_ii` and `P' = P + (cross q)(cross q)' / q_ii`.
    pub(crate) fn without(&self, region: usize, observation: usize) -> Option<(f64, f64)> {
        let place = self.places[region]?;
        let own = self.own[observation];
        let moved = self.gain[(place, observation)];
        let mean = self.mean[place] - moved * self.pull[observation] / own;
        Some((mean, (self.covariance[(place, place)] + moved.powi(2) / own).max(0.0).sqrt()))
    }

    /// By how much a further observation would lower the weighted sum of variances, whatever it turned out to be. `weights`
    /// are by region index.
    pub(crate) fn fall(&self, unseen: &Unseen, weights: &[f64]) -> f64 {
        let known = &self.root * &unseen.shared;
        let variance = unseen.variance - known.norm_squared();
        let cross = &unseen.cross - &self.spread * known;
        let gained: f64 = self.regions.iter().zip(cross.iter()).map(|(region, c)| weights[*region] * c.powi(2)).sum();
        gained / variance
    }
}
