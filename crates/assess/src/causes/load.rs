//! Causes in how the work was loaded: both sides always together, or too heavy to control.

use super::Question;
use crate::input::TrainingEntry;
use atlas::Exercise;

pub(super) const ONLY_BOTH_SIDES: &str = "only-both-sides-together";

pub(super) fn only_both_sides(question: &Question) -> Option<(&'static str, String)> {
    let recent = question.recent?;
    let mut entries = recent.direct(&question.region.id).peekable();
    entries.peek()?;
    let together = entries.all(|(entry, _)| !entry.one_sided);
    let seen = || "The sides differ, and none of its work was one side at a time.".to_owned();
    (question.leans() && together).then(|| (ONLY_BOTH_SIDES, seen()))
}

pub(super) fn too_heavy(question: &Question) -> Option<(&'static str, String)> {
    let under = |entry: &TrainingEntry, exercise: &Exercise| {
        exercise.reps.zip(entry.reps).filter(|([low, _], reps)| reps < low).map(|([low, _], reps)| (low, reps))
    };
    let mut entries = question.recent?.direct(&question.region.id);
    entries.find_map(|(entry, exercise)| {
        let name = exercise.name.to_lowercase();
        let seen = match under(entry, exercise) {
            Some((low, reps)) => format!("{reps} repetitions of {name}, which is meant for {low} or more."),
            None if entry.swung => format!("The load was swung in {name}."),
            None => return None,
        };
        Some(("too-heavy-to-control", seen))
    })
}
