//! The joints the model finds, with the client's own sides.

use crate::photo::PhotoPose;
use crate::pose_net::Found;
use units::{Side, Sides};

/// Joints of a person in the picture.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Joints {
    pub nose: Found,
    pub ear: Sides<Found>,
    pub shoulder: Sides<Found>,
    pub elbow: Sides<Found>,
    pub wrist: Sides<Found>,
    pub hip: Sides<Found>,
    pub knee: Sides<Found>,
    pub ankle: Sides<Found>,
}

impl Joints {
    /// The model's own order: the left of a pair comes first.
    pub fn of(points: &[Found]) -> Self {
        let pair = |left: usize| Sides { left: points[left], right: points[left + 1] };
        Self {
            nose: points[0],
            ear: pair(7),
            shoulder: pair(11),
            elbow: pair(13),
            wrist: pair(15),
            hip: pair(23),
            knee: pair(25),
            ankle: pair(27),
        }
    }

    /// The joints with left and right as the pose has them: a turned head or hair over the face can mislead the model.
    pub fn sided(self, pose: PhotoPose, mirrored: bool) -> Self {
        if pose.from_the_side() {
            return self;
        }
        let right_of_picture = |pair: &Sides<Found>| pair.left.x - pair.right.x;
        let left_is_right = right_of_picture(&self.shoulder) + right_of_picture(&self.hip) > 0.0;
        let wanted = pose.from_behind() == mirrored;
        if left_is_right == wanted { self } else { self.swapped() }
    }

    /// The joints moved to where the bones turn. The model was taught to point at other places: at the tip of the shoulder,
    /// above the ankle's knuckles, and short of the elbow of a hanging arm. The shares are means over booth figures.
    pub fn centred(mut self, pose: PhotoPose) -> Self {
        let found = self;
        let moves = if pose.from_behind() { &BEHIND } else { &BEFORE };
        let hanging = if matches!(pose, PhotoPose::F | PhotoPose::B) { 1.0 } else { 0.0 };
        for side in [Side::Left, Side::Right] {
            let (shoulder, hip, elbow) = (*found.shoulder.get(side), *found.hip.get(side), *found.elbow.get(side));
            let (knee, ankle, wrist) = (*found.knee.get(side), *found.ankle.get(side), *found.wrist.get(side));
            *self.shoulder.get_mut(side) = further(shoulder, hip, moves.shoulder);
            *self.hip.get_mut(side) = further(hip, shoulder, -moves.hip);
            *self.ankle.get_mut(side) = further(ankle, knee, -moves.ankle);
            *self.elbow.get_mut(side) = further(elbow, shoulder, -moves.elbow * hanging);
            *self.wrist.get_mut(side) = further(wrist, elbow, moves.wrist * hanging);
        }
        self
    }

    fn swapped(self) -> Self {
        Self {
            nose: self.nose,
            ear: self.ear.swapped(),
            shoulder: self.shoulder.swapped(),
            elbow: self.elbow.swapped(),
            wrist: self.wrist.swapped(),
            hip: self.hip.swapped(),
            knee: self.knee.swapped(),
            ankle: self.ankle.swapped(),
        }
    }

    /// Front, back or a side, from how the shoulders lie and where the nose points.
    pub fn guess(&self, mirrored: bool) -> PhotoPose {
        let torso = (Self::middle(&self.shoulder).1 - Self::middle(&self.hip).1).abs().max(1.0);
        let across = self.shoulder.left.x - self.shoulder.right.x;
        let side = |nose_left: bool| if nose_left == mirrored { PhotoPose::SR } else { PhotoPose::SL };
        if across.abs() < SIDE_SHARE * torso {
            return side(self.nose.x < Self::middle(&self.ear).0);
        }
        // The model judges by the look of a body: a mirrored front is a front to it.
        if across > 0.0 { PhotoPose::F } else { PhotoPose::B }
    }

    pub fn middle(pair: &Sides<Found>) -> (f64, f64) {
        (f64::midpoint(pair.left.x, pair.right.x), f64::midpoint(pair.left.y, pair.right.y))
    }
}

/// Shoulders closer together than this share of the trunk's length are seen from the side.
const SIDE_SHARE: f64 = 0.33;

/// How far the joints are moved.
struct Moves {
    /// Of the way from shoulder to hip, down.
    shoulder: f64,
    /// Of the same way, down.
    hip: f64,
    /// Of the way from knee to ankle, on.
    ankle: f64,
    /// Of the way from shoulder to elbow, on; hanging arms only.
    elbow: f64,
    /// Of the way from wrist to elbow, back; hanging arms only.
    wrist: f64,
}

const BEFORE: Moves = Moves { shoulder: 0.036, hip: 0.029, ankle: 0.105, elbow: 0.08, wrist: 0.0 };
const BEHIND: Moves = Moves { shoulder: 0.054, hip: 0.027, ankle: 0.078, elbow: 0.045, wrist: 0.075 };

/// A place moved by a share of its way to another.
fn further(from: Found, to: Found, share: f64) -> Found {
    Found { x: from.x + (to.x - from.x) * share, y: from.y + (to.y - from.y) * share, ..from }
}
