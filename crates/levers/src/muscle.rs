//! How long a muscle is and by what lever it pulls, from its path over the bones.

use crate::body::{Body, Step, Vector};
use crate::chain::{Movers, Pose};
use crate::wrap::over;

/// A muscle at a pose.
#[derive(Clone, Debug)]
pub struct Pull {
    /// From origin to insertion, m.
    pub length_m: f64,
    /// Lever arm about each joint asked for, m: positive turns the joint up.
    pub arms_m: Vec<f64>,
}

/// A place of a path with the bone it moves with.
#[derive(Clone, Copy)]
struct Held {
    bone: usize,
    at: Vector,
}

/// Length and lever arms of a muscle about some joints.
pub fn pull(pose: &Pose, muscle: usize, joints: &[usize]) -> Pull {
    pull_by(pose, muscle, &pose.movers(joints), joints.len())
}

/// The same with what the joints move worked out already.
pub(crate) fn pull_by(pose: &Pose, muscle: usize, movers: &Movers, joints: usize) -> Pull {
    let body = pose.body();
    let (straights, on) = path(body, pose, muscle);
    let mut pull = Pull { length_m: on, arms_m: vec![0.0; joints] };
    for [from, to] in straights {
        let way = to.at - from.at;
        let length = way.norm();
        pull.length_m += length;
        if length < 1e-12 || from.bone == to.bone {
            continue;
        }
        let direction = way / length;
        movers.apart((from.bone, from.at), (to.bone, to.at), -direction, &mut pull.arms_m);
    }
    pull
}

/// Length of the fibres, 1 at their best.
pub fn fibre_length(body: &Body, muscle: usize, length_m: f64) -> f64 {
    let muscle = &body.muscles[muscle];
    (length_m - muscle.slack_m) / muscle.fibre_m
}

/// Straight parts of a path, and the length of what lies on wraps.
fn path(body: &Body, pose: &Pose, muscle: usize) -> (Vec<[Held; 2]>, f64) {
    let (mut straights, mut on) = (Vec::with_capacity(12), 0.0);
    let mut last: Option<Held> = None;
    let mut wrap = None;
    for step in &body.muscles[muscle].path {
        match step {
            Step::Over(at, side) => wrap = Some((*at, *side)),
            Step::Point(point) => {
                let here = Held { bone: point.bone, at: pose.point(point) };
                if let Some(before) = last {
                    let touch = wrap.take().and_then(|(at, side)| {
                        let wrap = &body.wraps[at];
                        let side = side.map(|point| pose.point(&point));
                        let touch = over(before.at, here.at, pose.wrap(wrap), wrap.shape, wrap.radius_m, side)?;
                        Some((wrap.bone, touch))
                    });
                    if let Some((bone, touch)) = touch {
                        on += touch.length;
                        straights.push([before, Held { bone, at: touch.first }]);
                        straights.push([Held { bone, at: touch.last }, here]);
                    } else {
                        straights.push([before, here]);
                    }
                }
                last = Some(here);
            }
        }
    }
    (straights, on)
}
