//! What each piece of evidence does to a region's verdict, and whether two kinds of evidence contradict each other.

use crate::body::TapeJoint;
use crate::observe::{Observation, Target};
use crate::posterior::{Posterior, Prior, Said, Stack};

/// What a piece of evidence is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum PieceOf {
    /// A site, taped or from pictures, by its place in the joint observation.
    Site(usize),
    /// An observation, by its place in the assessment.
    Row(usize),
}

/// One observation's part in one region's verdict.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Piece {
    /// Which observation.
    pub of: PieceOf,
    /// Which half of the verdict it speaks about.
    pub target: Target,
    /// How much the region's mean moves per unit of the observation.
    pub weight: f64,
    /// The region's mean without it.
    pub mean_without: f64,
    /// The region's SD without it.
    pub sd_without: f64,
}

/// A weight smaller than this moves nothing a coach can see: of a row per unit, of a site per SD of people.
const LEAST_WEIGHT: f64 = 1e-3;

/// For every one of `regions` regions the pieces that move it: what was taped, then the rows in their order. `site_sd` are the
/// SDs of the taped sites over people.
pub(crate) fn pieces(
    bulk: &Posterior,
    sides: &Posterior,
    site_sd: &[f64],
    observations: &[Observation],
    regions: usize,
) -> Vec<Vec<Piece>> {
    // Most move something: through neighbours and a sitting's mood nearly all hang together.
    let mut found: Vec<Vec<Piece>> =
        (0..regions).map(|_| Vec::with_capacity(site_sd.len() + observations.len())).collect();
    let mut add = |posterior: &Posterior, place: usize, of: PieceOf, target: Target, least: f64| {
        for (region, pieces) in found.iter_mut().enumerate() {
            let Some(weight) = posterior.weight(region, place).filter(|weight| weight.abs() >= least) else { continue };
            let Some((mean_without, sd_without)) = posterior.without(region, place) else { continue };
            pieces.push(Piece { of, target, weight, mean_without, sd_without });
        }
    };
    for (place, sd) in site_sd.iter().enumerate() {
        add(bulk, place, PieceOf::Site(place), Target::Bulk, LEAST_WEIGHT / sd);
    }
    let (mut size, mut side) = (site_sd.len(), 0);
    for (index, observation) in observations.iter().enumerate() {
        let (posterior, place) = match observation.target {
            Target::Bulk => (bulk, &mut size),
            Target::Asymmetry => (sides, &mut side),
        };
        add(posterior, *place, PieceOf::Row(index), observation.target, LEAST_WEIGHT);
        *place += 1;
    }
    found
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

/// The families of what the tape says, and of girths from pictures.
const TAPE: &str = "tape";
const PICTURES: &str = "pictures";

/// What one kind of evidence says on its own.
struct Voice {
    kind: &'static str,
    said: Said,
}

/// Separate estimates by kind, to be compared region by region.
pub(crate) struct Voices {
    target: Target,
    voices: Vec<Voice>,
}

impl Voices {
    /// Weighs each kind of evidence on its own: the parts of `stack`, whose first observations are those of `joint` and whose
    /// others are the rows about `target`.
    pub(crate) fn of(prior: &Prior, stack: &Stack, joint: &TapeJoint, target: Target, rows: &[Observation]) -> Self {
        let rows = rows.iter().filter(|row| row.target == target).map(|row| row.kind.family());
        let families: Vec<&'static str> = joint.families(TAPE, PICTURES).chain(rows).collect();
        let mut kinds = families.clone();
        kinds.sort_unstable();
        kinds.dedup();
        // With one kind there is nothing to contradict it.
        if kinds.len() < 2 {
            kinds.clear();
        }
        let voice = |kind: &'static str| {
            let own: Vec<usize> = (0..families.len()).filter(|i| families[*i] == kind).collect();
            Voice { kind, said: Said::after(prior, &stack.part(&own)) }
        };
        Self { target, voices: kinds.into_iter().map(voice).collect() }
    }

    /// The two kinds furthest apart on `region`, when by more than `limit` joint SD.
    pub(crate) fn conflict(&self, region: usize, limit: f64) -> Option<Conflict> {
        let said: Vec<(&'static str, (f64, f64))> =
            self.voices.iter().filter_map(|voice| Some((voice.kind, voice.said.of(region)?))).collect();
        let pairs = said.iter().enumerate().flat_map(|(i, one)| said[i + 1..].iter().map(move |other| (one, other)));
        let apart = pairs.map(|((one, (mean, sd)), (other, (other_mean, other_sd)))| Conflict {
            target: self.target,
            kinds: [(*one, *mean), (*other, *other_mean)],
            joint_sd: (mean - other_mean).abs() / sd.hypot(*other_sd),
        });
        apart.filter(|c| c.joint_sd > limit).max_by(|a, b| a.joint_sd.total_cmp(&b.joint_sd))
    }
}
