//! One exercise in several ways, and the numbers by which its station is set to a client.

use crate::exercise::Exercise;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::EquipmentId;
use utoipa::ToSchema;

/// A grip, a path, a station or other kit of an exercise: still the same movement.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Variant {
    /// Id, unique within its exercise.
    pub id: String,
    /// In words, to stand behind the exercise's name.
    pub name: String,
    /// Lists of kit, any of which suffices; none needs what the exercise needs.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub equipment_any: Vec<Vec<EquipmentId>>,
}

/// A number by which a station is set to a client.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SetUpField {
    /// `pulley_notch`, `seat_hole` and their like.
    pub name: String,
    /// In words, to stand before the number.
    pub says: String,
    /// What its ends mean.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hint: Option<String>,
    /// In words or signs.
    pub unit: String,
    /// How far it goes.
    pub range: [f64; 2],
    /// Kit that has it: equipment, or `machine` for all machines; none for what is set on the body.
    pub kit: Vec<String>,
}

impl SetUpField {
    /// Whether an exercise's kit has it.
    pub fn is_of(&self, exercise: &Exercise) -> bool {
        let has = |item: &EquipmentId| {
            let kind = item.as_str().split(':').next().unwrap_or_default();
            self.kit.iter().any(|kit| kit == item.as_str() || kit == kind)
        };
        exercise.kits().any(|kit| kit.iter().any(has))
    }
}

impl Exercise {
    /// Every list of kit that suffices for it, its own first: that of its variants does too.
    pub fn kits(&self) -> impl Iterator<Item = &[EquipmentId]> {
        let others = self.variants.iter().flat_map(|variant| &variant.equipment_any);
        std::iter::once(self.equipment.as_slice()).chain(others.map(Vec::as_slice))
    }

    /// Whether there is kit enough where `has` says what stands.
    pub fn stands(&self, has: impl Fn(&EquipmentId) -> bool) -> bool {
        self.kits().any(|kit| kit.iter().all(&has))
    }

    /// A variant by its id.
    pub fn variant(&self, id: &str) -> Option<&Variant> {
        self.variants.iter().find(|variant| variant.id == id)
    }

    /// The variant it is done in where its own kit does not stand and another's does.
    pub fn variant_for(&self, has: impl Fn(&EquipmentId) -> bool) -> Option<&Variant> {
        let own = self.equipment.iter().all(&has);
        let fits = |variant: &&Variant| variant.equipment_any.iter().any(|kit| kit.iter().all(&has));
        self.variants.iter().find(fits).filter(|_| !own)
    }

    /// Whether help can take weight off it: the body's own weight is what it moves.
    pub fn assistable(&self) -> bool {
        const OWN_WEIGHT: [&str; 4] = ["bodyweight", "pullup-bar", "dip-bars", "machine:assisted-dip"];
        self.kits().flatten().any(|item| OWN_WEIGHT.contains(&item.as_str()))
    }
}

#[cfg(test)]
mod tests {
    use crate::Atlas;
    use rstest::rstest;

    #[rstest]
    #[case::a_band_instead_of_the_cable("face-pull", &["band"], Some("band"))]
    #[case::its_own_kit_needs_no_variant("face-pull", &["cable", "rope", "band"], None)]
    #[case::a_ball_instead_of_a_bench("db-pullover", &["dumbbell", "ball"], Some("ball"))]
    #[case::nothing_that_would_do("db-pullover", &["dumbbell"], None)]
    fn other_kit_makes_a_variant(#[case] exercise: &str, #[case] kit: &[&str], #[case] expected: Option<&str>) {
        let atlas = Atlas::load().unwrap();
        let exercise = atlas.exercise(&exercise.parse().unwrap()).unwrap();
        let variant = exercise.variant_for(|item| kit.contains(&item.as_str()));
        assert_eq!(variant.map(|variant| variant.id.as_str()), expected);
    }

    // Common practice, no source.
    #[rstest]
    #[case::side_raises("db-side-raise", &["in-front", "beside", "behind"])]
    #[case::cable_raises("cable-side-raise", &["in-front", "beside", "behind"])]
    #[case::flies_from_above("high-low-cable-fly", &["crossing", "palms-facing"])]
    fn grips_and_paths_are_variants_of_one_movement(#[case] exercise: &str, #[case] expected: &[&str]) {
        let atlas = Atlas::load().unwrap();
        let exercise = atlas.exercise(&exercise.parse().unwrap()).unwrap();
        let ids: Vec<&str> = exercise.variants.iter().map(|variant| variant.id.as_str()).collect();
        assert_eq!(ids, expected);
    }

    #[rstest]
    #[case::a_cable("cable-curl", "pulley_notch", true)]
    #[case::a_machine("leg-press", "seat_hole", true)]
    #[case::a_bar_has_no_pulley("bench-press", "pulley_notch", false)]
    fn a_station_has_the_numbers_of_its_kit(#[case] exercise: &str, #[case] number: &str, #[case] expected: bool) {
        let atlas = Atlas::load().unwrap();
        let exercise = atlas.exercise(&exercise.parse().unwrap()).unwrap();
        assert_eq!(atlas.set_up_field(number).unwrap().is_of(exercise), expected);
    }

    #[rstest]
    #[case::dips("upright-dip", true)]
    #[case::chins("close-chin", true)]
    #[case::a_bench_press("bench-press", false)]
    fn help_is_for_the_body_s_own_weight(#[case] exercise: &str, #[case] expected: bool) {
        let atlas = Atlas::load().unwrap();
        assert_eq!(atlas.exercise(&exercise.parse().unwrap()).unwrap().assistable(), expected);
    }
}
