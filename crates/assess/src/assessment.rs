//! Puts a case together into one assessment.

use crate::class::{Class, classify};
use crate::conditional::{ConditionalSize, ObservedLn, conditional_size, mahalanobis2, outside_limit};
use crate::evidence::{Evidence, Posterior};
use crate::input::{Case, Client, Round};
use crate::measured::{Measurements, measure_round};
use crate::measurer::MeasurerErrors;
use crate::next_look::{NextLook, Search};
use crate::norms::{NormError, Norms};
use crate::observe::{Observation, Target, observations};
use crate::symmetry::{Asymmetry, asymmetry};
use crate::verdict::{RegionVerdict, asymmetry_verdict, bulk_verdict};
use atlas::{Atlas, AtlasError, SiteKind};
use units::{RegionId, SiteId};

/// Why the core cannot start.
#[derive(Debug, thiserror::Error)]
pub enum AssessError {
    /// The atlas is unusable.
    #[error(transparent)]
    Atlas(#[from] AtlasError),
    /// The reference is unusable.
    #[error(transparent)]
    Norms(#[from] NormError),
    /// The evidence could not be weighed.
    #[error("the evidence could not be weighed: its covariance is not positive definite")]
    Evidence,
}

/// Everything that is the same for all clients: atlas, reference and priors.
#[derive(Clone, Debug)]
pub struct Knowledge {
    /// The atlas.
    pub atlas: Atlas,
    /// The reference population.
    pub norms: Norms,
    evidence: Evidence,
}

impl Knowledge {
    /// Reads what ships with the product.
    pub fn load() -> Result<Self, AssessError> {
        let atlas = Atlas::load()?;
        let evidence = Evidence::new(&atlas);
        Ok(Self { atlas, norms: Norms::load()?, evidence })
    }

    /// The priors.
    pub fn evidence(&self) -> &Evidence {
        &self.evidence
    }
}

/// A site against its expected size.
#[derive(Clone, Debug, PartialEq)]
pub struct SizedSite {
    /// The site.
    pub site: SiteId,
    /// Observed size (mean of both sides), cm.
    pub observed_cm: f64,
    /// What frame and rest predict.
    pub size: ConditionalSize,
    /// What predicted it, in the order of the norms.
    pub predictors: Vec<SiteId>,
}

/// The client against the reference population.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Reference {
    /// How many people of the client's sex.
    pub n: usize,
    /// Squared Mahalanobis distance, when anything was measured.
    pub mahalanobis2: Option<f64>,
    /// Its degrees of freedom.
    pub df: usize,
    /// Past the 99 % point: lean on ratios and trend.
    pub outside: bool,
    /// Sites with an expected size.
    pub sites: Vec<SizedSite>,
    /// What is missing before any site gets one.
    pub missing: Vec<String>,
}

/// The verdict on a client.
#[derive(Clone, Debug)]
pub struct Assessment {
    /// Values with errors.
    pub measured: Measurements,
    /// Left against right by site.
    pub asymmetries: Vec<Asymmetry>,
    /// Against the reference.
    pub reference: Reference,
    /// Every region, in the order of the atlas.
    pub regions: Vec<RegionVerdict>,
    /// Training class by region, in the same order.
    pub classes: Vec<Class>,
    /// What to look at next.
    pub next: Vec<NextLook>,
    /// The rows behind it.
    pub observations: Vec<Observation>,
}

impl Assessment {
    /// The verdict on one region.
    pub fn region(&self, id: &RegionId) -> Option<&RegionVerdict> {
        self.regions.iter().find(|r| r.region == *id)
    }
}

/// Assesses the newest round of a case.
///
/// # Errors
/// Only when the evidence cannot be weighed, which the settings' checks rule out.
pub fn assess(knowledge: &Knowledge, case: &Case) -> Result<Assessment, AssessError> {
    let atlas = &knowledge.atlas;
    let errors = MeasurerErrors::learn(&case.rounds);
    let measured = measure_round(atlas, &case.rounds, &errors);
    let asymmetries = asymmetries(atlas, &measured, &case.client);
    let reference = reference(knowledge, &case.client, &measured);
    let newest = case.rounds.last();
    let observations = newest.map(|round| observations(atlas, round, &reference, &asymmetries)).unwrap_or_default();
    let weigh = |target| knowledge.evidence.weigh(target, &observations).ok_or(AssessError::Evidence);
    let (bulk, sides) = (weigh(Target::Bulk)?, weigh(Target::Asymmetry)?);
    let weights = look_weights(atlas, &case.client);
    let regions = region_verdicts(atlas, case, &weights, &bulk, &sides);
    let next = next_looks(knowledge, &bulk, &sides, &weights, &measured, newest);
    let classes = regions.iter().map(|region| classify(region, &case.choices)).collect();
    Ok(Assessment { measured, asymmetries, reference, regions, classes, next, observations })
}

fn asymmetries(atlas: &Atlas, measured: &Measurements, client: &Client) -> Vec<Asymmetry> {
    let paired = atlas.sites().iter().filter(|site| site.paired);
    paired
        .filter_map(|site| {
            measured.sides(&site.id).map(|sides| asymmetry(atlas.evidence(), &sides, client.dominant_hand))
        })
        .collect()
}

/// The weight of every region: the coach's change, else the look's.
fn look_weights(atlas: &Atlas, client: &Client) -> Vec<f64> {
    let look = atlas.look(&client.look);
    let of = |id: &RegionId| {
        let own = client.look_weights.get(id).copied();
        own.unwrap_or_else(|| look.map_or(1.0, |look| look.weight(id)))
    };
    atlas.regions().iter().map(|region| of(&region.id)).collect()
}

fn region_verdicts(
    atlas: &Atlas,
    case: &Case,
    weights: &[f64],
    bulk: &Posterior,
    sides: &Posterior,
) -> Vec<RegionVerdict> {
    let settings = atlas.evidence();
    let verdict = |(index, region): (usize, &atlas::Region)| {
        let overruled = case.choices.overrides.iter().find(|o| o.region == region.id);
        Some(RegionVerdict {
            region: region.id.clone(),
            look_weight: weights[index],
            bulk: bulk_verdict(settings, bulk.of(index)?, weights[index]),
            asymmetry: sides.of(index).map(|moments| asymmetry_verdict(settings, moments)),
            overruled: overruled.map(|o| (o.verdict, o.reason.clone())),
        })
    };
    atlas.regions().iter().enumerate().filter_map(verdict).collect()
}

fn next_looks(
    knowledge: &Knowledge,
    bulk: &Posterior,
    asymmetry: &Posterior,
    weights: &[f64],
    measured: &Measurements,
    round: Option<&Round>,
) -> Vec<NextLook> {
    let sized = |site: &SiteId| knowledge.norms.sites().contains(site);
    let rated = |region: &RegionId| round.is_some_and(|r| r.ratings.iter().any(|rating| rating.region == *region));
    Search { atlas: &knowledge.atlas, bulk, asymmetry, weights, measured, sized: &sized, rated: &rated }.best()
}

fn reference(knowledge: &Knowledge, client: &Client, measured: &Measurements) -> Reference {
    let norms = knowledge.norms.of(client.sex);
    let observed = observed_ln(knowledge, client, measured);
    let (mut sites, mut missing) = (Vec::new(), Vec::new());
    for &(index, _) in &observed {
        let id = &knowledge.norms.sites()[index];
        if !knowledge.atlas.site(id).is_some_and(|site| site.muscle) {
            continue;
        }
        let lacking = lacking(knowledge, &observed, index);
        if lacking.is_empty() {
            sites.extend(sized_site(knowledge, client, measured, &observed, index));
        } else if missing.is_empty() {
            missing = lacking;
        }
    }
    if sites.is_empty() && missing.is_empty() {
        missing = vec!["a girth of shoulders, chest, arm, forearm, hips, thigh or calf".to_owned()];
    }
    if !sites.is_empty() {
        missing.clear();
    }
    let mahalanobis2 = (observed.len() > 1).then(|| mahalanobis2(norms, &observed)).flatten();
    let limit = outside_limit(observed.len());
    let outside = mahalanobis2.zip(limit).is_some_and(|(distance, limit)| distance > limit);
    Reference { n: norms.n, mahalanobis2, df: observed.len(), outside, sites, missing }
}

fn observed_ln(knowledge: &Knowledge, client: &Client, measured: &Measurements) -> ObservedLn {
    let value = |site: &SiteId| match site.as_str() {
        Norms::STATURE => Some(client.height.cm()),
        _ => measured.overall(site).map(|overall| overall.value_cm),
    };
    let sites = knowledge.norms.sites().iter().enumerate();
    sites.filter_map(|(index, site)| value(site).map(|cm| (index, cm.ln()))).collect()
}

fn is_frame_girth(site: &SiteId) -> bool {
    matches!(site.as_str(), "wrist" | "ankle")
}

/// What is missing before `of` gets an expected size: wrist or ankle, and two other girths.
fn lacking(knowledge: &Knowledge, observed: &[(usize, f64)], of: usize) -> Vec<String> {
    const OTHER_GIRTHS: usize = 2;
    let is_girth = |site: &SiteId| knowledge.atlas.site(site).is_some_and(|s| s.kind == SiteKind::Girth);
    let others = || observed.iter().filter(|(i, _)| *i != of).map(|(i, _)| &knowledge.norms.sites()[*i]);
    let mut missing = Vec::new();
    if !others().any(is_frame_girth) {
        missing.push("the girth of a wrist or an ankle".to_owned());
    }
    let girths = others().filter(|site| is_girth(site) && !is_frame_girth(site)).count();
    match OTHER_GIRTHS.saturating_sub(girths) {
        0 => {}
        1 => missing.push("one more girth".to_owned()),
        _ => missing.push("two more girths".to_owned()),
    }
    missing
}

fn sized_site(
    knowledge: &Knowledge,
    client: &Client,
    measured: &Measurements,
    observed: &[(usize, f64)],
    index: usize,
) -> Option<SizedSite> {
    let site = &knowledge.norms.sites()[index];
    let overall = measured.overall(site)?;
    let norms = knowledge.norms.of(client.sex);
    let size = conditional_size(norms, observed, index, overall.error_variance_ln)?;
    let others = observed.iter().filter(|(i, _)| *i != index);
    Some(SizedSite {
        site: site.clone(),
        observed_cm: overall.value_cm,
        size,
        predictors: others.map(|(i, _)| knowledge.norms.sites()[*i].clone()).collect(),
    })
}
