//! How sets are done, what goes well together, and the smallest step up.

use crate::exercise::Exercise;
use serde::{Deserialize, Serialize};
use units::{EquipmentId, ExerciseId, RegionId};
use utoipa::ToSchema;

/// The scheme of sets that are all alike.
pub const STRAIGHT: &str = "straight";

/// A set scheme.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Scheme {
    /// Stable id, such as `rest-pause`.
    pub id: String,
    /// What a coach calls it.
    pub name: String,
    /// How it is done.
    pub how: String,
    /// Hard sets it counts as beside the straight ones.
    #[serde(default)]
    pub adds_sets: f64,
    /// What the first set counts as.
    #[serde(default = "whole")]
    pub counts_first: f64,
    /// What all further sets together count as, where they do not count one each.
    #[serde(default)]
    pub counts_more: Option<f64>,
    /// Time it adds, s.
    #[serde(default)]
    pub adds_s: f64,
    /// Time of a set, where it is given by the scheme, s.
    #[serde(default)]
    pub set_s: Option<f64>,
    /// Sets on the way up that count nothing.
    #[serde(default)]
    pub warm_up_sets: u16,
    /// Whether the next card follows without rest.
    #[serde(default)]
    pub into_next: bool,
    /// A region that what is done between the sets counts for.
    #[serde(default)]
    pub counts_for: Option<RegionId>,
}

fn whole() -> f64 {
    1.0
}

impl Scheme {
    /// Hard sets that `sets` sets of it count as.
    pub fn counted(&self, sets: u16) -> f64 {
        let more = f64::from(sets.saturating_sub(1));
        let further = self.counts_more.map_or(more, |all| all.min(more));
        if sets == 0 { 0.0 } else { self.counts_first + further + self.adds_sets }
    }
}

/// Exercises that go well one straight into the other, in order.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Pairing {
    /// Which.
    pub exercises: Vec<ExerciseId>,
    /// Why.
    pub why: String,
}

/// The smallest step by which a load goes up.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LoadStep {
    /// Equipment it goes for.
    pub equipment: Vec<EquipmentId>,
    /// How much, where it is the same everywhere, kg.
    #[serde(default)]
    pub kg: Option<f64>,
    /// In words.
    pub says: String,
}

impl LoadStep {
    /// What machines and whatever is not in the table go up by.
    pub(crate) fn other(exercise: &Exercise) -> Self {
        let machine = exercise.equipment.iter().any(|item| item.as_str().starts_with("machine:"));
        let says = if machine { "one plate of the stack" } else { "a slower lowering, then a load held" };
        Self { equipment: Vec::new(), kg: None, says: says.to_owned() }
    }
}

#[cfg(test)]
mod tests {
    use crate::Atlas;
    use rstest::rstest;

    // Common practice, no source.
    #[rstest]
    #[case::straight("straight", 3, 3.0)]
    #[case::one_top_set("ramp-top", 1, 1.0)]
    #[case::a_top_set_and_a_back_off("ramp-top", 2, 1.5)]
    #[case::more_back_offs_count_no_more("ramp-top", 4, 1.5)]
    #[case::load_up_reps_down("reverse-load", 4, 4.0)]
    #[case::a_drop("drop", 3, 3.5)]
    #[case::partials("partials", 3, 3.25)]
    #[case::rest_pause("rest-pause", 3, 3.5)]
    #[case::straight_into_the_next("superset", 3, 3.0)]
    #[case::timed("timed", 3, 3.0)]
    #[case::a_ladder("ladder", 2, 2.0)]
    #[case::range_in_parts("split-range", 3, 3.0)]
    #[case::a_hold("hold", 3, 3.25)]
    #[case::a_carry_between("carry-between", 3, 3.0)]
    #[case::no_sets_count_nothing("drop", 0, 0.0)]
    fn a_scheme_counts_as_the_table_says(#[case] id: &str, #[case] sets: u16, #[case] expected: f64) {
        let atlas = Atlas::load().unwrap();
        assert!((atlas.scheme(id).unwrap().counted(sets) - expected).abs() < 1e-12);
    }

    #[rstest]
    #[case::dumbbells("db-curl", "dumbbells")]
    #[case::a_barbell("bench-press", "bar")]
    #[case::a_cable("cable-curl", "plate of the stack")]
    #[case::a_machine("leg-press", "plate of the stack")]
    #[case::a_band("band-side-raise", "band")]
    #[case::chins("wide-pullup", "belt")]
    #[case::only_the_body("bodyweight-split-squat", "slower lowering")]
    fn a_load_goes_up_by_what_the_exercise_needs(#[case] id: &str, #[case] says: &str) {
        let atlas = Atlas::load().unwrap();
        let step = atlas.load_step(atlas.exercise(&id.parse().unwrap()).unwrap());
        assert!(step.says.contains(says), "{}", step.says);
    }

    #[test]
    fn every_scheme_that_coaches_use_is_there() {
        let atlas = Atlas::load().unwrap();
        assert_eq!(atlas.schemes().len(), 12);
        assert_eq!(atlas.schemes()[0].id, super::STRAIGHT);
    }
}
