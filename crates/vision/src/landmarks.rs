//! Landmarks of a standing person, by the names of the photo file.

use crate::frame::Run;
use crate::limb::Axis;
use crate::measure::{PLACES, Standing};
use crate::photo::{Landmark, PhotoPose};
use crate::pose_net::Found;
use std::collections::BTreeMap;
use units::{Segment, Side};

impl Standing<'_> {
    /// Landmarks by the names of the photo file.
    pub fn landmarks(&self) -> BTreeMap<String, Landmark> {
        let mut marks = BTreeMap::new();
        let mut on = |name: &str, right: f64, high: f64, confidence: f64| {
            let (x, y) = self.frame.place(right, high);
            marks.insert(name.to_owned(), Landmark { x, y, confidence });
        };
        let stature = self.vertex - self.floor;
        let shoulder = self.high(&self.joints.shoulder);
        on("vertex", 0.0, self.vertex, 0.9);
        on("floor", 0.0, self.floor, 0.9);
        on("chin", 0.0, self.vertex - 0.128 * stature, 0.5);
        on("sternal-notch", 0.0, shoulder + 0.005 * stature, 0.5);
        on("navel", 0.0, self.floor + 0.6 * stature, 0.4);
        if let Some(crotch) = self.crotch() {
            on("crotch", 0.0, crotch, 0.8);
        }
        let mut pair = |name: &str, found: Option<(f64, Run)>| {
            let Some((high, (from, to))) = found else { return };
            let (left, right) = if self.left > 0.0 { (to, from) } else { (from, to) };
            on(&format!("{name}-left"), left, high, 0.8);
            on(&format!("{name}-right"), right, high, 0.8);
        };
        if !self.pose.from_the_side() {
            let armpit = self.armpit();
            pair("armpit", armpit);
            pair("waist", self.waist());
            pair("hip", self.hip());
            for side in [Side::Left, Side::Right] {
                if let Some((right, high)) = self.deltoid(side).filter(|_| self.arms_hang()) {
                    on(&format!("deltoid-{side}"), right, high, 0.8);
                }
                let lat = armpit.zip(self.waist()).and_then(|(armpit, waist)| self.lat_insertion(side, armpit, waist));
                let shown = matches!(self.pose, PhotoPose::F | PhotoPose::FLS | PhotoPose::BLS);
                if let Some((right, high)) = lat.filter(|_| shown) {
                    on(&format!("lat-insertion-{side}"), right, high, 0.5);
                }
            }
        }
        let j = &self.joints;
        let joints = [
            ("acromion", &j.shoulder),
            ("elbow", &j.elbow),
            ("wrist", &j.wrist),
            ("hip-joint", &j.hip),
            ("knee", &j.knee),
            ("ankle", &j.ankle),
        ];
        for (name, found) in joints {
            for side in [Side::Left, Side::Right] {
                let Found { x, y, visible } = *found.get(side);
                marks.insert(format!("{name}-{side}"), Landmark { x, y, confidence: visible });
            }
        }
        if !self.pose.from_the_side() {
            marks.extend(self.leg_edges());
        }
        marks
    }

    /// Outer and inner edges of the mid-thigh and of the widest calf.
    fn leg_edges(&self) -> BTreeMap<String, Landmark> {
        let mut marks = BTreeMap::new();
        for side in [Side::Left, Side::Right] {
            for (name, segment, stretch) in
                [("mid-thigh", Segment::Thigh, (0.5, 0.5001)), ("calf", Segment::Calf, (0.1, 0.6))]
            {
                let (from, to) = self.segment(segment, side);
                let axis = Axis { from: (from.x, from.y), to: (to.x, to.y) };
                let shares =
                    (0..PLACES).map(|i| stretch.0 + (stretch.1 - stretch.0) * f64::from(i) / f64::from(PLACES));
                let runs = shares.filter_map(|share| self.limb_run(&axis, share, Some(side)).map(|run| (share, run)));
                let Some((share, run)) = runs.max_by(|a, b| (a.1.1 - a.1.0).total_cmp(&(b.1.1 - b.1.0))) else {
                    continue;
                };
                let ends = [run.0, run.1].map(|right| axis.place(share, right));
                let out = |end: (f64, f64)| self.frame.back(end).0 * self.sign(side);
                let (outer, inner) = if out(ends[0]) > out(ends[1]) { (ends[0], ends[1]) } else { (ends[1], ends[0]) };
                for (edge, (x, y)) in [("outer", outer), ("inner", inner)] {
                    marks.insert(format!("{name}-{edge}-{side}"), Landmark { x, y, confidence: 0.7 });
                }
            }
        }
        marks
    }

    /// Where the lat meets the waistline: the outline's point furthest inside the chord from armpit to waist.
    fn lat_insertion(&self, side: Side, armpit: (f64, Run), waist: (f64, Run)) -> Option<(f64, f64)> {
        let sign = self.sign(side);
        let edge = |run: Run| if sign > 0.0 { run.1 } else { -run.0 };
        let ((high, x_high), (low, x_low)) = ((armpit.0, edge(armpit.1)), (waist.0, edge(waist.1)));
        let steps = (high - low).max(0.0) as u32;
        let points = (1..steps).filter_map(|i| {
            let y = low + f64::from(i);
            self.trunk(y).map(|run| (edge(run), y))
        });
        let inside = |p: &(f64, f64)| x_low + (x_high - x_low) * (p.1 - low) / (high - low) - p.0;
        points.max_by(|a, b| inside(a).total_cmp(&inside(b))).map(|(x, y)| (x * sign, y))
    }
}
