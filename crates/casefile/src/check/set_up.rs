//! How a client's stations are set.

use super::Checker;
use crate::problem::Problem;
use crate::written::{set_up, variant};
use assess::KeptSetUp;
use atlas::Atlas;
use std::collections::BTreeMap;
use units::{ExerciseId, Place};

/// Longest note on a set-up, characters.
const NOTE: usize = 300;
/// Joint angles at which a muscle may be hardest, degrees.
const ANGLE_DEG: [f64; 2] = [0.0, 180.0];

pub(super) fn resolve(
    check: &mut Checker,
    at: &Place,
    set_ups: &BTreeMap<String, KeptSetUp>,
) -> BTreeMap<ExerciseId, KeptSetUp> {
    let mut resolved = BTreeMap::new();
    for (exercise, kept) in set_ups {
        let at = at.at(exercise);
        let known = check.exercise(&at, exercise).map(|known| known.id.clone());
        one(check, &at, exercise, kept);
        resolved.extend(known.map(|id| (id, kept.clone())));
    }
    resolved
}

fn one(check: &mut Checker, at: &Place, exercise: &str, kept: &KeptSetUp) {
    let known = exercise.parse().ok().and_then(|id| check.atlas.exercise(&id));
    variant(check, &at.at("variant"), known, kept.variant.as_deref());
    set_up(check, &at.at("numbers"), &kept.numbers);
    if kept.note.as_ref().is_some_and(|note| note.chars().count() > NOTE) {
        check.fail::<()>(at.at("note"), format!("the note is longer than {NOTE} characters"));
    }
    if let Some(deg) = kept.check.as_ref().and_then(|check| check.hardest_deg) {
        check.number(&at.at("check").at("hardest_deg"), "an angle of", deg, ANGLE_DEG, "\u{b0}");
    }
}

/// Checks one set-up. `at` is its pointer.
///
/// # Errors
/// All problems.
pub fn check_set_up(atlas: &Atlas, at: &Place, exercise: &ExerciseId, kept: &KeptSetUp) -> Result<(), Vec<Problem>> {
    let mut check = Checker::new(atlas);
    one(&mut check, at, exercise.as_str(), kept);
    if check.problems.is_empty() { Ok(()) } else { Err(check.problems) }
}
