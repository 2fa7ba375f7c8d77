//! Who works along a movement, where and how long: the answer for an exercise in a set-up.

use crate::body::{Body, Vector};
use crate::held::{Held, held, trunk_shared, with_left};
use crate::load::{Scene, bone, room, torques};
use crate::movement::{At, Load, LoadKind, Movement};
use crate::muscle::{Pull, fibre_length, pull_by};
use crate::posture::{Angles, worded};
use crate::region::{limit, regions};
use crate::set_up::{SetUpNumber, set_up};
use crate::statics::hold;
use crate::way::{ends, on_the_way};
use atlas::Exercise;
use schemars::JsonSchema;
use serde::Serialize;
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// Points of the range.
pub const POINTS: usize = 21;
/// Torque left to the reserves above which an answer is poor.
const POOR: f64 = 0.1;

/// The line of pull of an exercise in a set-up (`orthomer-levers`, version 1).
#[derive(Clone, Debug, PartialEq, Serialize, JsonSchema)]
pub struct Levers {
    /// `orthomer-levers`.
    pub format: String,
    /// 1.
    pub version: u32,
    /// Id of the exercise.
    pub exercise: String,
    /// Every number of its set-up.
    pub set_up: Vec<SetUpNumber>,
    /// By what the movement's usual load is multiplied at the limit.
    pub limit_load_factor: f64,
    /// The worst share of a torque that muscles do not hold; over 0.1 the answer is poor.
    pub reserve_share: f64,
    /// Whether muscles are worked out.
    pub modelled: bool,
    /// Why not, or what of it is poor, in a sentence each.
    pub says: Vec<String>,
    /// 21 points from start to end.
    pub range: Vec<Point>,
    /// Regions that do anything, largest share first.
    pub regions: Vec<RegionWork>,
}

/// One point of the range.
#[derive(Clone, Debug, PartialEq, Serialize, JsonSchema)]
pub struct Point {
    /// Joint angles in anatomical words, degrees.
    pub angles: BTreeMap<String, f64>,
    /// Where the load takes hold: forward of the hips, up, right, m.
    pub hand_m: [f64; 3],
    /// The way the load pulls there: forward, up, right in the room, of length 1.
    pub load: [f64; 3],
    /// Torque to hold, by joint, Nm.
    pub torque_nm: BTreeMap<String, f64>,
    /// Those that do anything, by the source model's names.
    pub muscles: BTreeMap<String, MuscleWork>,
}

/// A muscle at a point of the range.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, JsonSchema)]
pub struct MuscleWork {
    /// 1 at its most, at the limit.
    pub activation: f64,
    /// Of its fibres, 1 at their best.
    pub length: f64,
}

/// A region along the range.
#[derive(Clone, Debug, PartialEq, Serialize, JsonSchema, ToSchema)]
pub struct RegionWork {
    /// Id of the region.
    pub region: String,
    /// Mean activation.
    pub share: f64,
    /// Where it is hardest: `L`, `M`, `S` of its own range of length, `E` when it is much the same throughout.
    pub bites: String,
    /// Mean of the activation where the fibres are long.
    pub long_load: f64,
    /// Part of the range in which it is as good as idle.
    pub dead_range: f64,
    /// Activation at each point of the range.
    pub activation: Vec<f64>,
    /// Length of the fibres at each point of the range.
    pub length: Vec<f64>,
    /// Fraction of a set in the catalogue, and where it says it is hardest.
    pub catalogue: Option<Claim>,
    /// Whether mechanics says the same of main and hardest point; none where the catalogue does not name it.
    pub agrees: Option<bool>,
}

/// What the catalogue says of a region.
#[derive(Clone, Debug, PartialEq, Serialize, JsonSchema, ToSchema)]
pub struct Claim {
    /// Fraction of a set.
    pub fraction: f64,
    /// Letters of where it is hardest.
    pub hardest: Vec<String>,
    /// How far it is stretched, 0 to 3.
    pub stretch: u8,
}

/// The line of pull of an exercise with its movement as it is set up; `own` is the movement as it ships.
pub fn levers(exercise: &Exercise, movement: &Movement, own: &Movement) -> Levers {
    let body = Body::shipped();
    let both = ends(body, movement);
    let held = held(body, movement);
    let mut says = out_of_range(body, &both);
    if let Some(why) = movement.not_modelled {
        says.push(why.says().to_owned());
    }
    let placed = placed(body, movement, &both, &held);
    // Limbs weigh what they weigh, however much is loaded: so the limit is found in two steps.
    let first = limit(exercise, &held, &solved(body, &placed, &held, 1.0));
    let points = solved(body, &placed, &held, first);
    let second = limit(exercise, &held, &points);
    let reserve_share = points.iter().map(|point| point.reserve_share).fold(0.0, f64::max);
    if reserve_share > POOR && movement.not_modelled.is_none() {
        says.push(format!("Muscles of the model leave {:.0} % of a torque: a rough answer.", 100.0 * reserve_share));
    }
    let regions = regions(exercise, &held, &points, second);
    Levers {
        format: "orthomer-levers".to_owned(),
        version: 1,
        exercise: movement.exercise.clone(),
        set_up: set_up(movement, own),
        limit_load_factor: first * second,
        reserve_share,
        modelled: movement.not_modelled.is_none(),
        says,
        range: points.iter().map(|point| point.told(body, &held, second)).collect(),
        regions: if movement.not_modelled.is_some() { Vec::new() } else { regions },
    }
}

/// The same for another stature than the model's own: lengths, levers and torques grow with it.
pub fn levers_at(exercise: &Exercise, movement: &Movement, own: &Movement, stature_cm: f64) -> Levers {
    let scale = stature_cm / STATURE_CM;
    let mut sized = movement.clone();
    // Pulleys stay where they are, so that to a small body they stand further off.
    sized.loads.iter_mut().for_each(|load| load.from = load.from.map(|cm| cm / scale));
    let mut found = levers(exercise, &sized, own);
    found.set_up = set_up(movement, own);
    found.limit_load_factor /= scale;
    for point in &mut found.range {
        point.hand_m = point.hand_m.map(|m| m * scale);
    }
    found
}

/// Stature of the source model, cm.
pub const STATURE_CM: f64 = 170.0;

/// A point worked out with a load.
pub(crate) struct Solved {
    angles: Angles,
    hand: [f64; 3],
    way: [f64; 3],
    torques: Vec<f64>,
    /// By the muscles that are held.
    pub activations: Vec<f64>,
    pub lengths: Vec<f64>,
    reserve_share: f64,
}

/// A point of the range before it is known how much is loaded.
struct Placed {
    angles: Angles,
    hand: [f64; 3],
    way: [f64; 3],
    /// Torques of the load and of the limbs alone, Nm.
    loads: Vec<f64>,
    limbs: Vec<f64>,
    muscles: Vec<usize>,
    arms: Vec<Vec<f64>>,
    lengths: Vec<f64>,
}

fn placed(body: &Body, movement: &Movement, both: &[Angles; 2], held: &Held) -> Vec<Placed> {
    let joints: Vec<usize> = held.joints.iter().map(|(_, joint)| *joint).collect();
    let moving = movement.loads.iter().any(|load| load.kind == LoadKind::Machine && load.way.is_none());
    let at = |place: usize| {
        let share = place as f64 / (POINTS - 1) as f64;
        let angles = on_the_way(body, movement, both, share);
        let pose = angles.pose(body);
        // At the end the way there is the way on.
        let turned = if place + 1 < POINTS { 1.0 } else { -1.0 };
        let next = moving.then(|| on_the_way(body, movement, both, share + 0.01 * turned).pose(body));
        let room = room(body, movement, &angles, &pose);
        let scene = Scene { body, movement, pose: &pose, room, next: next.as_ref().unwrap_or(&pose), turned, share };
        let movers = pose.movers(&joints);
        let [loads, limbs] =
            scene.forces().map(|forces| trunk_shared(movement, held, torques(body, &forces, &movers, &joints)));
        let pulls = held.muscles.iter().map(|muscle| pull_by(&pose, *muscle, &movers, joints.len()));
        let pulls: Vec<Pull> = pulls.collect();
        let length = |(muscle, pull): (&usize, &Pull)| fibre_length(body, *muscle, pull.length_m);
        let lengths: Vec<f64> = held.muscles.iter().zip(&pulls).map(length).collect();
        let (muscles, arms, lengths) = with_left(movement, held, pulls, &lengths);
        let (hand, way) = seen(&scene);
        Placed { angles, hand, way, loads, limbs, muscles, arms, lengths }
    };
    (0..POINTS).map(at).collect()
}

fn solved(body: &Body, placed: &[Placed], held: &Held, factor: f64) -> Vec<Solved> {
    let size = |torques: &[f64]| torques.iter().map(|torque| torque * torque).sum::<f64>().sqrt();
    let solve = |point: &Placed| {
        let torques: Vec<f64> = point.loads.iter().zip(&point.limbs).map(|(load, limb)| load * factor + limb).collect();
        let mut held_by = hold(body, &point.muscles, &point.arms, &point.lengths, &torques);
        let left = held_by.activations.split_off(held.muscles.len());
        // Of a pair the harder side is told.
        held_by.activations.iter_mut().zip(left).for_each(|(right, left)| *right = right.max(left));
        // Of a torque of some few Nm any rest is a large share, and no matter.
        let reserve_share = size(&held_by.reserves_nm) / size(&torques).max(5.0);
        let lengths = point.lengths[..held.muscles.len()].to_vec();
        let Placed { angles, hand, way, .. } = *point;
        Solved { angles, hand, way, torques, activations: held_by.activations, lengths, reserve_share }
    };
    placed.iter().map(solve).collect()
}

/// Where the first load takes hold and how it pulls, as the room has them.
fn seen(scene: &Scene) -> ([f64; 3], [f64; 3]) {
    let at = scene.movement.loads.first().map_or(At::Hand, |load: &Load| load.at);
    let (_, place) = scene.held(at);
    let way = scene.movement.loads.first().map_or_else(Vector::zeros, |load| scene.way(load));
    let hips = scene.pose.at(bone(scene.body, "femur_r"), Vector::zeros());
    let [f, u, r] = worded(place - hips);
    let middle = worded(hips)[2];
    let unit = way.try_normalize(1e-9).unwrap_or_default();
    (scene.room.to_room([f, u, r + middle]), scene.room.to_room(worded(unit)))
}

impl Solved {
    fn told(&self, body: &Body, held: &Held, scale: f64) -> Point {
        let rounded = |value: f64, digits: i32| (value * 10_f64.powi(digits)).round() / 10_f64.powi(digits) + 0.0;
        let muscles = held.muscles.iter().zip(self.activations.iter().zip(&self.lengths));
        let named = muscles.filter(|(_, (activation, _))| **activation > 0.0).map(|(muscle, (activation, length))| {
            let work = MuscleWork { activation: rounded(activation * scale, 4), length: rounded(*length, 4) };
            (body.muscles[*muscle].name.clone(), work)
        });
        let torque = held.joints.iter().zip(&self.torques);
        Point {
            angles: self.angles.words().map(|(word, degrees)| (word.to_owned(), rounded(degrees, 2))).into(),
            hand_m: self.hand.map(|place| rounded(place, 4)),
            load: self.way.map(|part| rounded(part, 4)),
            torque_nm: torque.map(|((name, _), nm)| ((*name).to_owned(), rounded(nm * scale, 3))).collect(),
            muscles: named.collect(),
        }
    }
}

/// What lies outside the ranges of the joints, a sentence each.
fn out_of_range(body: &Body, both: &[Angles; 2]) -> Vec<String> {
    let mut says = Vec::new();
    for (when, angles) in [("start", both[0]), ("end", both[1])] {
        for ((word, _), (joint, degrees)) in angles.words().iter().zip(angles.by_joint()) {
            let [low, high] = body.joint(joint).map_or([0.0, 0.0], |joint| body.range(joint)).map(f64::to_degrees);
            if degrees < low - 0.5 || degrees > high + 0.5 {
                let kept = degrees.clamp(low, high);
                says.push(format!(
                    "At the {when} {word} would be {degrees:.0} degrees; {kept:.0} is the nearest the joint does."
                ));
            }
        }
    }
    says
}

impl Angles {
    /// Word and degrees of each coordinate that has a joint, in the order of the joints.
    pub fn words(&self) -> [(&'static str, f64); 15] {
        [
            ("plane", self.plane),
            ("up", self.up),
            ("turn", self.turn),
            ("elbow", self.elbow),
            ("fore", self.fore),
            ("wrist", self.wrist),
            ("tip", self.tip),
            ("hip", self.hip),
            ("abduct", self.abduct),
            ("hip_turn", self.hip_turn),
            ("knee", self.knee),
            ("ankle", self.ankle),
            ("bend", self.bend),
            ("side", self.side),
            ("twist", self.twist),
        ]
    }
}

impl crate::movement::NotModelled {
    /// In a sentence.
    pub fn says(self) -> &'static str {
        match self {
            Self::Blade => {
                "Not modelled: the model has no muscles of the shoulder blade; here the coach's word stands alone."
            }
            Self::Neck => "Not modelled: the model has no muscles of the neck; here the coach's word stands alone.",
            Self::Grip => "Not modelled: the model does not close its fingers; here the coach's word stands alone.",
        }
    }
}
