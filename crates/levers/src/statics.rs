//! Who holds a load: static optimisation (Crowninshield & Brand 1981, J Biomech 14:793-801).

use crate::body::Body;
use nalgebra::{DMatrix, DVector};

/// Spread and least of the force a fibre has away from its best length (Thelen 2003, J Biomech Eng 125:70-77).
const SPREAD: f64 = 0.45;
const LEAST: f64 = 0.05;
/// Torque of a reserve at full use, Nm, and what its use weighs beside a muscle's.
const RESERVE_NM: f64 = 5.0;
const RESERVE_WEIGHT: f64 = 20.0;

/// What holds a torque.
#[derive(Clone, Debug)]
pub struct Held {
    /// Use of each muscle, 1 at its most.
    pub activations: Vec<f64>,
    /// What muscles do not hold, Nm, by joint.
    pub reserves_nm: Vec<f64>,
}

/// Share of its most force that a muscle has at a length of its fibres (1 at their best).
///
/// ```
/// assert_eq!(levers::force_at_length(1.0), 1.0);
/// assert_eq!(levers::force_at_length(2.5), 0.05);
/// ```
pub fn force_at_length(length: f64) -> f64 {
    (-((length - 1.0) / SPREAD).powi(2)).exp().max(LEAST)
}

/// Steps of the search and the error of a torque at which it ends, Nm.
const STEPS: usize = 60;
const ERROR_NM: f64 = 1e-9;

/// The cheapest way to hold torques: the least of sum a^2 + 20 sum r^2 with sum a F fl R + 5 r = tau and a >= 0. `arms_m` has a row
/// of lever arms a muscle, `lengths` the lengths of its fibres.
pub fn hold(body: &Body, muscles: &[usize], arms_m: &[Vec<f64>], lengths: &[f64], torques_nm: &[f64]) -> Held {
    let strength = |place: usize| body.muscles[muscles[place]].force_n * force_at_length(lengths[place]);
    let gain = DMatrix::from_fn(torques_nm.len(), muscles.len(), |joint, place| arms_m[place][joint] * strength(place));
    let torques = DVector::from_column_slice(torques_nm);
    let left = left_over(&gain, &torques);
    let activations = used(&gain, &left);
    let reserves = &torques - &gain * &activations;
    Held { activations: activations.iter().copied().collect(), reserves_nm: reserves.iter().copied().collect() }
}

/// What a unit of torque left over weighs: with the reserves put in, (tau - G a) / 5 weighs 20.
const WEIGHT: f64 = RESERVE_WEIGHT / (RESERVE_NM * RESERVE_NM);

/// With so much torque left over each muscle is used as far as it would take of it: a = max(0, w G'r).
fn used(gain: &DMatrix<f64>, left: &DVector<f64>) -> DVector<f64> {
    (gain.tr_mul(left) * WEIGHT).map(|use_| use_.max(0.0))
}

/// The torque left over at the best: the zero of r + G max(0, w G'r) - tau, which is the slope of a convex function, by Newton's steps
/// on its smooth pieces, halved while they go too far. There are some few torques and dozens of muscles: so it is much faster than to
/// search among the muscles (Lawson & Hanson 1974), and finds the same.
fn left_over(gain: &DMatrix<f64>, torques: &DVector<f64>) -> DVector<f64> {
    let joints = torques.len();
    let height = |left: &DVector<f64>| {
        left.norm_squared() / 2.0 + used(gain, left).norm_squared() / (2.0 * WEIGHT) - torques.dot(left)
    };
    let mut left = DVector::<f64>::zeros(joints);
    for _ in 0..STEPS {
        let activations = used(gain, &left);
        let slope = &left + gain * &activations - torques;
        if slope.norm() < ERROR_NM {
            break;
        }
        let mut curve = DMatrix::identity(joints, joints);
        for (place, _) in activations.iter().enumerate().filter(|(_, use_)| **use_ > 0.0) {
            let muscle = gain.column(place);
            curve.ger(WEIGHT, &muscle, &muscle, 1.0);
        }
        let Some(step) = curve.cholesky().map(|curve| curve.solve(&slope)) else { break };
        let (here, falls) = (height(&left), slope.dot(&step));
        let mut share = 1.0;
        while height(&(&left - &step * share)) > here - 1e-4 * share * falls && share > 1e-6 {
            share /= 2.0;
        }
        left -= step * share;
    }
    left
}
