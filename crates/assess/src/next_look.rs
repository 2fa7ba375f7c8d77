//! What to look at next: the observation that narrows the verdict most per minute.

use crate::assessment::Knowledge;
use crate::body::{TapeJoint, composition};
use crate::evidence::SizeEvidence;
use crate::input::{Case, Client};
use crate::measured::{Measurements, reading_error};
use crate::observe::{Observation, ObservationKind, Target};
use crate::posterior::Posterior;
use crate::reference::is_frame;
use atlas::{Atlas, Exercise, Region, Site, SiteKind};
use units::{EquipmentId, ExerciseId, RegionId, SiteId};

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
    /// The exercise, for a test.
    pub exercise: Option<ExerciseId>,
    /// Fall of the weighted sum of variances.
    pub gain: f64,
    /// Minutes it takes.
    pub minutes: f64,
}

impl NextLook {
    fn bare(what: String, kind: &'static str, gain: f64, minutes: f64) -> Self {
        Self { what, kind, site: None, region: None, exercise: None, gain, minutes }
    }
}

const RATING_MINUTES: f64 = 0.5;
const TAPE_MINUTES: f64 = 1.0;
const TEST_MINUTES: f64 = 6.0;
/// How many suggestions are shown.
const SHOWN: usize = 3;

/// A client after the evidence so far, and the question what would narrow the verdict most.
pub struct NextLookSearch<'a> {
    /// Atlas and reference.
    pub knowledge: &'a Knowledge,
    /// The client.
    pub case: &'a Case,
    /// What speaks about size.
    pub sized: SizeEvidence<'a>,
    /// How far regions are ahead or behind.
    pub bulk: &'a Posterior,
    /// Left minus right.
    pub sides: &'a Posterior,
    /// The look's weight by region index.
    pub weights: &'a [f64],
    /// What was taped.
    pub measured: &'a Measurements,
    /// Girths over muscle that were taped and cannot speak yet, for want of anything of the bones.
    pub waiting: &'a TapeJoint,
    /// Exercises already tested one side at a time.
    pub tested: &'a [&'a ExerciseId],
}

/// What to look at next, best first.
#[derive(Clone, Debug, PartialEq)]
pub struct Looks {
    /// By what it narrows a minute.
    pub best: Vec<NextLook>,
    /// The side-by-side tests that would tell most.
    pub tests: Vec<NextLook>,
}

/// An observation not yet made.
enum Look<'a> {
    Tape(&'a Site),
    Rate(&'a Region),
    Test(&'a Exercise),
}

impl Look<'_> {
    fn minutes(&self) -> f64 {
        match self {
            Self::Tape(_) => TAPE_MINUTES,
            Self::Rate(_) => RATING_MINUTES,
            Self::Test(_) => TEST_MINUTES,
        }
    }
}

impl<'a> NextLookSearch<'a> {
    /// The best few observations not yet made. A region no pose shows is never suggested for rating.
    pub fn looks(&self) -> Looks {
        let mut tests = self.tests();
        tests.sort_by(|(a, _), (b, _)| b.total_cmp(a));
        let told = |all: &[(f64, Look)]| all.iter().take(SHOWN).map(|(gain, look)| self.told(*gain, look)).collect();
        let best_tests = told(&tests);
        let sites = self.knowledge.atlas.sites().iter();
        let tapes = sites.filter_map(|site| Some((self.tape_gain(site)?, Look::Tape(site))));
        let regions = self.knowledge.atlas.regions().iter().enumerate();
        let ratings = regions.filter_map(|(i, region)| Some((self.rating_gain(i, region)?, Look::Rate(region))));
        let mut all: Vec<(f64, Look)> = tapes.chain(ratings).chain(tests).collect();
        all.sort_by(|(a, one), (b, other)| (b / other.minutes()).total_cmp(&(a / one.minutes())));
        Looks { best: told(&all), tests: best_tests }
    }

    fn told(&self, gain: f64, look: &Look) -> NextLook {
        let minutes = look.minutes();
        match look {
            Look::Tape(site) => {
                let sides = if site.paired { ", both sides" } else { "" };
                let what = format!("Tape the {}{sides}.", site.name.to_lowercase());
                NextLook { site: Some(site.id.clone()), ..NextLook::bare(what, "tape", gain, minutes) }
            }
            Look::Rate(region) => {
                let pose = region.poses.first().and_then(|pose| self.knowledge.atlas.pose(pose));
                let pose = pose.map(|pose| pose.name.to_lowercase()).unwrap_or_default();
                let what = format!("Rate the {} in a {pose} picture.", region.name.to_lowercase());
                NextLook { region: Some(region.id.clone()), ..NextLook::bare(what, "rating", gain, minutes) }
            }
            Look::Test(exercise) => {
                let what = format!("Test the {} one side at a time.", exercise.name.to_lowercase());
                NextLook { exercise: Some(exercise.id.clone()), ..NextLook::bare(what, "test", gain, minutes) }
            }
        }
    }

    fn tape_gain(&self, site: &Site) -> Option<f64> {
        let atlas = &self.knowledge.atlas;
        let settings = atlas.evidence();
        if self.measured.sites.iter().any(|taken| taken.site == site.id) {
            return None;
        }
        let (reading, placing) = match site.kind {
            SiteKind::Girth => (settings.error.girth_pct, settings.error.placing_girth_pct),
            SiteKind::Breadth => (settings.error.breadth_pct, settings.error.placing_breadth_pct),
        };
        let error_pct = reading_error(reading, 2).hypot(placing);
        let size = self.knowledge.norms.sites().iter().position(|known| *known == site.id).map_or(0.0, |place| {
            let sides = if site.paired { 2.0 } else { 1.0 };
            self.size_gain(site, place, (error_pct / 100.0).powi(2) / sides)
        });
        let sides = composition(atlas, &site.id).filter(|_| site.paired).map_or(0.0, |row| {
            self.sides_gain(&row, 2.0 * error_pct.powi(2) + settings.observation_sd.tape_asymmetry.powi(2))
        });
        Some(size + sides).filter(|gain| *gain > 0.0)
    }

    /// What a site would tell about sizes. While girths wait for something of the bones, another girth tells nothing, and the
    /// first of the bones lets all of them speak.
    fn size_gain(&self, site: &Site, place: usize, error_variance: f64) -> f64 {
        let (evidence, waiting) = (self.knowledge.evidence(), self.waiting);
        if waiting.places.is_empty() {
            return self.bulk.fall(&evidence.unseen_site(self.sized, place, error_variance), self.weights);
        }
        if !is_frame(self.knowledge, &site.id) {
            return 0.0;
        }
        let mut tape = waiting.clone();
        tape.places.push(place);
        // How far variances fall does not depend on what is read.
        tape.x.push(evidence.body(self.sized.sex).moments.mean_ln[place]);
        tape.error_variance.push(error_variance);
        let then = evidence.weigh_bulk(SizeEvidence { tape: &tape, ..self.sized });
        let fall = |(region, weight): (usize, &f64)| {
            let [before, after] = [self.bulk.of(region), then.of(region)].map(|found| found.map_or(0.0, |(_, sd)| sd));
            weight * (before.powi(2) - after.powi(2))
        };
        self.weights.iter().enumerate().map(fall).sum()
    }

    /// What a row about sides would tell, in the unit of sizes.
    fn sides_gain(&self, row: &[(usize, f64)], variance: f64) -> f64 {
        let evidence = self.knowledge.evidence();
        let unseen = evidence.unseen_sides(self.case.client.dominant_hand, self.sized.rows, row, variance);
        self.sides.fall(&unseen, self.weights) / self.knowledge.atlas.evidence().asymmetry_prior_sd.powi(2)
    }

    fn rating_gain(&self, index: usize, region: &Region) -> Option<f64> {
        region.poses.first()?;
        let newest = self.case.rounds.last();
        if newest.is_some_and(|round| round.ratings.iter().any(|rating| rating.region == region.id)) {
            return None;
        }
        let sitting = newest.and_then(|round| round.ratings.last()).map(|rating| rating.sitting.clone());
        let rating = Observation {
            kind: ObservationKind::Rating,
            source: String::new(),
            target: Target::Bulk,
            y: 0.0,
            variance: self.knowledge.atlas.evidence().observation_sd.rating_bulk.powi(2),
            row: vec![(index, 1.0)],
            // It would belong to the sitting that is under way.
            sitting: Some(sitting.unwrap_or_default()),
        };
        let unseen = self.knowledge.evidence().unseen_row(self.sized, &rating);
        Some(self.bulk.fall(&unseen, self.weights))
    }

    /// One side-by-side test for every group of main regions that an exercise trains for which the client has the
    /// equipment and which they may do. Nobody under age is tested to a maximum.
    fn tests(&self) -> Vec<(f64, Look<'a>)> {
        let client = &self.case.client;
        if client.age_on(self.case.as_of) < Client::ADULT_YEARS {
            return Vec::new();
        }
        let mut seen: Vec<Vec<usize>> = Vec::new();
        let mut found = Vec::new();
        for exercise in self.knowledge.atlas.exercises() {
            let fresh = exercise.one_sided_possible() && !self.tested.contains(&&exercise.id);
            if !fresh || !may_test(&self.knowledge.atlas, client, exercise) {
                continue;
            }
            let mains = self.mains(exercise);
            if seen.contains(&mains) {
                continue;
            }
            found.extend(self.test_gain(&mains).map(|gain| (gain, Look::Test(exercise))));
            seen.push(mains);
        }
        found
    }

    fn mains(&self, exercise: &Exercise) -> Vec<usize> {
        let mains = exercise.targets.iter().filter(|(_, share)| **share >= 1.0);
        mains.filter_map(|(region, _)| self.knowledge.atlas.region_index(region)).collect()
    }

    fn test_gain(&self, mains: &[usize]) -> Option<f64> {
        let share = 1.0 / mains.len() as f64;
        let row: Vec<(usize, f64)> = mains.iter().map(|region| (*region, share)).collect();
        let variance = self.knowledge.atlas.evidence().observation_sd.strength.powi(2);
        Some(self.sides_gain(&row, variance)).filter(|gain| *gain > 0.0)
    }
}

/// Whether a client can be tested in an exercise: equipment there, no pain in what it loads, not ruled out.
fn may_test(atlas: &Atlas, client: &Client, exercise: &Exercise) -> bool {
    // A test needs a known load: no bands, no body weight.
    let known_load = |item: &EquipmentId| !matches!(item.as_str(), "band" | "bodyweight");
    let hurts = client.pain.iter().any(|pain| pain.level > 0 && exercise.load_on(&pain.area) > 0);
    exercise.reps.is_some()
        && exercise.advised_against.is_none()
        && exercise.equipment.iter().all(|item| known_load(item) && client.has(item))
        && !hurts
        && !client.excluded_exercises.contains(&exercise.id)
        && client.screens.short_for(atlas, exercise).is_none()
}
