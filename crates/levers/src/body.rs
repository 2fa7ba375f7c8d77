//! The body: bones, joints, muscles and what their paths wrap around, of the right side and half the trunk.
//!
//! `data/body.json` is made by `reference/levers.py` from the open full-body musculoskeletal model `myo-sim` 0.2.4. Lengths in
//! metres; frames of bones have x forward, y up and z to the client's right, but for the bones of the hand.

use nalgebra::{Quaternion, Unit, UnitQuaternion, Vector3};
use serde::Deserialize;
use std::collections::HashMap;
use std::sync::LazyLock;

/// A place or direction, m.
pub type Vector = Vector3<f64>;

static BODY: LazyLock<Body> = LazyLock::new(|| Body::read(include_str!("../data/body.json")));

/// All bones, joints, wraps and muscles.
#[derive(Debug)]
pub struct Body {
    /// Each after its parent.
    pub(crate) bones: Vec<Bone>,
    pub(crate) joints: Vec<Joint>,
    pub(crate) wraps: Vec<Wrap>,
    pub(crate) muscles: Vec<Muscle>,
    bone_at: HashMap<String, usize>,
    joint_at: HashMap<String, usize>,
    /// Joints of each bone.
    pub(crate) joints_of: Vec<Vec<usize>>,
    /// Whether a joint moves a bone, bone by joint.
    pub(crate) moves: Vec<Vec<bool>>,
}

/// A bone in the frame of its parent.
#[derive(Debug)]
pub(crate) struct Bone {
    pub parent: Option<usize>,
    pub at: Vector,
    pub turn: UnitQuaternion<f64>,
}

/// One degree of freedom.
#[derive(Debug)]
pub(crate) struct Joint {
    pub bone: usize,
    pub kind: JointKind,
    pub axis: Unit<Vector>,
    pub at: Vector,
    /// rad or m.
    pub range: [f64; 2],
    /// The joint that drives it and the polynomial by which it follows.
    pub follows: Option<(usize, [f64; 5])>,
}

#[derive(Clone, Copy, Debug, Deserialize, PartialEq, Eq)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum JointKind {
    Hinge,
    Slide,
}

/// What a muscle slides over.
#[derive(Debug)]
pub(crate) struct Wrap {
    pub bone: usize,
    pub shape: Shape,
    pub radius_m: f64,
    pub at: Vector,
    pub turn: UnitQuaternion<f64>,
}

#[derive(Clone, Copy, Debug, Deserialize, PartialEq, Eq)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum Shape {
    Sphere,
    Cylinder,
}

/// A muscle from origin to insertion.
#[derive(Debug)]
pub(crate) struct Muscle {
    pub name: String,
    /// The most it pulls with at its best length, N.
    pub force_n: f64,
    /// Best length of its fibres, m.
    pub fibre_m: f64,
    /// Length of its tendon, m.
    pub slack_m: f64,
    pub path: Vec<Step>,
}

#[derive(Debug)]
pub(crate) enum Step {
    Point(Point),
    /// Over a wrap, on the side of a point where there is one.
    Over(usize, Option<Point>),
}

#[derive(Clone, Copy, Debug)]
pub(crate) struct Point {
    pub bone: usize,
    pub at: Vector,
}

impl Body {
    /// The body that ships with the product.
    pub fn shipped() -> &'static Self {
        &BODY
    }

    /// # Panics
    /// When the data names a joint that is not there; a test reads what ships.
    fn read(json: &str) -> Self {
        let raw: RawBody = serde_json::from_str(json).expect("the shipped body reads");
        let placed = |(place, name): (usize, &String)| (name.clone(), place);
        let joint_at: HashMap<String, usize> =
            raw.joints.iter().map(|joint| &joint.name).enumerate().map(placed).collect();
        let bone_at = raw.bodies.iter().map(|bone| &bone.name).enumerate().map(placed).collect();
        let place = |name: &str| *joint_at.get(name).expect("a joint follows one that is there");
        let bones: Vec<Bone> = raw.bodies.into_iter().map(Bone::from).collect();
        let joints: Vec<Joint> = raw.joints.into_iter().map(|joint| joint.resolved(place)).collect();
        let own = |bone: usize| (0..joints.len()).filter(|joint| joints[*joint].bone == bone).collect();
        let joints_of: Vec<Vec<usize>> = (0..bones.len()).map(own).collect();
        let mut moves: Vec<Vec<bool>> = Vec::with_capacity(bones.len());
        for (bone, joints_here) in bones.iter().zip(&joints_of) {
            let mut by = bone.parent.map_or_else(|| vec![false; joints.len()], |parent| moves[parent].clone());
            for joint in joints_here {
                by[*joint] = true;
            }
            moves.push(by);
        }
        let wraps = raw.wraps.into_iter().map(Wrap::from).collect();
        let muscles = raw.muscles.into_iter().map(Muscle::from).collect();
        Self { bones, joints, wraps, muscles, bone_at, joint_at, joints_of, moves }
    }

    /// A bone by the source's name.
    pub fn bone(&self, name: &str) -> Option<usize> {
        self.bone_at.get(name).copied()
    }

    /// A joint by the source's name.
    pub fn joint(&self, name: &str) -> Option<usize> {
        self.joint_at.get(name).copied()
    }

    /// A muscle by the source's name.
    pub fn muscle(&self, name: &str) -> Option<usize> {
        self.muscles.iter().position(|muscle| muscle.name == name)
    }

    /// Names of muscles, in the order of the data.
    pub fn muscle_names(&self) -> impl Iterator<Item = &str> {
        self.muscles.iter().map(|muscle| muscle.name.as_str())
    }

    /// The range of a joint, rad.
    pub fn range(&self, joint: usize) -> [f64; 2] {
        self.joints[joint].range
    }
}

#[derive(Deserialize)]
struct RawBody {
    bodies: Vec<RawBone>,
    joints: Vec<RawJoint>,
    wraps: Vec<RawWrap>,
    muscles: Vec<RawMuscle>,
}

#[derive(Deserialize)]
struct RawBone {
    name: String,
    parent: Option<usize>,
    at: [f64; 3],
    turn: [f64; 4],
}

#[derive(Deserialize)]
struct RawJoint {
    name: String,
    body: usize,
    kind: JointKind,
    axis: [f64; 3],
    at: [f64; 3],
    range: [f64; 2],
    follows: Option<RawFollows>,
}

#[derive(Deserialize)]
struct RawFollows {
    joint: String,
    by: [f64; 5],
}

#[derive(Deserialize)]
struct RawWrap {
    body: usize,
    shape: Shape,
    radius_m: f64,
    at: [f64; 3],
    turn: [f64; 4],
}

#[derive(Deserialize)]
struct RawMuscle {
    name: String,
    force_n: f64,
    fibre_m: f64,
    slack_m: f64,
    path: Vec<RawStep>,
}

#[derive(Deserialize)]
#[serde(untagged)]
enum RawStep {
    Point(RawPoint),
    Over { wrap: usize, side: Option<RawPoint> },
}

#[derive(Deserialize)]
struct RawPoint {
    body: usize,
    at: [f64; 3],
}

fn turned([w, x, y, z]: [f64; 4]) -> UnitQuaternion<f64> {
    UnitQuaternion::from_quaternion(Quaternion::new(w, x, y, z))
}

impl From<RawBone> for Bone {
    fn from(RawBone { parent, at, turn, .. }: RawBone) -> Self {
        Self { parent, at: at.into(), turn: turned(turn) }
    }
}

impl RawJoint {
    fn resolved(self, place: impl Fn(&str) -> usize) -> Joint {
        Joint {
            bone: self.body,
            kind: self.kind,
            axis: Unit::new_normalize(self.axis.into()),
            at: self.at.into(),
            range: self.range,
            follows: self.follows.map(|follows| (place(&follows.joint), follows.by)),
        }
    }
}

impl From<RawWrap> for Wrap {
    fn from(RawWrap { body, shape, radius_m, at, turn }: RawWrap) -> Self {
        Self { bone: body, shape, radius_m, at: at.into(), turn: turned(turn) }
    }
}

impl From<RawMuscle> for Muscle {
    fn from(RawMuscle { name, force_n, fibre_m, slack_m, path }: RawMuscle) -> Self {
        Self { name, force_n, fibre_m, slack_m, path: path.into_iter().map(Step::from).collect() }
    }
}

impl From<RawStep> for Step {
    fn from(step: RawStep) -> Self {
        match step {
            RawStep::Point(point) => Self::Point(point.into()),
            RawStep::Over { wrap, side } => Self::Over(wrap, side.map(Point::from)),
        }
    }
}

impl From<RawPoint> for Point {
    fn from(RawPoint { body, at }: RawPoint) -> Self {
        Self { bone: body, at: at.into() }
    }
}
