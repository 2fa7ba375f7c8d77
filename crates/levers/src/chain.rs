//! Where the bones are at given joint angles, and how they move when a joint does.

use crate::body::{Body, JointKind, Point, Vector, Wrap};
use nalgebra::{UnitQuaternion, UnitVector3};

/// The body at given angles, in the frame of its root: the pelvis, x to the client's left, y back, z up, before it leans.
#[derive(Clone, Debug)]
pub struct Pose<'a> {
    body: &'a Body,
    /// Angle of each joint, rad, followers too.
    angles: Vec<f64>,
    bones: Vec<Frame>,
    /// Axis and a point on it, of each joint.
    axes: Vec<(UnitVector3<f64>, Vector)>,
}

/// How places move with some joints.
pub struct Movers<'a> {
    moves: &'a [Vec<bool>],
    joints: usize,
    parts: Vec<Mover>,
}

struct Mover {
    /// Which of the joints asked for it belongs to.
    place: usize,
    joint: usize,
    kind: JointKind,
    axis: Vector,
    anchor: Vector,
}

impl Movers<'_> {
    /// How a place fixed to a bone moves with each joint, m a rad.
    pub fn of(&self, bone: usize, at: Vector) -> Vec<Vector> {
        let mut moved = vec![Vector::zeros(); self.joints];
        self.parts.iter().filter(|part| self.moves[bone][part.joint]).for_each(|part| moved[part.place] += part.by(at));
        moved
    }

    /// How far two places, each fixed to its bone, move apart along the line between them with each joint, added to `arms`. What
    /// moves both turns the line and leaves its length.
    pub(crate) fn apart(&self, from: (usize, Vector), to: (usize, Vector), direction: Vector, arms: &mut [f64]) {
        let (with_from, with_to) = (&self.moves[from.0], &self.moves[to.0]);
        for part in &self.parts {
            match (with_from[part.joint], with_to[part.joint]) {
                (false, true) => arms[part.place] += direction.dot(&part.by(to.1)),
                (true, false) => arms[part.place] -= direction.dot(&part.by(from.1)),
                _ => {}
            }
        }
    }
}

impl Mover {
    fn by(&self, at: Vector) -> Vector {
        match self.kind {
            JointKind::Slide => self.axis,
            JointKind::Hinge => self.axis.cross(&(at - self.anchor)),
        }
    }
}

/// A bone's place and how it is turned.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Frame {
    pub at: Vector,
    pub turn: UnitQuaternion<f64>,
}

impl<'a> Pose<'a> {
    /// Joints by number with their angles, rad; all others at rest. Followers follow.
    pub fn new(body: &'a Body, given: &[(usize, f64)]) -> Self {
        let mut angles = vec![0.0; body.joints.len()];
        for (joint, angle) in given {
            angles[*joint] = *angle;
        }
        // A follower's driver is driven by no other joint.
        for (place, joint) in body.joints.iter().enumerate() {
            if let Some((driver, by)) = joint.follows {
                angles[place] = polynomial(by, angles[driver]);
            }
        }
        let mut pose = Self { body, angles, bones: Vec::with_capacity(body.bones.len()), axes: Vec::new() };
        pose.place();
        pose
    }

    fn place(&mut self) {
        self.axes = vec![(Vector::x_axis(), Vector::zeros()); self.body.joints.len()];
        for (bone, joints) in self.body.bones.iter().zip(&self.body.joints_of) {
            let parent = bone.parent.map_or_else(Frame::root, |parent| self.bones[parent]);
            let mut frame = Frame { at: parent.of(bone.at), turn: parent.turn * bone.turn };
            for &place in joints {
                let joint = &self.body.joints[place];
                let (axis, anchor) = (frame.turn * joint.axis, frame.of(joint.at));
                self.axes[place] = (axis, anchor);
                match joint.kind {
                    JointKind::Slide => frame.at += axis.into_inner() * self.angles[place],
                    JointKind::Hinge => {
                        frame.turn *= UnitQuaternion::from_axis_angle(&joint.axis, self.angles[place]);
                        frame.at = anchor - frame.turn * joint.at;
                    }
                }
            }
            self.bones.push(frame);
        }
    }

    /// Where a bone's own point is.
    pub fn at(&self, bone: usize, own: Vector) -> Vector {
        self.bones[bone].of(own)
    }

    /// A place in the frame of a bone.
    pub fn within(&self, bone: usize, place: Vector) -> Vector {
        let frame = self.bones[bone];
        frame.turn.inverse() * (place - frame.at)
    }

    /// A bone's own direction.
    pub fn direction(&self, bone: usize, own: Vector) -> Vector {
        self.bones[bone].turn * own
    }

    pub(crate) fn point(&self, point: &Point) -> Vector {
        self.at(point.bone, point.at)
    }

    pub(crate) fn wrap(&self, wrap: &Wrap) -> Frame {
        let bone = self.bones[wrap.bone];
        Frame { at: bone.of(wrap.at), turn: bone.turn * wrap.turn }
    }

    /// What each of some joints turns, what follows it with it.
    pub fn movers(&self, joints: &[usize]) -> Movers<'_> {
        let mut parts = Vec::with_capacity(joints.len() + 8);
        for (place, &joint) in joints.iter().enumerate() {
            parts.push(self.mover(place, joint, 1.0));
            for (follower, other) in self.body.joints.iter().enumerate() {
                if let Some((driver, by)) = other.follows
                    && driver == joint
                {
                    parts.push(self.mover(place, follower, slope(by, self.angles[joint])));
                }
            }
        }
        Movers { moves: &self.body.moves, joints: joints.len(), parts }
    }

    fn mover(&self, place: usize, joint: usize, factor: f64) -> Mover {
        let (axis, anchor) = self.axes[joint];
        Mover { place, joint, kind: self.body.joints[joint].kind, axis: axis.into_inner() * factor, anchor }
    }

    /// The body it is a pose of.
    pub fn body(&self) -> &'a Body {
        self.body
    }
}

impl Frame {
    fn root() -> Self {
        Self { at: Vector::zeros(), turn: UnitQuaternion::identity() }
    }

    pub fn of(&self, own: Vector) -> Vector {
        self.at + self.turn * own
    }
}

fn polynomial(by: [f64; 5], x: f64) -> f64 {
    by.iter().rev().fold(0.0, |sum, factor| sum * x + factor)
}

fn slope(by: [f64; 5], x: f64) -> f64 {
    (1..5).rev().fold(0.0, |sum, power| sum * x + by[power] * power as f64)
}
