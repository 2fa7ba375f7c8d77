//! The Gaussian model of the whole body that weighs all evidence together.

use crate::body::{BodyModel, TapeJoint};
use crate::input::{Hand, Sex};
use crate::norms::Norms;
use crate::observe::{Observation, Target};
use crate::posterior::{Posterior, Prior, Stack, Unseen};
use atlas::Atlas;
use nalgebra::{DMatrix, DVector};
use units::SiteId;

/// The model, ready for any client.
#[derive(Clone, Debug)]
pub struct Evidence {
    bulk: Prior,
    /// Of right-handed people, and of everybody else.
    asymmetry: [Prior; 2],
    /// Of men and women.
    bodies: [BodyModel; 2],
    sitting_variance: f64,
}

/// Everything that speaks about a client's size, in the order of the posterior: what was taped, then the rows.
#[derive(Clone, Copy)]
pub struct SizeEvidence<'a> {
    /// Whose body it is set against.
    pub sex: Sex,
    /// What was taped, as one observation.
    pub tape: &'a TapeJoint,
    /// All rows; those about sides are passed over.
    pub rows: &'a [Observation],
}

/// Taped values with their joint moments.
pub(crate) struct Taped {
    /// Observed less expected, ln.
    pub(crate) deviation: DVector<f64>,
    /// Covariance of the state with each.
    pub(crate) cross: DMatrix<f64>,
    /// Their covariance, errors included.
    pub(crate) covariance: DMatrix<f64>,
}

impl Evidence {
    /// Priors from atlas and reference: b ~ N(0, C) over all regions, a ~ N(handedness, SD^2 C) over the paired ones; C with 1
    /// on the diagonal, less between regions of one muscle, and less again between others of one part of the body.
    pub fn new(atlas: &Atlas, norms: &Norms) -> Self {
        let settings = atlas.evidence();
        let all = (0..atlas.regions().len()).collect();
        let bulk = prior(atlas, all, 1.0, |_| 0.0);
        let sides = |right_handed: bool| {
            let paired = (0..atlas.regions().len()).filter(|&i| atlas.regions()[i].paired).collect();
            prior(atlas, paired, settings.asymmetry_prior_sd.powi(2), |region| {
                let area = atlas.regions()[region].area.as_ref().filter(|_| right_handed);
                -area.map_or(0.0, |area| larger_dominant(atlas, area))
            })
        };
        let body = |sex| BodyModel::new(atlas, norms, norms.of(sex), &bulk);
        Self {
            bodies: [body(Sex::Male), body(Sex::Female)],
            asymmetry: [sides(true), sides(false)],
            sitting_variance: settings.observation_sd.rating_sitting.powi(2),
            bulk,
        }
    }

    /// The joint model of a sex.
    pub fn body(&self, sex: Sex) -> &BodyModel {
        &self.bodies[usize::from(sex == Sex::Female)]
    }

    pub(crate) fn bulk_prior(&self) -> &Prior {
        &self.bulk
    }

    /// Variance of what all size ratings of one sitting share.
    pub fn sitting_variance(&self) -> f64 {
        self.sitting_variance
    }

    /// The prior of sizes: mean and covariance over all regions.
    pub fn prior_bulk(&self) -> (&DVector<f64>, &DMatrix<f64>) {
        (&self.bulk.mean, &self.bulk.covariance)
    }

    /// The prior of left against right: region indices, mean and covariance.
    pub fn prior_asymmetry(&self, hand: Hand) -> (&[usize], &DVector<f64>, &DMatrix<f64>) {
        let prior = self.sides_prior(hand);
        (&prior.regions, &prior.mean, &prior.covariance)
    }

    pub(crate) fn sides_prior(&self, hand: Hand) -> &Prior {
        &self.asymmetry[usize::from(hand != Hand::Right)]
    }

    /// How far regions are ahead or behind after everything that speaks about size.
    pub fn weigh_bulk(&self, sized: SizeEvidence<'_>) -> Posterior {
        settled(&self.bulk, self.bulk_stack(sized))
    }

    /// Everything that speaks about size before it is weighed, in the order of the posterior.
    pub(crate) fn bulk_stack(&self, sized: SizeEvidence<'_>) -> Stack {
        let body = self.body(sized.sex);
        let taped = Taped {
            deviation: body.deviation(sized.tape),
            cross: DMatrix::from_fn(self.bulk.regions.len(), sized.tape.places.len(), |region, site| {
                body.carried[(region, sized.tape.places[site])]
            }),
            covariance: body.observed_covariance(sized.tape),
        };
        let rows: Vec<&Observation> = bulk_rows(sized.rows).collect();
        self.stacked(&self.bulk, &taped, &rows)
    }

    /// What was taped and the rows about size as one stack.
    pub(crate) fn stacked(&self, prior: &Prior, taped: &Taped, rows: &[&Observation]) -> Stack {
        let sites = taped.deviation.len();
        let count = sites + rows.len();
        let mut deviation = DVector::zeros(count);
        let mut cross = DMatrix::zeros(prior.regions.len(), count);
        let mut covariance = DMatrix::zeros(count, count);
        deviation.rows_mut(0, sites).copy_from(&taped.deviation);
        cross.columns_mut(0, sites).copy_from(&taped.cross);
        covariance.view_mut((0, 0), (sites, sites)).copy_from(&taped.covariance);
        let sittings = sittings(rows);
        for (i, row) in rows.iter().enumerate() {
            deviation[sites + i] = row.y;
            let along = prior.along(&row.row);
            for j in 0..sites {
                let shared: f64 = prior.held(&row.row).map(|(place, weight)| weight * taped.cross[(place, j)]).sum();
                covariance[(sites + i, j)] = shared;
                covariance[(j, sites + i)] = shared;
            }
            for (j, other) in rows[..=i].iter().enumerate() {
                let own = if i == j { row.variance } else { 0.0 };
                let sitting = sittings[i].is_some() && sittings[i] == sittings[j];
                let error = own + if sitting { self.sitting_variance } else { 0.0 };
                let shared = prior.dot(&other.row, &along) + error;
                covariance[(sites + i, sites + j)] = shared;
                covariance[(sites + j, sites + i)] = shared;
            }
            cross.set_column(sites + i, &along);
        }
        Stack { deviation, cross, covariance }
    }

    /// Left minus right after everything that speaks about sides.
    pub fn weigh_sides<'a>(&self, hand: Hand, observations: impl IntoIterator<Item = &'a Observation>) -> Posterior {
        let prior = self.sides_prior(hand);
        settled(prior, self.sides_stack(hand, observations))
    }

    /// Rows about sides before they are weighed.
    pub(crate) fn sides_stack<'a>(&self, hand: Hand, rows: impl IntoIterator<Item = &'a Observation>) -> Stack {
        let prior = self.sides_prior(hand);
        let rows: Vec<&Observation> = rows.into_iter().filter(|o| o.target == Target::Asymmetry).collect();
        let along: Vec<DVector<f64>> = rows.iter().map(|row| prior.along(&row.row)).collect();
        let expected = |row: &Observation| prior.dot(&row.row, &prior.mean);
        Stack {
            deviation: DVector::from_iterator(rows.len(), rows.iter().map(|row| row.y - expected(row))),
            cross: DMatrix::from_fn(prior.regions.len(), rows.len(), |place, i| along[i][place]),
            covariance: DMatrix::from_fn(rows.len(), rows.len(), |i, j| {
                prior.dot(&rows[i].row, &along[j]) + if i == j { rows[i].variance } else { 0.0 }
            }),
        }
    }

    fn shared_error(&self, row: &Observation, other: &Observation, same: bool) -> f64 {
        let own = if same { row.variance } else { 0.0 };
        let sitting = row.sitting.is_some() && row.sitting == other.sitting;
        own + if sitting { self.sitting_variance } else { 0.0 }
    }

    /// A row about size that was not yet observed.
    pub(crate) fn unseen_row(&self, sized: SizeEvidence<'_>, unseen: &Observation) -> Unseen {
        let body = self.body(sized.sex);
        let cross = self.bulk.along(&unseen.row);
        let taped = sized.tape.places.iter().map(|place| {
            self.bulk.held(&unseen.row).map(|(region, weight)| weight * body.carried[(region, *place)]).sum()
        });
        let rated =
            bulk_rows(sized.rows).map(|row| self.bulk.dot(&row.row, &cross) + self.shared_error(row, unseen, false));
        Unseen {
            shared: DVector::from_iterator(sized.tape.places.len() + bulk_rows(sized.rows).count(), taped.chain(rated)),
            variance: self.bulk.dot(&unseen.row, &cross) + self.shared_error(unseen, unseen, true),
            cross,
        }
    }

    /// A site that was not yet taped; `place` in the norms.
    pub(crate) fn unseen_site(&self, sized: SizeEvidence<'_>, place: usize, error_variance: f64) -> Unseen {
        let body = self.body(sized.sex);
        let taped = sized.tape.places.iter().map(|other| body.moments.covariance_ln[(*other, place)]);
        let carried = body.carried.column(place).clone_owned();
        let rated = bulk_rows(sized.rows).map(|row| self.bulk.dot(&row.row, &carried));
        Unseen {
            shared: DVector::from_iterator(sized.tape.places.len() + bulk_rows(sized.rows).count(), taped.chain(rated)),
            variance: body.moments.covariance_ln[(place, place)] + error_variance,
            cross: carried,
        }
    }

    /// A row about sides that was not yet observed.
    pub(crate) fn unseen_sides(&self, hand: Hand, rows: &[Observation], row: &[(usize, f64)], variance: f64) -> Unseen {
        let prior = self.sides_prior(hand);
        let cross = prior.along(row);
        let seen: Vec<f64> =
            rows.iter().filter(|o| o.target == Target::Asymmetry).map(|o| prior.dot(&o.row, &cross)).collect();
        Unseen { shared: DVector::from_vec(seen), variance: prior.dot(row, &cross) + variance, cross }
    }
}

/// Each row's sitting by the place of the first row of it: numbers compare faster than names, and all pairs are compared.
fn sittings(rows: &[&Observation]) -> Vec<Option<usize>> {
    let first = |row: &Observation| {
        let sitting = row.sitting.as_ref()?;
        rows.iter().position(|other| other.sitting.as_ref() == Some(sitting))
    };
    rows.iter().map(|row| first(row)).collect()
}

/// Every error has a variance, so that a stack has an inverse; were one to have none, the prior says all that is known.
pub(crate) fn settled(prior: &Prior, stack: Stack) -> Posterior {
    Posterior::after(prior, stack).unwrap_or_else(|| Posterior::before(prior))
}

/// Rows about size, in the order of the posterior.
pub(crate) fn bulk_rows(rows: &[Observation]) -> impl Iterator<Item = &Observation> {
    rows.iter().filter(|o| o.target == Target::Bulk)
}

/// How far the dominant side of right-handed people is larger at a site or in a part of the body, %.
pub(crate) fn larger_dominant(atlas: &Atlas, site: &SiteId) -> f64 {
    let by = &atlas.evidence().handedness_pct;
    match site.as_str() {
        "arm-flexed" | "arm-relaxed" => by.arm,
        "forearm" => by.forearm,
        "wrist" => by.wrist,
        _ => 0.0,
    }
}

fn prior(atlas: &Atlas, regions: Vec<usize>, variance: f64, mean: impl Fn(usize) -> f64) -> Prior {
    let settings = atlas.evidence();
    let correlation = DMatrix::from_fn(regions.len(), regions.len(), |i, j| {
        let (one, other) = (&atlas.regions()[regions[i]], &atlas.regions()[regions[j]]);
        if i == j {
            1.0
        } else if one.id.muscle() == other.id.muscle() {
            settings.same_muscle_correlation
        } else if one.area.is_some() && one.area == other.area {
            settings.same_area_correlation
        } else {
            0.0
        }
    });
    let mut places = vec![None; atlas.regions().len()];
    for (place, region) in regions.iter().enumerate() {
        places[*region] = Some(place);
    }
    Prior {
        places: places.into(),
        mean: DVector::from_iterator(regions.len(), regions.iter().map(|region| mean(*region))),
        covariance: positive(correlation) * variance,
        regions: regions.into(),
    }
}

/// The nearest correlation with no direction of (nearly) no variance: a muscle that belongs to two parts of the body can ask for
/// more than is possible.
fn positive(correlation: DMatrix<f64>) -> DMatrix<f64> {
    const LEAST: f64 = 1e-3;
    if correlation.clone().symmetric_eigenvalues().min() >= LEAST {
        return correlation;
    }
    let mut eigen = correlation.symmetric_eigen();
    eigen.eigenvalues.apply(|value| *value = value.max(LEAST));
    let lifted = eigen.recompose();
    let scale = lifted.diagonal().map(|variance| variance.sqrt().recip());
    DMatrix::from_fn(lifted.nrows(), lifted.ncols(), |i, j| {
        if i == j { 1.0 } else { f64::midpoint(lifted[(i, j)], lifted[(j, i)]) * scale[i] * scale[j] }
    })
}
