//! How sets are done, what goes well together, and the smallest step up.

use crate::exercise::Exercise;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::{EquipmentId, ExerciseId, RegionId};
use utoipa::ToSchema;

/// The scheme of sets that are all alike.
pub const STRAIGHT: &str = "straight";

/// What follows straight on a set, or is done between sets.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum PartKind {
    /// A lighter load, at once, to failure.
    Drop,
    /// Past failure, in a part of the range.
    Partials,
    /// A few breaths, then again.
    Pause,
    /// A hold where it is hardest.
    Hold,
    /// A loaded carry in place of the rest.
    Carry,
    /// Repetitions with help.
    Assisted,
}

impl PartKind {
    /// All of them, in the order of the table.
    pub const ALL: [Self; 6] = [Self::Drop, Self::Partials, Self::Pause, Self::Hold, Self::Carry, Self::Assisted];

    /// Whether it is counted in seconds.
    pub fn in_seconds(self) -> bool {
        matches!(self, Self::Hold | Self::Carry)
    }
}

/// What a part counts as and takes.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PartRule {
    /// Which.
    pub kind: PartKind,
    /// Hard sets.
    pub counts: f64,
    /// Time beside the set's own, s. A carry takes the place of the rest.
    pub adds_s: f64,
    /// How it is done.
    pub how: String,
    /// How much of it is usual.
    pub usual: PlannedPart,
}

/// A part as it is planned: how much and with what load.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlannedPart {
    /// Which.
    pub kind: PartKind,
    /// Share of the set's load, %.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub load_pct: Option<u16>,
    /// Repetitions, low and high.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reps: Option<[u16; 2]>,
    /// Seconds, for a hold, a carry and the pause before going on.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seconds: Option<u16>,
}

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
    /// What follows the last set.
    #[serde(default)]
    pub last: Vec<PartKind>,
    /// What follows every set.
    #[serde(default)]
    pub every: Vec<PartKind>,
    /// Whether every set ends at failure, only the first does, or only the last.
    #[serde(default)]
    pub fails: Fails,
    /// By how much each set's load goes up over the one before, %.
    #[serde(default)]
    pub rise_pct: u16,
    /// Load of all sets after the first, % of the first's.
    #[serde(default)]
    pub back_off_pct: Option<u16>,
    /// What the first set counts as.
    #[serde(default = "whole")]
    pub counts_first: f64,
    /// What all further sets together count as, where they do not count one each.
    #[serde(default)]
    pub counts_more: Option<f64>,
    /// Time of a set, where it is given by the scheme, s.
    #[serde(default)]
    pub set_s: Option<f64>,
    /// Sets on the way up that count nothing.
    #[serde(default)]
    pub warm_up_sets: u16,
    /// A region that what is done between the sets counts for.
    #[serde(default)]
    pub counts_for: Option<RegionId>,
}

fn whole() -> f64 {
    1.0
}

/// Which sets of a scheme end at failure on purpose: nothing left in one of them is no miss.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum Fails {
    /// None.
    #[default]
    Never,
    /// The first.
    First,
    /// The last.
    Last,
    /// All.
    Every,
}

impl Fails {
    /// Whether set `number` of `sets`, from 1, ends at failure.
    pub fn at(self, number: u16, sets: u16) -> bool {
        match self {
            Self::Never => false,
            Self::First => number == 1,
            Self::Last => number == sets,
            Self::Every => true,
        }
    }
}

impl Scheme {
    /// Hard sets that `sets` sets of it count as, what follows on them aside.
    pub fn counted(&self, sets: u16) -> f64 {
        let more = f64::from(sets.saturating_sub(1));
        let further = self.counts_more.map_or(more, |all| all.min(more));
        if sets == 0 { 0.0 } else { self.counts_first + further }
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
    /// Of which weights it is made, where a step has a weight of its own.
    #[serde(default)]
    pub weight: Option<StepWeight>,
    /// How much that is in this practice, kg.
    #[serde(skip)]
    pub kg: Option<f64>,
    /// In words.
    pub says: String,
}

/// Weights whose smallest step a practice can tell: its own are in kilograms or in pounds.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum StepWeight {
    /// From one pair of dumbbells to the next.
    Dumbbells,
    /// The smallest plates, one on each end of a bar.
    Bar,
    /// The smallest plate on a belt.
    Belt,
}

impl LoadStep {
    /// What machines and whatever is not in the table go up by.
    pub(crate) fn other(exercise: &Exercise) -> Self {
        let machine = exercise.equipment.iter().any(|item| item.as_str().starts_with("machine:"));
        let says = if machine { "one plate of the stack" } else { "a slower lowering, then a load held" };
        Self { equipment: Vec::new(), weight: None, kg: None, says: says.to_owned() }
    }
}

#[cfg(test)]
mod tests {
    use super::PartKind;
    use crate::Atlas;
    use rstest::rstest;

    // Common practice, no source.
    #[rstest]
    #[case::straight("straight", 3, 3.0)]
    #[case::one_top_set("ramp-top", 1, 1.0)]
    #[case::a_top_set_and_a_back_off("ramp-top", 2, 1.5)]
    #[case::more_back_offs_count_no_more("ramp-top", 4, 1.5)]
    #[case::load_up_reps_down("reverse-load", 4, 4.0)]
    #[case::timed("timed", 3, 3.0)]
    #[case::a_ladder("ladder", 2, 2.0)]
    #[case::range_in_parts("split-range", 3, 3.0)]
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
        assert_eq!(atlas.schemes().len(), 11);
        assert_eq!(atlas.schemes()[0].id, super::STRAIGHT);
    }

    // Common practice, no source.
    #[rstest]
    #[case::a_drop(PartKind::Drop, 0.5, 30.0)]
    #[case::partials(PartKind::Partials, 0.25, 15.0)]
    #[case::a_pause(PartKind::Pause, 0.5, 25.0)]
    #[case::a_hold(PartKind::Hold, 0.25, 10.0)]
    #[case::a_carry_takes_the_place_of_the_rest(PartKind::Carry, 0.0, 0.0)]
    #[case::help(PartKind::Assisted, 0.25, 15.0)]
    fn a_part_counts_and_takes_what_the_table_says(#[case] kind: PartKind, #[case] counts: f64, #[case] adds_s: f64) {
        let atlas = Atlas::load().unwrap();
        let rule = atlas.part_rule(kind);
        assert!((rule.counts - counts).abs() < 1e-12 && (rule.adds_s - adds_s).abs() < 1e-12);
    }

    #[rstest]
    #[case::a_drop("drop", PartKind::Drop)]
    #[case::partials("partials", PartKind::Partials)]
    #[case::rest_pause("rest-pause", PartKind::Pause)]
    #[case::a_hold("hold", PartKind::Hold)]
    fn what_follows_the_last_set_is_a_part_of_its_own(#[case] scheme: &str, #[case] kind: PartKind) {
        let atlas = Atlas::load().unwrap();
        assert_eq!(atlas.scheme(scheme).unwrap().last, [kind]);
    }
}
