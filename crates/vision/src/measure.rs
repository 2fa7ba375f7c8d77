//! Scale, widths, limbs and landmarks from a mask, the joints and the midline.

use crate::body::Joints;
use crate::frame::{Frame, Run, runs};
use crate::limb::{Axis, FREE_SHARE, steady};
use crate::photo::{Landmark, Limb, PhotoPose, Tilt, Width};
use crate::plane::Plane;
use crate::pose_net::Found;
use std::cell::OnceCell;
use units::{Segment, Side, Sides};

/// Where the camera is taken to stand when nobody says, m.
const USUAL_DISTANCE_M: f64 = 3.5;
/// The camera's height as a share of stature: at the navel.
const CAMERA_SHARE: f64 = 0.57;
/// How far the lowest point of the outline is before the plane of the body, as a share of stature: toes from the front,
/// the near foot from the side; from behind the heels are under the body.
const FOOT_AHEAD_SHARE: [f64; 3] = [0.085, -0.01, 0.07];
/// How far hanging arms are before the plane of the body, as a share of stature (booth figures): from the front they look
/// larger, from behind smaller.
const ARM_AHEAD_SHARE: f64 = 0.028;
/// Segments, and the stretch over which their width is averaged, as shares of the way between their joints.
const SEGMENTS: [(Segment, (f64, f64)); 4] = [
    (Segment::UpperArm, (0.5, 0.82)),
    (Segment::Forearm, (0.1, 0.7)),
    (Segment::Thigh, (0.4, 0.9)),
    (Segment::Calf, (0.1, 0.8)),
];
/// The stretch of the thigh, as a share of stature above the knee: the hip joint cannot be seen.
const THIGH_ABOVE_KNEE: (f64, f64) = (0.03, 0.14);
/// Level of the widest deltoid below the shoulder joint, as a share of stature.
const DELTOID_BELOW: f64 = 0.025;
/// Places across a segment.
pub(crate) const PLACES: u32 = 40;

/// By how many percent something that is `nearer_cm` nearer the camera than the plane of the scale looks too large.
///
/// ```
/// assert!((vision::perspective_pct(10.0, 3.0) - 3.448).abs() < 1e-3);
/// ```
pub fn perspective_pct(nearer_cm: f64, distance_m: f64) -> f64 {
    let distance_cm = distance_m * 100.0;
    100.0 * (distance_cm / (distance_cm - nearer_cm) - 1.0)
}

/// A person standing in a picture.
pub(crate) struct Standing<'a> {
    pub mask: &'a Plane,
    pub joints: Joints,
    pub pose: PhotoPose,
    pub frame: Frame,
    /// Heights of the vertex and of the floor on the midline, px.
    pub vertex: f64,
    pub floor: f64,
    pub cm_per_px: f64,
    /// Where the camera stands, cm.
    pub distance_cm: f64,
    /// 1 when the client's left is on the right of the picture, -1 otherwise.
    pub left: f64,
    /// Levels that several measures rest on, each looked for once.
    levels: Levels,
}

/// A level of the trunk: its height on the midline and its run.
type Level = Option<(f64, Run)>;

#[derive(Default)]
struct Levels {
    waist: OnceCell<Level>,
    hip: OnceCell<Level>,
    armpit: OnceCell<Level>,
    crotch: OnceCell<Option<f64>>,
}

impl<'a> Standing<'a> {
    /// Finds midline, vertex, floor and scale. `None` when the mask does not show them.
    pub fn find(
        mask: &'a Plane,
        joints: &Joints,
        pose: PhotoPose,
        stature_cm: f64,
        distance_m: Option<f64>,
    ) -> Option<Self> {
        let rough = Frame::new(Joints::middle(&joints.ankle), Joints::middle(&joints.shoulder))?;
        let ankles = ankle_middle(mask, &rough, joints).unwrap_or(rough.origin);
        let neck = neck_middle(mask, &rough, joints).unwrap_or_else(|| Joints::middle(&joints.shoulder));
        let frame = if pose.from_the_side() { level(rough) } else { Frame::new(ankles, neck)? };
        let height = |found: &Found| frame.back((found.x, found.y));
        let (ear_left, ear_right) = (height(&joints.ear.left), height(&joints.ear.right));
        let (head_x, head_high) = (f64::midpoint(ear_left.0, ear_right.0), f64::midpoint(ear_left.1, ear_right.1));
        let reach = head_high * 0.035;
        let vertex =
            (-4..=4).map(|i| top(mask, &frame, head_x + reach * f64::from(i) / 4.0, head_high)).fold(0.0, f64::max);
        let lowest =
            [&joints.ankle.left, &joints.ankle.right].map(|ankle| bottom(mask, &frame, height(ankle).0, reach));
        let lowest = lowest[0].min(lowest[1]);
        let raw = vertex - lowest;
        if raw < 50.0 {
            return None;
        }
        // Toes and heels are nearer the camera than the body: seen from above they lie below the floor under the body.
        let view = if pose.from_the_side() { 2 } else { usize::from(pose.from_behind()) };
        let distance = distance_m.unwrap_or(USUAL_DISTANCE_M) * 100.0;
        let ahead = FOOT_AHEAD_SHARE[view] * stature_cm;
        let stature_px = raw / (1.0 + CAMERA_SHARE * ahead / (distance - ahead));
        let across = joints.shoulder.left.x - joints.shoulder.right.x + joints.hip.left.x - joints.hip.right.x;
        let left = if across >= 0.0 { 1.0 } else { -1.0 };
        let cm_per_px = stature_cm / stature_px;
        Some(Self {
            mask,
            joints: *joints,
            pose,
            frame,
            vertex,
            floor: vertex - stature_px,
            cm_per_px,
            distance_cm: distance,
            left,
            levels: Levels::default(),
        })
    }

    /// Takes a vertex or a floor the coach has placed.
    pub fn rescale(&mut self, vertex: Option<&Landmark>, floor: Option<&Landmark>, stature_cm: f64) {
        let high = |mark: &Landmark| self.frame.back((mark.x, mark.y)).1;
        let placed = (vertex.map(high), floor.map(high));
        self.vertex = placed.0.unwrap_or(self.vertex);
        self.floor = placed.1.unwrap_or(self.floor);
        self.cm_per_px = stature_cm / (self.vertex - self.floor).max(1.0);
        self.levels = Levels::default();
    }

    pub(crate) fn px(&self, cm: f64) -> f64 {
        cm / self.cm_per_px
    }

    pub(crate) fn cm(&self, px: f64) -> f64 {
        px * self.cm_per_px
    }

    /// Mean height of a pair of joints on the midline.
    pub fn high(&self, pair: &Sides<Found>) -> f64 {
        self.frame.back(Joints::middle(pair)).1
    }

    /// The run of the trunk at a height: the one about the midline, or the nearest.
    pub fn trunk(&self, high: f64) -> Option<Run> {
        let away = |run: &Run| if run.0 <= 0.0 && run.1 >= 0.0 { 0.0 } else { run.0.abs().min(run.1.abs()) };
        self.frame.runs(self.mask, high).into_iter().min_by(|a, b| away(a).total_cmp(&away(b)))
    }

    /// Whether an arm belongs to a run of the trunk at a height.
    fn with_arm(&self, run: Run, high: f64) -> bool {
        let side = |arm: [&Found; 3]| {
            let points = arm.map(|found| self.frame.back((found.x, found.y)));
            points.windows(2).any(|pair| {
                let ((x0, y0), (x1, y1)) = (pair[0], pair[1]);
                let (low, high_end) = (y0.min(y1), y0.max(y1));
                if high < low || high > high_end || (y1 - y0).abs() < 1.0 {
                    return false;
                }
                let x = x0 + (x1 - x0) * (high - y0) / (y1 - y0);
                x > run.0 && x < run.1
            })
        };
        let j = &self.joints;
        side([&j.shoulder.left, &j.elbow.left, &j.wrist.left])
            || side([&j.shoulder.right, &j.elbow.right, &j.wrist.right])
    }

    /// The level between two heights at which the free trunk is widest or narrowest.
    fn trunk_extreme(&self, low: f64, high: f64, widest: bool) -> Option<(f64, Run)> {
        let steps = (high - low).abs().ceil().max(1.0) as u32;
        let levels = (0..=steps).map(|i| low + (high - low) * f64::from(i) / f64::from(steps));
        let sided = self.pose.from_the_side();
        let free =
            levels.filter_map(|y| self.trunk(y).filter(|run| sided || !self.with_arm(*run, y)).map(|run| (y, run)));
        let width = |entry: &(f64, Run)| entry.1.1 - entry.1.0;
        if widest {
            free.max_by(|a, b| width(a).total_cmp(&width(b)))
        } else {
            free.min_by(|a, b| width(a).total_cmp(&width(b)))
        }
    }

    pub fn waist(&self) -> Level {
        *self.levels.waist.get_or_init(|| self.find_waist())
    }

    fn find_waist(&self) -> Level {
        let (hip, shoulder) = (self.high(&self.joints.hip), self.high(&self.joints.shoulder));
        self.trunk_extreme(hip + (shoulder - hip) * 0.22, hip + (shoulder - hip) * 0.6, false)
    }

    pub fn hip(&self) -> Level {
        *self.levels.hip.get_or_init(|| self.find_hip())
    }

    fn find_hip(&self) -> Level {
        let hip = self.high(&self.joints.hip);
        let low = self.crotch().unwrap_or(hip - self.px(9.0));
        self.trunk_extreme(low, hip + self.px(8.0), true)
    }

    /// Height at which the legs part.
    pub fn crotch(&self) -> Option<f64> {
        *self.levels.crotch.get_or_init(|| self.find_crotch())
    }

    fn find_crotch(&self) -> Option<f64> {
        if self.pose.from_the_side() {
            return None;
        }
        let (hip, knee) = (self.high(&self.joints.hip), self.high(&self.joints.knee));
        let apart = |y: f64| {
            let runs = self.frame.runs(self.mask, y);
            let legs = |side: f64| runs.iter().any(|run| (run.0 + run.1) * side > 0.0 && run.1 - run.0 > self.px(5.0));
            self.trunk(y).is_some_and(|run| run.0 > 0.0 || run.1 < 0.0) && legs(1.0) && legs(-1.0)
        };
        let steps = (hip - knee).max(0.0) as u32;
        (0..steps).map(|i| hip - f64::from(i)).find(|&y| apart(y))
    }

    /// The highest level at which the trunk is free of both arms.
    pub fn armpit(&self) -> Level {
        *self.levels.armpit.get_or_init(|| self.find_armpit())
    }

    fn find_armpit(&self) -> Level {
        let (waist, _) = self.waist()?;
        let shoulder = self.high(&self.joints.shoulder);
        let steps = (shoulder - waist).max(0.0) as u32;
        let free = |y: f64| self.trunk(y).filter(|run| !self.with_arm(*run, y)).map(|run| (y, run));
        (0..steps).map(|i| shoulder - f64::from(i)).find_map(free)
    }

    /// The outside of a shoulder a little below the joint, where the deltoid is widest: right of the midline and height.
    pub fn deltoid(&self, side: Side) -> Option<(f64, f64)> {
        let sign = self.sign(side);
        let y = self.high(&self.joints.shoulder) - DELTOID_BELOW * (self.vertex - self.floor);
        let ends = self.frame.runs(self.mask, y).into_iter().map(|run| if sign > 0.0 { run.1 } else { -run.0 });
        ends.max_by(f64::total_cmp).map(|x| (x * sign, y))
    }

    /// 1 when the side is on the right of the picture.
    pub fn sign(&self, side: Side) -> f64 {
        if side == Side::Left { self.left } else { -self.left }
    }

    pub fn arms_hang(&self) -> bool {
        matches!(self.pose, PhotoPose::F | PhotoPose::B)
    }

    /// Widths by level.
    pub fn widths(&self) -> Vec<Width> {
        let mut widths = Vec::new();
        let mut add = |level: &str, run: Option<Run>| {
            let Some((from, to)) = run else { return };
            let ends = if self.left > 0.0 { (to, -from) } else { (-from, to) };
            let half = |px: f64| (!self.pose.from_the_side()).then(|| self.cm(px));
            let (left_cm, right_cm) = (half(ends.0), half(ends.1));
            widths.push(Width { level: level.to_owned(), cm: self.cm(to - from), left_cm, right_cm });
        };
        if self.pose.from_the_side() {
            return widths;
        }
        if self.arms_hang() {
            let edges = self.deltoid(Side::Left).zip(self.deltoid(Side::Right));
            add("deltoid", edges.map(|(a, b)| (a.0.min(b.0), a.0.max(b.0))));
        }
        add("chest", self.armpit().map(|(_, run)| run));
        add("waist", self.waist().map(|(_, run)| run));
        add("hip", self.hip().map(|(_, run)| run));
        widths
    }

    /// A width between two edges the coach has placed, across the midline.
    pub fn between(&self, level: &str, left: Landmark, right: Landmark) -> Width {
        let out = |mark: Landmark, side: Side| self.frame.back((mark.x, mark.y)).0 * self.sign(side);
        let (left_px, right_px) = (out(left, Side::Left), out(right, Side::Right));
        Width {
            level: level.to_owned(),
            cm: self.cm(left_px + right_px),
            left_cm: Some(self.cm(left_px)),
            right_cm: Some(self.cm(right_px)),
        }
    }

    /// Mean widths of the limbs that are free of the body on both sides.
    pub fn limbs(&self) -> Vec<Limb> {
        if self.pose.from_the_side() {
            return Vec::new();
        }
        let limb = |&(segment, stretch): &(Segment, (f64, f64))| {
            let sides = Sides { left: Side::Left, right: Side::Right };
            let across = sides.map(|side| self.across(segment, side, stretch));
            let widths = across.map(|runs| steady(runs.into_iter().map(|run| run.map(|run| run.1 - run.0)).collect()));
            // Both sides are averaged over the same places.
            let both: Vec<(f64, f64)> = widths.left.iter().zip(&widths.right).filter_map(|(l, r)| l.zip(*r)).collect();
            let count = both.len() as f64;
            let own_size = self.own_size(segment);
            (count >= FREE_SHARE * f64::from(PLACES)).then(|| Limb {
                segment,
                left_width_cm: self.cm(both.iter().map(|w| w.0).sum::<f64>() / count) * own_size,
                right_width_cm: self.cm(both.iter().map(|w| w.1).sum::<f64>() / count) * own_size,
            })
        };
        SEGMENTS.iter().filter_map(limb).collect()
    }

    /// What takes perspective out of a limb that hangs before the plane of the scale.
    pub(crate) fn own_size(&self, segment: Segment) -> f64 {
        if !self.arms_hang() || !segment.is_arm() {
            return 1.0;
        }
        let ahead_cm = ARM_AHEAD_SHARE * self.cm(self.vertex - self.floor);
        let nearer = if self.pose.from_behind() { -ahead_cm } else { ahead_cm };
        1.0 - nearer / self.distance_cm
    }

    pub fn segment(&self, segment: Segment, side: Side) -> (Found, Found) {
        let j = &self.joints;
        let (from, to) = match segment {
            Segment::UpperArm => (&j.shoulder, &j.elbow),
            Segment::Forearm => (&j.elbow, &j.wrist),
            Segment::Thigh => (&j.hip, &j.knee),
            Segment::Calf => (&j.knee, &j.ankle),
        };
        (*from.get(side), *to.get(side))
    }

    /// The run of a limb at each of the places along it, across its own axis; none where the body joins it.
    fn across(&self, segment: Segment, side: Side, (low, high): (f64, f64)) -> Vec<Option<Run>> {
        let (from, to) = self.segment(segment, side);
        let rough = Axis { from: (from.x, from.y), to: (to.x, to.y) };
        let leg = !segment.is_arm();
        let above = |share: f64| 1.0 - share * (self.vertex - self.floor) / rough.length();
        let (low, high) = if segment == Segment::Thigh {
            (above(THIGH_ABOVE_KNEE.1), above(THIGH_ABOVE_KNEE.0))
        } else {
            (low, high)
        };
        let places = |axis: Axis| -> Vec<Option<Run>> {
            let shares = (0..PLACES).map(|i| low + (high - low) * (f64::from(i) + 0.5) / f64::from(PLACES));
            shares.map(|share| self.limb_run(&axis, share, leg.then_some(side))).collect()
        };
        let Some(axis) = rough.centred(&places(rough), (low, high)) else { return vec![None; PLACES as usize] };
        places(axis)
    }

    pub fn limb_run(&self, axis: &Axis, share: f64, leg: Option<Side>) -> Option<Run> {
        let reach = self.px(16.0);
        let line = |right: f64| {
            let place = axis.place(share, right);
            // Legs that touch are parted at the midline.
            let own = leg.is_none_or(|side| self.frame.back(place).0 * self.sign(side) > 0.0);
            if own { self.mask.at_pair(place) } else { 0.0 }
        };
        let run = runs(line, -reach, reach).into_iter().find(|run| run.0 < self.px(2.5) && run.1 > -self.px(2.5))?;
        let free = run.0 > -reach + 1.0 && run.1 < reach - 1.0 && run.1 - run.0 < 0.62 * axis.length();
        free.then_some(run)
    }

    /// Tilts of the lines through both shoulders and both hips against the midline's right angle.
    pub fn tilt(&self) -> Option<Tilt> {
        let tilt = |pair: &Sides<Found>| {
            let (left, right) =
                (self.frame.back((pair.left.x, pair.left.y)), self.frame.back((pair.right.x, pair.right.y)));
            ((left.1 - right.1) / (left.0 - right.0).abs().max(1.0)).atan().to_degrees()
        };
        let sided = self.pose.from_the_side();
        (!sided).then(|| Tilt { shoulders_deg: tilt(&self.joints.shoulder), hips_deg: tilt(&self.joints.hip) })
    }
}

fn level(frame: Frame) -> Frame {
    Frame { up: (0.0, -1.0), ..frame }
}

/// Highest place of the mask above a point on a line beside the midline.
fn top(mask: &Plane, frame: &Frame, right: f64, from: f64) -> f64 {
    let inside = |high: f64| mask.at_pair(frame.place(right, high));
    let mut high = from;
    while high < from * 2.0 && inside(high + 1.0) >= 0.5 {
        high += 1.0;
    }
    let (below, above) = (inside(high), inside(high + 1.0));
    if below > above { high + ((below - 0.5) / (below - above)).clamp(0.0, 1.0) } else { high }
}

/// Lowest place of the mask within a strip about a foot.
fn bottom(mask: &Plane, frame: &Frame, right: f64, reach: f64) -> f64 {
    let below = |right: f64| {
        let inside = |down: f64| mask.at_pair(frame.place(right, -down));
        let down = (0..(reach * 4.0) as u32).rev().map(f64::from).find(|&down| inside(down) >= 0.5)?;
        let (here, next) = (inside(down), inside(down + 1.0));
        Some(-down - ((here - 0.5) / (here - next)).clamp(0.0, 1.0))
    };
    let strip = (-16..=16).filter_map(|i| below(right + reach * f64::from(i) / 8.0));
    strip.fold(0.0, f64::min)
}

/// The middle between the ankles by the mask.
fn ankle_middle(mask: &Plane, frame: &Frame, joints: &Joints) -> Option<(f64, f64)> {
    let middle = |found: &Found| {
        let (right, high) = frame.back((found.x, found.y));
        let runs = frame.runs(mask, high).into_iter();
        let nearest = runs.min_by(|a, b| {
            (f64::midpoint(a.0, a.1) - right).abs().total_cmp(&(f64::midpoint(b.0, b.1) - right).abs())
        })?;
        Some(frame.place(f64::midpoint(nearest.0, nearest.1), high))
    };
    let (left, right) = (middle(&joints.ankle.left)?, middle(&joints.ankle.right)?);
    Some((f64::midpoint(left.0, right.0), f64::midpoint(left.1, right.1)))
}

/// The middle of the neck by the mask: its narrowest place between ears and shoulders.
fn neck_middle(mask: &Plane, frame: &Frame, joints: &Joints) -> Option<(f64, f64)> {
    let (ears, shoulders) = (frame.back(Joints::middle(&joints.ear)).1, frame.back(Joints::middle(&joints.shoulder)).1);
    let steps = (ears - shoulders).max(0.0) as u32;
    let levels = (0..steps).map(|i| shoulders + f64::from(i)).filter_map(|y| {
        let run = frame.runs(mask, y).into_iter().find(|run| run.0 < 0.0 && run.1 > 0.0)?;
        Some((run.1 - run.0, frame.place(f64::midpoint(run.0, run.1), y)))
    });
    levels.min_by(|a, b| a.0.total_cmp(&b.0)).map(|(_, place)| place)
}
