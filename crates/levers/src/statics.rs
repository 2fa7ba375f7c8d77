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
    let joints = torques_nm.len();
    let mut gains = Gains { joints, rows: Vec::with_capacity(muscles.len() * joints) };
    for (place, muscle) in muscles.iter().enumerate() {
        let strength = body.muscles[*muscle].force_n * force_at_length(lengths[place]);
        gains.rows.extend(arms_m[place].iter().map(|arm| arm * strength));
    }
    let left = left_over(&gains, torques_nm);
    let mut reserves_nm = torques_nm.to_vec();
    let take = |row: &[f64]| {
        let use_ = used(row, &left);
        reserves_nm.iter_mut().zip(row).for_each(|(reserve, gain)| *reserve -= gain * use_);
        use_
    };
    let activations = gains.rows.chunks_exact(joints.max(1)).map(take).collect();
    Held { activations, reserves_nm }
}

/// What a unit of torque left over weighs: with the reserves put in, (tau - G a) / 5 weighs 20.
const WEIGHT: f64 = RESERVE_WEIGHT / (RESERVE_NM * RESERVE_NM);

/// Torque of each muscle at full use about each joint, muscle by muscle.
struct Gains {
    joints: usize,
    rows: Vec<f64>,
}

fn dot(a: &[f64], b: &[f64]) -> f64 {
    a.iter().zip(b).map(|(a, b)| a * b).sum()
}

/// With so much torque left over a muscle is used as far as it would take of it: a = max(0, w g'r).
fn used(row: &[f64], left: &[f64]) -> f64 {
    (WEIGHT * dot(row, left)).max(0.0)
}

/// The torque left over at the best: the zero of r + G max(0, w G'r) - tau, which is the slope of a convex function, by Newton's steps
/// on its smooth pieces, halved while they go too far. There are some few torques and dozens of muscles: so it is much faster than to
/// search among the muscles (Lawson & Hanson 1974), and finds the same.
fn left_over(gains: &Gains, torques: &[f64]) -> Vec<f64> {
    let joints = gains.joints;
    let rows = || gains.rows.chunks_exact(joints.max(1));
    let height = |left: &[f64]| {
        let uses: f64 = rows().map(|row| used(row, left).powi(2)).sum();
        dot(left, left) / 2.0 + uses / (2.0 * WEIGHT) - dot(torques, left)
    };
    let mut left = vec![0.0; joints];
    let mut here = 0.0;
    for _ in 0..STEPS {
        let mut slope: Vec<f64> = left.iter().zip(torques).map(|(left, torque)| left - torque).collect();
        let mut curve = DMatrix::<f64>::identity(joints, joints);
        for row in rows() {
            let use_ = used(row, &left);
            // At the start every muscle that could help counts as helping.
            if use_ > 0.0 || (here == 0.0 && dot(row, torques) > 0.0) {
                for (i, gain) in row.iter().enumerate() {
                    slope[i] += gain * use_;
                    for (j, other) in row.iter().enumerate().take(i + 1) {
                        curve[(i, j)] += WEIGHT * gain * other;
                    }
                }
            }
        }
        if dot(&slope, &slope).sqrt() < ERROR_NM {
            break;
        }
        // The factors read the lower half alone.
        let Some(step) = curve.cholesky().map(|curve| curve.solve(&DVector::from_column_slice(&slope))) else { break };
        let falls = dot(&slope, step.as_slice());
        let (mut share, mut tried, mut there);
        share = 1.0;
        loop {
            tried = left.iter().zip(step.iter()).map(|(left, step)| left - step * share).collect::<Vec<f64>>();
            there = height(&tried);
            if there <= here - 1e-4 * share * falls || share < 1e-6 {
                break;
            }
            share /= 2.0;
        }
        (left, here) = (tried, there);
    }
    left
}
