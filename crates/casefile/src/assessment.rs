//! The assessment file (`orthomer-assessment`, version 1).

use crate::warning::{Warning, warnings};
use assess::{
    Assessment, AsymmetryVerdict, Case, Class, Knowledge, NextLook, Observation, Reference, RegionVerdict, SideVerdict,
    Standing, Target, Tilt,
};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use units::{RegionId, Side, SiteId};
use utoipa::ToSchema;

/// A verdict on a client.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct AssessmentFile {
    /// `orthomer-assessment`.
    pub format: String,
    /// 1.
    pub version: u32,
    /// The day the case was looked at.
    pub as_of: String,
    /// The round assessed, when there is one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub round: Option<String>,
    /// Values with errors.
    pub sites: Vec<SiteEntry>,
    /// Left against right.
    pub asymmetries: Vec<AsymmetryEntry>,
    /// Against the reference population.
    pub reference: ReferenceEntry,
    /// Every region.
    pub regions: Vec<RegionEntry>,
    /// What to look at next.
    pub next: Vec<NextEntry>,
    /// What looks wrong.
    pub warnings: Vec<Warning>,
    /// The rows of the evidence model, on request.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub observations: Option<Vec<ObservationEntry>>,
}

/// A site's value.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct SiteEntry {
    /// The site.
    pub site: SiteId,
    /// The side at a paired site.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// Value, cm.
    pub value_cm: f64,
    /// Standard error, cm.
    pub se_cm: f64,
    /// Technical error of one reading, %.
    pub tem_pct: f64,
    /// Readings behind it.
    pub readings: usize,
    /// First against second reading, %.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub difference_pct: Option<f64>,
    /// Whether a third reading is due.
    pub needs_third: bool,
    /// From an earlier round: a bone breadth.
    pub carried_over: bool,
}

/// Left against right at a site; positive = left larger.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct AsymmetryEntry {
    /// The site.
    pub site: SiteId,
    /// The client's left, cm.
    pub left_cm: f64,
    /// The client's right, cm.
    pub right_cm: f64,
    /// Left minus right, cm.
    pub difference_cm: f64,
    /// Standard error of the difference, cm.
    pub se_cm: f64,
    /// Symmetry index, %.
    pub symmetry_index: f64,
    /// Standard error of the index, %.
    pub se_index: f64,
    /// Symmetry angle, %.
    pub symmetry_angle: f64,
    /// Within error, real and small, or real and worth acting on.
    pub verdict: SideVerdict,
    /// Probability that the true difference exceeds the practical threshold.
    pub p_beyond_threshold: f64,
    /// Whether handedness alone explains it.
    pub dominance_explains: bool,
}

/// The client against the reference.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct ReferenceEntry {
    /// Who the reference are.
    pub population: String,
    /// Where it was published.
    pub source: String,
    /// How many of the client's sex.
    pub n: usize,
    /// Squared Mahalanobis distance.
    pub mahalanobis2: Option<f64>,
    /// Degrees of freedom.
    pub df: usize,
    /// Outside the reference: lean on ratios and trend.
    pub outside: bool,
    /// Sites with an expected size.
    pub sites: Vec<SizedEntry>,
    /// What is missing before sites get one.
    pub missing: Vec<String>,
}

/// A site against its expected size.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct SizedEntry {
    /// The site.
    pub site: SiteId,
    /// Observed, cm; the mean of both sides.
    pub observed_cm: f64,
    /// Expected from frame and rest, cm.
    pub expected_cm: f64,
    /// Square root of the conditional variance of ln(cm).
    pub sd_ln: f64,
    /// Distance from expected, SD with the measuring error in it.
    pub z: f64,
    /// What predicted it.
    pub predictors: Vec<SiteId>,
}

/// A region's bulk, SD.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct BulkEntry {
    /// Mean; negative = behind.
    pub mean: f64,
    /// SD.
    pub sd: f64,
    /// Probability of being behind.
    pub p_behind: f64,
    /// Probability of being ahead.
    pub p_ahead: f64,
    /// In a word.
    pub verdict: Standing,
    /// Weighted expected shortfall.
    pub need: f64,
}

/// A region's left minus right, %.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct SideEntry {
    /// Mean; positive = left larger.
    pub mean: f64,
    /// SD.
    pub sd: f64,
    /// Probability that the left is smaller by more than the practical threshold.
    pub p_left_smaller: f64,
    /// Probability that the right is.
    pub p_right_smaller: f64,
    /// In a word.
    pub verdict: Tilt,
}

/// The verdict on a region.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct RegionEntry {
    /// The region.
    pub region: RegionId,
    /// The weight the look gives it.
    pub look_weight: f64,
    /// Against the rest of the client.
    pub bulk: BulkEntry,
    /// Left against right, for paired regions.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub asymmetry: Option<SideEntry>,
    /// What it is trained for.
    pub class: Class,
    /// The coach's own verdict.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub overruled: Option<Standing>,
    /// Why the coach overruled it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub overruled_because: Option<String>,
}

/// What to look at next.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct NextEntry {
    /// In words.
    pub what: String,
    /// `tape` or `rating`.
    pub kind: String,
    /// The site, for tape.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub site: Option<SiteId>,
    /// The region, for a rating.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub region: Option<RegionId>,
    /// Fall of the weighted variance.
    pub gain: f64,
    /// Minutes it takes.
    pub minutes: f64,
}

/// One row of the evidence model.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct ObservationEntry {
    /// Kind of evidence.
    pub kind: String,
    /// What was observed.
    pub source: String,
    /// The observation, SD or %.
    pub y: f64,
    /// Variance of its error.
    pub variance: f64,
    /// Weight by `b:<region>` or `a:<region>`.
    pub row: BTreeMap<String, f64>,
}

/// The file of an assessment.
pub fn assessment_file(knowledge: &Knowledge, case: &Case, assessment: &Assessment, explain: bool) -> AssessmentFile {
    let regions = assessment.regions.iter().zip(&assessment.classes);
    AssessmentFile {
        format: "orthomer-assessment".to_owned(),
        version: 1,
        as_of: case.as_of.to_string(),
        round: case.rounds.last().map(|round| round.date.to_string()),
        sites: sites(assessment),
        asymmetries: asymmetries(assessment),
        reference: reference(knowledge, &assessment.reference),
        regions: regions.map(|(verdict, class)| region(verdict, *class)).collect(),
        next: assessment.next.iter().map(next).collect(),
        warnings: warnings(&knowledge.atlas, case),
        observations: explain.then(|| assessment.observations.iter().map(|o| observation(knowledge, o)).collect()),
    }
}

fn sites(assessment: &Assessment) -> Vec<SiteEntry> {
    let each = assessment.measured.sites.iter().map(|m| SiteEntry {
        site: m.site.clone(),
        side: m.side,
        value_cm: m.value_cm,
        se_cm: m.se_cm,
        tem_pct: m.tem_pct,
        readings: m.readings,
        difference_pct: m.difference_pct,
        needs_third: m.needs_third,
        carried_over: m.carried_over,
    });
    each.collect()
}

fn asymmetries(assessment: &Assessment) -> Vec<AsymmetryEntry> {
    let each = assessment.asymmetries.iter().map(|a| AsymmetryEntry {
        site: a.site.clone(),
        left_cm: a.sides_cm.left,
        right_cm: a.sides_cm.right,
        difference_cm: a.difference_cm,
        se_cm: a.se_cm,
        symmetry_index: a.symmetry_index,
        se_index: a.se_index,
        symmetry_angle: a.symmetry_angle,
        verdict: a.verdict,
        p_beyond_threshold: a.p_beyond_threshold,
        dominance_explains: a.dominance_explains,
    });
    each.collect()
}

fn reference(knowledge: &Knowledge, reference: &Reference) -> ReferenceEntry {
    let sites = reference.sites.iter().map(|site| SizedEntry {
        site: site.site.clone(),
        observed_cm: site.observed_cm,
        expected_cm: site.size.expected_cm,
        sd_ln: site.size.sd_ln,
        z: site.size.z,
        predictors: site.predictors.clone(),
    });
    ReferenceEntry {
        population: knowledge.norms.population.clone(),
        source: knowledge.norms.source.clone(),
        n: reference.n,
        mahalanobis2: reference.mahalanobis2,
        df: reference.df,
        outside: reference.outside,
        sites: sites.collect(),
        missing: reference.missing.clone(),
    }
}

fn region(verdict: &RegionVerdict, class: Class) -> RegionEntry {
    let (overruled, because) = verdict.overruled.clone().unzip();
    let bulk = &verdict.bulk;
    RegionEntry {
        region: verdict.region.clone(),
        look_weight: verdict.look_weight,
        bulk: BulkEntry {
            mean: bulk.mean,
            sd: bulk.sd,
            p_behind: bulk.p_behind,
            p_ahead: bulk.p_ahead,
            verdict: bulk.standing,
            need: bulk.need,
        },
        asymmetry: verdict.asymmetry.map(side),
        class,
        overruled,
        overruled_because: because,
    }
}

fn side(verdict: AsymmetryVerdict) -> SideEntry {
    SideEntry {
        mean: verdict.mean,
        sd: verdict.sd,
        p_left_smaller: verdict.p_left_smaller,
        p_right_smaller: verdict.p_right_smaller,
        verdict: verdict.tilt,
    }
}

fn next(look: &NextLook) -> NextEntry {
    NextEntry {
        what: look.what.clone(),
        kind: look.kind.to_owned(),
        site: look.site.clone(),
        region: look.region.clone(),
        gain: look.gain,
        minutes: look.minutes,
    }
}

fn observation(knowledge: &Knowledge, observation: &Observation) -> ObservationEntry {
    let half = match observation.target {
        Target::Bulk => 'b',
        Target::Asymmetry => 'a',
    };
    let regions = knowledge.atlas.regions();
    let row = observation.row.iter().map(|(index, weight)| (format!("{half}:{}", regions[*index].id), *weight));
    ObservationEntry {
        kind: observation.kind.as_str().to_owned(),
        source: observation.source.clone(),
        y: observation.y,
        variance: observation.variance,
        row: row.collect(),
    }
}
