//! Which side a one-sided test starts with: the weaker, so that the other is held to it.

use crate::input::{Client, Hand, Round};
use crate::strength_sides::strength_asymmetries;
use crate::verdict::{RegionVerdict, Tilt};
use atlas::{Atlas, Exercise};
use units::Side;

/// The side to test first in `exercise`: the weaker one when last tested, else the smaller one by the verdict on its main
/// regions, else the non-dominant hand's. `earlier` are the rounds before, oldest first; `regions` the verdict so far.
pub fn first_side(
    atlas: &Atlas,
    client: &Client,
    earlier: &[Round],
    regions: &[RegionVerdict],
    exercise: &Exercise,
) -> Side {
    let tested = |round: &Round| {
        let sides = strength_asymmetries(atlas, client, round);
        sides.into_iter().find(|s| s.exercise == exercise.id).and_then(|s| s.weaker())
    };
    let smaller = |verdict: &RegionVerdict| match verdict.asymmetry.map(|a| a.tilt) {
        Some(Tilt::LeftSmaller) => Some(Side::Left),
        Some(Tilt::RightSmaller) => Some(Side::Right),
        _ => None,
    };
    let mut mains = regions.iter().filter(|verdict| exercise.trains(&verdict.region));
    let non_dominant = if client.dominant_hand == Hand::Left { Side::Right } else { Side::Left };
    earlier.iter().rev().find_map(tested).or_else(|| mains.find_map(smaller)).unwrap_or(non_dominant)
}
