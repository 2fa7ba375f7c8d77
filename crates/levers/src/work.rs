//! Who works along a movement, where and how long: the answer for an exercise in a set-up.

use crate::body::{Body, Vector};
use crate::load::{Scene, bone, room, torques};
use crate::movement::{At, Hold, Load, LoadKind, Movement};
use crate::muscle::{Pull, fibre_length, pull_by};
use crate::posture::{Angles, aimed, along, joints, worded};
use crate::set_up::{SetUpNumber, set_up};
use crate::statics::hold;
use atlas::{Exercise, Hardest};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use std::sync::LazyLock;
use utoipa::ToSchema;

/// Points of the range.
pub const POINTS: usize = 21;
/// A muscle is long from here, best length 1.
const LONG: f64 = 1.05;
/// Under this share of its most a region is as good as idle.
const IDLE: f64 = 0.2;
/// The largest under so many times the mean: even.
const EVEN: f64 = 1.5;
/// Main from this share of the largest, and this much itself.
const MAIN_OF_LARGEST: f64 = 0.5;
const MAIN_ITSELF: f64 = 0.35;
/// Torque left to the reserves above which an answer is poor.
const POOR: f64 = 0.1;
const REGIONS_FILE: &str = include_str!("../data/muscles.toml");

#[derive(Deserialize)]
struct RegionsFile {
    regions: BTreeMap<String, Vec<String>>,
}

/// Muscles of each region.
static REGIONS: LazyLock<BTreeMap<String, Vec<usize>>> = LazyLock::new(|| {
    let file: RegionsFile = toml::from_str(REGIONS_FILE).expect("the shipped regions read");
    let body = Body::shipped();
    let names: Vec<&str> = body.muscle_names().collect();
    let found = |pattern: &String| -> Vec<usize> {
        let fits = |name: &str| pattern.strip_suffix('*').map_or(name == pattern, |start| name.starts_with(start));
        (0..names.len()).filter(|place| fits(names[*place])).collect()
    };
    file.regions.into_iter().map(|(region, patterns)| (region, patterns.iter().flat_map(found).collect())).collect()
});

/// Muscles of the model that are a region's; none of blade, neck and grip.
pub fn muscles_of(region: &str) -> &'static [usize] {
    REGIONS.get(region).map_or(&[], Vec::as_slice)
}

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

/// What is held: joints, and the muscles that could.
struct Held {
    joints: Vec<(&'static str, usize)>,
    muscles: Vec<usize>,
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
struct Solved {
    angles: Angles,
    hand: [f64; 3],
    way: [f64; 3],
    torques: Vec<f64>,
    activations: Vec<f64>,
    lengths: Vec<f64>,
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

/// Torques for the right half alone: of a trunk that does the same on both sides it holds half.
fn trunk_shared(movement: &Movement, held: &Held, mut torques: Vec<f64>) -> Vec<f64> {
    if movement.even() {
        let bends = held.joints.iter().zip(&mut torques).filter(|((name, _), _)| *name == joints::BEND);
        bends.for_each(|(_, torque)| *torque /= 2.0);
    }
    torques
}

/// Muscles with the left half of a trunk that does not do the same on both sides: as on the right, but that it bends to its own side.
fn with_left(
    movement: &Movement,
    held: &Held,
    pulls: Vec<Pull>,
    lengths: &[f64],
) -> (Vec<usize>, Vec<Vec<f64>>, Vec<f64>) {
    let (mut muscles, mut lengths) = (held.muscles.clone(), lengths.to_vec());
    let mut arms: Vec<Vec<f64>> = pulls.into_iter().map(|pull| pull.arms_m).collect();
    let sided = |name: &str| name == joints::SIDE || name == joints::TWIST;
    if movement.even() || !held.joints.iter().any(|(name, _)| sided(name)) {
        return (muscles, arms, lengths);
    }
    for place in 0..held.muscles.len() {
        let turned = |(arm, (name, _)): (&f64, &(&str, usize))| if sided(name) { -arm } else { *arm };
        arms.push(arms[place].iter().zip(&held.joints).map(turned).collect());
        muscles.push(held.muscles[place]);
        lengths.push(lengths[place]);
    }
    (muscles, arms, lengths)
}

/// An arm straighter than this hangs in its load, degrees.
const STRAIGHT: f64 = 15.0;

/// Start and end of a movement; a straight arm that follows its load starts in line with it.
pub(crate) fn ends(body: &Body, movement: &Movement) -> [Angles; 2] {
    let mut both = Angles::of(movement);
    if movement.follows && both[0].elbow < STRAIGHT {
        let shoulder = bone(body, "humerus_r");
        if let Some(line) = line(body, movement, &both[0], 0.0, shoulder) {
            [both[0].plane, both[0].up] = aimed(&both[0], line);
        }
    }
    both
}

/// The line of the first load through a bone, as the body has it.
fn line(body: &Body, movement: &Movement, angles: &Angles, share: f64, bone: usize) -> Option<[f64; 3]> {
    let load = movement.loads.first()?;
    let pose = angles.pose(body);
    let room = room(body, movement, angles, &pose);
    let scene = Scene { body, movement, pose: &pose, room, next: &pose, turned: 1.0, share };
    let line = match load.kind {
        LoadKind::Cable | LoadKind::Band => scene.above_floor(load.from) - pose.at(bone, Vector::zeros()),
        _ => scene.way(load),
    };
    line.try_normalize(1e-9).map(worded)
}

/// Angles at a share of the way; a forearm that follows its load lies along it.
pub(crate) fn on_the_way(body: &Body, movement: &Movement, both: &[Angles; 2], share: f64) -> Angles {
    let mut angles = Angles::between(both, share);
    if !movement.follows {
        return angles;
    }
    let (elbow, hand) = (bone(body, "ulna_r"), bone(body, "3proxph_r"));
    let Some(line) = line(body, movement, &angles, share, elbow) else { return angles };
    let (line, own) = (Vector::from(line), [angles.turn, angles.elbow]);
    [angles.turn, angles.elbow] = along(&angles, line.into());
    // A forearm nearly in line with the upper arm has no turn of its own: there it stays on its way.
    let bent = ((angles.elbow - BENT[0]) / (BENT[1] - BENT[0])).clamp(0.0, 1.0);
    if bent < 1.0 {
        angles.turn = own[0] + (angles.turn - own[0]) * bent;
        angles.elbow = own[1] + (angles.elbow - own[1]) * bent;
        return angles;
    }
    // Bones are bowed and the hand has its own width: what the first try misses by is put right.
    let mut wanted = line;
    for _ in 0..CORRECTIONS {
        let pose = angles.pose(body);
        let there = Vector::from(worded(pose.at(hand, Vector::zeros()) - pose.at(elbow, Vector::zeros()))).normalize();
        let line = if there.dot(&line) < 0.0 { -line } else { line };
        wanted = if there.dot(&wanted) < 0.0 { -wanted } else { wanted };
        wanted = (wanted + line - there).normalize();
        [angles.turn, angles.elbow] = along(&angles, wanted.into());
    }
    angles
}

/// Between these an elbow comes to count as bent, degrees.
const BENT: [f64; 2] = [10.0, 45.0];
/// Tries after which a forearm lies along its load within a degree.
const CORRECTIONS: usize = 2;

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

fn held(body: &Body, movement: &Movement) -> Held {
    let mut names: Vec<&'static str> = Vec::new();
    let (mut arm, mut hand, mut leg, mut trunk) = (false, false, false, false);
    for hold in &movement.holds {
        match hold {
            Hold::Shoulder => names.extend([joints::PLANE, joints::UP, joints::TURN]),
            Hold::Elbow => names.push(joints::ELBOW),
            Hold::Forearm => names.push(joints::FORE),
            Hold::Wrist => names.extend([joints::WRIST, joints::TIP]),
            Hold::Hip => names.extend([joints::HIP, joints::ABDUCT, joints::HIP_TURN]),
            Hold::Knee => names.push(joints::KNEE),
            Hold::Ankle => names.push(joints::ANKLE),
            Hold::Trunk if movement.even() => names.push(joints::BEND),
            Hold::Trunk => names.extend([joints::BEND, joints::SIDE, joints::TWIST]),
        }
        arm |= matches!(hold, Hold::Shoulder | Hold::Elbow);
        hand |= matches!(hold, Hold::Forearm | Hold::Wrist);
        leg |= matches!(hold, Hold::Hip | Hold::Knee | Hold::Ankle);
        trunk |= *hold == Hold::Trunk;
    }
    let joints: Vec<(&'static str, usize)> =
        names.into_iter().filter_map(|name| Some((name, body.joint(name)?))).collect();
    // Muscles of the data stand by limb: shoulder and elbow, hand, leg, trunk.
    let place = |name: &str| body.muscle(name).unwrap_or_default();
    let (first_hand, first_leg, first_trunk) = (place("ECRL"), place("addbrev_r"), place("rect_abd_r"));
    let mut muscles = Vec::new();
    for muscle in 0..body.muscles.len() {
        let wanted = match muscle {
            m if m >= first_trunk => trunk,
            m if m >= first_leg => leg,
            m if m >= first_hand => hand,
            _ => arm || hand,
        };
        if wanted {
            muscles.push(muscle);
        }
    }
    Held { joints, muscles }
}

/// By what the load must be multiplied so that the hardest-used region that it is for gives its most over the hardest fifth of the
/// range, whichever of them ends the set. What the catalogue does not name may be asked for at most twice its most: it helps out for
/// a moment, or the body finds another way. The trunk ends a set only where the exercise is for it.
fn limit(exercise: &Exercise, held: &Held, points: &[Solved]) -> f64 {
    let fraction =
        |region: &str| exercise.targets.iter().find(|(id, _)| id.as_str() == region).map_or(0.0, |(_, f)| *f);
    let hardest = |(region, muscles): (&String, &Vec<usize>)| {
        let fraction = fraction(region);
        let counts = fraction >= 1.0 || !TRUNK.contains(&region.as_str());
        let mut uses = mean_use(held, muscles, points);
        uses.sort_by(|a, b| b.total_cmp(a));
        let use_ = uses.iter().take(FIFTH).sum::<f64>() / FIFTH as f64;
        if !counts {
            0.0
        } else if fraction >= 0.5 {
            use_
        } else {
            use_ / HELPS_OUT
        }
    };
    let top = REGIONS.iter().map(hardest).fold(0.0, f64::max);
    if top > 1e-6 { 1.0 / top } else { 1.0 }
}

/// Points of the hardest fifth.
const FIFTH: usize = 4;
/// How much more than its most is asked of a region at most that the exercise is not for.
const HELPS_OUT: f64 = 2.0;

/// Regions whose many small muscles hold the spine.
const TRUNK: [&str; 3] = ["erectors", "abs.rectus", "abs.obliques"];

/// Mean activation of some muscles by their force, at each point.
fn mean_use(held: &Held, muscles: &[usize], points: &[Solved]) -> Vec<f64> {
    let body = Body::shipped();
    let mine = held.muscles.iter().enumerate().filter(|(_, muscle)| muscles.contains(muscle));
    let mine: Vec<(usize, f64)> = mine.map(|(place, muscle)| (place, body.muscles[*muscle].force_n)).collect();
    let whole: f64 = mine.iter().map(|(_, force)| force).sum();
    let of = |point: &Solved| mine.iter().map(|(place, force)| point.activations[*place] * force).sum::<f64>();
    points.iter().map(|point| of(point) / whole.max(1e-9)).collect()
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

/// Regions that do anything, largest share first.
fn regions(exercise: &Exercise, held: &Held, points: &[Solved], scale: f64) -> Vec<RegionWork> {
    let body = Body::shipped();
    let mut all: Vec<RegionWork> = Vec::new();
    for (region, muscles) in REGIONS.iter() {
        let mine: Vec<(usize, f64)> = held
            .muscles
            .iter()
            .enumerate()
            .filter(|(_, muscle)| muscles.contains(muscle))
            .map(|(place, muscle)| (place, body.muscles[*muscle].force_n))
            .collect();
        let whole: f64 = mine.iter().map(|(_, force)| force).sum();
        if whole <= 0.0 {
            continue;
        }
        let mean = |of: &dyn Fn(&Solved, usize) -> f64| -> Vec<f64> {
            points
                .iter()
                .map(|point| mine.iter().map(|(place, force)| of(point, *place) * force).sum::<f64>() / whole)
                .collect()
        };
        let activation: Vec<f64> = mean(&|point, place| point.activations[place] * scale);
        let length: Vec<f64> = mean(&|point, place| point.lengths[place]);
        all.push(region_work(region, &activation, &length));
    }
    let largest = all.iter().map(|work| work.share).fold(0.0, f64::max);
    for work in &mut all {
        let fraction =
            exercise.targets.iter().find(|(id, _)| id.as_str() == work.region).map(|(_, fraction)| *fraction);
        work.catalogue = fraction.map(|fraction| Claim {
            fraction,
            hardest: exercise.hardest.iter().map(|hardest| letter(*hardest).to_owned()).collect(),
            stretch: exercise.stretch,
        });
        let main = work.share >= MAIN_OF_LARGEST * largest && work.share >= MAIN_ITSELF;
        let bites = |catalogue: &Claim| catalogue.hardest.contains(&work.bites);
        work.agrees = work.catalogue.as_ref().map(|catalogue| {
            let named = catalogue.fraction >= 1.0;
            named == main && (!named || bites(catalogue))
        });
    }
    all.retain(|work| work.share >= 0.02 || work.catalogue.is_some());
    all.sort_by(|a, b| b.share.total_cmp(&a.share));
    all
}

fn letter(hardest: Hardest) -> &'static str {
    match hardest {
        Hardest::L => "L",
        Hardest::M => "M",
        Hardest::S => "S",
        Hardest::E => "E",
    }
}

fn region_work(region: &str, activation: &[f64], length: &[f64]) -> RegionWork {
    let count = activation.len() as f64;
    let share = activation.iter().sum::<f64>() / count;
    let most = activation.iter().copied().fold(0.0, f64::max);
    let long = activation.iter().zip(length).filter(|(_, length)| **length > LONG);
    let idle = activation.iter().filter(|use_| **use_ < IDLE * most).count();
    let rounded = |value: f64| (value * 1e4).round() / 1e4;
    RegionWork {
        region: region.to_owned(),
        share: rounded(share),
        bites: bites(activation, length, share, most).to_owned(),
        long_load: rounded(long.map(|(use_, _)| use_).sum::<f64>() / count),
        dead_range: rounded(idle as f64 / count),
        activation: activation.iter().copied().map(rounded).collect(),
        length: length.iter().copied().map(rounded).collect(),
        catalogue: None,
        agrees: None,
    }
}

fn bites(activation: &[f64], length: &[f64], share: f64, most: f64) -> &'static str {
    if most < EVEN * share {
        return "E";
    }
    let (low, high) = length.iter().fold((f64::INFINITY, 0.0_f64), |(low, high), at| (low.min(*at), high.max(*at)));
    let hardest = activation.iter().position(|use_| (*use_ - most).abs() < 1e-12).unwrap_or_default();
    match (length[hardest] - low) / (high - low).max(1e-9) {
        part if part < 1.0 / 3.0 => "S",
        part if part > 2.0 / 3.0 => "L",
        _ => "M",
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
