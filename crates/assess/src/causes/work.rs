//! Causes in how much and which work a region got.

use super::Question;
use atlas::{Exercise, Hardest};
use units::RegionId;

/// Fewer weekly fractional sets than this do not grow anything.
const ENOUGH_SETS: f64 = 6.0;
/// A neighbour with more indirect sets than this a week is overfed.
const OVERFED_SETS: f64 = 12.0;
/// Regions that presses, raises and rows feed without being asked.
const EASILY_OVERFED: [&str; 2] = ["delts.anterior", "traps.upper"];

pub(super) fn too_little(question: &Question) -> Option<(&'static str, String)> {
    let sets = question.recent?.weekly_sets(&question.region.id);
    let seen = || format!("{sets:.1} sets a week over the last weeks; under {ENOUGH_SETS:.0} is little.");
    (sets < ENOUGH_SETS).then(|| ("too-little-work", seen()))
}

pub(super) fn wrong_line_of_pull(question: &Question) -> Option<(&'static str, String)> {
    let recent = question.recent?;
    let indirect = recent.weekly_indirect_sets(&question.region.id);
    let none_direct = recent.direct(&question.region.id).next().is_none();
    let seen = || format!("{indirect:.1} sets a week reach it, none from an exercise with it as main target.");
    (none_direct && indirect > 0.0).then(|| ("wrong-line-of-pull", seen()))
}

pub(super) fn never_loaded_stretched(question: &Question) -> Option<(&'static str, String)> {
    let recent = question.recent?;
    let mut used: Vec<&str> = recent.direct(&question.region.id).map(|(_, exercise)| exercise.name.as_str()).collect();
    used.sort_unstable();
    used.dedup();
    // Even resistance counts where the exercise stretches the region: it bites there too.
    let long = |exercise: &Exercise| {
        exercise.loads_stretched(&question.region.id)
            || exercise.hardest.iter().any(|at| matches!(at, Hardest::L | Hardest::M))
    };
    let never = !recent.direct(&question.region.id).any(|(_, exercise)| long(exercise));
    let seen = || format!("Only {}: nothing bites in the stretch or in the middle.", lower(&used.join(", ")));
    (never && !used.is_empty()).then(|| ("never-loaded-stretched", seen()))
}

pub(super) fn overfed_neighbour(question: &Question) -> Option<(&'static str, String)> {
    let recent = question.recent?;
    let region = &question.region.id;
    let neighbours = EASILY_OVERFED.iter().filter_map(|id| id.parse::<RegionId>().ok()).filter(|id| {
        let takes_over = question.region.taken_over_by.iter().any(|t| t == id.as_str());
        id != region && (takes_over || id.muscle() == region.muscle())
    });
    let mut fed = neighbours.map(|id| (recent.weekly_indirect_sets(&id), id));
    let (sets, id) = fed.find(|(sets, _)| *sets > OVERFED_SETS)?;
    let name = question.called(id.as_str());
    Some(("overfed-neighbour", format!("The {name} gets {sets:.1} indirect sets a week.")))
}

fn lower(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map(|first| first.to_lowercase().collect::<String>() + letters.as_str()).unwrap_or_default()
}
