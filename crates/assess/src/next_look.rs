//! What to look at next: the observation that narrows the verdict most per minute.

use crate::assessment::State;
use crate::evidence::Posterior;
use crate::input::{Case, Client};
use crate::measured::Measurements;
use crate::norms::Norms;
use atlas::{Atlas, Exercise, Site};
use units::{ExerciseId, RegionId, SiteId};

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
const TEST_MINUTES: f64 = 6.0;
/// How many suggestions are shown.
const SHOWN: usize = 3;

pub(crate) struct Search<'a> {
    pub atlas: &'a Atlas,
    pub norms: &'a Norms,
    pub state: &'a State,
    pub measured: &'a Measurements,
    pub case: &'a Case,
    /// Exercises already tested one side at a time.
    pub tested: &'a [&'a ExerciseId],
}

impl Search<'_> {
    /// The best few observations not yet made, best first. A region no pose shows is never suggested for rating.
    pub fn best(&self) -> Vec<NextLook> {
        let tapes = self.atlas.sites().iter().filter_map(|site| self.tape(site));
        let ratings = self.atlas.regions().iter().enumerate().filter_map(|(i, _)| self.rating(i));
        let mut all: Vec<NextLook> = tapes.chain(ratings).chain(self.tests()).collect();
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
        let fall = |posterior: &Posterior, variance: f64| posterior.variance_fall(&row, variance, &self.state.weights);
        let sized = self.norms.sites().contains(&site.id);
        let size = if sized { fall(&self.state.bulk, settings.observation_sd.tape_bulk.powi(2)) } else { 0.0 };
        let error = settings.error.girth_pct.powi(2) + settings.observation_sd.tape_asymmetry.powi(2);
        let sides = if site.paired { fall(&self.state.sides, error) / settings.asymmetry_prior_variance } else { 0.0 };
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
        let newest = self.case.rounds.last();
        if newest.is_some_and(|round| round.ratings.iter().any(|rating| rating.region == region.id)) {
            return None;
        }
        let variance = self.atlas.evidence().observation_sd.rating_bulk.powi(2);
        let pose_name = self.atlas.pose(pose).map_or("", |p| p.name.as_str()).to_lowercase();
        Some(NextLook {
            what: format!("Rate the {} in a {pose_name} picture.", region.name.to_lowercase()),
            kind: "rating",
            site: None,
            region: Some(region.id.clone()),
            gain: self.state.bulk.variance_fall(&[(index, 1.0)], variance, &self.state.weights),
            minutes: RATING_MINUTES,
        })
    }

    /// A side-by-side test for the main regions of every exercise the client has the equipment for and may do. Nobody under
    /// age is tested to a maximum.
    fn tests(&self) -> Vec<NextLook> {
        if self.case.client.age_on(self.case.as_of) < Client::ADULT_YEARS {
            return Vec::new();
        }
        let fresh = |exercise: &&Exercise| exercise.one_sided_possible() && !self.tested.contains(&&exercise.id);
        let possible = self.atlas.exercises().iter().filter(fresh).filter(|e| may_test(self.atlas, &self.case.client, e));
        possible.filter_map(|exercise| self.test(exercise)).collect()
    }

    fn test(&self, exercise: &Exercise) -> Option<NextLook> {
        let settings = self.atlas.evidence();
        let mains = exercise.targets.iter().filter(|(_, share)| **share >= 1.0);
        let mains: Vec<usize> = mains.filter_map(|(region, _)| self.atlas.region_index(region)).collect();
        let share = 1.0 / mains.len() as f64;
        let row: Vec<(usize, f64)> = mains.into_iter().map(|region| (region, share)).collect();
        let variance = settings.observation_sd.strength.powi(2);
        let fall = self.state.sides.variance_fall(&row, variance, &self.state.weights);
        (fall > 0.0).then(|| NextLook {
            what: format!("Test the {} one side at a time.", exercise.name.to_lowercase()),
            kind: "test",
            site: None,
            region: None,
            gain: fall / settings.asymmetry_prior_variance,
            minutes: TEST_MINUTES,
        })
    }
}

/// Whether a client can be tested in an exercise: equipment there, no pain in what it loads, not ruled out.
fn may_test(atlas: &Atlas, client: &Client, exercise: &Exercise) -> bool {
    let has = |item: &units::EquipmentId| item.as_str() == "bodyweight" || client.equipment.contains(item);
    let hurts = |area: &str| client.pain.iter().any(|pain| pain.area == area && pain.level > 0);
    exercise.reps.is_some()
        && exercise.advised_against.is_none()
        && exercise.equipment.iter().all(has)
        && !exercise.equipment.iter().any(|item| matches!(item.as_str(), "band" | "bodyweight"))
        && !exercise.loads_joint.iter().any(|joint| hurts(joint))
        && !client.excluded_exercises.contains(&exercise.id)
        && client.screens.short_for(atlas, exercise).is_none()
}
