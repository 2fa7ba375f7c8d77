//! Whether this client may do an exercise at all: equipment, exclusions, pain, screens, experience.

use assess::{Client, Experience, PAIN_STOPS};
use atlas::{Atlas, Exercise};
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
    /// A joint does not reach the range it asks for, degrees.
    Screen {
        /// Which range.
        name: String,
        /// The lesser side.
        measured_deg: f64,
        /// What the exercise needs.
        needed_deg: f64,
    },
    /// A school the coach follows leaves it out.
    School {
        /// The school's answer in words.
        answer: String,
    },
    /// Kept in the catalogue only to be named.
    AdvisedAgainst,
    /// Form comes first.
    Beginner,
}

/// Why `client` may not do `exercise`; `None` when they may.
pub fn refusal(atlas: &Atlas, exercise: &Exercise, client: &Client) -> Option<Refusal> {
    let beginner = exercise.avoid.beginner && client.experience == Experience::Beginner;
    equipment(exercise, client)
        .or_else(|| client.excluded_exercises.contains(&exercise.id).then_some(Refusal::Excluded))
        .or_else(|| exercise.advised_against.is_some().then_some(Refusal::AdvisedAgainst))
        .or_else(|| pain(exercise, client))
        .or_else(|| screen(atlas, exercise, client))
        .or_else(|| school(atlas, exercise, client))
        .or_else(|| beginner.then_some(Refusal::Beginner))
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

fn screen(atlas: &Atlas, exercise: &Exercise, client: &Client) -> Option<Refusal> {
    let short = client.screens.short_for(atlas, exercise)?;
    let name = short.screen.name.to_lowercase();
    Some(Refusal::Screen { name, measured_deg: short.measured_deg, needed_deg: short.needed_deg })
}

fn school(atlas: &Atlas, exercise: &Exercise, client: &Client) -> Option<Refusal> {
    let mut options = atlas.school_options(&client.schools);
    let option = options.find(|option| option.excludes.contains(&exercise.id))?;
    Some(Refusal::School { answer: option.name.clone() })
}

impl std::fmt::Display for Refusal {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        match self {
            Self::Equipment(item) => write!(f, "needs {item}, which is not there"),
            Self::Excluded => write!(f, "ruled out in the brief"),
            Self::Pain { area, level } => write!(f, "loads the {area}, which hurts {level}/10"),
            Self::Screen { name, measured_deg, needed_deg } => {
                write!(f, "asks for {needed_deg:.0} degrees of {name}; {measured_deg:.0} were measured")
            }
            Self::School { answer } => write!(f, "is left out by the school \u{201c}{answer}\u{201d}"),
            Self::AdvisedAgainst => write!(f, "is advised against"),
            Self::Beginner => write!(f, "not in a beginner's first weeks: form before load"),
        }
    }
}
