//! Exercises: what emphasises what, and how.

use crate::lift::{CLEAR, Movement};
use crate::scheme::STRAIGHT;
use crate::variant::Variant;
use schemars::JsonSchema;
use serde::{Deserialize, Deserializer, Serialize};
use std::collections::BTreeMap;
use units::{EquipmentId, ExerciseId, RegionId};
use utoipa::ToSchema;

/// Where in the range the load bites most.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, JsonSchema, ToSchema)]
pub enum Hardest {
    /// Lengthened: where the main region is stretched.
    L,
    /// In the middle of the range.
    M,
    /// Shortened: where the main region is contracted.
    S,
    /// Even throughout, as on cables and some machines.
    E,
}

/// Whether an exercise is done one side at a time.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum SidesUse {
    /// One side at a time only.
    One,
    /// Both sides together only.
    Both,
    /// Either way.
    Either,
}

/// How tiring an exercise is, which sets its rest and the pace of its repetitions.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum Effort {
    /// Isolation of a small head.
    Small,
    /// Isolation of a larger muscle.
    Isolation,
    /// Several joints.
    Compound,
}

/// How a set is counted: repetitions or seconds, low and high.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Work {
    /// Repetitions.
    Reps([u16; 2]),
    /// Seconds under tension.
    Seconds([u16; 2]),
}

/// What goes wrong, and what then does the work.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Fault {
    /// What is seen.
    pub fault: String,
    /// The region or named cause that takes over.
    pub takes_over: String,
}

/// However they were written down: a card has room for few, and the short ones are read.
fn shortest_first<'de, D: Deserializer<'de>>(deserializer: D) -> Result<Vec<Fault>, D::Error> {
    let mut faults = Vec::<Fault>::deserialize(deserializer)?;
    faults.sort_by_key(|fault| fault.fault.len());
    Ok(faults)
}

/// When an exercise is refused for a client.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Avoid {
    /// Areas in which any pain rules it out.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub pain: Vec<String>,
    /// Ruled out when either side of a screen reaches less than this, degrees.
    #[serde(skip_serializing_if = "BTreeMap::is_empty")]
    pub screen_below_deg: BTreeMap<String, f64>,
    /// Ruled out for beginners.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub beginner: bool,
}

/// An exercise of the catalogue.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Exercise {
    /// Stable id.
    pub id: ExerciseId,
    /// A plain description.
    pub name: String,
    /// Exercises with the same plane, main region and hardest point share a family.
    pub family: String,
    /// All of these are needed.
    pub equipment: Vec<EquipmentId>,
    /// One side at a time, both, or either.
    pub sides: SidesUse,
    /// Fraction of a set that counts for each region: 1 main target, 0.5 clearly works, 0.25 works a little.
    pub targets: BTreeMap<RegionId, f64>,
    /// Where the load bites most.
    pub hardest: Vec<Hardest>,
    /// How far the main region is stretched at the long end, 0 to 3.
    pub stretch: u8,
    /// 0 free-standing, 1 braced, 2 supported.
    pub stability: u8,
    /// Repetitions, low and high.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reps: Option<[u16; 2]>,
    /// Seconds under tension, low and high, where repetitions are not counted.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seconds: Option<[u16; 2]>,
    /// How tiring it is.
    pub effort: Effort,
    /// Whether it is done last, as push-ups and timed flies are, unless its region is chosen.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub finisher: bool,
    /// Load on each joint: 1 some, 2 clear, 3 heavy. What is not named carries none worth counting.
    #[serde(default)]
    pub joints: BTreeMap<String, u8>,
    /// Joints named by a practice's exercise from before loads were graded: each counts as clear.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub loads_joint: Vec<String>,
    /// Load along the spine, 0 to 3: 3 a deadlift from the floor, 2 a squat with the bar on the back, 0.5 a leg press.
    #[serde(default)]
    pub axial: f64,
    /// What kind of movement it is.
    #[serde(default)]
    pub movement: Movement,
    /// How much has to be learned: 0 anyone, 1 after being shown, 2 technical.
    #[serde(default)]
    pub skill: u8,
    /// Whether it is made of lowering under high tension, which is started with few sets.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub eccentric: bool,
    /// How easy it is on joints and even to lift, 0 to 2.
    #[serde(default = "neither")]
    pub comfort: u8,
    /// How small the steps are by which it goes up, 0 to 2.
    #[serde(default = "neither")]
    pub steps: u8,
    /// The set scheme it is usually done with.
    #[serde(default = "straight")]
    pub usual_scheme: String,
    /// Which of its main regions' actions it covers, where a region has several.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub actions: Vec<String>,
    /// Its grips, paths, stations and other kit.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub variants: Vec<Variant>,
    /// Why it is never proposed, though a coach's history may name it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub advised_against: Option<String>,
    /// How to get into position.
    pub set_up: String,
    /// What to say to the client.
    pub cues: Vec<String>,
    /// What goes wrong, what is soonest read first.
    #[serde(deserialize_with = "shortest_first")]
    pub faults: Vec<Fault>,
    /// What to take care of.
    pub cautions: Vec<String>,
    /// When it is refused.
    #[serde(default)]
    pub avoid: Avoid,
}

fn neither() -> u8 {
    1
}

fn straight() -> String {
    STRAIGHT.to_owned()
}

impl Exercise {
    /// Load on a joint, 0 to 3.
    pub fn load_on(&self, joint: &str) -> u8 {
        let named = || if self.loads_joint.iter().any(|other| other == joint) { CLEAR } else { 0 };
        self.joints.get(joint).copied().unwrap_or_else(named)
    }

    /// The joints that carry load, the most loaded first.
    pub fn loaded_joints(&self) -> Vec<String> {
        let mut joints: Vec<&String> = self.joints.keys().chain(&self.loads_joint).collect();
        joints.retain(|joint| self.load_on(joint) > 0);
        joints.sort_by_key(|joint| std::cmp::Reverse(self.load_on(joint)));
        joints.dedup();
        joints.into_iter().cloned().collect()
    }

    /// A compound lift with a load worth warming up to: neither body weight alone nor bands.
    pub fn heavy(&self) -> bool {
        let light = |item: &EquipmentId| matches!(item.as_str(), "bodyweight" | "band" | "bench" | "rope" | "ball");
        self.effort == Effort::Compound && !self.equipment.iter().all(light)
    }

    /// Whether `region` is a main target.
    pub fn trains(&self, region: &RegionId) -> bool {
        self.fraction(region) >= 1.0
    }

    /// The fraction of a set that counts for `region`, 0 when it does not.
    pub fn fraction(&self, region: &RegionId) -> f64 {
        self.targets.get(region).copied().unwrap_or(0.0)
    }

    /// Whether it loads `region` where it is stretched: main target, stretch of at least 2, and load at the long end or
    /// throughout. What is hardest in the middle bites after the stretch is gone.
    pub fn loads_stretched(&self, region: &RegionId) -> bool {
        let long = |at: &Hardest| matches!(at, Hardest::L | Hardest::E);
        self.trains(region) && self.stretch >= 2 && self.hardest.iter().any(long)
    }

    /// Repetitions or seconds; an exercise has exactly one of the two (checked on load).
    pub fn work(&self) -> Work {
        match (self.reps, self.seconds) {
            (Some(reps), _) => Work::Reps(reps),
            (None, seconds) => Work::Seconds(seconds.unwrap_or([30, 45])),
        }
    }

    /// Whether it can be done one side at a time.
    pub fn one_sided_possible(&self) -> bool {
        self.sides != SidesUse::Both
    }
}
