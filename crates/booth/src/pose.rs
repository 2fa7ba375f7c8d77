//! Poses: arms and legs turned about their joints in the frontal plane.

use crate::figure::{Figure, Posed, V3};
use crate::spec::Pose;
use nalgebra::Rotation3;
use units::Side;

/// Directions of a limb, degrees from straight down; positive is away from the body.
struct Arms {
    upper_deg: f64,
    fore_deg: f64,
}

/// How far each leg is drawn in from the figure's straddle, degrees.
const LEGS_IN_DEG: f64 = 4.5;
/// Above this the shoulder girdle helps to lift the arm.
const GIRDLE_FROM_DEG: f64 = 60.0;
/// Its share of the lift above that.
const GIRDLE_SHARE: f64 = 0.3;
const ARM: [&str; 4] = ["elbow", "hand", "hand-3", "shoulder"];

fn arms(pose: Pose) -> Arms {
    match pose {
        Pose::F | Pose::B => Arms { upper_deg: 20.0, fore_deg: 14.0 },
        Pose::SL | Pose::SR => Arms { upper_deg: 9.0, fore_deg: 4.0 },
        Pose::FDB | Pose::BDB => Arms { upper_deg: 92.0, fore_deg: 192.0 },
        Pose::FLS | Pose::BLS => Arms { upper_deg: 52.0, fore_deg: -28.0 },
    }
}

/// The figure in a pose, facing +z, standing on the floor.
pub(crate) fn pose(figure: &Figure, body: &Posed, pose: Pose) -> Posed {
    let mut posed = body.clone();
    let arms = arms(pose);
    for side in [Side::Left, Side::Right] {
        let girdle_deg = (arms.upper_deg - GIRDLE_FROM_DEG).max(0.0) * GIRDLE_SHARE;
        turn(figure, &mut posed, side, &["clavicle", "upper-arm", "forearm", "hand"], "clavicle", &ARM, girdle_deg);
        let lift = arms.upper_deg - direction_deg(&posed, side, "shoulder", "elbow");
        turn(figure, &mut posed, side, &["upper-arm", "forearm", "hand"], "shoulder", &ARM[..3], lift);
        let bend = arms.fore_deg - direction_deg(&posed, side, "elbow", "hand");
        turn(figure, &mut posed, side, &["forearm", "hand"], "elbow", &ARM[1..3], bend);
        let chain = ["thigh", "lower-leg", "foot"];
        turn(figure, &mut posed, side, &chain, "upper-leg", &["knee", "ankle", "foot-1"], -LEGS_IN_DEG);
    }
    stand(&mut posed);
    posed
}

/// Puts the lowest point on the floor and the trunk over the origin.
pub(crate) fn stand(body: &mut Posed) {
    let floor = body.vertices.iter().map(|v| v.y).fold(f64::INFINITY, f64::min);
    let hips = (body.sided(Side::Left, "upper-leg") + body.sided(Side::Right, "upper-leg")) / 2.0;
    body.map(|p| p - V3::new(hips.x, floor, hips.z));
}

/// Direction of a bone in the frontal plane, degrees from straight down, away from the body positive.
fn direction_deg(body: &Posed, side: Side, from: &str, to: &str) -> f64 {
    let bone = body.sided(side, to) - body.sided(side, from);
    (bone.x * outward(side)).atan2(-bone.y).to_degrees()
}

fn outward(side: Side) -> f64 {
    match side {
        Side::Left => 1.0,
        Side::Right => -1.0,
    }
}

/// Turns a chain about a joint. Skin near the joint turns by its share of the angle, which keeps its volume.
fn turn(figure: &Figure, body: &mut Posed, side: Side, chain: &[&str], about: &str, joints: &[&str], deg: f64) {
    if deg.abs() < 1e-9 {
        return;
    }
    let centre = body.sided(side, about);
    let share = figure.share(side, chain);
    let angle = deg.to_radians() * outward(side);
    body.bend(&share, side, joints, |p, share| {
        centre + Rotation3::from_axis_angle(&V3::z_axis(), angle * share) * (p - centre)
    });
}
