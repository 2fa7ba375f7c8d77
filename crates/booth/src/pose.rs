//! Poses: arms and legs turned about their joints in the frontal plane; arms also held forward.

use crate::figure::{Figure, Posed, V3};
use crate::spec::Pose;
use nalgebra::Rotation3;
use units::Side;

/// Directions of a limb, degrees from straight down; positive is away from the body.
struct Arms {
    upper: f64,
    fore: f64,
    /// The whole arm forward from where it hangs.
    forward: f64,
}

impl Arms {
    const fn beside(upper: f64, fore: f64) -> Self {
        Self { upper, fore, forward: 0.0 }
    }
}

/// How far each leg is drawn in from the figure's straddle, degrees.
const LEGS_IN_DEG: f64 = 4.5;
/// Above this the shoulder girdle helps to lift the arm.
const GIRDLE_FROM_DEG: f64 = 60.0;
/// Its share of the lift above that.
const GIRDLE_SHARE: f64 = 0.3;
const ARM_BONES: [&str; 3] = ["upper-arm", "forearm", "hand"];
const ARM: [&str; 4] = ["elbow", "hand", "hand-3", "shoulder"];

fn arms(pose: Pose) -> Arms {
    match pose {
        Pose::F | Pose::B => Arms::beside(20.0, 14.0),
        Pose::SL | Pose::SR => Arms::beside(9.0, 4.0),
        Pose::SLA | Pose::SRA => Arms { forward: 85.0, ..Arms::beside(9.0, 4.0) },
        Pose::FDB | Pose::BDB => Arms::beside(92.0, 192.0),
        Pose::FLS | Pose::BLS => Arms::beside(52.0, -28.0),
    }
}

/// The figure in a pose, facing +z, standing on the floor.
pub(crate) fn pose(figure: &Figure, body: &Posed, pose: Pose) -> Posed {
    let mut posed = body.clone();
    let arms = arms(pose);
    for side in [Side::Left, Side::Right] {
        let girdle_deg = (arms.upper - GIRDLE_FROM_DEG).max(0.0) * GIRDLE_SHARE;
        turn(
            figure,
            &mut posed,
            side,
            &["clavicle", "upper-arm", "forearm", "hand"],
            "clavicle",
            &ARM,
            abreast(side, girdle_deg),
        );
        let lift = arms.upper - direction_deg(&posed, side, "shoulder", "elbow");
        turn(figure, &mut posed, side, &ARM_BONES, "shoulder", &ARM[..3], abreast(side, lift));
        let bend = arms.fore - direction_deg(&posed, side, "elbow", "hand");
        turn(figure, &mut posed, side, &ARM_BONES[1..], "elbow", &ARM[1..3], abreast(side, bend));
        turn(figure, &mut posed, side, &ARM_BONES, "shoulder", &ARM[..3], forward(arms.forward));
        let chain = ["thigh", "lower-leg", "foot"];
        turn(figure, &mut posed, side, &chain, "upper-leg", &["knee", "ankle", "foot-1"], abreast(side, -LEGS_IN_DEG));
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

/// A turn about an axis, radians.
type Turn = (nalgebra::Unit<V3>, f64);

/// Away from the body in the frontal plane.
fn abreast(side: Side, deg: f64) -> Turn {
    (V3::z_axis(), deg.to_radians() * outward(side))
}

/// Up before the body.
fn forward(deg: f64) -> Turn {
    (V3::x_axis(), -deg.to_radians())
}

/// Turns a chain about a joint. Skin near the joint turns by its share of the angle, which keeps its volume.
fn turn(
    figure: &Figure,
    body: &mut Posed,
    side: Side,
    chain: &[&str],
    about: &str,
    joints: &[&str],
    (axis, angle): Turn,
) {
    if angle.abs() < 1e-9 {
        return;
    }
    let centre = body.sided(side, about);
    let share = figure.share(side, chain);
    body.bend(&share, side, joints, |p, share| {
        centre + Rotation3::from_axis_angle(&axis, angle * share) * (p - centre)
    });
}
