//! A pose as it is checked from outside: where joints are, how long muscles are and by what levers they pull, by the source model's own
//! names.

use crate::body::{Body, Vector};
use crate::chain::Pose;
use crate::muscle::pull;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// Angles of an arm or a leg, degrees, by joint.
#[derive(Clone, Debug, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum PoseFile {
    /// The right arm, from the torso.
    Arm(BTreeMap<String, f64>),
    /// The right leg, from the pelvis.
    Leg(BTreeMap<String, f64>),
}

/// What the pose gives.
#[derive(Clone, Debug, PartialEq, Serialize, JsonSchema)]
pub struct PosedBody {
    /// Where each bone's joint is, m from the origin of torso or pelvis: forward, up, to the right.
    pub joints: BTreeMap<String, [f64; 3]>,
    /// Muscles of the limb.
    pub muscles: BTreeMap<String, PosedMuscle>,
}

/// A muscle at a pose.
#[derive(Clone, Debug, PartialEq, Serialize, JsonSchema)]
pub struct PosedMuscle {
    /// From origin to insertion, m.
    pub length_m: f64,
    /// By joint, m; positive turns the joint up.
    pub lever_arms_m: BTreeMap<String, f64>,
}

/// A joint that is not there.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
#[error("/{limb}/{joint}: not a joint of the {limb}, expected one of {expected}")]
pub struct NoSuchJoint {
    limb: &'static str,
    joint: String,
    expected: String,
}

struct Limb {
    name: &'static str,
    origin: &'static str,
    joints: &'static [&'static str],
    bones: &'static [&'static str],
    /// First muscle of the data and the first that is another limb's.
    muscles: [&'static str; 2],
}

const ARM: Limb = Limb {
    name: "arm",
    origin: "torso",
    joints: &[
        "elv_angle_r",
        "shoulder_elv_r",
        "shoulder_rot_r",
        "elbow_flexion_r",
        "pro_sup_r",
        "deviation_r",
        "flexion_r",
    ],
    bones: &["humerus_r", "ulna_r", "radius_r", "lunate_r", "thirdmc_r", "3proxph_r"],
    muscles: ["DELT1", "addbrev_r"],
};
const LEG: Limb = Limb {
    name: "leg",
    origin: "pelvis",
    joints: &[
        "hip_flexion_r",
        "hip_adduction_r",
        "hip_rotation_r",
        "knee_angle_r",
        "ankle_angle_r",
        "subtalar_angle_r",
    ],
    bones: &["femur_r", "tibia_r", "patella_r", "talus_r", "calcn_r", "toes_r"],
    muscles: ["addbrev_r", "rect_abd_r"],
};

/// Works a pose out.
///
/// # Errors
/// [`NoSuchJoint`] for an angle of a joint that the model does not have.
pub fn posed(file: &PoseFile) -> Result<PosedBody, NoSuchJoint> {
    let body = Body::shipped();
    let (limb, angles) = match file {
        PoseFile::Arm(angles) => (&ARM, angles),
        PoseFile::Leg(angles) => (&LEG, angles),
    };
    let mut given = Vec::new();
    for (joint, degrees) in angles {
        let place = body.joint(joint).filter(|_| limb.joints.contains(&joint.as_str()));
        let refused = || NoSuchJoint { limb: limb.name, joint: joint.clone(), expected: limb.joints.join(", ") };
        given.push((place.ok_or_else(refused)?, degrees.to_radians()));
    }
    let pose = Pose::new(body, &given);
    let joints: Vec<usize> = limb.joints.iter().filter_map(|name| body.joint(name)).collect();
    let origin = body.bone(limb.origin).unwrap_or_default();
    let place = |name: &&str| {
        let bone = body.bone(name).unwrap_or_default();
        ((*name).to_owned(), pose.within(origin, pose.at(bone, Vector::zeros())).into())
    };
    let [first, end] = limb.muscles.map(|name| body.muscle(name).unwrap_or_default());
    let muscle = |muscle: usize| {
        let pull = pull(&pose, muscle, &joints);
        let arms = limb.joints.iter().zip(pull.arms_m).map(|(name, arm)| ((*name).to_owned(), arm)).collect();
        (body.muscles[muscle].name.clone(), PosedMuscle { length_m: pull.length_m, lever_arms_m: arms })
    };
    Ok(PosedBody { joints: limb.bones.iter().map(place).collect(), muscles: (first..end).map(muscle).collect() })
}
