//! Whether this client may do an exercise at all: equipment, exclusions, pain, screens, experience.

use assess::{Client, Experience};
use atlas::Exercise;
use units::EquipmentId;

/// The rule that keeps an exercise out.
#[derive(Clone, Debug, PartialEq)]
pub enum Refusal {
    /// Something it needs is not there.
    Equipment(EquipmentId),
    /// The coach ruled it out.
    Excluded,
    /// A painful area.
    Pain {
        /// Where.
        area: String,
        /// 0 to 10.
        level: u8,
    },
    /// A shoulder extends too little, degrees.
    ShoulderExtension {
        /// The lesser side.
        measured_deg: f64,
        /// What the exercise needs.
        needed_deg: f64,
    },
    /// Form comes first.
    Beginner,
}

/// Pain from this level on rules out every exercise that loads the joint (cautions.md).
const PAIN_STOPS: u8 = 3;

/// Why `client` may not do `exercise`; `None` when they may.
pub fn refusal(exercise: &Exercise, client: &Client) -> Option<Refusal> {
    equipment(exercise, client)
        .or_else(|| client.excluded_exercises.contains(&exercise.id).then_some(Refusal::Excluded))
        .or_else(|| pain(exercise, client))
        .or_else(|| shoulder_extension(exercise, client))
        .or_else(|| (exercise.avoid.beginner && client.experience == Experience::Beginner).then_some(Refusal::Beginner))
}

fn equipment(exercise: &Exercise, client: &Client) -> Option<Refusal> {
    let has = |item: &&EquipmentId| item.as_str() == "bodyweight" || client.equipment.contains(*item);
    exercise.equipment.iter().find(|item| !has(item)).map(|item| Refusal::Equipment(item.clone()))
}

fn pain(exercise: &Exercise, client: &Client) -> Option<Refusal> {
    let ruled_out = |area: &str, level: u8| {
        let any_pain = level > 0 && exercise.avoid.pain.iter().any(|a| a == area);
        any_pain || (level >= PAIN_STOPS && exercise.loads_joint.iter().any(|joint| joint == area))
    };
    let worst = client.pain.iter().find(|pain| ruled_out(&pain.area, pain.level))?;
    Some(Refusal::Pain { area: worst.area.clone(), level: worst.level })
}

fn shoulder_extension(exercise: &Exercise, client: &Client) -> Option<Refusal> {
    let needed_deg = exercise.avoid.shoulder_extension_below_deg?;
    let sides = client.screens.shoulder_extension_deg?;
    let measured_deg = sides.left.min(sides.right);
    (measured_deg < needed_deg).then_some(Refusal::ShoulderExtension { measured_deg, needed_deg })
}

impl std::fmt::Display for Refusal {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        match self {
            Self::Equipment(item) => write!(f, "needs {item}, which is not there"),
            Self::Excluded => write!(f, "ruled out in the brief"),
            Self::Pain { area, level } => write!(f, "loads the {area}, which hurts {level}/10"),
            Self::ShoulderExtension { measured_deg, needed_deg } => {
                write!(f, "asks for {needed_deg:.0} degrees of shoulder extension; {measured_deg:.0} were measured")
            }
            Self::Beginner => write!(f, "not in a beginner's first weeks: form before load"),
        }
    }
}
