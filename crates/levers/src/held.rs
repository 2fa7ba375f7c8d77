//! What muscles hold in a movement, and what of it falls to the right side.

use crate::body::Body;
use crate::movement::{Hold, Movement};
use crate::muscle::Pull;
use crate::posture::joints;

/// What is held: joints, and the muscles that could.
pub(crate) struct Held {
    pub joints: Vec<(&'static str, usize)>,
    pub muscles: Vec<usize>,
}

/// Torques for the right half alone: of a trunk that does the same on both sides it holds half.
pub(crate) fn trunk_shared(movement: &Movement, held: &Held, mut torques: Vec<f64>) -> Vec<f64> {
    if movement.even() {
        let bends = held.joints.iter().zip(&mut torques).filter(|((name, _), _)| *name == joints::BEND);
        bends.for_each(|(_, torque)| *torque /= 2.0);
    }
    torques
}

/// Muscles with the left half of a trunk that does not do the same on both sides: as on the right, but that it bends to its own side.
pub(crate) fn with_left(
    movement: &Movement,
    held: &Held,
    pulls: Vec<Pull>,
    lengths: &[f64],
) -> (Vec<usize>, Vec<Vec<f64>>, Vec<f64>) {
    let (mut muscles, mut lengths) = (held.muscles.clone(), lengths.to_vec());
    let mut arms: Vec<Vec<f64>> = pulls.into_iter().map(|pull| pull.arms_m).collect();
    let sided = |name: &str| name == joints::SIDE || name == joints::TWIST;
    if movement.even() || !held.joints.iter().any(|(name, _)| sided(name)) {
        return (muscles, arms, lengths);
    }
    for place in 0..held.muscles.len() {
        let turned = |(arm, (name, _)): (&f64, &(&str, usize))| if sided(name) { -arm } else { *arm };
        arms.push(arms[place].iter().zip(&held.joints).map(turned).collect());
        muscles.push(held.muscles[place]);
        lengths.push(lengths[place]);
    }
    (muscles, arms, lengths)
}

pub(crate) fn held(body: &Body, movement: &Movement) -> Held {
    let mut names: Vec<&'static str> = Vec::new();
    let (mut arm, mut hand, mut leg, mut trunk) = (false, false, false, false);
    for hold in &movement.holds {
        match hold {
            Hold::Shoulder => names.extend([joints::PLANE, joints::UP, joints::TURN]),
            Hold::Elbow => names.push(joints::ELBOW),
            Hold::Forearm => names.push(joints::FORE),
            Hold::Wrist => names.extend([joints::WRIST, joints::TIP]),
            Hold::Hip => names.extend([joints::HIP, joints::ABDUCT, joints::HIP_TURN]),
            Hold::Knee => names.push(joints::KNEE),
            Hold::Ankle => names.push(joints::ANKLE),
            Hold::Trunk if movement.even() => names.push(joints::BEND),
            Hold::Trunk => names.extend([joints::BEND, joints::SIDE, joints::TWIST]),
        }
        arm |= matches!(hold, Hold::Shoulder | Hold::Elbow);
        hand |= matches!(hold, Hold::Forearm | Hold::Wrist);
        leg |= matches!(hold, Hold::Hip | Hold::Knee | Hold::Ankle);
        trunk |= *hold == Hold::Trunk;
    }
    let joints: Vec<(&'static str, usize)> =
        names.into_iter().filter_map(|name| Some((name, body.joint(name)?))).collect();
    // Muscles of the data stand by limb: shoulder and elbow, hand, leg, trunk.
    let place = |name: &str| body.muscle(name).unwrap_or_default();
    let (first_hand, first_leg, first_trunk) = (place("ECRL"), place("addbrev_r"), place("rect_abd_r"));
    let mut muscles = Vec::new();
    for muscle in 0..body.muscles.len() {
        let wanted = match muscle {
            m if m >= first_trunk => trunk,
            m if m >= first_leg => leg,
            m if m >= first_hand => hand,
            _ => arm || hand,
        };
        if wanted {
            muscles.push(muscle);
        }
    }
    Held { joints, muscles }
}
