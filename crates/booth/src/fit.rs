//! Bending the figure until its girths are those asked for.

use crate::figure::{Figure, Posed, V3};
use crate::pose::{pose, stand};
use crate::slice::{Mesh, Parts, Plane, reach, tape};
use crate::spec::{Body, Pose, Sex, Spec};
use crate::swell::Swell;
use nalgebra::{DMatrix, DVector};
use units::{Side, Sides};

/// A girth the booth can be asked for.
#[derive(Clone, Copy, Debug)]
pub struct Site {
    /// The tape site's id.
    pub id: &'static str,
    /// Whether each side has its own.
    pub paired: bool,
    /// What the figure can be bent to at all, cm.
    pub bounds_cm: (f64, f64),
    /// The moves that change it, pushed once at most. A `{}` is the side.
    shaping: Moves,
    /// Moves that go on when the shaping is used up.
    further: Moves,
    /// Where the figure also swells or shrinks.
    swells: Option<Swell>,
}

type Moves = &'static [&'static str];

const fn site(id: &'static str, bounds_cm: (f64, f64), shaping: Moves, further: Moves, swells: Option<Swell>) -> Site {
    let paired = matches!(swells, Some(Swell { chains: [_, ..], .. }));
    Site { id, paired, bounds_cm, shaping, further, swells }
}

const fn trunk(from: &'static str, to: &'static str, centre: f64, spread: f64) -> Swell {
    Swell { chains: &[], from, to, centre, spread }
}

const fn limb(chains: Moves, from: &'static str, to: &'static str, centre: f64, spread: f64) -> Swell {
    Swell { chains, from, to, centre, spread }
}

/// The girths the booth can be asked for.
pub const SITES: [Site; 9] = [
    site("neck", (28.0, 50.0), &["neck"], &[], Some(trunk("neck", "head", 0.3, 0.5))),
    site("shoulder", (85.0, 150.0), &["l-delts", "r-delts"], &["shoulders"], None),
    site("chest", (70.0, 140.0), &["lats", "pectoral"], &["torso-depth"], None),
    site("waist", (55.0, 125.0), &[], &[], Some(trunk("upper-leg", "shoulder", 0.4, 0.22))),
    site("hip", (75.0, 130.0), &["buttocks"], &[], Some(trunk("upper-leg", "shoulder", -0.08, 0.2))),
    site(
        "arm-relaxed",
        (20.0, 50.0),
        &["{}-upper-arm"],
        &[],
        Some(limb(&["upper-arm"], "shoulder", "elbow", 0.5, 0.3)),
    ),
    site("forearm", (17.0, 40.0), &["{}-forearm"], &[], Some(limb(&["forearm"], "elbow", "hand", 0.3, 0.35))),
    site("thigh", (40.0, 80.0), &["{}-thigh"], &[], Some(limb(&["thigh"], "upper-leg", "knee", 0.25, 0.4))),
    site("calf", (26.0, 52.0), &["{}-calf"], &[], Some(limb(&["lower-leg"], "knee", "ankle", 0.3, 0.3))),
];

/// Steps of the search; the girths are then within 0.1 mm or as near as the figure can come.
const STEPS: usize = 14;
/// Furthest a knob is turned: beyond it the figure looks broken.
const FURTHEST: f64 = 4.0;
/// Level of the widest deltoid below the shoulder joint, as a share of stature.
const DELTOID_BELOW: f64 = 0.025;
/// Height of the navel, as a share of stature.
const NAVEL_SHARE: f64 = 0.6;
/// Swelling of the radius for one turn of a knob.
const SWELL_SHARE: f64 = 0.07;

/// A figure with the build asked for.
pub(crate) struct Shaped {
    /// Standing as in the figure file.
    pub body: Posed,
    pub parts: Parts,
}

/// What is asked for: a knob, how it is measured, how much is wanted.
struct Demand {
    shaping: Vec<String>,
    further: Vec<String>,
    swells: Option<(Swell, Side)>,
    measure: Measure,
    wanted_cm: f64,
}

enum Measure {
    Girth(&'static str, Option<Side>),
    ShoulderWidth,
    WaistWidth,
}

/// The figure of a spec. What is asked for and cannot be reached ends as near as it can be.
pub(crate) fn shape(figure: &Figure, spec: &Spec) -> Shaped {
    let base = build(&spec.body, spec.sex);
    let demands = demands(&spec.body);
    let body_with = |knobs: &DVector<f64>| scaled(figure, &base, &demands, knobs, spec.stature_cm);
    let parts = Parts::of(figure, &figure.built(&base));
    let measured = |knobs: &DVector<f64>| {
        let front = pose(figure, &body_with(knobs), Pose::F);
        let ruler = Ruler::new(figure, &front, &parts);
        DVector::from_iterator(demands.len(), demands.iter().map(|demand| ruler.of(&demand.measure)))
    };
    let knobs = search(&demands, measured);
    Shaped { body: body_with(&knobs), parts }
}

/// Broyden's method (1965): slopes are taken once and mended at every step.
fn search(demands: &[Demand], measured: impl Fn(&DVector<f64>) -> DVector<f64>) -> DVector<f64> {
    let count = demands.len();
    let wanted = DVector::from_iterator(count, demands.iter().map(|demand| demand.wanted_cm));
    let mut knobs = DVector::zeros(count);
    if count == 0 {
        return knobs;
    }
    let mut now = measured(&knobs);
    let mut slopes = DMatrix::zeros(count, count);
    for column in 0..count {
        let mut bumped = knobs.clone();
        bumped[column] = if wanted[column] >= now[column] { 0.5 } else { -0.5 };
        slopes.set_column(column, &((measured(&bumped) - &now) / bumped[column]));
    }
    for _ in 0..STEPS {
        let miss = &wanted - &now;
        if miss.amax() < 0.01 {
            break;
        }
        let Ok(inverse) = slopes.clone().pseudo_inverse(1e-6) else { break };
        let next = (&knobs + inverse * miss).map(|knob| knob.clamp(-FURTHEST, FURTHEST));
        let step = &next - &knobs;
        if step.norm() < 1e-9 {
            break;
        }
        let then = measured(&next);
        let surprise = &then - &now - &slopes * &step;
        slopes += surprise * step.transpose() / step.norm_squared();
        (knobs, now) = (next, then);
    }
    knobs
}

fn demands(body: &Body) -> Vec<Demand> {
    let mut demands = Vec::new();
    for girth in &body.girths {
        let Some(site) = SITES.iter().find(|site| site.id == girth.site) else { continue };
        let letter = if girth.side == Some(Side::Right) { "r" } else { "l" };
        let named = |moves: Moves| moves.iter().map(|name| name.replace("{}", letter)).collect();
        demands.push(Demand {
            shaping: named(site.shaping),
            further: named(site.further),
            swells: site.swells.map(|swell| (swell, girth.side.unwrap_or(Side::Left))),
            measure: Measure::Girth(site.id, girth.side),
            wanted_cm: girth.cm,
        });
    }
    let mut width = |wanted: Option<f64>, measure: Measure, name: &str| {
        let (shaping, further) = (Vec::new(), vec![name.to_owned()]);
        demands.extend(wanted.map(|wanted_cm| Demand { shaping, further, swells: None, measure, wanted_cm }));
    };
    width(body.shoulder_width_cm, Measure::ShoulderWidth, "shoulders");
    width(body.waist_width_cm, Measure::WaistWidth, "waist");
    demands
}

/// Weights of the moves that the sex, muscle and weight settings give.
fn build(body: &Body, sex: Sex) -> Vec<(String, f64)> {
    let sex = if sex == Sex::Male { "male" } else { "female" };
    let between = |name: &str, value: f64| {
        let end = if value < 0.5 { "min" } else { "max" };
        (format!("{sex}-{name}-{end}"), (value - 0.5).abs() * 2.0)
    };
    vec![(sex.to_owned(), 1.0), between("muscle", body.muscle), between("weight", body.weight)]
}

/// The built figure at its stature.
fn scaled(figure: &Figure, base: &[(String, f64)], demands: &[Demand], knobs: &DVector<f64>, stature_cm: f64) -> Posed {
    let mut weights = base.to_vec();
    for (demand, &knob) in demands.iter().zip(knobs) {
        let mut push = |name: &String, by: f64| {
            weights.push((format!("{name}-{}", if by < 0.0 { "decr" } else { "incr" }), by.abs()));
        };
        demand.shaping.iter().for_each(|name| push(name, knob.clamp(-1.0, 1.0)));
        demand.further.iter().for_each(|name| push(name, knob));
    }
    let mut body = figure.built(&weights);
    for (demand, &knob) in demands.iter().zip(knobs) {
        if let Some((swell, side)) = demand.swells {
            swell.apply(figure, &mut body, side, knob * SWELL_SHARE);
        }
    }
    let (mut low, mut high) = (f64::INFINITY, f64::NEG_INFINITY);
    body.vertices.iter().for_each(|v| (low, high) = (low.min(v.y), high.max(v.y)));
    let factor = stature_cm / (high - low);
    body.map(|p| p * factor);
    stand(&mut body);
    body
}

/// Measures a figure that stands as in the front pose.
pub(crate) struct Ruler<'a> {
    pub mesh: Mesh<'a>,
    pub body: &'a Posed,
    pub parts: &'a Parts,
}

impl<'a> Ruler<'a> {
    /// A ruler for a posed figure.
    pub fn new(figure: &'a Figure, body: &'a Posed, parts: &'a Parts) -> Self {
        Self { mesh: Mesh::new(figure, body), body, parts }
    }

    fn of(&self, measure: &Measure) -> f64 {
        match measure {
            Measure::Girth(site, side) => self.girth(site, *side),
            Measure::ShoulderWidth => self.shoulder_width(),
            Measure::WaistWidth => self.width(&self.parts.trunk, self.waist_y()),
        }
    }

    /// A girth, cm, where the tape lies.
    pub fn girth(&self, site: &str, side: Option<Side>) -> f64 {
        let side = side.unwrap_or(Side::Left);
        let body = self.body;
        let stature = body.vertices.iter().map(|v| v.y).fold(0.0, f64::max);
        let shoulder = body.sided(Side::Left, "shoulder").y;
        let limb = |from, to, low, high, largest| self.limb(side, from, to, (low, high), largest);
        let round = |faces: &[usize], y: f64| self.round(faces, Plane::level(y));
        let trunk = |low: f64, high: f64, largest| extreme(low, high, 24, largest, |y| round(&self.parts.trunk, y)).1;
        match site {
            "neck" => trunk(body.joint("neck").y, body.joint("jaw").y, false),
            "shoulder" => {
                extreme(shoulder - 0.06 * stature, shoulder - 0.01 * stature, 12, true, |y| round(&self.parts.skin, y))
                    .1
            }
            "chest" => round(&self.parts.trunk, shoulder - 0.085 * stature),
            "waist" => round(&self.parts.trunk, self.waist_y()),
            "abdomen" => round(&self.parts.trunk, NAVEL_SHARE * stature),
            "hip" => trunk(self.hip_y() - 0.05 * stature, self.hip_y() + 0.05 * stature, true),
            "arm-relaxed" => limb("shoulder", "elbow", 0.35, 0.7, true),
            "forearm" => limb("elbow", "hand", 0.08, 0.4, true),
            "wrist" => limb("elbow", "hand", 0.8, 1.0, false),
            "thigh" => {
                let y = self.mesh.crotch(self.parts) - 0.012 * stature;
                let (hip, knee) = (body.sided(side, "upper-leg"), body.sided(side, "knee"));
                self.round(self.half(side), Plane::across(hip, knee, (hip.y - y) / (hip.y - knee.y)))
            }
            "mid-thigh" => limb("upper-leg", "knee", 0.5, 0.5, true),
            "knee" => limb("upper-leg", "knee", 1.0, 1.0, true),
            "calf" => limb("knee", "ankle", 0.12, 0.5, true),
            _ => limb("knee", "ankle", 0.65, 0.97, false),
        }
    }

    /// The largest girth of an arm bent at the elbow, cm, by its own faces without the forearm's.
    pub fn bent_arm(&self, side: Side, faces: &[usize]) -> f64 {
        let (from, to) = (self.body.sided(side, "shoulder"), self.body.sided(side, "elbow"));
        extreme(0.35, 0.7, 12, true, |share| self.round(faces, Plane::across(from, to, share))).1
    }

    fn half(&self, side: Side) -> &[usize] {
        self.parts.half.get(side)
    }

    fn round(&self, faces: &[usize], plane: Plane) -> f64 {
        tape(&self.mesh.cut(faces, plane), plane.normal)
    }

    fn limb(&self, side: Side, from: &str, to: &str, (low, high): (f64, f64), largest: bool) -> f64 {
        let arm = matches!(from, "shoulder" | "elbow");
        let faces = if arm { self.parts.arm.get(side) } else { self.half(side) };
        let (from, to) = (self.body.sided(side, from), self.body.sided(side, to));
        extreme(low, high, 12, largest, |share| self.round(faces, Plane::across(from, to, share))).1
    }

    /// Height of the widest hips, roughly: the level of the hip joints.
    pub fn hip_y(&self) -> f64 {
        self.body.sided(Side::Left, "upper-leg").y
    }

    /// Height of the narrowest waist seen from the front.
    pub fn waist_y(&self) -> f64 {
        let (shoulder, hip) = (self.body.sided(Side::Left, "shoulder").y, self.hip_y());
        let at = |share: f64| hip + (shoulder - hip) * share;
        extreme(at(0.22), at(0.6), 40, false, |y| self.width(&self.parts.trunk, y)).0
    }

    /// Width of some faces at a height, cm.
    pub fn width(&self, faces: &[usize], y: f64) -> f64 {
        reach(&self.mesh.cut(faces, Plane::level(y)), V3::x()).map_or(0.0, |(low, high)| high - low)
    }

    /// Distances of both shoulders' outsides from the middle a little below the joint, where the deltoid is widest, and
    /// the height of that level.
    pub fn shoulder_edges(&self) -> (Sides<f64>, f64) {
        let stature = self.body.vertices.iter().map(|v| v.y).fold(0.0, f64::max);
        let joint =
            f64::midpoint(self.body.sided(Side::Left, "shoulder").y, self.body.sided(Side::Right, "shoulder").y);
        let y = joint - DELTOID_BELOW * stature;
        let (low, high) = reach(&self.mesh.cut(&self.parts.skin, Plane::level(y)), V3::x()).unwrap_or_default();
        (Sides { left: high, right: -low }, y)
    }

    fn shoulder_width(&self) -> f64 {
        let (edges, _) = self.shoulder_edges();
        edges.left + edges.right
    }
}

/// Where a function is largest (or smallest) on evenly spaced places of a range, and its value there.
pub(crate) fn extreme(low: f64, high: f64, places: u32, largest: bool, of: impl Fn(f64) -> f64) -> (f64, f64) {
    let places = if (high - low).abs() < 1e-12 { 0 } else { places };
    let all = (0..=places).map(|i| low + (high - low) * f64::from(i) / f64::from(places.max(1)));
    let sign = if largest { 1.0 } else { -1.0 };
    let valued = all.map(|place| (place, of(place)));
    valued.reduce(|best, next| if next.1 * sign > best.1 * sign { next } else { best }).unwrap_or((low, 0.0))
}
