//! From a movement's words to angles of joints, and where the room is as the body sees it.

use crate::body::{Body, Vector};
use crate::chain::Pose;
use crate::movement::{Movement, Posture, Stance};

/// Every coordinate of a movement, degrees, in the order of [`Posture`]'s words.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(crate) struct Angles {
    pub plane: f64,
    pub up: f64,
    pub turn: f64,
    pub elbow: f64,
    pub fore: f64,
    pub wrist: f64,
    pub tip: f64,
    pub hip: f64,
    pub abduct: f64,
    pub hip_turn: f64,
    pub knee: f64,
    pub ankle: f64,
    pub bend: f64,
    pub side: f64,
    pub twist: f64,
    pub lean: f64,
}

/// How a body lies in the room.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Room {
    pub lean_deg: f64,
    pub roll_deg: f64,
}

impl Room {
    /// A direction of the room (forward, up, right) as the body has it.
    pub fn to_body(self, [f, u, r]: [f64; 3]) -> [f64; 3] {
        let ((sin, cos), (roll_sin, roll_cos)) =
            (self.lean_deg.to_radians().sin_cos(), self.roll_deg.to_radians().sin_cos());
        let (f, u) = (f * cos - u * sin, f * sin + u * cos);
        [f, u * roll_cos - r * roll_sin, u * roll_sin + r * roll_cos]
    }

    /// A direction of the body as the room has it.
    pub fn to_room(self, [f, u, r]: [f64; 3]) -> [f64; 3] {
        let ((sin, cos), (roll_sin, roll_cos)) =
            (self.lean_deg.to_radians().sin_cos(), self.roll_deg.to_radians().sin_cos());
        let (u, r) = (u * roll_cos + r * roll_sin, r * roll_cos - u * roll_sin);
        [f * cos + u * sin, u * cos - f * sin, r]
    }
}

/// Forward, up and right of the body in the frame of its root.
pub(crate) fn rooted([f, u, r]: [f64; 3]) -> Vector {
    Vector::new(-r, -f, u)
}

/// The other way round.
pub(crate) fn worded(v: Vector) -> [f64; 3] {
    [-v.y, v.z, -v.x]
}

/// Joints of the chain by their words.
pub(crate) mod joints {
    pub const PLANE: &str = "elv_angle_r";
    pub const UP: &str = "shoulder_elv_r";
    pub const TURN: &str = "shoulder_rot_r";
    pub const ELBOW: &str = "elbow_flexion_r";
    pub const FORE: &str = "pro_sup_r";
    pub const WRIST: &str = "flexion_r";
    pub const TIP: &str = "deviation_r";
    pub const HIP: &str = "hip_flexion_r";
    pub const ABDUCT: &str = "hip_adduction_r";
    pub const HIP_TURN: &str = "hip_rotation_r";
    pub const KNEE: &str = "knee_angle_r";
    pub const ANKLE: &str = "ankle_angle_r";
    pub const BEND: &str = "flex_extension";
    pub const SIDE: &str = "lat_bending";
    pub const TWIST: &str = "axial_rotation";
}

/// Arms that hang straighter than this have no plane of their own, degrees.
const HANGS: f64 = 3.0;

impl Angles {
    /// Start and end of a movement.
    pub fn of(movement: &Movement) -> [Self; 2] {
        let start = &movement.start;
        let end = start.then(&movement.end);
        let mut both = [start, &end].map(|posture| Self::at(movement, posture));
        // An arm that hangs takes plane and turn of the other end, or it would swing round on its way.
        for (here, other) in [(0, 1), (1, 0)] {
            let given = [start, &end][here];
            if both[here].up.abs() < HANGS && given.plane.is_none() {
                both[here].plane = both[other].plane;
            }
        }
        both
    }

    /// The angles of one posture of a movement.
    pub fn at(movement: &Movement, posture: &Posture) -> Self {
        let lean = posture.lean.unwrap_or(movement.lean);
        let room = Room { lean_deg: lean, roll_deg: movement.roll };
        let [hip, knee] = legs(movement.stance, lean);
        let or = |own: Option<f64>, usual: f64| own.unwrap_or(usual);
        let (mut plane, mut up) = (or(posture.plane, 90.0), or(posture.up, 0.0));
        if let Some(upper) = posture.upper {
            [plane, up] = raised(room.to_body(upper));
        }
        let (mut turn, mut elbow) = (or(posture.turn, 0.0), or(posture.elbow, 5.0));
        if let Some(forearm) = posture.forearm {
            [turn, elbow] = bent(plane, up, room.to_body(forearm));
        }
        Self {
            plane,
            up,
            turn,
            elbow,
            fore: or(posture.fore, 0.0),
            wrist: or(posture.wrist, 0.0),
            tip: or(posture.tip, 0.0),
            hip: or(posture.hip, hip),
            abduct: or(posture.abduct, 3.0),
            hip_turn: or(posture.hip_turn, 0.0),
            knee: or(posture.knee, knee),
            ankle: or(posture.ankle, 0.0),
            bend: or(posture.bend, 0.0),
            side: or(posture.side, 0.0),
            twist: or(posture.twist, 0.0),
            lean,
        }
    }

    /// On the way, 0 at the start, 1 at the end.
    pub fn between([start, end]: &[Self; 2], share: f64) -> Self {
        let mix = |a: f64, b: f64| a + (b - a) * share;
        Self {
            plane: mix(start.plane, end.plane),
            up: mix(start.up, end.up),
            turn: mix(start.turn, end.turn),
            elbow: mix(start.elbow, end.elbow),
            fore: mix(start.fore, end.fore),
            wrist: mix(start.wrist, end.wrist),
            tip: mix(start.tip, end.tip),
            hip: mix(start.hip, end.hip),
            abduct: mix(start.abduct, end.abduct),
            hip_turn: mix(start.hip_turn, end.hip_turn),
            knee: mix(start.knee, end.knee),
            ankle: mix(start.ankle, end.ankle),
            bend: mix(start.bend, end.bend),
            side: mix(start.side, end.side),
            twist: mix(start.twist, end.twist),
            lean: mix(start.lean, end.lean),
        }
    }

    /// Joints of the chain with their angles, degrees. An arm raised below 0 is raised in the opposite plane.
    pub fn by_joint(&self) -> [(&'static str, f64); 15] {
        let (plane, up) = if self.up < 0.0 { (self.plane - 180.0, -self.up) } else { (self.plane, self.up) };
        [
            (joints::PLANE, plane),
            (joints::UP, up),
            (joints::TURN, self.turn),
            (joints::ELBOW, self.elbow),
            (joints::FORE, -self.fore),
            (joints::WRIST, self.wrist),
            (joints::TIP, self.tip),
            (joints::HIP, self.hip),
            (joints::ABDUCT, -self.abduct),
            (joints::HIP_TURN, self.hip_turn),
            (joints::KNEE, self.knee),
            (joints::ANKLE, self.ankle),
            (joints::BEND, -self.bend),
            (joints::SIDE, self.side),
            (joints::TWIST, self.twist),
        ]
    }

    /// The body at these angles, kept within the ranges of its joints.
    pub fn pose<'a>(&self, body: &'a Body) -> Pose<'a> {
        let given = self.by_joint().map(|(name, degrees)| {
            let joint = body.joint(name).expect("the chain has its joints");
            let [low, high] = body.range(joint);
            (joint, degrees.to_radians().clamp(low, high))
        });
        Pose::new(body, &given)
    }
}

impl Posture {
    /// The same with what another names.
    fn then(&self, end: &Self) -> Self {
        let aims = end.upper.is_some() || end.plane.is_some() || end.up.is_some();
        let bends = end.forearm.is_some() || end.turn.is_some() || end.elbow.is_some();
        Self {
            plane: end.plane.or(self.plane),
            up: end.up.or(self.up),
            turn: end.turn.or(self.turn),
            elbow: end.elbow.or(self.elbow),
            fore: end.fore.or(self.fore),
            wrist: end.wrist.or(self.wrist),
            tip: end.tip.or(self.tip),
            hip: end.hip.or(self.hip),
            abduct: end.abduct.or(self.abduct),
            hip_turn: end.hip_turn.or(self.hip_turn),
            knee: end.knee.or(self.knee),
            ankle: end.ankle.or(self.ankle),
            bend: end.bend.or(self.bend),
            side: end.side.or(self.side),
            twist: end.twist.or(self.twist),
            lean: end.lean.or(self.lean),
            upper: if aims { end.upper } else { self.upper },
            forearm: if bends { end.forearm } else { self.forearm },
        }
    }
}

/// Hip and knee of a stance, degrees.
fn legs(stance: Stance, lean: f64) -> [f64; 2] {
    match stance {
        Stance::Bent => [lean.max(0.0), 12.0],
        // Thighs level, however far back the rest leans.
        Stance::Seated => [90.0 + lean, 90.0],
        Stance::Lying => [(90.0 + lean).max(0.0) - 15.0, 75.0],
        Stance::ChestDown => [(lean - 60.0).max(-10.0), 35.0],
        Stance::Kneeling => [lean.max(0.0), 90.0],
        Stance::Standing | Stance::Hanging | Stance::Floor | Stance::Feet | Stance::Plank => [0.0, 0.0],
    }
}

/// The forearm along a line, one way or the other as it lies already: turn and elbow, degrees.
pub(crate) fn along(angles: &Angles, line: [f64; 3]) -> [f64; 2] {
    let back = line.map(|part| -part);
    let [turn, elbow] = [angles.turn, angles.elbow];
    let ways = [line, back].map(|way| bent(angles.plane, angles.up, way));
    let off = |[t, e]: [f64; 2]| (e - elbow).abs() + 0.2 * (t - turn).abs();
    let [one, other] = ways;
    if off(one) <= off(other) { one } else { other }
}

/// Plane and elevation of an upper arm along a line, one way or the other as it lies already, degrees.
pub(crate) fn aimed(angles: &Angles, line: [f64; 3]) -> [f64; 2] {
    let (sin, cos) = angles.up.to_radians().sin_cos();
    let (plane_sin, plane_cos) = angles.plane.to_radians().sin_cos();
    let here = [sin * plane_sin, -cos, sin * plane_cos];
    let same = here.iter().zip(line).map(|(a, b)| a * b).sum::<f64>() >= 0.0;
    raised(if same { line } else { line.map(|part| -part) })
}

/// Plane and elevation of an arm that points so, degrees.
fn raised([f, u, r]: [f64; 3]) -> [f64; 2] {
    let up = (-u).clamp(-1.0, 1.0).acos().to_degrees();
    [f.atan2(r).to_degrees(), up]
}

/// Turn and elbow by which the forearm of an arm so raised points so, degrees.
fn bent(plane: f64, up: f64, forearm: [f64; 3]) -> [f64; 2] {
    // The upper arm's own frame: forward, along it upward, outward.
    let (sin, cos) = plane.to_radians().sin_cos();
    let (up_sin, up_cos) = up.to_radians().sin_cos();
    let [f, u, r] = forearm;
    // Into the plane of raising, back from its height, out of the plane.
    let (within, across) = (f * sin + r * cos, f * cos - r * sin);
    let (along, out) = (u * up_cos - within * up_sin, within * up_cos + u * up_sin);
    let (forward, outward) = (out * sin + across * cos, out * cos - across * sin);
    let elbow = (-along).clamp(-1.0, 1.0).acos().to_degrees();
    [(-outward).atan2(forward).to_degrees(), elbow]
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// The direction from one bone to another, as the body has it.
    fn points(angles: &Angles, [from, to]: [&str; 2]) -> [f64; 3] {
        let body = Body::shipped();
        let pose = angles.pose(body);
        let at = |name: &str| pose.at(body.bone(name).unwrap(), Vector::zeros());
        worded((at(to) - at(from)).normalize())
    }

    fn off(here: [f64; 3], there: [f64; 3]) -> f64 {
        here.iter().zip(there).map(|(a, b)| a * b).sum::<f64>().clamp(-1.0, 1.0).acos().to_degrees()
    }

    #[rstest]
    #[case::to_the_front([1.0, 0.0, 0.0])]
    #[case::to_the_side([0.0, 0.0, 1.0])]
    #[case::overhead_and_out([0.1, 0.9, 0.3])]
    #[case::low_and_across([0.6, -0.7, -0.2])]
    fn an_upper_arm_points_where_it_is_told_within_what_bones_are_bowed(#[case] way: [f64; 3]) {
        let [plane, up] = raised(way.map(|part| part / Vector::from(way).norm()));
        let angles = Angles { plane, up, ..Angles::default() };
        assert!(off(points(&angles, ["humerus_r", "ulna_r"]), Vector::from(way).normalize().into()) < 8.0);
    }

    #[rstest]
    #[case::press_from_the_chest(10.0, 70.0, [1.0, 0.0, 0.0])]
    #[case::elbow_at_the_side_forearm_level(90.0, 0.0, [1.0, 0.0, 0.0])]
    #[case::arm_in_front_forearm_up(90.0, 90.0, [0.0, 1.0, 0.0])]
    #[case::arm_to_the_side_forearm_in_front(0.0, 90.0, [1.0, 0.0, 0.0])]
    #[case::overhead_forearm_back(60.0, 150.0, [-0.6, 0.3, -0.1])]
    fn a_forearm_points_where_it_is_told(#[case] plane: f64, #[case] up: f64, #[case] way: [f64; 3]) {
        let way: [f64; 3] = Vector::from(way).normalize().into();
        let [turn, elbow] = bent(plane, up, way);
        let angles = Angles { plane, up, turn, elbow, ..Angles::default() };
        let there = points(&angles, ["ulna_r", "lunate_r"]);
        assert!(off(there, way) < 15.0, "{there:?} {turn} {elbow}");
    }

    #[rstest]
    #[case::upright(0.0, 0.0, [0.0, 1.0, 0.0])]
    #[case::on_the_back(-90.0, 0.0, [1.0, 0.0, 0.0])]
    #[case::face_down(90.0, 0.0, [-1.0, 0.0, 0.0])]
    #[case::on_the_left_side(0.0, 90.0, [0.0, 0.0, 1.0])]
    fn the_room_s_up_is_where_the_body_has_it(
        #[case] lean_deg: f64,
        #[case] roll_deg: f64,
        #[case] expected: [f64; 3],
    ) {
        let room = Room { lean_deg, roll_deg };
        let up = room.to_body([0.0, 1.0, 0.0]);
        assert!((Vector::from(up) - Vector::from(expected)).norm() < 1e-9, "{up:?}");
        assert!((Vector::from(room.to_room(up)) - Vector::y()).norm() < 1e-9);
    }
}
