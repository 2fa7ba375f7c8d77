//! Strength, one side against the other.

use crate::input::{Client, Hand, OneSideTest, Round, Test};
use crate::strength::one_rep_max_kg;
use crate::symmetry::{SidePrior, SideVerdict, symmetry_index};
use atlas::Atlas;
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
    /// Towards the dominant hand, and no more than handedness expects.
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
    let prior = strength_prior(atlas, client, exercise);
    let belief = prior.after(index, se_index, settings.act_threshold_pct.strength);
    Some(StrengthAsymmetry {
        exercise: test.exercise.clone(),
        regions: exercise.targets.iter().filter(|(_, f)| **f >= 1.0).map(|(region, _)| region.clone()).collect(),
        one_rep_max_kg: kg,
        symmetry_index: index,
        se_index,
        verdict: belief.verdict,
        dominance_explains: belief.dominance_explains(prior, index),
    })
}

/// The dominant hand of right-handed people grips about a tenth stronger (Petersen et al. 1989), and their arm is somewhat
/// stronger.
fn strength_prior(atlas: &Atlas, client: &Client, exercise: &atlas::Exercise) -> SidePrior {
    let settings = atlas.evidence();
    let mains = || exercise.targets.iter().filter(|(_, f)| **f >= 1.0).map(|(region, _)| region);
    let in_arm = |region: &RegionId| {
        let known = atlas.regions().iter().find(|known| known.id == *region);
        known.and_then(|known| known.area.as_ref()).is_some_and(|area| area.as_str() == "arm-flexed")
    };
    let by = &settings.handedness_pct;
    let stronger = if mains().any(|region| matches!(region.muscle(), "grip" | "forearm")) {
        by.grip_strength
    } else if mains().any(in_arm) {
        by.arm_strength
    } else {
        0.0
    };
    SidePrior {
        mean: if client.dominant_hand == Hand::Right { -stronger } else { 0.0 },
        sd: settings.side_spread_pct.strength,
    }
}
