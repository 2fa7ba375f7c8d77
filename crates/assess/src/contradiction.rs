//! Outside the reference by one value: which one everything else contradicts most, and what it may be instead.

use crate::body::BodyModel;
use nalgebra::{DMatrix, DVector};

/// A value that does not go with the rest of a body.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Contradiction {
    /// Its place in the norms.
    pub place: usize,
    /// What the rest expects, cm.
    pub expected_cm: f64,
    /// What would explain it.
    pub misread: Option<Misread>,
}

/// How a wrong value came about.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Misread {
    /// The number is of inches.
    Inches,
    /// It and another, by its place in the norms, were written in each other's line.
    ChangedPlaces(usize),
}

const CM_PER_INCH: f64 = 2.54;
/// An explanation must take this share of the distance away: a body that is unlike others all over is not explained by one value.
const EXPLAINS: f64 = 0.5;

/// The one value, or the two that changed places, with which a body outside would be inside; `None` for a body that is unlike
/// the reference all over. `observed` is (place in the norms, ln cm), `distance` its squared distance.
pub(crate) fn contradiction(body: &BodyModel, observed: &[(usize, f64)], distance: f64) -> Option<Contradiction> {
    let covariance = DMatrix::from_fn(observed.len(), observed.len(), |i, j| {
        body.moments.covariance_ln[(observed[i].0, observed[j].0)]
    });
    let precision = covariance.cholesky()?.inverse();
    let off = DVector::from_iterator(observed.len(), observed.iter().map(|(i, x)| x - body.moments.mean_ln[*i]));
    let pull = &precision * &off;
    // Moving one value by `by` changes d'Pd by 2 by (Pd)_i + by^2 P_ii; two at once add their cross term.
    let moved = |i: usize, by: f64| 2.0 * by * pull[i] + by.powi(2) * precision[(i, i)];
    let limit = |values: usize| body.outside.get(values).copied().flatten();
    let inside = limit(observed.len())?;
    let explains = |left: f64, limit: f64| left <= limit && left <= EXPLAINS * distance;
    let best = |found: &mut dyn Iterator<Item = (f64, (usize, Option<Misread>))>, limit: f64| {
        found.filter(|(left, _)| explains(*left, limit)).min_by(|(a, _), (b, _)| a.total_cmp(b))
    };
    let each = || 0..observed.len();
    let mut inches = each().map(|i| (distance + moved(i, CM_PER_INCH.ln()), (i, Some(Misread::Inches))));
    let mut exchanged = each().flat_map(|i| (i + 1..observed.len()).map(move |j| (i, j))).map(|(i, j)| {
        let by = observed[j].1 - observed[i].1;
        let left = distance + moved(i, by) + moved(j, -by) - 2.0 * by.powi(2) * precision[(i, j)];
        // Named at the one that is further from what the rest expects.
        let first = (pull[i].powi(2) / precision[(i, i)]) >= (pull[j].powi(2) / precision[(j, j)]);
        let (named, other) = if first { (i, j) } else { (j, i) };
        (left, (named, Some(Misread::ChangedPlaces(observed[other].0))))
    });
    let mut wrong = each().map(|i| (distance - pull[i].powi(2) / precision[(i, i)], (i, None)));
    let found = best(&mut inches, inside)
        .or_else(|| best(&mut exchanged, inside))
        .or_else(|| best(&mut wrong, limit(observed.len() - 1)?))?;
    let (i, misread) = found.1;
    let expected = observed[i].1 - pull[i] / precision[(i, i)];
    Some(Contradiction { place: observed[i].0, expected_cm: expected.exp(), misread })
}
