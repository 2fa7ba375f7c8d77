//! Whether this client may do an exercise at all: equipment, exclusions, pain, screens, experience.

use crate::aims::allowed_load;
use assess::{Client, Experience, day_in_words};
use atlas::{Atlas, Exercise, Movement};
use jiff::civil::Date;
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
    /// It hurt when it was last done, and nobody has cleared it since.
    Hurt {
        /// 0 to 10.
        level: u8,
        /// When.
        on: Date,
    },
    /// The last review put another exercise in its place.
    Swapped {
        /// Day of the round that was reviewed.
        of: Date,
    },
    /// The shoulder blades do not draw together yet: rows wait.
    Blades,
    /// Too technical for a beginner, unless the coach adds it.
    Skill,
}

impl Refusal {
    /// Whether a coach may add the exercise all the same: one who adds a technical exercise has seen it done, and who swapped one
    /// out may take it in again.
    pub fn may_be_added(&self) -> bool {
        matches!(self, Self::Skill | Self::Swapped { .. } | Self::Blades)
    }
}

/// Skill from which a beginner is not given an exercise.
const TECHNICAL: u8 = 2;

/// Why `client` may not do `exercise`; `None` when they may.
pub fn refusal(atlas: &Atlas, exercise: &Exercise, client: &Client) -> Option<Refusal> {
    let new = client.experience == Experience::Beginner;
    equipment(exercise, client)
        .or_else(|| client.excluded_exercises.contains(&exercise.id).then_some(Refusal::Excluded))
        .or_else(|| exercise.advised_against.is_some().then_some(Refusal::AdvisedAgainst))
        .or_else(|| pain(exercise, client))
        .or_else(|| screen(atlas, exercise, client))
        .or_else(|| school(atlas, exercise, client))
        .or_else(|| blades(exercise, client))
        .or_else(|| (new && exercise.avoid.beginner).then_some(Refusal::Beginner))
        .or_else(|| (new && exercise.skill >= TECHNICAL).then_some(Refusal::Skill))
}

fn equipment(exercise: &Exercise, client: &Client) -> Option<Refusal> {
    let stands = |home: bool| exercise.stands(|item| client.has_at(home, item));
    if stands(false) {
        return None;
    }
    // What is nowhere complete is named by what the gym lacks of its own kit.
    let missing = exercise.equipment.iter().find(|item| !client.has_at(false, item))?;
    let nowhere = client.home_days() == 0 || !stands(true);
    nowhere.then(|| Refusal::Equipment(missing.clone()))
}

fn pain(exercise: &Exercise, client: &Client) -> Option<Refusal> {
    let ruled_out = |area: &str, level: u8| {
        let any_pain = level > 0 && exercise.avoid.pain.iter().any(|a| a == area);
        any_pain || exercise.load_on(area) > allowed_load(level)
    };
    let worst = client.pain.iter().find(|pain| ruled_out(&pain.area, pain.level))?;
    Some(Refusal::Pain { area: worst.area.clone(), level: worst.level })
}

fn screen(atlas: &Atlas, exercise: &Exercise, client: &Client) -> Option<Refusal> {
    let short = client.screens.short_for(atlas, exercise)?;
    let name = short.screen.name.to_lowercase();
    Some(Refusal::Screen { name, measured_deg: short.measured_deg, needed_deg: short.needed_deg })
}

/// Rows wait until the blades draw together: what teaches them that is no row.
fn blades(exercise: &Exercise, client: &Client) -> Option<Refusal> {
    let held = client.screens.blades_retract == Some(false) && exercise.movement == Movement::Row;
    held.then_some(Refusal::Blades)
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
            Self::Hurt { level, on } => write!(f, "hurt {level}/10 on {}", day_in_words(*on)),
            Self::Swapped { of } => write!(f, "was swapped out at the review of {}", day_in_words(*of)),
            Self::Blades => write!(f, "waits until the shoulder blades can be drawn together"),
            Self::Skill => write!(f, "is technical: a beginner learns it before it is planned"),
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::tests::problem;
    use rstest::rstest;
    use serde_json::{Value, json};

    fn said(brief: &Value, id: &str) -> Option<String> {
        let problem = problem(brief);
        let refused = problem.refused.iter().find(|(exercise, _)| exercise.id.as_str() == id);
        refused.map(|(_, refusal)| refusal.to_string())
    }

    #[rstest]
    #[case::nothing_in_the_way(json!({}), "db-curl", None)]
    #[case::no_pulley(json!({"equipment": ["dumbbell"]}), "face-pull", Some("needs cable, which is not there"))]
    #[case::body_weight_is_always_there(json!({"equipment": []}), "pushup", None)]
    #[case::ruled_out(json!({"excluded_exercises": ["db-curl"]}), "db-curl", Some("ruled out in the brief"))]
    // Graded: common practice, no source.
    #[case::any_pain_stops_what_loads_the_joint_heavily(
        json!({"pain": [{"area": "elbow", "level": 1}]}), "skull-crusher", Some("loads the elbow, which hurts 1/10")
    )]
    #[case::pain_of_three_stops_what_loads_it_clearly(
        json!({"pain": [{"area": "shoulder", "level": 3}]}), "flat-db-press", Some("loads the shoulder, which hurts 3/10")
    )]
    #[case::but_not_what_loads_it_a_little(json!({"pain": [{"area": "shoulder", "level": 4}]}), "chest-press-machine", None)]
    #[case::pain_of_five_stops_all_that_loads_it(
        json!({"pain": [{"area": "shoulder", "level": 5}]}), "cable-fly", Some("loads the shoulder, which hurts 5/10")
    )]
    #[case::pain_of_two_stops_nothing_else(json!({"pain": [{"area": "shoulder", "level": 2}]}), "db-side-raise", None)]
    #[case::a_technical_lift_for_a_beginner(
        json!({"experience": "beginner"}), "deadlift", Some("is technical: a beginner learns it before it is planned")
    )]
    #[case::a_stiff_ankle(
        json!({"screens": {"ankle_dorsiflexion_deg": {"left": 20, "right": 30}}}), "back-squat",
        Some("asks for 25 degrees of ankle bend; 20 were measured")
    )]
    #[case::a_school(
        json!({"schools": {"upright_row": "never"}}), "rope-upright-row",
        Some("is left out by the school \u{201c}Never\u{201d}")
    )]
    #[case::a_beginner(
        json!({"experience": "beginner", "schools": {"strictness": "loose-last"}}), "loose-curl",
        Some("not in a beginner's first weeks: form before load")
    )]
    #[case::blades_that_do_not_draw_together(
        json!({"screens": {"blades_retract": false}}), "seated-row-mid", Some("waits until the shoulder blades can be drawn together")
    )]
    #[case::what_teaches_the_blades(json!({"screens": {"blades_retract": false}}), "cable-blade-squeeze", None)]
    #[case::only_to_be_named(json!({}), "palms-under-plate-curl", Some("is advised against"))]
    fn an_exercise_is_refused_with_the_rule_in_the_way(
        #[case] brief: Value,
        #[case] id: &str,
        #[case] expected: Option<&str>,
    ) {
        assert_eq!(said(&brief, id).as_deref(), expected);
    }
}
