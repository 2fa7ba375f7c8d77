//! What an exercise does, as data: where it starts and ends, what it holds, what it is loaded by and which numbers of its set-up a
//! coach may turn.

use serde::Deserialize;
use std::collections::BTreeMap;
use std::sync::LazyLock;

static MOVEMENTS: LazyLock<BTreeMap<String, Movement>> = LazyLock::new(|| {
    let files = [
        include_str!("../data/movements/delts.toml"),
        include_str!("../data/movements/chest.toml"),
        include_str!("../data/movements/back.toml"),
        include_str!("../data/movements/arms.toml"),
        include_str!("../data/movements/forearms.toml"),
        include_str!("../data/movements/legs.toml"),
        include_str!("../data/movements/trunk.toml"),
    ];
    let read = |file: &str| toml::from_str::<File>(file).expect("the shipped movements read").movement;
    files.into_iter().flat_map(read).map(|movement| (movement.exercise.clone(), movement)).collect()
});

/// Moves without load, for their pictures alone.
static MOVES: LazyLock<BTreeMap<String, Movement>> = LazyLock::new(|| {
    let file = include_str!("../data/movements/warm-ups.toml");
    let moves = toml::from_str::<File>(file).expect("the shipped moves read").movement;
    moves.into_iter().map(|movement| (movement.exercise.clone(), movement)).collect()
});

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct File {
    movement: Vec<Movement>,
}

/// The movement of an exercise.
#[derive(Clone, Debug, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Movement {
    /// Id of the exercise.
    pub(crate) exercise: String,
    /// Why nothing is computed: the muscles it is for are not in the model.
    #[serde(default)]
    pub(crate) not_modelled: Option<NotModelled>,
    pub(crate) stance: Stance,
    /// How far the body leans forward from upright, degrees; on the back it is -90.
    #[serde(default)]
    pub(crate) lean: f64,
    /// How far the body is rolled onto its left side, degrees.
    #[serde(default)]
    pub(crate) roll: f64,
    /// Height of the hips above the floor, cm; the stance's own where none is given.
    #[serde(default)]
    pub(crate) hip_cm: Option<f64>,
    /// Whether the forearm keeps to the line of the load on the way, as it does when a handle hangs free.
    #[serde(default)]
    pub(crate) follows: bool,
    /// Joints that muscles hold; the others rest or are held by what is not modelled.
    #[serde(default)]
    pub(crate) holds: Vec<Hold>,
    pub(crate) start: Posture,
    /// Where it ends: what is not named stays as it starts.
    pub(crate) end: Posture,
    /// Legs of the other side where they stand differently: for the picture alone.
    #[serde(default)]
    pub(crate) other_start: Option<Posture>,
    #[serde(default)]
    pub(crate) other_end: Option<Posture>,
    #[serde(default)]
    pub(crate) loads: Vec<Load>,
    /// The side from which it is seen best.
    #[serde(default)]
    pub(crate) view: View,
    /// What else the picture needs.
    #[serde(default)]
    pub(crate) props: Vec<Prop>,
    /// Numbers of the set-up that may be turned.
    #[serde(default)]
    pub(crate) turns: Vec<SetUp>,
}

/// Muscles that the model does not have.
#[derive(Clone, Copy, Debug, Deserialize, PartialEq, Eq)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum NotModelled {
    /// Those that move the shoulder blade.
    Blade,
    Neck,
    /// Fingers closing round something.
    Grip,
}

/// How the body stands, sits, lies or hangs.
#[derive(Clone, Copy, Debug, Deserialize, PartialEq, Eq)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum Stance {
    Standing,
    /// Bent forward at the hips, legs upright.
    Bent,
    Seated,
    /// On a bench, feet on the floor, face up.
    Lying,
    /// Chest down on an inclined bench.
    ChestDown,
    Kneeling,
    Hanging,
    /// On hands and toes.
    Plank,
    /// On the floor, legs drawn as the movement says.
    Floor,
    /// Feet flat on the floor carry the body: how far it leans follows from hip, knee and ankle.
    Feet,
}

/// What muscles hold.
#[derive(Clone, Copy, Debug, Deserialize, PartialEq, Eq)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum Hold {
    Shoulder,
    Elbow,
    /// Turning the forearm.
    Forearm,
    Wrist,
    Hip,
    Knee,
    Ankle,
    Trunk,
}

/// Joint angles in anatomical words, degrees.
#[derive(Clone, Copy, Debug, Default, Deserialize, PartialEq)]
#[serde(deny_unknown_fields)]
pub(crate) struct Posture {
    /// Plane in which the arm is raised: 0 to the side, 90 to the front.
    pub plane: Option<f64>,
    /// How far it is raised from hanging along the body; below 0 it is raised to the other side of the body.
    pub up: Option<f64>,
    /// Upper arm turned inward about itself.
    pub turn: Option<f64>,
    /// Elbow bent.
    pub elbow: Option<f64>,
    /// Forearm turned: 90 palm up, 0 neutral, -90 palm down.
    pub fore: Option<f64>,
    /// Wrist bent towards the palm.
    pub wrist: Option<f64>,
    /// Hand tipped towards the little finger.
    pub tip: Option<f64>,
    /// Hip bent.
    pub hip: Option<f64>,
    /// Thigh to the side.
    pub abduct: Option<f64>,
    /// Thigh turned inward.
    pub hip_turn: Option<f64>,
    /// Knee bent.
    pub knee: Option<f64>,
    /// Foot drawn up.
    pub ankle: Option<f64>,
    /// Trunk bent forward.
    pub bend: Option<f64>,
    /// Trunk bent to the right.
    pub side: Option<f64>,
    /// Trunk turned to the left.
    pub twist: Option<f64>,
    /// Body leant forward here, where it differs from the movement's.
    pub lean: Option<f64>,
    /// Where the upper arm points, instead of plane and up: forward, up and right in the room.
    pub upper: Option<[f64; 3]>,
    /// Where the forearm points, instead of turn and elbow.
    pub forearm: Option<[f64; 3]>,
}

/// What pulls or pushes.
#[derive(Clone, Copy, Debug, Deserialize, PartialEq)]
#[serde(deny_unknown_fields)]
pub(crate) struct Load {
    pub kind: LoadKind,
    pub at: At,
    /// About what is used, N a limb; scaled to the limit.
    pub n: f64,
    /// Where a cable or band comes from: height above the floor, distance in front of the hips, to the right of the middle, cm.
    #[serde(default)]
    pub from: [f64; 3],
    /// Where a machine pushes, forward, up and right in the room; against the movement where nothing is given.
    #[serde(default)]
    pub way: Option<[f64; 3]>,
    /// What the load is multiplied by at the start and at the end: a machine's cam, a body that tips over.
    #[serde(default = "even")]
    pub cam: [f64; 2],
}

fn even() -> [f64; 2] {
    [1.0, 1.0]
}

#[derive(Clone, Copy, Debug, Deserialize, PartialEq, Eq)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum LoadKind {
    /// A bell, bar or plate: straight down.
    Weight,
    /// The floor or a bar carries the body: straight up.
    Bodyweight,
    /// From a pulley, all the same along the way.
    Cable,
    /// As a cable, growing with its length.
    Band,
    /// A pad or handle that gives way along its path: square to the movement, against it.
    Machine,
    /// A platform under the sole: square to it.
    Sole,
    /// The body's own weight above the hips.
    Trunk,
    /// The weight of the legs, the trunk being held.
    Legs,
    /// The body's own limbs alone.
    Limb,
}

/// Where a load takes hold.
#[derive(Clone, Copy, Debug, Deserialize, PartialEq, Eq)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum At {
    Hand,
    /// A hand's breadth and a half from the fist, on the side of the thumb or of the little finger: the end of a bar or rope.
    Radial,
    Ulnar,
    Wrist,
    Elbow,
    Shoulders,
    Head,
    Thigh,
    Knee,
    Ankle,
    Foot,
    Toes,
}

#[derive(Clone, Copy, Debug, Default, Deserialize, PartialEq, Eq)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum View {
    /// From the client's right.
    #[default]
    Side,
    Front,
}

#[derive(Clone, Copy, Debug, Deserialize, PartialEq, Eq)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum Prop {
    /// A bar in both hands.
    Bar,
    /// A bench or back rest along the back.
    Rest,
    /// A pad under the chest.
    ChestPad,
    /// A pad under the upper arm.
    ArmPad,
    /// A bar overhead or bars beside that carry the body.
    FixedBar,
    /// A step under the toes.
    Step,
}

/// Numbers of a set-up that coaches turn.
#[derive(Clone, Copy, Debug, Deserialize, PartialEq, Eq, PartialOrd, Ord)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum SetUp {
    /// Bench: 0 flat, 90 upright.
    BenchDeg,
    PulleyHeightCm,
    PulleyDistanceCm,
    PulleySideCm,
    ElbowFromBodyDeg,
    ForearmTurnDeg,
    LeanDeg,
    HipDeg,
    KneeDeg,
    StanceCm,
}

impl Movement {
    /// The movement of an exercise of the catalogue.
    pub fn of(exercise: &str) -> Option<&'static Self> {
        MOVEMENTS.get(exercise)
    }

    /// A move without load that warms up or restores: for its picture alone.
    pub fn of_move(id: &str) -> Option<&'static Self> {
        MOVES.get(id)
    }

    /// All that ship, by id of their exercise.
    pub fn shipped() -> impl Iterator<Item = &'static Self> {
        MOVEMENTS.values()
    }
}
