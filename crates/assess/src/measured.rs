//! A round's tape as values with errors.

use crate::input::{Round, TapeMeasure};
use crate::measurer::MeasurerErrors;
use crate::replicate::replicate;
use atlas::{Atlas, SiteKind};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use units::{Side, Sides, SiteId};
use utoipa::ToSchema;

/// The value of one site on one side.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct MeasuredSite {
    /// The site.
    pub site: SiteId,
    /// The side at a paired site.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// Value, cm.
    pub value_cm: f64,
    /// Standard error of the value against another place or day: reading it and finding its place, cm.
    pub se_cm: f64,
    /// Technical error of a single reading, percent.
    pub tem_pct: f64,
    /// How many readings.
    pub readings: usize,
    /// First against second reading, percent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub difference_pct: Option<f64>,
    /// Whether a third reading is due.
    pub needs_third: bool,
    /// Carried over from an earlier round: a bone breadth, which does not change.
    pub carried_over: bool,
}

/// All values of a round.
#[derive(Clone, Debug, Default)]
pub struct Measurements {
    /// Values in the order taken.
    pub sites: Vec<MeasuredSite>,
}

impl Measurements {
    /// The value at a site, by side where it has sides.
    pub fn find(&self, site: &SiteId, side: Option<Side>) -> Option<&MeasuredSite> {
        self.sites.iter().find(|m| m.site == *site && m.side == side)
    }

    /// Both sides of a paired site, when both were taken.
    pub fn sides(&self, site: &SiteId) -> Option<Sides<&MeasuredSite>> {
        let of = |side| self.find(site, Some(side));
        Sides { left: of(Side::Left), right: of(Side::Right) }.both()
    }

    /// One value for a site: the mean of both sides where both were taken, else the one there is; with the relative error
    /// variance of that value.
    pub fn overall(&self, site: &SiteId) -> Option<Overall> {
        if let Some(sides) = self.sides(site) {
            let value_cm = f64::midpoint(sides.left.value_cm, sides.right.value_cm);
            let variance = (sides.left.se_cm.powi(2) + sides.right.se_cm.powi(2)) / 4.0;
            return Some(Overall { value_cm, error_variance_ln: variance / value_cm.powi(2) });
        }
        let only = self.sites.iter().find(|m| m.site == *site)?;
        Some(Overall { value_cm: only.value_cm, error_variance_ln: (only.se_cm / only.value_cm).powi(2) })
    }
}

/// A site's size regardless of side.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Overall {
    /// Size, cm.
    pub value_cm: f64,
    /// Variance of the measuring error of its logarithm: reading and placing.
    pub error_variance_ln: f64,
}

/// The values of the newest round, with bone breadths carried over from earlier rounds when it has none of its own.
pub fn measure_round(atlas: &Atlas, rounds: &[Round], errors: &MeasurerErrors) -> Measurements {
    let Some((newest, earlier)) = rounds.split_last() else { return Measurements::default() };
    let mut sites = measure_one_round(atlas, newest, errors).sites;
    for round in earlier.iter().rev() {
        for measure in round.tape.iter().filter(|m| is_breadth(atlas, &m.site)) {
            if sites.iter().all(|s| s.site != measure.site) {
                sites.extend(value(atlas, round, measure, errors, true));
            }
        }
    }
    Measurements { sites }
}

/// The values of one round, nothing carried over.
pub(crate) fn measure_one_round(atlas: &Atlas, round: &Round, errors: &MeasurerErrors) -> Measurements {
    Measurements { sites: round.tape.iter().filter_map(|m| value(atlas, round, m, errors, false)).collect() }
}

/// Error of a value of so many readings from the TEM of one, in the unit of that: of one, the mean of two, the median of three.
pub(crate) fn reading_error(tem: f64, readings: usize) -> f64 {
    match readings {
        0 | 1 => tem,
        2 => tem / std::f64::consts::SQRT_2,
        // The median of three normal readings has an SD of 0.67 of one.
        _ => 0.67 * tem,
    }
}

/// Percent by which two readings of a girth or breadth may differ without a third: the rule, and never less than this
/// measurer's own error calls for.
pub fn third_reading_from(atlas: &Atlas, tem_pct: f64) -> f64 {
    let error = &atlas.evidence().error;
    error.third_reading_girth_pct.max(error.third_reading_tem * tem_pct)
}

fn is_breadth(atlas: &Atlas, site: &SiteId) -> bool {
    atlas.site(site).is_some_and(|s| s.kind == SiteKind::Breadth)
}

fn value(
    atlas: &Atlas,
    round: &Round,
    measure: &TapeMeasure,
    errors: &MeasurerErrors,
    carried_over: bool,
) -> Option<MeasuredSite> {
    let readings: Vec<f64> = measure.readings.iter().map(|r| r.cm()).collect();
    let tem_pct = errors.tem_pct(atlas, &round.measured_by, &measure.site);
    let combined = replicate(&readings, third_reading_from(atlas, tem_pct))?;
    let placing_pct = errors.placing_pct(atlas, &round.measured_by, &measure.site);
    Some(MeasuredSite {
        site: measure.site.clone(),
        side: measure.side,
        value_cm: combined.value,
        se_cm: combined.value * reading_error(tem_pct, combined.readings).hypot(placing_pct) / 100.0,
        tem_pct,
        readings: combined.readings,
        difference_pct: combined.difference_pct,
        needs_third: combined.needs_third,
        carried_over,
    })
}
