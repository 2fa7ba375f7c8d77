//! What can stand in for an exercise.

use crate::{Atlas, Exercise};
use units::ExerciseId;

/// How many are named.
const SHOWN: usize = 3;

impl Atlas {
    /// The exercises closest to `exercise` that train one of its main regions, closest first, at most three.
    ///
    /// Close means: the same share of every region, the same family, the same hardest points, as much stretch, as much
    /// support, and other equipment (a substitute is asked for most when the equipment is taken). Common practice, no
    /// source. Exercises advised against stand in for nothing.
    pub fn substitutes(&self, exercise: &Exercise) -> Vec<ExerciseId> {
        let mut near: Vec<(f64, &Exercise)> = self
            .exercises()
            .iter()
            .filter(|other| other.id != exercise.id && other.advised_against.is_none() && shares_main(exercise, other))
            .map(|other| (distance(exercise, other), other))
            .collect();
        near.sort_by(|a, b| a.0.total_cmp(&b.0).then_with(|| a.1.id.cmp(&b.1.id)));
        near.into_iter().take(SHOWN).map(|(_, other)| other.id.clone()).collect()
    }
}

fn shares_main(one: &Exercise, other: &Exercise) -> bool {
    let mut mains = one.targets.iter().filter(|(_, share)| **share >= 1.0).map(|(region, _)| region);
    // An exercise without a main target is stood in for by what trains its largest share.
    let largest = one.targets.iter().max_by(|a, b| a.1.total_cmp(b.1)).map(|(region, _)| region);
    mains.any(|region| other.trains(region)) || largest.is_some_and(|region| other.trains(region))
}

fn distance(one: &Exercise, other: &Exercise) -> f64 {
    let regions = one.targets.keys().chain(other.targets.keys());
    let shares: f64 = regions.map(|region| (one.fraction(region) - other.fraction(region)).abs()).sum();
    let hardest = one.hardest.iter().filter(|at| !other.hardest.contains(at)).count();
    let flag = |differs: bool| f64::from(u8::from(differs));
    shares
        + 0.5 * flag(one.family != other.family)
        + 0.3 * (hardest as f64)
        + 0.2 * f64::from(one.stretch.abs_diff(other.stretch))
        + 0.1 * f64::from(one.stability.abs_diff(other.stability))
        + 0.2 * flag(one.equipment == other.equipment)
}
