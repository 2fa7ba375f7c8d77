//! Every site of a round against what frame and the rest of the body predict.

use crate::assessment::Knowledge;
use crate::body::TapeJoint;
use crate::conditional::{ConditionalSize, ObservedLn, conditional_size, mahalanobis2};
use crate::contradiction::{Contradiction, contradiction};
use crate::input::Client;
use crate::measured::Measurements;
use crate::norms::Norms;
use crate::pictures::PicturedSite;
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
    /// The one value that makes it so, where one does.
    pub contradiction: Option<Contradiction>,
    /// Sites with an expected size.
    pub sites: Vec<SizedSite>,
    /// What is missing before any site gets one.
    pub missing: Vec<String>,
}

/// The reference against the newest round.
pub(crate) fn reference(
    knowledge: &Knowledge,
    client: &Client,
    measured: &Measurements,
    pictured: &[PicturedSite],
) -> Reference {
    let body = knowledge.evidence().body(client.sex);
    let norms = &body.moments;
    let observed = observed_ln(knowledge, client, measured);
    let muscle = |site: &SiteId| knowledge.atlas.site(site).is_some_and(|site| site.muscle);
    let taped: Vec<usize> =
        observed.iter().map(|(index, _)| *index).filter(|index| muscle(&knowledge.norms.sites()[*index])).collect();
    let compared = taped.iter().filter(|index| enough_else(knowledge, &observed, **index));
    let sites: Vec<SizedSite> =
        compared.filter_map(|index| sized_site(knowledge, client, measured, &observed, *index)).collect();
    let mut missing = Vec::new();
    let framed = observed.iter().any(|(index, _)| is_frame(knowledge, &knowledge.norms.sites()[*index]));
    if !framed && !pictured.iter().any(|site| is_frame(knowledge, &site.site)) {
        missing.push("a breadth, or the girth of a wrist, knee or ankle".to_owned());
    }
    if taped.is_empty() && !pictured.iter().any(|site| muscle(&site.site)) {
        missing.push("a girth of shoulders, chest, arm, forearm, hips, thigh or calf".to_owned());
    }
    let mahalanobis2 = (observed.len() > 1).then(|| mahalanobis2(norms, &observed)).flatten();
    let limit = body.outside.get(observed.len()).copied().flatten();
    let outside = mahalanobis2.zip(limit).is_some_and(|(distance, limit)| distance > limit);
    let contradiction = mahalanobis2.filter(|_| outside).and_then(|distance| contradiction(body, &observed, distance));
    Reference { n: norms.n, mahalanobis2, df: observed.len(), outside, contradiction, sites, missing }
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

/// What was taped as one observation; nothing without anything of the frame, against which muscles are set.
pub(crate) fn tape_joint(knowledge: &Knowledge, client: &Client, measured: &Measurements) -> TapeJoint {
    let tape = all_taped(knowledge, client, measured);
    if shows_frame(knowledge, &tape) { tape } else { TapeJoint::default() }
}

/// Whether a joint observation holds anything of the bones.
pub(crate) fn shows_frame(knowledge: &Knowledge, joint: &TapeJoint) -> bool {
    joint.places.iter().any(|place| is_frame(knowledge, &knowledge.norms.sites()[*place]))
}

/// Everything that was taped, whether or not it is enough to speak.
pub(crate) fn all_taped(knowledge: &Knowledge, client: &Client, measured: &Measurements) -> TapeJoint {
    let observed = observed_ln(knowledge, client, measured);
    let sites = knowledge.norms.sites();
    let error = |place: usize| measured.overall(&sites[place]).map_or(0.0, |overall| overall.error_variance_ln);
    TapeJoint {
        places: observed.iter().map(|(place, _)| *place).collect(),
        x: observed.iter().map(|(_, x)| *x).collect(),
        error_variance: observed.iter().map(|(place, _)| error(*place)).collect(),
        pictured: Vec::new(),
    }
}

/// Bones: breadths, and girths of joints.
pub(crate) fn is_frame(knowledge: &Knowledge, site: &SiteId) -> bool {
    let breadth = knowledge.atlas.site(site).is_some_and(|site| site.kind == SiteKind::Breadth);
    breadth || matches!(site.as_str(), "wrist" | "ankle" | "knee")
}

/// Whether enough else was measured to say how large one site should be: bones, and two other girths.
fn enough_else(knowledge: &Knowledge, observed: &[(usize, f64)], of: usize) -> bool {
    const OTHER_GIRTHS: usize = 2;
    let others = || observed.iter().filter(|(i, _)| *i != of).map(|(i, _)| &knowledge.norms.sites()[*i]);
    let is_girth = |site: &&SiteId| knowledge.atlas.site(site).is_some_and(|s| s.kind == SiteKind::Girth);
    let girths = others().filter(is_girth).filter(|site| !is_frame(knowledge, site)).count();
    others().any(|site| is_frame(knowledge, site)) && girths >= OTHER_GIRTHS
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
    let norms = &knowledge.evidence().body(client.sex).moments;
    let size = conditional_size(norms, observed, index, overall.error_variance_ln)?;
    let others = observed.iter().filter(|(i, _)| *i != index);
    Some(SizedSite {
        site: site.clone(),
        observed_cm: overall.value_cm,
        size,
        predictors: others.map(|(i, _)| knowledge.norms.sites()[*i].clone()).collect(),
    })
}
