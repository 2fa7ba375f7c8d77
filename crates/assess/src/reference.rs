//! Every site of a round against what frame and the rest of the body predict.

use crate::assessment::Knowledge;
use crate::conditional::{ConditionalSize, ObservedLn, conditional_size, mahalanobis2, outside_limit};
use crate::input::Client;
use crate::measured::Measurements;
use crate::norms::Norms;
use atlas::SiteKind;
use units::SiteId;

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

/// The reference against the newest round.
pub(crate) fn reference(knowledge: &Knowledge, client: &Client, measured: &Measurements) -> Reference {
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

/// The logs of what was measured, by place in the norms.
pub(crate) fn observed_ln(knowledge: &Knowledge, client: &Client, measured: &Measurements) -> ObservedLn {
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
