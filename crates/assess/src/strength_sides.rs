//! Strength, one side against the other.

use crate::input::{Client, Hand, OneSideTest, Round, Test};
use crate::strength::one_rep_max_kg;
use crate::symmetry::{SideVerdict, judged, symmetry_index};
use atlas::{Atlas, EvidenceSettings};
use units::{ExerciseId, RegionId, Side, Sides};

/// Left against right in an exercise; positive = left stronger.
#[derive(Clone, Debug, PartialEq)]
pub struct StrengthAsymmetry {
    /// The exercise.
    pub exercise: ExerciseId,
    /// Its main regions.
    pub regions: Vec<RegionId>,
    /// One-repetition maximum by side, kg.
    pub one_rep_max_kg: Sides<f64>,
    /// Symmetry index, %.
    pub symmetry_index: f64,
    /// Standard error of the index, %.
    pub se_index: f64,
    /// Whether it is more than error, and whether to act.
    pub verdict: SideVerdict,
    /// The stronger side is the dominant hand's and the difference no more than handedness gives a grip.
    pub dominance_explains: bool,
}

impl StrengthAsymmetry {
    /// The weaker side, when the difference is more than error.
    pub fn weaker(&self) -> Option<Side> {
        (self.verdict != SideVerdict::WithinError).then(|| self.one_rep_max_kg.larger_side())?.map(Side::other)
    }
}

/// Every one-sided test of a round whose repetitions the formulas hold for.
pub(crate) fn strength_asymmetries(atlas: &Atlas, client: &Client, round: &Round) -> Vec<StrengthAsymmetry> {
    let one_side = |test: &Test| match test {
        Test::OneSide(test) => compared(atlas, client, test),
        Test::Hang(_) | Test::Feel(_) => None,
    };
    round.tests.iter().filter_map(one_side).collect()
}

fn compared(atlas: &Atlas, client: &Client, test: &OneSideTest) -> Option<StrengthAsymmetry> {
    let settings = atlas.evidence();
    let exercise = atlas.exercise(&test.exercise)?;
    let kg = test.sides.map(|set| one_rep_max_kg(set).ok()).both()?;
    let index = symmetry_index(kg);
    // Both sides repeat to within the same percentage, so their difference varies by its root two.
    let se_index = settings.strength_repeatability_pct * std::f64::consts::SQRT_2;
    Some(StrengthAsymmetry {
        exercise: test.exercise.clone(),
        regions: exercise.targets.iter().filter(|(_, f)| **f >= 1.0).map(|(region, _)| region.clone()).collect(),
        one_rep_max_kg: kg,
        symmetry_index: index,
        se_index,
        verdict: judged(index, se_index, settings.act_threshold_pct.strength),
        dominance_explains: grip_dominance(settings, client, exercise, kg, index),
    })
}

/// The "10 % rule" (Petersen et al. 1989): the dominant hand of right-handed people grips about a tenth stronger. It is about
/// the hand, so only exercises for forearm and grip.
fn grip_dominance(
    settings: &EvidenceSettings,
    client: &Client,
    exercise: &atlas::Exercise,
    kg: Sides<f64>,
    index: f64,
) -> bool {
    let of_the_hand =
        exercise.targets.iter().any(|(region, f)| *f >= 1.0 && matches!(region.muscle(), "grip" | "forearm"));
    of_the_hand
        && client.dominant_hand == Hand::Right
        && kg.larger_side() == Some(Side::Right)
        && index.abs() <= settings.dominance_grip_pct
}
