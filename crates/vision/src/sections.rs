//! How broad and how deep a body is where a tape would lie: what girths are worked out from.
//!
//! A level is the same place of the body in every picture: it is found from the front, between joints, and handed on to the
//! side as a share of stature.

use crate::frame::Run;
use crate::limb::{Axis, steady};
use crate::measure::{PLACES, Standing};
use crate::photo::{PhotoPose, Profile, Section};
use crate::pose_net::Found;
use units::{Segment, Side, SiteId};

/// The nipple line below the shoulder joints, as a share of stature.
const CHEST_BELOW: f64 = 0.085;
/// How far below the highest level at which the trunk is free of the arms its breadth is taken, as a share of stature.
const UNDER_ARMPIT: f64 = 0.012;
/// Breadths of the trunk are means over levels so far up and down, as a share of stature.
const ABOUT: f64 = 0.006;
/// Height of the navel, as a share of stature.
const NAVEL_SHARE: f64 = 0.6;
/// How far the near leg is before the plane of the scale from the side, as a share of stature.
const NEAR_LEG_SHARE: f64 = 0.045;
/// Half the thickness of a hanging arm from the side, as a share of stature: at the shoulder, the elbow, the hand.
const ARM_HALF: [f64; 3] = [0.032, 0.026, 0.022];
/// The hand beyond the wrist, as a share of the forearm.
const HAND_SHARE: f64 = 0.75;
/// The same of an arm held forward, with the fold under the armpit.
const RAISED_HALF: f64 = 0.055;
/// Discs to each half of an arm.
const DISCS: u32 = 16;
/// Levels of an edge behind an arm that are bridged at most: a tenth of stature.
const BRIDGED: usize = 20;
/// An arm's edge this near the outline's edge draws it, as a share of stature.
const DRAWN_BY_ARM: f64 = 0.004;
/// The legs' levels end here: above it the near leg is not before the trunk's plane.
const LEGS_TO: f64 = 0.46;

/// Which of the widths along a stretch of a limb is the tape's.
#[derive(Clone, Copy)]
enum Pick {
    Mean,
    Largest,
    Least,
}

/// Where the tape lies on the limbs: segment and stretch, as shares of the way between its joints.
const LIMB_SITES: [(&str, Segment, (f64, f64), Pick); 8] = [
    ("thigh", Segment::Thigh, (0.2, 0.3), Pick::Mean),
    ("mid-thigh", Segment::Thigh, (0.46, 0.54), Pick::Mean),
    ("knee", Segment::Thigh, (0.97, 1.03), Pick::Mean),
    ("calf", Segment::Calf, (0.12, 0.5), Pick::Largest),
    ("ankle", Segment::Calf, (0.65, 0.97), Pick::Least),
    ("arm-relaxed", Segment::UpperArm, (0.42, 0.75), Pick::Largest),
    ("forearm", Segment::Forearm, (0.08, 0.4), Pick::Largest),
    ("wrist", Segment::Forearm, (0.8, 1.0), Pick::Least),
];

impl Standing<'_> {
    /// Breadths at the tape's levels; the bent arm's where it is shown, nothing from the side.
    pub fn sections(&self) -> Vec<Section> {
        match self.pose {
            PhotoPose::F | PhotoPose::B => {
                self.trunk_sections().into_iter().chain(self.limb_sections(&LIMB_SITES)).collect()
            }
            PhotoPose::FDB | PhotoPose::BDB => {
                self.limb_sections(&[("arm-flexed", Segment::UpperArm, (0.35, 0.7), Pick::Largest)])
            }
            _ => Vec::new(),
        }
    }

    fn trunk_sections(&self) -> Vec<Section> {
        let stature = self.vertex - self.floor;
        let shoulder = self.high(&self.joints.shoulder);
        let nipple = shoulder - CHEST_BELOW * stature;
        // Right under the armpit the arm's fold still widens the trunk.
        let chest = self.armpit().map_or(nipple, |(armpit, _)| (armpit - UNDER_ARMPIT * stature).min(nipple));
        let navel = self.floor + NAVEL_SHARE * stature;
        let level = |high: f64| self.trunk_about(high).map(|run| (high, run));
        let edges = self.deltoid(Side::Left).zip(self.deltoid(Side::Right));
        let shoulders = edges.map(|(one, other)| (one.1, (one.0.min(other.0), one.0.max(other.0))));
        let found = [
            ("neck", self.neck()),
            ("shoulder", shoulders),
            ("chest", level(chest)),
            ("waist", self.waist()),
            ("abdomen", level(navel)),
            ("hip", self.hip()),
        ];
        let section = |(site, found): (&str, Option<(f64, Run)>)| {
            let (high, run) = found?;
            self.section(site, None, run.1 - run.0, high)
        };
        found.into_iter().filter_map(section).collect()
    }

    /// The trunk's run at a height, the mean of those about it.
    fn trunk_about(&self, high: f64) -> Option<Run> {
        let reach = ABOUT * (self.vertex - self.floor);
        let runs: Vec<Run> = (-4..=4).filter_map(|i| self.trunk(high + reach * f64::from(i) / 4.0)).collect();
        let count = runs.len() as f64;
        let mean = |end: fn(&Run) -> f64| runs.iter().map(end).sum::<f64>() / count;
        (!runs.is_empty()).then(|| (mean(|run| run.0), mean(|run| run.1)))
    }

    /// The narrowest place between ears and shoulders.
    fn neck(&self) -> Option<(f64, Run)> {
        let (ears, shoulders) = (self.high(&self.joints.ear), self.high(&self.joints.shoulder));
        let levels = (0..(ears - shoulders).max(0.0) as u32).map(|i| shoulders + f64::from(i));
        let runs = levels.filter_map(|high| self.trunk(high).map(|run| (high, run)));
        runs.min_by(|a, b| (a.1.1 - a.1.0).total_cmp(&(b.1.1 - b.1.0)))
    }

    fn limb_sections(&self, sites: &[(&str, Segment, (f64, f64), Pick)]) -> Vec<Section> {
        let sided = sites.iter().flat_map(|site| [(site, Side::Left), (site, Side::Right)]);
        let found = sided.filter_map(|((site, segment, stretch, pick), side)| {
            let (px, high) = self.limb_width(*segment, side, *stretch, *pick)?;
            self.section(site, Some(side), px * self.own_size(*segment), high)
        });
        found.collect()
    }

    fn section(&self, site: &str, side: Option<Side>, px: f64, high: f64) -> Option<Section> {
        let site: SiteId = site.parse().ok()?;
        Some(Section { site, side, cm: hundredths(self.cm(px)), at: self.share(high) })
    }

    /// Height above the floor as a share of stature.
    fn share(&self, high: f64) -> f64 {
        (high - self.floor) / (self.vertex - self.floor)
    }

    /// A limb's width across its own axis and the height where it was found, px.
    fn limb_width(&self, segment: Segment, side: Side, (low, high): (f64, f64), pick: Pick) -> Option<(f64, f64)> {
        let (from, to) = self.segment(segment, side);
        let rough = Axis { from: (from.x, from.y), to: (to.x, to.y) };
        let leg = (!segment.is_arm()).then_some(side);
        let share = |i: u32| low + (high - low) * (f64::from(i) + 0.5) / f64::from(PLACES);
        let runs =
            |axis: Axis| -> Vec<Option<Run>> { (0..PLACES).map(|i| self.limb_run(&axis, share(i), leg)).collect() };
        let axis = rough.centred(&runs(rough), (low, high))?;
        // Something behind the limb that the outline took in stands out from its neighbours.
        let across = steady(runs(axis).into_iter().map(|run| run.map(|run| run.1 - run.0)).collect());
        let widths: Vec<(f64, f64)> = across
            .into_iter()
            .zip(0..PLACES)
            .filter_map(|(width, i)| Some((width?, self.frame.back(axis.place(share(i), 0.0)).1)))
            .collect();
        picked(&widths, pick)
    }

    /// How deep the body is at every level; nothing but from the side.
    pub fn profile(&self) -> Option<Profile> {
        let relaxed = matches!(self.pose, PhotoPose::SL | PhotoPose::SR | PhotoPose::SLA | PhotoPose::SRA);
        let stature = self.vertex - self.floor;
        let edges = |index: usize| {
            let high = self.floor + Profile::level(index) * stature;
            let run = self.trunk(high)?;
            let [from, to] = self.drawn_by_arm(run, high);
            Some(((!from).then_some(run.0), (!to).then_some(run.1)))
        };
        let (mut from, mut to): (Vec<Option<f64>>, Vec<Option<f64>>) =
            (0..Profile::LEVELS).map(|index| edges(index).unwrap_or_default()).unzip();
        bridged(&mut from);
        bridged(&mut to);
        let depth = |(index, (from, to)): (usize, (Option<f64>, Option<f64>))| {
            let nearer = if Profile::level(index) < LEGS_TO { NEAR_LEG_SHARE * self.cm(stature) } else { 0.0 };
            Some(hundredths(self.cm(to? - from?) * (1.0 - nearer / self.distance_cm)))
        };
        relaxed.then(|| Profile { depth_cm: from.into_iter().zip(to).enumerate().map(depth).collect() })
    }

    /// Whether an arm, not the trunk, makes the left or the right edge of a run from the side. An arm is a row of discs from shoulder
    /// to hand.
    fn drawn_by_arm(&self, run: Run, high: f64) -> [bool; 2] {
        let stature = self.vertex - self.floor;
        let close = DRAWN_BY_ARM * stature;
        let mut drawn = [false; 2];
        for (x, y, half) in [Side::Left, Side::Right].into_iter().flat_map(|side| self.arm_discs(side)) {
            let across = half.powi(2) - (high - y).powi(2);
            let (from, to) = (x - across.max(0.0).sqrt(), x + across.max(0.0).sqrt());
            // A hand held off the body is a run of its own.
            if across > 0.0 && to > run.0 && from < run.1 {
                drawn[0] |= from < run.0 + close;
                drawn[1] |= to > run.1 - close;
            }
        }
        drawn
    }

    /// An arm as discs from shoulder to hand: right of the midline, height, radius.
    fn arm_discs(&self, side: Side) -> Vec<(f64, f64, f64)> {
        let stature = self.vertex - self.floor;
        let at = |found: &Found| self.frame.back((found.x, found.y));
        let j = &self.joints;
        let (shoulder, elbow, wrist) = (at(j.shoulder.get(side)), at(j.elbow.get(side)), at(j.wrist.get(side)));
        let hand = (wrist.0 + (wrist.0 - elbow.0) * HAND_SHARE, wrist.1 + (wrist.1 - elbow.1) * HAND_SHARE);
        let bones = [(shoulder, elbow, ARM_HALF[0], ARM_HALF[1]), (elbow, hand, ARM_HALF[1], ARM_HALF[2])];
        let discs = bones.into_iter().flat_map(|(from, to, thick, thin)| {
            let raised = (to.0 - from.0).abs() > (from.1 - to.1).abs();
            let (thick, thin) = if raised { (RAISED_HALF, RAISED_HALF) } else { (thick, thin) };
            (0..=DISCS).map(move |i| {
                let along = f64::from(i) / f64::from(DISCS);
                let between = |a: f64, b: f64| a + (b - a) * along;
                (between(from.0, to.0), between(from.1, to.1), between(thick, thin) * stature)
            })
        });
        discs.collect()
    }
}

/// Fills short gaps in an edge by straight lines between what is seen above and below: an arm seldom covers much of one edge.
fn bridged(edge: &mut [Option<f64>]) {
    let seen: Vec<(usize, f64)> = edge.iter().enumerate().filter_map(|(i, here)| here.map(|here| (i, here))).collect();
    for pair in seen.windows(2) {
        let [(before, below), (after, above)] = *pair else { continue };
        if after - before > BRIDGED + 1 {
            continue;
        }
        for (gap, place) in edge.iter_mut().enumerate().take(after).skip(before + 1) {
            let along = (gap - before) as f64 / (after - before) as f64;
            *place = Some(below + (above - below) * along);
        }
    }
}

/// To a tenth of a millimetre, in cm: more is not seen.
fn hundredths(cm: f64) -> f64 {
    (cm * 100.0).round() / 100.0
}

/// A width out of many along a limb, each with its height. An extreme is one of means of three: a single pixel is no calf.
fn picked(widths: &[(f64, f64)], pick: Pick) -> Option<(f64, f64)> {
    if 2 * widths.len() < PLACES as usize {
        return None;
    }
    let mean = |part: &[(f64, f64)]| {
        let count = part.len() as f64;
        (part.iter().map(|w| w.0).sum::<f64>() / count, part.iter().map(|w| w.1).sum::<f64>() / count)
    };
    let smooth = widths.windows(3).map(mean);
    match pick {
        Pick::Mean => Some(mean(widths)),
        Pick::Largest => smooth.max_by(|a, b| a.0.total_cmp(&b.0)),
        Pick::Least => smooth.min_by(|a, b| a.0.total_cmp(&b.0)),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// An edge that rises by one from level to level, unseen at some of them.
    fn edge(unseen: std::ops::Range<usize>) -> Vec<Option<f64>> {
        (0..60).map(|level| (!unseen.contains(&level)).then_some(level as f64)).collect()
    }

    #[rstest]
    #[case::a_forearm(10..10 + BRIDGED, true)]
    #[case::a_whole_arm(10..11 + BRIDGED, false)]
    #[case::the_lower_end(0..4, false)]
    #[case::the_upper_end(57..60, false)]
    fn a_short_gap_in_an_edge_is_bridged(#[case] unseen: std::ops::Range<usize>, #[case] filled: bool) {
        let mut line = edge(unseen.clone());
        bridged(&mut line);
        assert_eq!(line, if filled { edge(0..0) } else { edge(unseen) });
    }

    // Thirty widths from 10 to 12.9, at heights from 0 to 29.
    #[rstest]
    #[case::all_alike(Pick::Mean, Some((11.45, 14.5)))]
    #[case::the_thickest(Pick::Largest, Some((12.8, 28.0)))]
    #[case::the_thinnest(Pick::Least, Some((10.1, 1.0)))]
    fn a_limb_s_width_is_no_single_pixel_s(#[case] pick: Pick, #[case] found: Option<(f64, f64)>) {
        let widths: Vec<(f64, f64)> = (0..30).map(|i| (10.0 + 0.1 * f64::from(i), f64::from(i))).collect();
        let near = |(a, b): ((f64, f64), (f64, f64))| (a.0 - b.0).abs() < 1e-9 && (a.1 - b.1).abs() < 1e-9;
        assert!(picked(&widths, pick).zip(found).is_some_and(near));
        assert_eq!(picked(&widths[..PLACES as usize / 2 - 1], pick), None, "less than half of the limb is seen");
    }
}
