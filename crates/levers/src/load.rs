//! What a load does to the joints.

use crate::body::{Body, Vector};
use crate::chain::{Movers, Pose};
use crate::movement::{At, Load, LoadKind, Movement, Posture, Stance};
use crate::posture::{Angles, Room, joints, rooted, worded};

/// Weight of the body whose limbs these are, N: 75 kg.
const BODY_N: f64 = 75.0 * 9.81;
/// Share of the body's weight and where along it the middle of mass lies, from the near end (de Leva 1996, J Biomech 29:1223-1230,
/// men).
const SEGMENTS: [Segment; 6] = [
    Segment { from: "humerus_r", to: "ulna_r", weight: 0.0271, middle: 0.5772 },
    Segment { from: "ulna_r", to: "lunate_r", weight: 0.0162, middle: 0.4574 },
    Segment { from: "lunate_r", to: "3proxph_r", weight: 0.0061, middle: 0.79 },
    Segment { from: "femur_r", to: "tibia_r", weight: 0.1416, middle: 0.4095 },
    Segment { from: "tibia_r", to: "talus_r", weight: 0.0433, middle: 0.4459 },
    Segment { from: "talus_r", to: "toes_r", weight: 0.0137, middle: 0.4415 },
];
/// Trunk above the hips, head and both arms; both legs.
const ABOVE: f64 = 0.4346 * 0.7 + 0.0694 + 2.0 * (0.0271 + 0.0162 + 0.0061);
const LEGS: f64 = 2.0 * (0.1416 + 0.0433 + 0.0137);

struct Segment {
    from: &'static str,
    to: &'static str,
    weight: f64,
    middle: f64,
}

/// A force on a bone, N.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Force {
    pub bone: usize,
    pub at: Vector,
    pub n: Vector,
    /// Whether it acts below the trunk's joints, which then hold it the other way round.
    pub below: bool,
}

/// A movement at one point of its range, ready to be loaded.
pub(crate) struct Scene<'a> {
    pub body: &'a Body,
    pub movement: &'a Movement,
    pub pose: &'a Pose<'a>,
    pub room: Room,
    /// The pose a little further on.
    pub next: &'a Pose<'a>,
    /// 1 where the next pose lies further on, -1 where it lies back.
    pub turned: f64,
    /// 0 at the start, 1 at the end.
    pub share: f64,
}

/// The room at angles of a movement: feet that stand flat say how the body leans.
pub(crate) fn room(body: &Body, movement: &Movement, angles: &Angles, pose: &Pose) -> Room {
    if movement.stance != Stance::Feet {
        return Room { lean_deg: angles.lean, roll_deg: movement.roll };
    }
    let [f, u, _] = worded(sole(body, pose));
    Room { lean_deg: (-f).atan2(u).to_degrees(), roll_deg: 0.0 }
}

/// The way a flat foot's sole pushes, in the frame of the root.
fn sole(body: &Body, pose: &Pose) -> Vector {
    let foot = bone(body, "calcn_r");
    let rest = Pose::new(body, &[]);
    let own = rest.within(foot, rest.at(foot, Vector::zeros()) + rooted([0.0, 1.0, 0.0]));
    pose.direction(foot, own)
}

pub(crate) fn bone(body: &Body, name: &str) -> usize {
    body.bone(name).expect("the chain has its bones")
}

/// A bone and a place on it, m in its own frame.
fn place(body: &Body, at: At) -> (usize, Vector) {
    let own = |name: &str| (bone(body, name), Vector::zeros());
    match at {
        At::Hand => own("3proxph_r"),
        At::Radial => (bone(body, "thirdmc_r"), Vector::new(0.15, 0.0, 0.0)),
        At::Ulnar => (bone(body, "thirdmc_r"), Vector::new(-0.15, 0.0, 0.0)),
        At::Wrist => own("lunate_r"),
        At::Elbow => own("ulna_r"),
        // Between the shoulders, and the head's middle, by the torso's own frame.
        At::Shoulders => (bone(body, "torso"), Vector::new(-0.02, 0.37, 0.0)),
        At::Head => (bone(body, "torso"), Vector::new(0.03, 0.58, 0.0)),
        At::Thigh => (bone(body, "femur_r"), Vector::new(0.0, -0.3, 0.0)),
        At::Knee => own("tibia_r"),
        At::Ankle => own("talus_r"),
        // Under the middle of the foot, and under its ball.
        At::Foot => (bone(body, "calcn_r"), Vector::new(0.11, -0.02, 0.0)),
        At::Toes => (bone(body, "calcn_r"), Vector::new(0.19, -0.02, 0.0)),
    }
}

impl Scene<'_> {
    /// Where a load takes hold, in the frame of the root.
    pub fn held(&self, at: At) -> (usize, Vector) {
        let (bone, own) = place(self.body, at);
        (bone, self.pose.at(bone, own))
    }

    /// A place of the room: above the floor, in front of the hips and to the right of the middle, cm.
    pub fn above_floor(&self, [height, distance, right]: [f64; 3]) -> Vector {
        let [forward, up, _] = worded(self.pose.at(bone(self.body, "femur_r"), Vector::zeros()));
        let hips = rooted([forward, up, 0.0]);
        let way = [distance / 100.0, (height - self.movement.hips_cm()) / 100.0, right / 100.0];
        hips + rooted(self.room.to_body(way))
    }

    /// The way a load pulls, of length 1 but for what changes along the range.
    pub fn way(&self, load: &Load) -> Vector {
        let (bone, at) = self.held(load.at);
        let up = rooted(self.room.to_body([0.0, 1.0, 0.0]));
        match load.kind {
            LoadKind::Weight | LoadKind::Trunk | LoadKind::Legs | LoadKind::Limb => -up,
            LoadKind::Bodyweight => up,
            LoadKind::Sole => sole(self.body, self.pose),
            LoadKind::Cable => (self.above_floor(load.from) - at).normalize(),
            LoadKind::Band => {
                let way = self.above_floor(load.from) - at;
                // A band of half a metre: what it is longer pulls.
                way.normalize() * ((way.norm() - BAND_M).max(0.05) / BAND_M)
            }
            LoadKind::Machine if load.way.is_some() => {
                rooted(self.room.to_body(load.way.unwrap_or_default())).normalize()
            }
            LoadKind::Machine => {
                let (_, own) = place(self.body, load.at);
                let on = self.next.at(bone, own) - at;
                on.try_normalize(1e-9).map_or_else(Vector::zeros, |on| -on * self.turned)
            }
        }
    }

    /// What is loaded onto the body, and what its own limbs weigh.
    pub fn forces(&self) -> [Vec<Force>; 2] {
        let loads = self.movement.loads.iter().filter(|load| load.kind != LoadKind::Limb);
        let external = loads.map(|load| {
            let own_n = match load.kind {
                LoadKind::Trunk => ABOVE * BODY_N * load.n,
                LoadKind::Legs => LEGS * BODY_N * load.n,
                _ => load.n,
            };
            let (bone, at) = match load.kind {
                LoadKind::Trunk => self.held_in("torso", Vector::new(0.0, 0.3, 0.0)),
                _ => self.held(load.at),
            };
            let cam = load.cam[0] + (load.cam[1] - load.cam[0]) * self.share;
            Force { bone, at, n: self.way(load) * (own_n * cam), below: load.kind == LoadKind::Legs }
        });
        let down = rooted(self.room.to_body([0.0, -1.0, 0.0]));
        let limbs = SEGMENTS.iter().map(|segment| {
            let [from, to] = [segment.from, segment.to].map(|name| bone(self.body, name));
            let ends = [from, to].map(|bone| self.pose.at(bone, Vector::zeros()));
            let at = ends[0] + (ends[1] - ends[0]) * segment.middle;
            Force { bone: from, at, n: down * (segment.weight * BODY_N), below: false }
        });
        [external.collect(), limbs.collect()]
    }

    fn held_in(&self, name: &str, own: Vector) -> (usize, Vector) {
        let bone = bone(self.body, name);
        (bone, self.pose.at(bone, own))
    }
}

/// Length of a band at rest, m.
const BAND_M: f64 = 0.5;

/// The torques that hold forces, Nm, by joint.
pub(crate) fn torques(body: &Body, forces: &[Force], movers: &Movers, joints: &[usize]) -> Vec<f64> {
    let torso = bone(body, "torso");
    let trunk = [joints::BEND, joints::SIDE, joints::TWIST].map(|name| body.joint(name));
    let mut torques = vec![0.0; joints.len()];
    for force in forces {
        let moves = movers.of(if force.below { torso } else { force.bone }, force.at);
        for ((torque, moved), joint) in torques.iter_mut().zip(moves).zip(joints) {
            let turned = force.n.dot(&moved);
            if !force.below {
                *torque -= turned;
            } else if trunk.contains(&Some(*joint)) {
                *torque += turned;
            }
        }
    }
    torques
}

impl Movement {
    /// Whether left and right of the trunk do the same, so that each side holds half.
    pub fn even(&self) -> bool {
        let aside = self.loads.iter().any(|load| load.from[2].abs() > 1.0 && load.at == At::Hand);
        self.twin() && !aside
    }

    /// Whether the trunk neither bends to a side nor turns.
    pub fn twin(&self) -> bool {
        let turned = |posture: &Posture| posture.side.or(posture.twist).is_some();
        !turned(&self.start) && !turned(&self.end) && self.roll == 0.0
    }

    /// Height of the hips above the floor, cm.
    pub fn hips_cm(&self) -> f64 {
        self.hip_cm.unwrap_or(match self.stance {
            Stance::Standing => 92.0,
            Stance::Bent | Stance::Feet => 88.0,
            Stance::Seated | Stance::Kneeling => 52.0,
            Stance::Lying => 48.0,
            Stance::ChestDown => 70.0,
            Stance::Hanging => 130.0,
            Stance::Plank => 35.0,
            Stance::Floor => 12.0,
        })
    }
}
