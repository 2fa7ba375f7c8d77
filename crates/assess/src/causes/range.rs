//! A joint that does not reach the range the region's exercises ask for.

use super::Question;

/// Parts that are trained by drawing the shoulder blades together.
const BLADE_REGIONS: [&str; 3] = ["traps.middle", "rhomboids", "traps.lower"];

pub(super) fn joint_cannot_get_there(question: &Question) -> Option<(&'static str, String)> {
    const ID: &str = "joint-cannot-get-there";
    let screens = &question.case.client.screens;
    if screens.blades_retract == Some(false) && BLADE_REGIONS.contains(&question.region.id.as_str()) {
        return Some((ID, "The shoulder blades cannot be drawn together without the arms.".to_owned()));
    }
    let mut exercises = question.atlas.exercises_for(&question.region.id);
    exercises.find_map(|exercise| screens.short_for(question.atlas, exercise)).map(|short| {
        let name = &short.screen.name;
        let (measured, needed, mobility) = (short.measured_deg, short.needed_deg, &short.screen.mobility);
        (ID, format!("{name} of {measured:.0} degrees; {needed:.0} are asked for. {mobility}"))
    })
}
