//! Change since an earlier round: real, or no more than two measurements may differ.

use crate::input::Round;
use crate::measured::{MeasuredSite, Measurements, measure_one_round};
use crate::measurer::MeasurerErrors;
use atlas::{Atlas, SiteKind};
use jiff::civil::Date;
use units::{Side, SiteId};

/// Two-sided 95 % of a normal distribution, SD.
const TWO_SIDED_95: f64 = 1.96;

/// A site's change between two rounds.
#[derive(Clone, Debug, PartialEq)]
pub struct Change {
    /// The site.
    pub site: SiteId,
    /// The side at a paired site.
    pub side: Option<Side>,
    /// The earlier round.
    pub since: Date,
    /// Value then, cm.
    pub before_cm: f64,
    /// Now less then, cm.
    pub change_cm: f64,
    /// Smallest change that is more than error, cm.
    pub mdc95_cm: f64,
    /// Whether it is.
    pub real: bool,
}

/// Minimal detectable change with 95 % confidence: `1.96 sqrt(SE1^2 + SE2^2 + 2 day^2)`, all in one unit; `day` is the
/// day-to-day SD.
pub fn mdc95(se_before: f64, se_now: f64, day: f64) -> f64 {
    TWO_SIDED_95 * (se_before.powi(2) + se_now.powi(2) + 2.0 * day.powi(2)).sqrt()
}

/// Changes of every girth of the newest round against the latest earlier round that has it.
pub(crate) fn changes(
    atlas: &Atlas,
    rounds: &[Round],
    measured: &Measurements,
    errors: &MeasurerErrors,
) -> Vec<Change> {
    let Some((_, earlier)) = rounds.split_last() else { return Vec::new() };
    let before: Vec<(Date, Measurements)> =
        earlier.iter().rev().map(|round| (round.date, measure_one_round(atlas, round, errors))).collect();
    let girth = |site: &MeasuredSite| atlas.site(&site.site).is_some_and(|s| s.kind == SiteKind::Girth);
    let now = measured.sites.iter().filter(|site| girth(site));
    now.filter_map(|now| {
        let (since, then) = before.iter().find_map(|(date, m)| Some((*date, m.find(&now.site, now.side)?)))?;
        Some(change(atlas, now, then, since))
    })
    .collect()
}

fn change(atlas: &Atlas, now: &MeasuredSite, then: &MeasuredSite, since: Date) -> Change {
    let day_cm = f64::midpoint(now.value_cm, then.value_cm) * atlas.evidence().error.day_to_day_pct / 100.0;
    let change_cm = now.value_cm - then.value_cm;
    let mdc95_cm = mdc95(then.se_cm, now.se_cm, day_cm);
    Change {
        site: now.site.clone(),
        side: now.side,
        since,
        before_cm: then.value_cm,
        change_cm,
        mdc95_cm,
        real: change_cm.abs() > mdc95_cm,
    }
}
