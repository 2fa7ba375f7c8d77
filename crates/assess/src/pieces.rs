//! What each piece of evidence does to a region's verdict, and whether two kinds of evidence contradict each other.

use crate::body::TapeJoint;
use crate::evidence::{Evidence, SizeEvidence, bulk_rows};
use crate::input::Hand;
use crate::observe::{Observation, Target};
use crate::posterior::{Posterior, Said};

/// What a piece of evidence is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum PieceOf {
    /// A taped site, by its place in the joint observation.
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
    let mut found: Vec<Vec<Piece>> = (0..regions).map(|_| Vec::with_capacity(12)).collect();
    let mut add = |posterior: &Posterior, place: usize, of: PieceOf, target: Target, least: f64| {
        for (region, pieces) in found.iter_mut().enumerate() {
            let weight = posterior.weight(region, place).filter(|weight| weight.abs() >= least);
            let without = posterior.without(region, place);
            let (Some(weight), Some((mean_without, sd_without))) = (weight, without) else { continue };
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

/// The family of what the tape says.
const TAPE: &str = "tape";

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
    /// Weighs each kind of evidence about size on its own.
    pub(crate) fn about_size(evidence: &Evidence, all: SizeEvidence<'_>) -> Self {
        let nothing = TapeJoint::default();
        let say = |kind: &'static str| {
            let rows: Vec<Observation> = bulk_rows(all.rows).filter(|o| o.kind.family() == kind).cloned().collect();
            let tape = if kind == TAPE { all.tape } else { &nothing };
            evidence.say_bulk(SizeEvidence { tape, rows: &rows, ..all })
        };
        let taped = (!all.tape.places.is_empty()).then_some(TAPE);
        Self::of(Target::Bulk, taped.into_iter().chain(bulk_rows(all.rows).map(|o| o.kind.family())), say)
    }

    /// The same for left against right.
    pub(crate) fn about_sides(evidence: &Evidence, hand: Hand, rows: &[Observation]) -> Self {
        let about = || rows.iter().filter(|o| o.target == Target::Asymmetry);
        let say = |kind: &'static str| evidence.say_sides(hand, about().filter(|o| o.kind.family() == kind));
        Self::of(Target::Asymmetry, about().map(|o| o.kind.family()), say)
    }

    fn of(target: Target, kinds: impl Iterator<Item = &'static str>, say: impl Fn(&'static str) -> Said) -> Self {
        let mut kinds: Vec<&'static str> = kinds.collect();
        kinds.sort_unstable();
        kinds.dedup();
        // With one kind there is nothing to contradict it.
        if kinds.len() < 2 {
            kinds.clear();
        }
        Self { target, voices: kinds.into_iter().map(|kind| Voice { kind, said: say(kind) }).collect() }
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
