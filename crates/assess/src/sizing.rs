//! Other schools of how large a site should be: frame ratios, silhouette, the coach's own roster.

use crate::assessment::Knowledge;
use crate::conditional::{ConditionalSize, conditional_size};
use crate::input::{Case, Client, Sex};
use crate::measured::{Measurements, measure_round};
use crate::measurer::MeasurerErrors;
use crate::norms::{Norms, SexNorms};
use crate::reference::observed_ln;
use atlas::{Atlas, FrameRatio};
use nalgebra::{DMatrix, DVector};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::SiteId;
use utoipa::ToSchema;

/// A school of judging size.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum SizingSchool {
    /// What frame and the rest of this body predict in the reference population.
    RestOfBody,
    /// Fixed multiples of the frame.
    FrameRatios,
    /// Shoulder girth over waist girth.
    Silhouette,
    /// What frame and rest predict among the coach's own clients.
    OwnRoster,
}

/// A site by one school.
#[derive(Clone, Debug, PartialEq)]
pub struct SchoolSize {
    /// The school.
    pub school: SizingSchool,
    /// The site.
    pub site: SiteId,
    /// Observed, cm.
    pub observed_cm: f64,
    /// What the school expects, cm.
    pub expected_cm: f64,
    /// Distance from expected, SD, where the reference says how much people vary; negative = behind.
    pub z: Option<f64>,
}

/// Every frame ratio and the silhouette, for the sites that were taken.
pub(crate) fn ratio_sizes(atlas: &Atlas, norms: &Norms, client: &Client, measured: &Measurements) -> Vec<SchoolSize> {
    let ratios = atlas.ideals().frame_ratios.iter().filter_map(|r| frame_ratio(norms, client.sex, measured, r));
    ratios.chain(silhouette(atlas, client.sex, measured)).collect()
}

fn frame_ratio(norms: &Norms, sex: Sex, measured: &Measurements, ratio: &FrameRatio) -> Option<SchoolSize> {
    let (site, of) = (measured.overall(&ratio.site)?, measured.overall(&ratio.of)?);
    let error = site.error_variance_ln + of.error_variance_ln;
    Some(SchoolSize {
        school: SizingSchool::FrameRatios,
        site: ratio.site.clone(),
        observed_cm: site.value_cm,
        expected_cm: ratio.factor * of.value_cm,
        z: frame_ratio_z(norms, sex, ratio, (site.value_cm, of.value_cm), error),
    })
}

/// How far a site lies from its multiple of the frame, in SD of the log ratio between people; negative = behind. `cm` is the
/// site and what it is a multiple of. `None` when the reference does not hold both.
pub fn frame_ratio_z(
    norms: &Norms,
    sex: Sex,
    ratio: &FrameRatio,
    cm: (f64, f64),
    error_variance_ln: f64,
) -> Option<f64> {
    let variance = ratio_variance_ln(norms, sex, &ratio.site, &ratio.of)?;
    Some((cm.0 / (ratio.factor * cm.1)).ln() / (variance + error_variance_ln).sqrt())
}

/// How much the ratio of two sites varies between people: variance of ln(one/other) in the reference.
fn ratio_variance_ln(norms: &Norms, sex: Sex, one: &SiteId, other: &SiteId) -> Option<f64> {
    let place = |site: &SiteId| norms.sites().iter().position(|s| s == site);
    let (i, j) = (place(one)?, place(other)?);
    let covariance = &norms.of(sex).covariance_ln;
    Some(covariance[(i, i)] + covariance[(j, j)] - 2.0 * covariance[(i, j)])
}

/// Shoulders against the multiple of the waist. Ratios of silhouette have no error of their own here.
fn silhouette(atlas: &Atlas, sex: Sex, measured: &Measurements) -> Option<SchoolSize> {
    let girth = |id: &str| id.parse().ok().and_then(|site: SiteId| measured.overall(&site)).map(|o| o.value_cm);
    let (shoulder, waist) = (girth("shoulder")?, girth("waist")?);
    let target = match sex {
        Sex::Male => atlas.ideals().silhouette.male,
        Sex::Female => atlas.ideals().silhouette.female,
    };
    Some(SchoolSize {
        school: SizingSchool::Silhouette,
        site: "shoulder".parse().ok()?,
        observed_cm: shoulder,
        expected_cm: target * waist,
        z: None,
    })
}

/// The coach's own past clients, as logs of their sizes by place in the norms.
#[derive(Clone, Debug, Default)]
pub struct Roster {
    bodies: Vec<(Sex, Vec<(usize, f64)>)>,
}

impl Roster {
    /// Fewer clients of one sex than this say nothing.
    pub const ENOUGH: usize = 30;

    /// Adds a client: (place in the norms, ln cm), each place once.
    pub fn add(&mut self, sex: Sex, body: Vec<(usize, f64)>) {
        self.bodies.push((sex, body));
    }

    /// Adds a client as their newest round has them.
    pub fn add_case(&mut self, knowledge: &Knowledge, case: &Case) {
        let errors = MeasurerErrors::learn(&knowledge.atlas, &case.rounds);
        let measured = measure_round(&knowledge.atlas, &case.rounds, &errors);
        self.add(case.client.sex, observed_ln(knowledge, &case.client, &measured));
    }

    /// Expected size of site `of` among the roster's clients of one sex who have all the sites of `observed`.
    ///
    /// `None` while they are fewer than [`Self::ENOUGH`] or no more than the sites they are to predict.
    pub fn size(
        &self,
        sex: Sex,
        observed: &[(usize, f64)],
        of: usize,
        error_variance_ln: f64,
    ) -> Option<ConditionalSize> {
        let places: Vec<usize> = observed.iter().map(|(place, _)| *place).collect();
        let complete: Vec<Vec<f64>> =
            self.bodies.iter().filter(|(s, _)| *s == sex).filter_map(|(_, b)| at(b, &places)).collect();
        if complete.len() < Self::ENOUGH.max(places.len() + 2) {
            return None;
        }
        let norms = moments(&complete, places.len());
        let renumbered: Vec<(usize, f64)> = observed.iter().enumerate().map(|(i, (_, x))| (i, *x)).collect();
        conditional_size(&norms, &renumbered, places.iter().position(|p| *p == of)?, error_variance_ln)
    }
}

fn at(body: &[(usize, f64)], places: &[usize]) -> Option<Vec<f64>> {
    places.iter().map(|place| body.iter().find(|(p, _)| p == place).map(|(_, x)| *x)).collect()
}

/// Mean and sample covariance of complete bodies.
fn moments(bodies: &[Vec<f64>], sites: usize) -> SexNorms {
    let n = bodies.len();
    let x = DMatrix::from_fn(n, sites, |i, j| bodies[i][j]);
    let mean_ln = DVector::from_fn(sites, |j, _| x.column(j).mean());
    let centred = DMatrix::from_fn(n, sites, |i, j| x[(i, j)] - mean_ln[j]);
    let covariance_ln = centred.transpose() * &centred / (n as f64 - 1.0);
    SexNorms { n, mean_ln, covariance_ln }
}
