//! The figure at work, drawn from the chain's own angles: start pale, end in ink, the region tinted, the load as what it is.
//!
//! A manikin of tapered limbs: each limb is the hull of two circles. Colours are the page's own (`--figure-*`), with plain ones where
//! there are none, as on paper.

use crate::body::{Body, Vector};
use crate::chain::Pose;
use crate::load::{Scene, bone, room};
use crate::movement::{At, Hold, Load, LoadKind, Movement, Prop, Stance, View};
use crate::posture::{Angles, Room, worded};
use crate::way::{ends, on_the_way};
use std::fmt::Write;

/// A place on the picture, m: to the right and down.
type Flat = [f64; 2];

/// Room round the drawing, m.
const MARGIN: f64 = 0.06;
/// Units of the drawing for a metre.
const SCALE: f64 = 200.0;
/// A cable longer than this is cut and goes on as dots, m.
const CABLE_M: f64 = 0.75;
const BOB_M: f64 = 0.2;

/// How a movement is drawn.
#[derive(Clone, Copy, Debug)]
pub struct Drawing<'a> {
    /// Which shares of the way are shown, first pale, last in ink: `&[0.0, 1.0]`.
    pub shares: &'a [f64],
    /// Regions tinted.
    pub tinted: &'a [&'a str],
    /// Whether the other side rests.
    pub one_sided: bool,
    /// What it is called for those who do not see it.
    pub title: &'a str,
}

/// A movement as an SVG drawing.
pub fn draw(movement: &Movement, drawing: &Drawing) -> String {
    let body = Body::shipped();
    let both = ends(body, movement);
    let mut shapes = Shapes::default();
    let last = drawing.shares.len().saturating_sub(1);
    let mut stays: Option<Flat> = None;
    for (place, share) in drawing.shares.iter().enumerate() {
        let angles = on_the_way(body, movement, &both, *share);
        let pose = angles.pose(body);
        let room = room(body, movement, &angles, &pose);
        let next = on_the_way(body, movement, &both, (share + 0.01).min(1.0)).pose(body);
        let scene = Scene { body, movement, pose: &pose, room, next: &next, turned: 1.0, share: *share };
        let rest = rest_pose(body, movement, &angles);
        let other = other_leg(body, movement, &both, *share);
        let view = seen_from(movement, room);
        let rest = drawing.one_sided.then_some(&rest);
        let mut sketch = Sketch { scene: &scene, rest, other_leg: other.as_ref(), view, moved: [0.0; 2] };
        if let Some(at) = anchor(movement) {
            let [x, y] = sketch.flat(worded(scene.held(at).1));
            let [to_x, to_y] = *stays.get_or_insert([x, y]);
            sketch.moved = [to_x - x, to_y - y];
        }
        let tone = if place < last { Tone::Start } else { Tone::End };
        if place == last {
            sketch.props(&mut shapes);
        }
        sketch.figure(&mut shapes, tone, if place < last { &[] } else { drawing.tinted });
        if place == last || movement.loads.iter().any(|load| load.kind == LoadKind::Cable) {
            sketch.loads(&mut shapes, tone);
        }
    }
    shapes.svg(drawing.title)
}

/// What stays where it is while the body moves; the hips where nothing else does.
fn anchor(movement: &Movement) -> Option<At> {
    let carried = |at: At| movement.loads.iter().any(|load| load.kind == LoadKind::Bodyweight && load.at == at);
    match movement.stance {
        Stance::Feet => Some(At::Foot),
        Stance::Hanging | Stance::Plank => Some(At::Hand),
        Stance::Seated => None,
        _ => [At::Knee, At::Foot, At::Toes, At::Hand].into_iter().find(|at| carried(*at)),
    }
}

/// The other side's leg where the movement has one of its own.
fn other_leg<'a>(body: &'a Body, movement: &Movement, both: &[Angles; 2], share: f64) -> Option<Pose<'a>> {
    let start = movement.other_start.as_ref()?;
    let end = movement.other_end.as_ref().unwrap_or(start);
    let legs = Angles::between(&[start, end].map(|posture| Angles::at(movement, posture)), share);
    let own = on_the_way(body, movement, both, share);
    let Angles { hip, abduct, hip_turn, knee, ankle, .. } = legs;
    Some(Angles { hip, abduct, hip_turn, knee, ankle, ..own }.pose(body))
}

/// How the room is seen.
#[derive(Clone, Copy, PartialEq)]
enum Seen {
    /// From the client's right, the room upright.
    Right,
    /// From the front.
    Front,
    /// From above one who lies on the back: the front of the body.
    Above,
}

fn seen_from(movement: &Movement, room: Room) -> Seen {
    match movement.view {
        View::Side => Seen::Right,
        View::Front if room.lean_deg < -45.0 => Seen::Above,
        View::Front => Seen::Front,
    }
}

#[derive(Clone, Copy, PartialEq)]
enum Tone {
    Start,
    End,
}

/// The other side's limbs where they rest: as the stance has them, an arm at the side.
fn rest_pose<'a>(body: &'a Body, movement: &Movement, angles: &Angles) -> Pose<'a> {
    let holds_leg = movement.holds.iter().any(|hold| matches!(hold, Hold::Hip | Hold::Knee | Hold::Ankle));
    let mut rest = Angles { plane: 30.0, up: 8.0, turn: 0.0, elbow: 10.0, fore: 0.0, wrist: 0.0, tip: 0.0, ..*angles };
    if holds_leg && (movement.stance == Stance::Standing || movement.roll != 0.0) {
        rest = Angles { hip: angles.lean.max(0.0), knee: 3.0, abduct: 3.0, ankle: 0.0, ..rest };
    }
    rest.pose(body)
}

/// One pose of a movement, ready to be drawn.
struct Sketch<'a> {
    scene: &'a Scene<'a>,
    rest: Option<&'a Pose<'a>>,
    other_leg: Option<&'a Pose<'a>>,
    view: Seen,
    /// By how much all is moved, so that what stays stays.
    moved: Flat,
}

/// A limb: from bone to bone, radius at each end, m.
struct Limb {
    from: &'static str,
    to: &'static str,
    radius: [f64; 2],
    /// Whether it hangs from the trunk, not from the pelvis.
    arm: bool,
}

const LIMBS: [Limb; 6] = [
    Limb { from: "femur_r", to: "tibia_r", radius: [0.082, 0.055], arm: false },
    Limb { from: "tibia_r", to: "talus_r", radius: [0.055, 0.034], arm: false },
    Limb { from: "calcn_r", to: "toes_r", radius: [0.036, 0.024], arm: false },
    Limb { from: "humerus_r", to: "ulna_r", radius: [0.054, 0.04], arm: true },
    Limb { from: "ulna_r", to: "lunate_r", radius: [0.042, 0.027], arm: true },
    Limb { from: "lunate_r", to: "3proxph_r", radius: [0.027, 0.034], arm: true },
];

impl Sketch<'_> {
    /// A place of the body (forward, up, right of its root) on the picture.
    fn flat(&self, place: [f64; 3]) -> Flat {
        let [x, y] = match self.view {
            Seen::Right => {
                let [f, u, _] = self.scene.room.to_room(place);
                [f, -u]
            }
            Seen::Front => {
                let [_, u, r] = self.scene.room.to_room(place);
                [-r, -u]
            }
            Seen::Above => [-place[2], -place[1]],
        };
        [x + self.moved[0], y + self.moved[1]]
    }

    fn on(&self, pose: &Pose, bone_name: &str, own: [f64; 3]) -> Flat {
        let place = pose.at(bone(self.scene.body, bone_name), own.into());
        self.flat(worded(place))
    }

    /// The same place on the client's left.
    fn left(&self, pose: &Pose, bone_name: &str, own: [f64; 3], arm: bool) -> Flat {
        let body = self.scene.body;
        let place = pose.at(bone(body, bone_name), own.into());
        if arm {
            let torso = bone(body, "torso");
            let within = pose.within(torso, place);
            let mirrored = self.scene.pose.at(torso, Vector::new(within.x, within.y, -within.z));
            return self.flat(worded(mirrored));
        }
        let [f, u, r] = worded(place);
        self.flat([f, u, -r])
    }

    fn figure(&self, shapes: &mut Shapes, tone: Tone, tinted: &[&str]) {
        let pose = self.scene.pose;
        let other = self.rest.unwrap_or(pose);
        let near = if tone == Tone::Start { Fill::Start } else { Fill::Body };
        let far = if tone == Tone::Start { Fill::Start } else { Fill::Far };
        let none = [0.0; 3];
        for limb in &LIMBS {
            let other = if limb.arm { other } else { self.other_leg.unwrap_or(other) };
            let ends = [limb.from, limb.to].map(|name| self.left(other, name, none, limb.arm));
            shapes.limb(ends, limb.radius, if self.view == Seen::Right { far } else { near });
        }
        let legs = LIMBS.iter().filter(|limb| !limb.arm);
        for limb in legs {
            shapes.limb([limb.from, limb.to].map(|name| self.on(pose, name, none)), limb.radius, near);
        }
        // Pelvis and chest, in both views the hull of what stands out.
        let hips = [self.on(pose, "femur_r", none), self.left(pose, "femur_r", none, false)];
        let waist = self.on(pose, "lumbar3", [0.035, 0.0, 0.0]);
        let chest = self.on(pose, "torso", [0.035, 0.27, 0.0]);
        let shoulders =
            [self.on(pose, "humerus_r", [0.0, -0.01, -0.03]), self.left(pose, "humerus_r", [0.0, -0.01, -0.03], true)];
        let front = self.view != Seen::Right;
        let [hip_radius, waist_radius, chest_radius] = if front { [0.075, 0.12, 0.13] } else { [0.105, 0.098, 0.118] };
        shapes.hull(&[(hips[0], hip_radius), (hips[1], hip_radius), (waist, waist_radius)], near);
        shapes
            .hull(&[(waist, waist_radius), (chest, chest_radius), (shoulders[0], 0.052), (shoulders[1], 0.052)], near);
        let (neck, head) = (self.on(pose, "torso", [0.0, 0.42, 0.0]), self.on(pose, "torso", [0.035, 0.56, 0.0]));
        shapes.limb([neck, self.on(pose, "torso", [0.02, 0.5, 0.0])], [0.05, 0.045], near);
        shapes.limb([head, self.on(pose, "torso", [0.045, 0.52, 0.0])], [0.088, 0.07], near);
        for region in tinted {
            self.tint(shapes, region, true);
        }
        for limb in LIMBS.iter().filter(|limb| limb.arm) {
            shapes.limb([limb.from, limb.to].map(|name| self.on(pose, name, none)), limb.radius, near);
        }
        for region in tinted {
            self.tint(shapes, region, false);
        }
    }

    /// A region's own place on the right, and on the left where that works too; those of the trunk lie under the arms.
    fn tint(&self, shapes: &mut Shapes, region: &str, trunk: bool) {
        let Some(patch) = PATCHES.iter().find(|patch| patch.region == region) else { return };
        if trunk != matches!(patch.bone, "torso" | "lumbar3") {
            return;
        }
        let pose = self.scene.pose;
        let arm = !matches!(patch.bone, "femur_r" | "tibia_r" | "calcn_r" | "pelvis");
        shapes.limb(patch.ends.map(|own| self.on(pose, patch.bone, own)), patch.radius, Fill::Tint);
        if self.view != Seen::Right && self.rest.is_none() {
            shapes.limb(patch.ends.map(|own| self.left(pose, patch.bone, own, arm)), patch.radius, Fill::Tint);
        }
    }

    fn loads(&self, shapes: &mut Shapes, tone: Tone) {
        let movement = self.scene.movement;
        let two_sided = self.view != Seen::Right && self.rest.is_none() && self.scene.movement.twin();
        for load in &movement.loads {
            self.load(shapes, load, tone, false);
            if two_sided && load.kind != LoadKind::Sole {
                self.load(shapes, load, tone, true);
            }
        }
        if tone == Tone::End && movement.props.contains(&Prop::Bar) {
            self.bar(shapes);
        }
    }

    /// A bar in the hands, or across the shoulders where hands hold nothing.
    fn bar(&self, shapes: &mut Shapes) {
        let pose = self.scene.pose;
        let across = self.scene.movement.loads.iter().any(|load| load.at == At::Shoulders)
            && self.scene.movement.start.upper.is_none();
        let thrust = self.scene.movement.exercise == "hip-thrust";
        // Arms crossed in front hold a bar on the collar bones.
        let in_front = self.scene.movement.start.plane.is_some_and(|plane| plane > 60.0);
        let (name, own) = match (thrust, across) {
            (true, _) => ("femur_r", [0.13, 0.05, 0.0]),
            (false, true) => ("torso", [if in_front { 0.1 } else { -0.1 }, 0.38, 0.0]),
            (false, false) => ("3proxph_r", [0.0; 3]),
        };
        let at = self.on(pose, name, own);
        if self.view == Seen::Right {
            shapes.ring(at, 0.13);
        } else {
            let other = self.left(pose, name, own, true);
            let (middle, out) = ([0, 1].map(|axis| f64::midpoint(at[axis], other[axis])), 0.55);
            shapes.line([[middle[0] - out, middle[1]], [middle[0] + out, middle[1]]], Stroke::Bar);
        }
    }

    fn load(&self, shapes: &mut Shapes, load: &Load, tone: Tone, mirrored: bool) {
        let scene = self.scene;
        let (_, at) = scene.held(load.at);
        let flat = |place: Vector| {
            let [f, u, r] = worded(place);
            self.flat([f, u, if mirrored { -r } else { r }])
        };
        let here = flat(at);
        let way = scene.way(load).try_normalize(1e-9).unwrap_or_default();
        let tip = |far: f64| flat(at + way * far);
        match load.kind {
            LoadKind::Weight if load.at == At::Shoulders => {}
            LoadKind::Weight if tone == Tone::End => shapes.bob(here, tip(BOB_M)),
            LoadKind::Cable | LoadKind::Band => {
                let from = scene.above_floor(load.from);
                let far = (from - at).norm();
                let stroke = if load.kind == LoadKind::Band { Stroke::Band } else { Stroke::Cable };
                let end = tip(far.min(CABLE_M));
                shapes.line([here, end], if tone == Tone::Start { Stroke::Start } else { stroke });
                if tone == Tone::End {
                    if far <= CABLE_M {
                        shapes.pulley(end);
                    } else {
                        shapes.arrow(here, end);
                    }
                }
            }
            LoadKind::Machine if tone == Tone::End => {
                shapes.pad(here, tip(0.16));
            }
            LoadKind::Sole if tone == Tone::End => {
                let side = self.scene.pose.direction(bone(scene.body, "calcn_r"), Vector::x()) * 0.17;
                let under = at - way * 0.045;
                let ends = [under - side, under + side * 0.8].map(flat);
                shapes.line(ends, Stroke::Platform);
            }
            _ => {}
        }
    }

    /// What the body lies, sits or hangs on.
    fn props(&self, shapes: &mut Shapes) {
        let movement = self.scene.movement;
        let pose = self.scene.pose;
        let along = |offset: f64, ends: [f64; 2]| ends.map(|up| self.on(pose, "torso", [offset, up, 0.0]));
        for prop in &movement.props {
            match prop {
                Prop::Rest if self.view == Seen::Above => {
                    let ends = [0.5, -0.25].map(|up| self.on(pose, "torso", [0.0, up, 0.0]));
                    shapes.line(ends, Stroke::Bench);
                }
                Prop::Rest => {
                    let ends = along(-0.105, [0.52, -0.27]);
                    shapes.line(ends, Stroke::Pad);
                    if movement.stance == Stance::Seated && self.view == Seen::Right {
                        let seat = ["femur_r", "tibia_r"].map(|name| {
                            let [x, y] = self.on(pose, name, [0.0; 3]);
                            [x, y + 0.11]
                        });
                        let shorter = [seat[0], [seat[0][0] + 0.75 * (seat[1][0] - seat[0][0]), seat[0][1]]];
                        shapes.line(shorter, Stroke::Pad);
                    }
                }
                Prop::ChestPad => shapes.line(along(0.165, [0.34, -0.12]), Stroke::Pad),
                Prop::ArmPad => {
                    let ends = [-0.08, -0.3].map(|along| self.on(pose, "humerus_r", [-0.062, along, 0.0]));
                    shapes.line(ends, Stroke::Pad);
                }
                Prop::FixedBar => {
                    let at = self.on(pose, "3proxph_r", [0.0; 3]);
                    if self.view == Seen::Right {
                        shapes.ring(at, 0.03);
                    } else {
                        let other = self.left(pose, "3proxph_r", [0.0; 3], true);
                        shapes.line([[at[0] - 0.2, at[1]], [other[0] + 0.2, at[1]]], Stroke::Bar);
                    }
                }
                Prop::Step => {
                    let [x, y] = self.on(pose, "toes_r", [0.0, -0.03, 0.0]);
                    shapes.line([[x - 0.05, y], [x + 0.16, y]], Stroke::Platform);
                }
                Prop::Bar => {}
            }
        }
        let floors = !matches!(movement.stance, Stance::Hanging) && self.view != Seen::Above;
        let platform = movement.loads.iter().any(|load| load.kind == LoadKind::Sole) && movement.stance != Stance::Feet;
        if floors && !platform && !movement.props.contains(&Prop::Step) {
            shapes.floor = true;
        }
    }
}

/// Where a region lies: on a bone, between two of its own places (forward, up, right, m), radius at each.
struct Patch {
    region: &'static str,
    bone: &'static str,
    ends: [[f64; 3]; 2],
    radius: [f64; 2],
}

const fn patch(region: &'static str, bone: &'static str, ends: [[f64; 3]; 2], radius: [f64; 2]) -> Patch {
    Patch { region, bone, ends, radius }
}

const PATCHES: [Patch; 42] = [
    patch("delts.anterior", "humerus_r", [[0.028, 0.0, 0.0], [0.022, -0.08, 0.0]], [0.034, 0.022]),
    patch("delts.lateral", "humerus_r", [[0.0, 0.012, 0.014], [0.0, -0.1, 0.016]], [0.042, 0.022]),
    patch("delts.posterior", "humerus_r", [[-0.03, 0.0, 0.0], [-0.022, -0.08, 0.0]], [0.034, 0.022]),
    patch("traps.upper", "torso", [[-0.02, 0.42, 0.03], [-0.02, 0.385, 0.12]], [0.03, 0.022]),
    patch("traps.middle", "torso", [[-0.085, 0.33, 0.02], [-0.075, 0.33, 0.1]], [0.04, 0.03]),
    patch("traps.lower", "torso", [[-0.08, 0.26, 0.02], [-0.07, 0.18, 0.02]], [0.036, 0.024]),
    patch("rhomboids", "torso", [[-0.085, 0.31, 0.03], [-0.08, 0.25, 0.06]], [0.034, 0.03]),
    patch("cuff", "torso", [[-0.075, 0.34, 0.08], [-0.06, 0.33, 0.14]], [0.036, 0.026]),
    patch("teres-major", "torso", [[-0.07, 0.27, 0.1], [-0.05, 0.31, 0.14]], [0.03, 0.024]),
    patch("lats.upper", "torso", [[-0.07, 0.26, 0.09], [-0.06, 0.16, 0.08]], [0.05, 0.038]),
    patch("lats.lower", "torso", [[-0.06, 0.16, 0.1], [-0.06, 0.03, 0.07]], [0.044, 0.028]),
    patch("erectors", "torso", [[-0.07, 0.12, 0.025], [-0.075, -0.1, 0.025]], [0.03, 0.034]),
    patch("chest.clavicular", "torso", [[0.115, 0.345, 0.05], [0.085, 0.34, 0.12]], [0.034, 0.026]),
    patch("chest.sternal", "torso", [[0.135, 0.285, 0.05], [0.1, 0.3, 0.12]], [0.042, 0.032]),
    patch("chest.costal", "torso", [[0.135, 0.235, 0.05], [0.105, 0.26, 0.12]], [0.034, 0.026]),
    patch("serratus", "torso", [[0.05, 0.24, 0.13], [0.07, 0.16, 0.12]], [0.028, 0.024]),
    patch("biceps.long", "humerus_r", [[0.02, -0.1, 0.012], [0.018, -0.22, 0.01]], [0.03, 0.03]),
    patch("biceps.short", "humerus_r", [[0.02, -0.1, -0.012], [0.018, -0.22, -0.01]], [0.03, 0.03]),
    patch("brachialis", "humerus_r", [[0.012, -0.18, 0.014], [0.012, -0.26, 0.01]], [0.026, 0.028]),
    patch("triceps.long", "humerus_r", [[-0.022, -0.06, -0.012], [-0.02, -0.22, -0.008]], [0.03, 0.026]),
    patch("triceps.lateral", "humerus_r", [[-0.018, -0.08, 0.016], [-0.018, -0.2, 0.014]], [0.03, 0.024]),
    patch("triceps.medial", "humerus_r", [[-0.02, -0.17, -0.006], [-0.018, -0.26, -0.004]], [0.026, 0.024]),
    patch("forearm.flexors", "radius_r", [[-0.012, -0.05, -0.02], [-0.006, -0.17, -0.006]], [0.028, 0.02]),
    patch("forearm.ulnar", "ulna_r", [[-0.01, -0.05, -0.004], [-0.006, -0.2, 0.0]], [0.024, 0.018]),
    patch("forearm.extensors", "radius_r", [[0.006, -0.05, 0.014], [0.006, -0.17, 0.01]], [0.028, 0.02]),
    patch("forearm.brachioradialis", "radius_r", [[0.014, 0.0, 0.004], [0.012, -0.12, 0.01]], [0.024, 0.018]),
    patch("forearm.rotators", "radius_r", [[0.0, -0.03, -0.006], [0.0, -0.12, 0.0]], [0.024, 0.02]),
    patch("grip", "3proxph_r", [[0.0, 0.0, 0.0], [0.0, 0.01, 0.0]], [0.03, 0.03]),
    patch("abs.rectus", "lumbar3", [[0.14, 0.14, 0.02], [0.135, -0.06, 0.02]], [0.03, 0.03]),
    patch("abs.obliques", "lumbar3", [[0.07, 0.1, 0.1], [0.07, -0.04, 0.095]], [0.032, 0.032]),
    patch("glutes.max", "femur_r", [[-0.06, 0.02, -0.02], [-0.05, -0.06, 0.0]], [0.062, 0.045]),
    patch("glutes.med", "femur_r", [[-0.01, 0.07, 0.02], [0.0, 0.0, 0.03]], [0.042, 0.03]),
    patch("quads.vastus-lateralis", "femur_r", [[0.03, -0.15, 0.025], [0.022, -0.33, 0.016]], [0.044, 0.03]),
    patch("quads.vastus-medialis", "femur_r", [[0.03, -0.24, -0.02], [0.022, -0.35, -0.014]], [0.034, 0.03]),
    patch("quads.rectus-femoris", "femur_r", [[0.045, -0.05, 0.0], [0.03, -0.3, 0.0]], [0.034, 0.026]),
    patch("adductors", "femur_r", [[0.0, -0.04, -0.045], [0.0, -0.22, -0.03]], [0.042, 0.03]),
    patch("hamstrings.long", "femur_r", [[-0.042, -0.09, 0.0], [-0.028, -0.32, 0.0]], [0.044, 0.03]),
    patch("hamstrings.short", "femur_r", [[-0.03, -0.24, 0.0], [-0.026, -0.36, 0.0]], [0.036, 0.028]),
    patch("calves.gastrocnemius", "tibia_r", [[-0.034, -0.06, 0.0], [-0.022, -0.19, 0.0]], [0.036, 0.028]),
    patch("calves.soleus", "tibia_r", [[-0.024, -0.17, 0.0], [-0.018, -0.3, 0.0]], [0.03, 0.02]),
    patch("tibialis", "tibia_r", [[0.022, -0.08, 0.01], [0.014, -0.28, 0.004]], [0.026, 0.018]),
    patch("neck", "torso", [[0.0, 0.43, 0.03], [0.01, 0.47, 0.03]], [0.034, 0.03]),
];

#[derive(Clone, Copy, PartialEq)]
enum Fill {
    Start,
    Far,
    Body,
    Tint,
}

impl Fill {
    fn style(self) -> &'static str {
        match self {
            Self::Start => r#"fill="var(--figure-start, #eee8db)" stroke="var(--figure-start-edge, #a89f8e)""#,
            Self::Far => r#"fill="var(--figure-far, #b9b2a6)" stroke="var(--figure-edge, #57534c)""#,
            Self::Body => r#"fill="var(--figure-body, #d8d2c6)" stroke="var(--figure-edge, #57534c)""#,
            Self::Tint => r#"fill="var(--figure-tint, #8a3f6b)" stroke="none""#,
        }
    }
}

#[derive(Clone, Copy)]
enum Stroke {
    Start,
    Cable,
    Band,
    Bar,
    Pad,
    Bench,
    Platform,
}

impl Stroke {
    fn style(self) -> &'static str {
        match self {
            Self::Start => r#"stroke="var(--figure-start-edge, #a89f8e)" stroke-width="2""#,
            Self::Cable => r#"stroke="var(--figure-load, #8a6414)" stroke-width="2.5""#,
            Self::Band => r#"stroke="var(--figure-load, #8a6414)" stroke-width="3.5" stroke-dasharray="5 3""#,
            Self::Bar => r#"stroke="var(--figure-load, #8a6414)" stroke-width="5" stroke-linecap="round""#,
            Self::Pad => r#"stroke="var(--figure-prop, #a59c8c)" stroke-width="8" stroke-linecap="round""#,
            Self::Bench => r#"stroke="var(--figure-floor, #d9d2c5)" stroke-width="56" stroke-linecap="round""#,
            Self::Platform => r#"stroke="var(--figure-prop, #a59c8c)" stroke-width="5" stroke-linecap="round""#,
        }
    }
}

/// What is drawn, and how far it reaches.
#[derive(Default)]
struct Shapes {
    svg: String,
    low: Option<Flat>,
    high: Flat,
    floor: bool,
}

fn units(place: Flat) -> Flat {
    place.map(|part| part * SCALE)
}

impl Shapes {
    fn reach(&mut self, [x, y]: Flat, radius: f64) {
        let (low, high) = ([x - radius, y - radius], [x + radius, y + radius]);
        let Some(before) = self.low else {
            (self.low, self.high) = (Some(low), high);
            return;
        };
        self.low = Some([before[0].min(low[0]), before[1].min(low[1])]);
        self.high = [self.high[0].max(high[0]), self.high[1].max(high[1])];
    }

    /// The hull of two circles.
    fn limb(&mut self, ends: [Flat; 2], radius: [f64; 2], fill: Fill) {
        self.hull(&[(ends[0], radius[0]), (ends[1], radius[1])], fill);
    }

    /// The hull of circles.
    fn hull(&mut self, circles: &[(Flat, f64)], fill: Fill) {
        const ROUND: usize = 20;
        let mut points: Vec<Flat> = Vec::with_capacity(circles.len() * ROUND);
        for &([x, y], radius) in circles {
            self.reach([x, y], radius);
            points.extend((0..ROUND).map(|step| {
                let (sin, cos) = (std::f64::consts::TAU * step as f64 / ROUND as f64).sin_cos();
                [x + radius * cos, y + radius * sin]
            }));
        }
        let mut path = String::new();
        for (place, point) in hull(points).into_iter().enumerate() {
            let [x, y] = units(point);
            let _ = write!(path, "{}{x:.1} {y:.1}", if place == 0 { "M" } else { "L" });
        }
        let _ = write!(self.svg, r#"<path d="{path}Z" {}/>"#, fill.style());
    }

    fn line(&mut self, ends: [Flat; 2], stroke: Stroke) {
        for end in ends {
            self.reach(end, 0.02);
        }
        let [[x1, y1], [x2, y2]] = ends.map(units);
        let style = stroke.style();
        let _ = write!(self.svg, r#"<path d="M{x1:.1} {y1:.1}L{x2:.1} {y2:.1}" fill="none" {style}/>"#);
    }

    fn ring(&mut self, at: Flat, radius: f64) {
        self.reach(at, radius);
        let ([x, y], r) = (units(at), radius * SCALE);
        let style = r#"fill="var(--figure-load, #8a6414)" fill-opacity="0.3" stroke="var(--figure-load, #8a6414)" stroke-width="2.5""#;
        let _ = write!(self.svg, r#"<circle cx="{x:.1}" cy="{y:.1}" r="{r:.1}" {style}/>"#);
    }

    /// A plumb bob on its string.
    fn bob(&mut self, hand: Flat, at: Flat) {
        self.line([hand, at], Stroke::Cable);
        self.reach(at, 0.06);
        let [x, y] = units(at);
        let fill = r#"fill="var(--figure-load, #8a6414)""#;
        let _ = write!(self.svg, r#"<path d="M{x:.1} {y:.1}m-7 0h14l-7 15z" {fill}/>"#);
    }

    fn pulley(&mut self, at: Flat) {
        self.reach(at, 0.04);
        let [x, y] = units(at);
        let style = r#"fill="var(--figure-body, #d8d2c6)" stroke="var(--figure-load, #8a6414)" stroke-width="2.5""#;
        let _ = write!(self.svg, r#"<circle cx="{x:.1}" cy="{y:.1}" r="6" {style}/>"#);
    }

    /// The end of a line that goes on.
    fn arrow(&mut self, from: Flat, to: Flat) {
        let way = [to[0] - from[0], to[1] - from[1]];
        let long = way[0].hypot(way[1]).max(1e-9);
        let [dx, dy] = way.map(|part| part / long);
        let [x, y] = units(to);
        let fill = r#"fill="var(--figure-load, #8a6414)""#;
        let tips = [[x + 9.0 * dx, y + 9.0 * dy], [x - 5.0 * dy, y + 5.0 * dx], [x + 5.0 * dy, y - 5.0 * dx]];
        let _ = write!(self.svg, r#"<path d="M{:.1} {:.1}"#, tips[0][0], tips[0][1]);
        let _ =
            write!(self.svg, r#"L{:.1} {:.1}L{:.1} {:.1}Z" {fill}/>"#, tips[1][0], tips[1][1], tips[2][0], tips[2][1]);
    }

    /// A pad square to its push, with the push.
    fn pad(&mut self, at: Flat, to: Flat) {
        let way = [to[0] - at[0], to[1] - at[1]];
        let long = way[0].hypot(way[1]);
        if long < 0.02 {
            self.ring(at, 0.035);
            return;
        }
        let across = [-way[1] / long * 0.06, way[0] / long * 0.06];
        self.line([[at[0] - across[0], at[1] - across[1]], [at[0] + across[0], at[1] + across[1]]], Stroke::Bar);
        self.line([at, to], Stroke::Cable);
        self.arrow(at, to);
    }

    fn svg(mut self, title: &str) -> String {
        let low = self.low.unwrap_or_default();
        let [width, height] = [0, 1].map(|axis| (self.high[axis] - low[axis] + 2.0 * MARGIN) * SCALE);
        let [x, y] = [0, 1].map(|axis| (low[axis] - MARGIN) * SCALE);
        if self.floor {
            let [x, y, to] = [(low[0] - MARGIN) * SCALE, self.high[1] * SCALE + 1.0, (self.high[0] + MARGIN) * SCALE];
            let style = r#"stroke="var(--figure-floor, #d9d2c5)" stroke-width="2""#;
            let floor = format!(r#"<path d="M{x:.1} {y:.1}L{to:.1} {y:.1}" {style}/>"#);
            self.svg.insert_str(0, &floor);
        }
        let title = title.replace('&', "&amp;").replace('<', "&lt;");
        format!(
            r#"<svg xmlns="http://www.w3.org/2000/svg" viewBox="{x:.0} {y:.0} {width:.0} {height:.0}" role="img" stroke-linejoin="round"><title>{title}</title>{}</svg>"#,
            self.svg
        )
    }
}

/// The convex hull of points, by Andrew's monotone chain (1979, Information Processing Letters 9:216-219).
fn hull(mut points: Vec<Flat>) -> Vec<Flat> {
    points.sort_by(|a, b| a[0].total_cmp(&b[0]).then(a[1].total_cmp(&b[1])));
    let turns = |a: Flat, b: Flat, c: Flat| (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
    let half = |points: &mut dyn Iterator<Item = Flat>| {
        let mut chain: Vec<Flat> = Vec::new();
        for point in points {
            while chain.len() > 1 && turns(chain[chain.len() - 2], chain[chain.len() - 1], point) <= 0.0 {
                chain.pop();
            }
            chain.push(point);
        }
        chain.pop();
        chain
    };
    let mut whole = half(&mut points.iter().copied());
    whole.extend(half(&mut points.iter().rev().copied()));
    whole
}
