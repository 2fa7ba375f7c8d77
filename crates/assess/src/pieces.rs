//! What each piece of evidence does to a region's verdict, and whether two kinds of evidence contradict each other.

use crate::evidence::{Along, Evidence, Posterior};
use crate::observe::{Observation, Target};

/// One observation's part in one region's verdict.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Piece {
    /// Place of the observation in the assessment.
    pub observation: usize,
    /// Which half of the verdict it speaks about.
    pub target: Target,
    /// How much the region's mean moves per unit of the observation; the means are the sums of weight times y.
    pub weight: f64,
    /// The region's mean without it.
    pub mean_without: f64,
    /// The region's SD without it.
    pub sd_without: f64,
}

/// A weight smaller than this moves nothing a coach can see.
const LEAST_WEIGHT: f64 = 1e-3;

/// For every one of `regions` regions the pieces that move it, in the order of the observations.
///
/// Leaving one observation out has a closed form: with `c = P h`, `d = v - h.c`,
/// `mean' = mean - c (y - h.mean)/d` and `P' = P + c c'/d`.
pub(crate) fn pieces(
    bulk: &Posterior,
    sides: &Posterior,
    observations: &[Observation],
    regions: usize,
) -> Vec<Vec<Piece>> {
    // A region is moved by its own evidence and that of its muscle: a dozen rows at most, as a rule.
    let mut found: Vec<Vec<Piece>> = (0..regions).map(|_| Vec::with_capacity(12)).collect();
    for (index, observation) in observations.iter().enumerate() {
        let posterior = match observation.target {
            Target::Bulk => bulk,
            Target::Asymmetry => sides,
        };
        let along = posterior.along(&observation.row);
        for (region, pieces) in found.iter_mut().enumerate() {
            pieces.extend(piece(posterior, observation, &along, index, region));
        }
    }
    found
}

fn piece(
    posterior: &Posterior,
    observation: &Observation,
    along: &Along,
    index: usize,
    region: usize,
) -> Option<Piece> {
    let shared = posterior.shared_with(along, region)?;
    let weight = shared / observation.variance;
    if weight.abs() < LEAST_WEIGHT {
        return None;
    }
    let (mean, sd) = posterior.of(region)?;
    let remaining = observation.variance - along.variance;
    Some(Piece {
        observation: index,
        target: observation.target,
        weight,
        mean_without: mean - shared * (observation.y - along.mean) / remaining,
        sd_without: (sd.powi(2) + shared.powi(2) / remaining).sqrt(),
    })
}

/// Two kinds of evidence that say different things about a region.
#[derive(Clone, Debug, PartialEq)]
pub struct Conflict {
    /// Which half of the verdict.
    pub target: Target,
    /// Both kinds with what each alone makes of the region, SD or %.
    pub kinds: [(&'static str, f64); 2],
    /// How far apart, in joint SD.
    pub joint_sd: f64,
}

/// What one kind of evidence says on its own.
struct Voice {
    kind: &'static str,
    posterior: Posterior,
}

/// Separate estimates by kind, to be compared region by region.
pub(crate) struct Voices {
    target: Target,
    voices: Vec<Voice>,
}

impl Voices {
    /// Weighs each kind of evidence on its own.
    pub(crate) fn listen(evidence: &Evidence, target: Target, observations: &[Observation]) -> Self {
        let mut kinds: Vec<&'static str> =
            observations.iter().filter(|o| o.target == target).map(|o| o.kind.family()).collect();
        kinds.sort_unstable();
        kinds.dedup();
        // With one kind there is nothing to contradict it.
        if kinds.len() < 2 {
            kinds.clear();
        }
        let alone = |kind: &'static str| {
            let own = observations.iter().filter(|o| o.kind.family() == kind);
            Voice { kind, posterior: evidence.weigh(target, own) }
        };
        Self { target, voices: kinds.into_iter().map(alone).collect() }
    }

    /// The two kinds furthest apart on `region`, when by more than `limit` joint SD.
    pub(crate) fn conflict(&self, region: usize, limit: f64) -> Option<Conflict> {
        let said: Vec<(&'static str, (f64, f64))> =
            self.voices.iter().filter_map(|voice| Some((voice.kind, voice.posterior.of(region)?))).collect();
        let pairs = said.iter().enumerate().flat_map(|(i, one)| said[i + 1..].iter().map(move |other| (one, other)));
        let apart = pairs.map(|((one, (mean, sd)), (other, (other_mean, other_sd)))| Conflict {
            target: self.target,
            kinds: [(*one, *mean), (*other, *other_mean)],
            joint_sd: (mean - other_mean).abs() / sd.hypot(*other_sd),
        });
        apart.filter(|c| c.joint_sd > limit).max_by(|a, b| a.joint_sd.total_cmp(&b.joint_sd))
    }
}
