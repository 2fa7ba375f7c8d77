//! Girths from pictures as evidence: their errors, a client's own constants, and what they add to the joint observation.

use crate::assessment::Knowledge;
use crate::body::{PictureEntry, TapeJoint};
use crate::input::{Case, Round};
use crate::measured::{Measurements, measure_one_round};
use crate::measurer::MeasurerErrors;
use crate::photographed::{GirthFrom, PictureGirth};
use atlas::{Atlas, PictureErrors};
use std::collections::BTreeMap;
use units::{Side, SiteId};

/// A site as the round's pictures show it, with what is known of this client's own shape in it.
#[derive(Clone, Debug, PartialEq)]
pub struct PicturedSite {
    /// The site.
    pub site: SiteId,
    /// The side at a paired site.
    pub side: Option<Side>,
    /// The girth, cm.
    pub value_cm: f64,
    /// Standard error of its size, %.
    pub error_pct: f64,
    /// Standard error of a change between two rounds, %.
    pub change_error_pct: f64,
    /// What it rests on.
    pub from: GirthFrom,
    /// How many rounds with tape and pictures told of this client's own shape.
    pub pairs: usize,
    /// What the tape of the same round says, cm.
    pub tape_cm: Option<f64>,
}

/// What the common constants miss of this client's shape at a site: `ln` is to be added.
#[derive(Clone, Copy, Debug)]
struct Constant {
    ln: f64,
    variance: f64,
    pairs: usize,
}

/// Tape against pictures of the same day, by site and by what the pictures showed.
#[derive(Clone, Debug, Default)]
pub(crate) struct OwnShape(BTreeMap<(SiteId, GirthFrom), Pairs>);

#[derive(Clone, Copy, Debug, Default)]
struct Pairs {
    count: usize,
    precision: f64,
    weighted: f64,
}

impl OwnShape {
    /// Learns from the rounds that have both, all but those of `apart`: where their tape is evidence beside their pictures, it is
    /// not to count twice.
    pub fn learn(atlas: &Atlas, rounds: &[Round], errors: &MeasurerErrors, apart: &[usize]) -> Self {
        let mut own = Self::default();
        let settings = &atlas.evidence().pictures_pct;
        for (index, round) in rounds.iter().enumerate().filter(|(index, _)| !apart.contains(index)) {
            if round.picture_girths.is_empty() {
                continue;
            }
            own.add(settings, &measure_one_round(atlas, &rounds[index], errors), &round.picture_girths);
        }
        own
    }

    fn add(&mut self, settings: &PictureErrors, taped: &Measurements, pictured: &[PictureGirth]) {
        for (site, from, ln, sides) in whole_sites(pictured) {
            let Some(tape) = taped.overall(&site) else { continue };
            let seen = share(settings.scale).powi(2) + share(settings.repeat_pct(&site)).powi(2) / sides;
            let precision = (tape.error_variance_ln + seen).recip();
            let pairs = self.0.entry((site, from)).or_default();
            pairs.count += 1;
            pairs.precision += precision;
            pairs.weighted += precision * (tape.value_cm.ln() - ln);
        }
    }

    /// The normal posterior of a constant about nought; before any pair, no more than what the fit leaves open.
    fn of(&self, settings: &PictureErrors, site: &SiteId, from: GirthFrom) -> Constant {
        let Some(pairs) = self.0.get(&(site.clone(), from)) else {
            return Constant {
                ln: 0.0,
                variance: share(settings.fit_pct(site, from == GirthFrom::BreadthDepth)).powi(2),
                pairs: 0,
            };
        };
        let precision = pairs.precision + share(settings.own_sd).powi(-2);
        Constant { ln: pairs.weighted / precision, variance: precision.recip(), pairs: pairs.count }
    }
}

/// What a practice's pairs of tape and pictures of one day say that the constants fitted on made-up bodies miss of real people at a site.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct PracticeConstant {
    /// To be added to the logarithm of a girth from pictures.
    pub ln: f64,
    /// Rounds with tape and pictures behind it.
    pub pairs: usize,
    /// Clients whose rounds they are.
    pub clients: usize,
}

/// The same of every site and way of seeing it, from the rounds of each client with girths by the constants that ship.
///
/// The mean over people has the shipped fit's error as its prior SD; each client tells of it with the variance of people's own
/// constants about it and of their pairs, so that one client measured often counts hardly more than one measured once.
pub fn practice_constants<'a>(
    atlas: &Atlas,
    clients: impl IntoIterator<Item = &'a [Round]>,
) -> BTreeMap<(SiteId, GirthFrom), PracticeConstant> {
    let settings = &atlas.evidence().pictures_pct;
    let mut told: BTreeMap<(SiteId, GirthFrom), (PracticeConstant, f64)> = BTreeMap::new();
    for rounds in clients {
        let own = OwnShape::learn(atlas, rounds, &MeasurerErrors::learn(atlas, rounds), &[]);
        for (of, pairs) in own.0 {
            let weight = (share(settings.own_sd).powi(2) + pairs.precision.recip()).recip();
            let (constant, precision) = told.entry(of).or_default();
            constant.ln += weight * pairs.weighted / pairs.precision;
            constant.pairs += pairs.count;
            constant.clients += 1;
            *precision += weight;
        }
    }
    let of_people = |((site, from), (sum, precision)): ((SiteId, GirthFrom), (PracticeConstant, f64))| {
        let prior = share(settings.fit_pct(&site, from == GirthFrom::BreadthDepth)).powi(-2);
        ((site, from), PracticeConstant { ln: sum.ln / (precision + prior), ..sum })
    };
    told.into_iter().map(of_people).collect()
}

fn share(pct: f64) -> f64 {
    pct / 100.0
}

/// Each site once: the mean of both sides where both are seen and rest on the same. With how many sides, as ln(cm).
fn whole_sites(girths: &[PictureGirth]) -> Vec<(SiteId, GirthFrom, f64, f64)> {
    let mut by_site: BTreeMap<(&SiteId, GirthFrom), Vec<f64>> = BTreeMap::new();
    for girth in girths {
        by_site.entry((&girth.site, girth.from)).or_default().push(girth.value.cm());
    }
    let mut found: Vec<(SiteId, GirthFrom, f64, f64)> = Vec::new();
    for ((site, from), values) in by_site {
        // With breadth and depth comes first; a site known by both ways on its two sides is taken by the better.
        if found.iter().all(|(known, ..)| known != site) {
            let sides = values.len() as f64;
            found.push((site.clone(), from, (values.iter().sum::<f64>() / sides).ln(), sides));
        }
    }
    found
}

/// What the pictures of one of a client's rounds say of each site, for a reader: by what all of them with tape and pictures told of
/// this client's own shape.
pub fn pictured_sites(atlas: &Atlas, rounds: &[Round], of: usize) -> Vec<PicturedSite> {
    let Some(round) = rounds.get(of).filter(|round| !round.picture_girths.is_empty()) else { return Vec::new() };
    let settings = &atlas.evidence().pictures_pct;
    let errors = MeasurerErrors::learn(atlas, rounds);
    let own = OwnShape::learn(atlas, rounds, &errors, &[]);
    let taped = measure_one_round(atlas, round, &errors);
    let site = |girth: &PictureGirth| {
        let seen = settings.scale.hypot(settings.repeat_pct(&girth.site));
        let constant = own.of(settings, &girth.site, girth.from);
        PicturedSite {
            site: girth.site.clone(),
            side: girth.side,
            value_cm: girth.value.cm() * constant.ln.exp(),
            error_pct: seen.hypot(100.0 * constant.variance.sqrt()),
            change_error_pct: seen * std::f64::consts::SQRT_2,
            from: girth.from,
            pairs: constant.pairs,
            tape_cm: taped.find(&girth.site, girth.side).map(|tape| tape.value_cm),
        }
    };
    round.picture_girths.iter().map(site).collect()
}

impl TapeJoint {
    /// With what the pictures of a round say as further entries, by constants learned from other rounds than those of `apart`.
    pub(crate) fn with_pictures(self, knowledge: &Knowledge, case: &Case, round: usize, apart: &[usize]) -> Self {
        let atlas = &knowledge.atlas;
        let settings = &atlas.evidence().pictures_pct;
        let mut joint = self.taped_alone();
        let Some(girths) = case.rounds.get(round).map(|round| &round.picture_girths).filter(|all| !all.is_empty())
        else {
            return joint;
        };
        let own = OwnShape::learn(atlas, &case.rounds, &MeasurerErrors::learn(atlas, &case.rounds), apart);
        for (site, from, ln, sides) in whole_sites(girths) {
            let Some(place) = knowledge.norms.sites().iter().position(|known| *known == site) else { continue };
            let constant = own.of(settings, &site, from);
            joint.places.push(place);
            joint.x.push(ln + constant.ln);
            joint.error_variance.push(constant.variance + share(settings.repeat_pct(&site)).powi(2) / sides);
            let scale_sd = share(settings.scale);
            joint.pictured.push(PictureEntry { from, constant_variance: constant.variance, scale_sd });
        }
        joint
    }
}
