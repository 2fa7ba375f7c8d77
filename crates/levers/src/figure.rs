//! The figure at work, drawn from the chain's own angles: start pale, end in ink, the region tinted, the load as what it is.
//!
//! A manikin of tapered limbs: each limb is the hull of two circles. Colours are the page's own (`--figure-*`), with plain ones where
//! there are none, as on paper.

use crate::body::{Body, Vector};
use crate::chain::Pose;
use crate::load::{Scene, bone, room};
use crate::movement::{At, Hold, Load, LoadKind, Movement, Prop, Stance, View};
use crate::patch::PATCHES;
use crate::posture::{Angles, Room, worded};
use crate::shapes::{Fill, Flat, Shapes, Stroke};
use crate::way::{ends, on_the_way};

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
