//! What is true of a figure: girths, widths and landmarks, by slicing the mesh.

use crate::camera::Camera;
use crate::figure::{Figure, Posed, V3};
use crate::fit::{Ruler, SITES, Shaped, extreme};
use crate::pose::pose;
use crate::raster::Dressed;
use crate::slice::{Parts, Plane, reach};
use crate::spec::{Girth, Pose, Spec};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{Segment, Side, Sides};

/// A place in the picture, px.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct Point {
    /// From the left edge.
    pub x: f64,
    /// From the top edge.
    pub y: f64,
}

/// A width at a level, as seen without perspective by a camera straight before the figure.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct WidthTruth {
    /// The level.
    pub level: String,
    /// Across, cm.
    pub cm: f64,
    /// From the middle to the client's left, cm; not in side poses.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub left_cm: Option<f64>,
    /// From the middle to the client's right, cm; not in side poses.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub right_cm: Option<f64>,
}

/// Mean width of a limb segment on both sides.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct LimbTruth {
    /// The segment.
    pub segment: Segment,
    /// The client's left, cm.
    pub left_width_cm: f64,
    /// The client's right, cm.
    pub right_width_cm: f64,
}

/// What is true of the figure in a picture (`orthomer-booth-truth`, version 1).
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct Truth {
    /// `orthomer-booth-truth`.
    pub format: String,
    /// 1.
    pub version: u32,
    /// Places of joints and edges in the picture.
    pub landmarks: BTreeMap<String, Point>,
    /// Girths of the relaxed figure; of the arm also with the elbow bent.
    pub girths: Vec<Girth>,
    /// Widths by level.
    pub widths: Vec<WidthTruth>,
    /// Limbs.
    pub limbs: Vec<LimbTruth>,
}

/// Segments, their joints, and the stretch over which their width is averaged, as shares of the way between the joints.
const SEGMENTS: [(Segment, &str, &str, (f64, f64)); 4] = [
    (Segment::UpperArm, "shoulder", "elbow", (0.5, 0.82)),
    (Segment::Forearm, "elbow", "hand", (0.1, 0.7)),
    (Segment::Thigh, "upper-leg", "knee", (0.4, 0.9)),
    (Segment::Calf, "knee", "ankle", (0.1, 0.8)),
];
/// Nothing but the head comes within this distance of its middle at its height, cm.
const HEAD_RADIUS_CM: f64 = 13.0;
/// The stretch of the thigh, as a share of stature above the knee: the hip joint cannot be seen.
const THIGH_ABOVE_KNEE: (f64, f64) = (0.03, 0.14);
/// Slices to a segment.
const SLICES: u32 = 40;

/// The truth about a shaped and posed figure before a camera.
pub(crate) fn truth(
    figure: &Figure,
    spec: &Spec,
    (shaped, dressed): (&Shaped, &Dressed),
    posed: &Posed,
    camera: &Camera,
) -> Truth {
    let front = pose(figure, &shaped.body, Pose::F);
    let ruler = Ruler::new(figure, &front, &shaped.parts);
    let bent = pose(figure, &shaped.body, Pose::FDB);
    let bent = Ruler::new(figure, &bent, &shaped.parts);
    let seen = shaped.parts.clone().worn(figure, &shaped.body, dressed.clothes(figure));
    let standing = Ruler::new(figure, posed, &seen);
    Truth {
        format: "orthomer-booth-truth".to_owned(),
        version: 1,
        landmarks: landmarks(spec, &standing, camera),
        girths: girths(figure, &ruler, &bent),
        widths: widths(spec, &standing),
        limbs: if spec.pose.is_side() { Vec::new() } else { limbs(figure, &standing, spec.stature_cm) },
    }
}

fn girths(figure: &Figure, ruler: &Ruler, bent: &Ruler) -> Vec<Girth> {
    let more = [("abdomen", false), ("mid-thigh", true), ("knee", true), ("ankle", true), ("wrist", true)];
    let all = SITES.iter().map(|site| (site.id, site.paired)).chain(more);
    let relaxed = all.flat_map(|(id, paired)| {
        let sides = if paired { vec![Some(Side::Left), Some(Side::Right)] } else { vec![None] };
        sides.into_iter().map(move |side| Girth { site: id.to_owned(), side, cm: ruler.girth(id, side) })
    });
    let flexed = [Side::Left, Side::Right].map(|side| {
        let faces = segment_faces(figure, bent.parts, Segment::UpperArm, side);
        Girth { site: "arm-flexed".to_owned(), side: Some(side), cm: bent.bent_arm(side, &faces) }
    });
    relaxed.chain(flexed).collect()
}

/// Height of the widest hips.
fn hip_level(ruler: &Ruler, faces: &[usize], low: f64) -> f64 {
    extreme(low, ruler.hip_y() + 8.0, 60, true, |y| ruler.width(faces, y)).0
}

fn widths(spec: &Spec, ruler: &Ruler) -> Vec<WidthTruth> {
    let (posed, parts) = (ruler.body, ruler.parts);
    let fork = ruler.mesh.crotch(parts);
    let middle = ((posed.sided(Side::Left, "ankle") + posed.sided(Side::Right, "ankle")) / 2.0).x;
    let side = spec.pose.is_side();
    let along = if side { V3::z() } else { V3::x() };
    let at = |level: &str, faces: &[usize], y: f64| {
        let (low, high) = reach(&ruler.mesh.cut(faces, Plane::level(y)), along)?;
        let half = |cm: f64| (!side).then_some(cm);
        let (left_cm, right_cm) = (half(high - middle), half(middle - low));
        Some(WidthTruth { level: level.to_owned(), cm: high - low, left_cm, right_cm })
    };
    let waist = ruler.waist_y();
    let mut widths: Vec<WidthTruth> = Vec::new();
    if matches!(spec.pose, Pose::F | Pose::B) {
        let (edges, _) = ruler.shoulder_edges();
        let (left, right) = (edges.left - middle, edges.right + middle);
        let level = "deltoid".to_owned();
        widths.push(WidthTruth { level, cm: left + right, left_cm: Some(left), right_cm: Some(right) });
    }
    if side {
        return widths;
    }
    widths.extend(at("waist", &parts.trunk, waist));
    widths.extend(at("hip", &parts.trunk, hip_level(ruler, &parts.trunk, fork)));
    widths
}

fn limbs(figure: &Figure, ruler: &Ruler, stature_cm: f64) -> Vec<LimbTruth> {
    let posed = ruler.body;
    let mean = |segment: Segment, side: Side, from: &str, to: &str, (low, high): (f64, f64)| {
        let faces = segment_faces(figure, ruler.parts, segment, side);
        let flat = |p: V3| V3::new(p.x, p.y, 0.0);
        let (from, to) = (flat(posed.sided(side, from)), flat(posed.sided(side, to)));
        let bone = (to - from).normalize();
        let across = V3::new(-bone.y, bone.x, 0.0);
        let width = |share: f64| {
            let points = ruler.mesh.cut(&faces, Plane::across(from, to, share));
            reach(&points, across).map_or(0.0, |(low, high)| high - low)
        };
        let places = (0..SLICES).map(|i| low + (high - low) * (f64::from(i) + 0.5) / f64::from(SLICES));
        places.map(width).sum::<f64>() / f64::from(SLICES)
    };
    let thigh = (posed.sided(Side::Left, "upper-leg") - posed.sided(Side::Left, "knee")).xy().norm();
    let of_thigh = |above: f64| 1.0 - above * stature_cm / thigh;
    let limb = |&(segment, from, to, ref stretch): &(Segment, &str, &str, (f64, f64))| {
        let above = (of_thigh(THIGH_ABOVE_KNEE.1), of_thigh(THIGH_ABOVE_KNEE.0));
        let stretch = if segment == Segment::Thigh { &above } else { stretch };
        let widths = Sides { left: Side::Left, right: Side::Right }.map(|side| mean(segment, side, from, to, *stretch));
        LimbTruth { segment, left_width_cm: widths.left, right_width_cm: widths.right }
    };
    SEGMENTS.iter().map(limb).collect()
}

/// The faces of a segment: of a bent arm, the upper arm's and the forearm's apart.
fn segment_faces(figure: &Figure, parts: &Parts, segment: Segment, side: Side) -> Vec<usize> {
    let forearm = figure.share(side, &["forearm", "hand"]);
    let of_forearm = |face: &usize| figure.faces[*face].iter().map(|&v| forearm[v]).sum::<f32>() >= 1.5;
    match segment {
        Segment::UpperArm => parts.arm.get(side).iter().copied().filter(|face| !of_forearm(face)).collect(),
        Segment::Forearm => parts.arm.get(side).iter().copied().filter(of_forearm).collect(),
        Segment::Thigh | Segment::Calf => parts.half.get(side).clone(),
    }
}

fn landmarks(spec: &Spec, ruler: &Ruler, camera: &Camera) -> BTreeMap<String, Point> {
    let (posed, parts) = (ruler.body, ruler.parts);
    let fork = ruler.mesh.crotch(parts);
    let mut places: BTreeMap<String, V3> = BTreeMap::new();
    // Raised hands may be higher than the head.
    let head = posed.joint("head");
    let of_head = posed.vertices.iter().filter(|v| (v.x - head.x).hypot(v.z - head.z) < HEAD_RADIUS_CM);
    let highest = of_head.max_by(|a, b| a.y.total_cmp(&b.y));
    places.extend(highest.map(|v| ("vertex".to_owned(), V3::new(0.0, v.y, v.z))));
    places.insert("floor".to_owned(), V3::zeros());
    places.insert("crotch".to_owned(), V3::new(0.0, fork, 0.0));
    let joints = [
        ("acromion", "shoulder"),
        ("elbow", "elbow"),
        ("wrist", "hand"),
        ("hip-joint", "upper-leg"),
        ("knee", "knee"),
        ("ankle", "ankle"),
    ];
    for side in [Side::Left, Side::Right] {
        for (name, joint) in joints {
            places.insert(format!("{name}-{side}"), posed.sided(side, joint));
        }
    }
    if !spec.pose.is_side() {
        for (name, y) in [("waist", ruler.waist_y()), ("hip", hip_level(ruler, &parts.trunk, fork))] {
            if let Some((low, high)) = reach(&ruler.mesh.cut(&parts.trunk, Plane::level(y)), V3::x()) {
                places.insert(format!("{name}-left"), V3::new(high, y, 0.0));
                places.insert(format!("{name}-right"), V3::new(low, y, 0.0));
            }
        }
    }
    places
        .into_iter()
        .map(|(name, place)| {
            let pixel = camera.project(camera.turned(place));
            (name, Point { x: pixel.x, y: pixel.y })
        })
        .collect()
}
