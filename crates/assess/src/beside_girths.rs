//! What a rater's standings say beside the tape: how far an eye is off where girths know better.

use crate::assessment::Knowledge;
use crate::body::TapeJoint;
use crate::evidence::SizeEvidence;
use crate::input::Case;
use crate::measured::measure_round;
use crate::measurer::MeasurerErrors;
use crate::reference::tape_joint;
use units::RegionId;

/// A rater's standings against what the tape alone says of the same parts of the body, over any number of rounds.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct BesideGirths {
    /// Girths that were compared.
    pub girths: usize,
    /// What they are worth together: as many ratings whose truth is known, as the tape is itself off.
    pub weight: f64,
    /// Variance of the error of one rating that they tell of, SD of regions squared, weighted; of few it may be under 0.
    pub variance: f64,
}

impl BesideGirths {
    fn add(&mut self, weight: f64, variance: f64) {
        self.girths += 1;
        self.weight += weight;
        self.variance += (variance - self.variance) * weight / self.weight;
    }

    /// Both together.
    #[must_use]
    pub fn and(self, other: Self) -> Self {
        let weight = self.weight + other.weight;
        let variance =
            if weight > 0.0 { (self.variance * self.weight + other.variance * other.weight) / weight } else { 0.0 };
        Self { girths: self.girths + other.girths, weight, variance }
    }
}

/// Of a part's girth, how much the rated regions must make up for it to be set beside the tape.
const ENOUGH_OF_A_PART: f64 = 0.5;

/// Sets one rater's `standings` of the newest round, mean score by region, beside its tape.
///
/// With `m` and `s^2` what the tape alone says of the mean of a part's rated regions (weights `w`, which add to 1), `v` the
/// variance of one rating's error and `o` that of what a sitting's ratings share: `E (y - m)^2 = v sum w^2 + s^2 + o`. Each part
/// counts by `(d / (d + (s^2 + o) / sum w^2))^2`, `d` the usual `v`: the inverse of how far its answer scatters.
pub fn beside_girths(knowledge: &Knowledge, case: &Case, standings: &[(RegionId, f64)]) -> BesideGirths {
    let mut found = BesideGirths::default();
    if standings.is_empty() || case.rounds.is_empty() {
        return found;
    }
    let (atlas, settings) = (&knowledge.atlas, knowledge.atlas.evidence());
    let errors = MeasurerErrors::learn(atlas, &case.rounds);
    let tape: TapeJoint = tape_joint(knowledge, &case.client, &measure_round(atlas, &case.rounds, &errors));
    let sized = SizeEvidence { sex: case.client.sex, tape: &tape, rows: &[] };
    let by_tape = knowledge.evidence().weigh_bulk(sized);
    let score = |region: usize| {
        let id = &atlas.regions()[region].id;
        standings.iter().find(|(rated, _)| rated == id).map(|(_, score)| *score)
    };
    let usual = settings.observation_sd.rating_bulk.powi(2);
    for area in &knowledge.evidence().body(case.client.sex).areas {
        let rated: Vec<(usize, f64, f64)> =
            area.row.iter().filter_map(|(region, share)| Some((*region, *share, score(*region)?))).collect();
        let shares: f64 = rated.iter().map(|(_, share, _)| share).sum();
        if !tape.places.contains(&area.place) || shares < ENOUGH_OF_A_PART {
            continue;
        }
        let row: Vec<(usize, f64)> = rated.iter().map(|(region, share, _)| (*region, share / shares)).collect();
        let seen: f64 = rated.iter().map(|(_, share, score)| settings.scale.rating_bulk * score * share / shares).sum();
        let (mean, sd) = by_tape.along(&row);
        let own: f64 = row.iter().map(|(_, weight)| weight.powi(2)).sum();
        let besides = sd.powi(2) + knowledge.evidence().sitting_variance();
        let weight = (usual / (usual + besides / own)).powi(2);
        found.add(weight, ((seen - mean).powi(2) - besides) / own);
    }
    found
}
