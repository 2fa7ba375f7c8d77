//! What to look at next: the observation that narrows the verdict most per minute.

use crate::evidence::Posterior;
use crate::measured::Measurements;
use atlas::{Atlas, Site};
use units::{RegionId, SiteId};

/// A suggestion.
#[derive(Clone, Debug, PartialEq)]
pub struct NextLook {
    /// What to do, in words.
    pub what: String,
    /// `tape`, `rating` or `test`.
    pub kind: &'static str,
    /// The site, for tape.
    pub site: Option<SiteId>,
    /// The region, for a rating.
    pub region: Option<RegionId>,
    /// Fall of the weighted sum of variances.
    pub gain: f64,
    /// Minutes it takes.
    pub minutes: f64,
}

const RATING_MINUTES: f64 = 0.5;
const TAPE_MINUTES: f64 = 1.0;
/// How many suggestions are shown.
const SHOWN: usize = 3;

pub(crate) struct Search<'a> {
    pub atlas: &'a Atlas,
    pub bulk: &'a Posterior,
    pub asymmetry: &'a Posterior,
    /// Look weight by region index.
    pub weights: &'a [f64],
    pub measured: &'a Measurements,
    /// Sites the reference can give an expected size for.
    pub sized: &'a dyn Fn(&SiteId) -> bool,
    /// Regions already rated this round.
    pub rated: &'a dyn Fn(&RegionId) -> bool,
}

impl Search<'_> {
    /// The best few observations not yet made, best first. A region no pose shows is never suggested for rating.
    pub fn best(&self) -> Vec<NextLook> {
        let tapes = self.atlas.sites().iter().filter_map(|site| self.tape(site));
        let ratings = self.atlas.regions().iter().enumerate().filter_map(|(i, _)| self.rating(i));
        let mut all: Vec<NextLook> = tapes.chain(ratings).collect();
        all.sort_by(|a, b| (b.gain / b.minutes).total_cmp(&(a.gain / a.minutes)));
        all.truncate(SHOWN);
        all
    }

    fn tape(&self, site: &Site) -> Option<NextLook> {
        if self.measured.overall(&site.id).is_some() {
            return None;
        }
        let settings = self.atlas.evidence();
        let shares = settings.composition.get(&site.id)?;
        let row: Vec<(usize, f64)> =
            shares.iter().filter_map(|(region, share)| Some((self.atlas.region_index(region)?, *share))).collect();
        let fall = |posterior: &Posterior, variance: f64| posterior.variance_fall(&row, variance, self.weights);
        let size =
            if (self.sized)(&site.id) { fall(self.bulk, settings.observation_sd.tape_bulk.powi(2)) } else { 0.0 };
        let error = settings.error.girth_pct.powi(2) + settings.observation_sd.tape_asymmetry.powi(2);
        let sides = if site.paired { fall(self.asymmetry, error) / settings.asymmetry_prior_variance } else { 0.0 };
        let sides_word = if site.paired { ", both sides" } else { "" };
        (size + sides > 0.0).then(|| NextLook {
            what: format!("Tape the {}{sides_word}.", site.name.to_lowercase()),
            kind: "tape",
            site: Some(site.id.clone()),
            region: None,
            gain: size + sides,
            minutes: TAPE_MINUTES,
        })
    }

    fn rating(&self, index: usize) -> Option<NextLook> {
        let region = &self.atlas.regions()[index];
        let pose = region.poses.first()?;
        if (self.rated)(&region.id) {
            return None;
        }
        let variance = self.atlas.evidence().observation_sd.rating_bulk.powi(2);
        let pose_name = self.atlas.pose(pose).map_or("", |p| p.name.as_str()).to_lowercase();
        Some(NextLook {
            what: format!("Rate the {} in a {pose_name} picture.", region.name.to_lowercase()),
            kind: "rating",
            site: None,
            region: Some(region.id.clone()),
            gain: self.bulk.variance_fall(&[(index, 1.0)], variance, self.weights),
            minutes: RATING_MINUTES,
        })
    }
}
