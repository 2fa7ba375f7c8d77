//! Change since an earlier round: real, or no more than two measurements may differ.

use crate::input::Round;
use crate::measured::{MeasuredSite, Measurements, measure_one_round};
use crate::measurer::MeasurerErrors;
use atlas::{Atlas, SiteKind};
use jiff::civil::Date;
use statrs::distribution::{ContinuousCDF, Normal};
use units::{Side, SiteId};

/// That none of all comparisons calls noise a change.
const CONFIDENCE: f64 = 0.95;

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
    /// Smallest change that is more than error, so that none of the round's girths is called changed by chance (95 %), cm.
    pub mdc95_cm: f64,
    /// Whether it is.
    pub real: bool,
    /// Whether both sides together changed really; the site's own change where it has no sides.
    pub together: bool,
}

/// How many SD of noise a change must exceed so that among `comparisons` of them not one does by chance in 95 of 100
/// (Sidak 1967): two-sided, `1 - 0.95^(1/m)`.
pub fn family_factor(comparisons: usize) -> f64 {
    let tail = (1.0 - CONFIDENCE.powf(1.0 / comparisons.max(1) as f64)) / 2.0;
    Normal::standard().inverse_cdf(1.0 - tail)
}

/// Minimal detectable change among `comparisons` of them with 95 % confidence, in the unit of `noise`, the SD of one change
/// by error alone.
pub fn mdc95(noise: f64, comparisons: usize) -> f64 {
    family_factor(comparisons) * noise
}

/// SD of the noise between two values of a site, cm: reading and placing of both, and the hand where it was another's.
pub fn change_noise(atlas: &Atlas, then: &MeasuredSite, now: &MeasuredSite, same_hand: bool) -> f64 {
    let hand_pct = if same_hand { 0.0 } else { atlas.evidence().error.hand_pct };
    let hand_cm = f64::midpoint(then.value_cm, now.value_cm) * hand_pct / 100.0;
    then.se_cm.hypot(now.se_cm).hypot(hand_cm)
}

/// A girth at the newest round and at the latest earlier one that has it.
struct Pair<'a> {
    now: &'a MeasuredSite,
    then: &'a MeasuredSite,
    since: Date,
    noise_cm: f64,
}

/// Changes of every girth of the newest round against the latest earlier round that has it. Both sides of a site are judged
/// together first: one alone moved really only where their mean did.
pub(crate) fn changes(
    atlas: &Atlas,
    rounds: &[Round],
    measured: &Measurements,
    errors: &MeasurerErrors,
) -> Vec<Change> {
    let Some((newest, earlier)) = rounds.split_last() else { return Vec::new() };
    let before: Vec<(&Round, Measurements)> =
        earlier.iter().rev().map(|round| (round, measure_one_round(atlas, round, errors))).collect();
    let girth = |site: &&MeasuredSite| atlas.site(&site.site).is_some_and(|s| s.kind == SiteKind::Girth);
    let pairs = measured.sites.iter().filter(girth).filter_map(|now| {
        let (round, then) = before.iter().find_map(|(round, m)| Some((*round, m.find(&now.site, now.side)?)))?;
        let noise_cm = change_noise(atlas, then, now, round.measured_by == newest.measured_by);
        Some(Pair { now, then, since: round.date, noise_cm })
    });
    let pairs: Vec<Pair> = pairs.collect();
    let mut sites: Vec<&SiteId> = pairs.iter().map(|pair| &pair.now.site).collect();
    sites.sort_unstable();
    sites.dedup();
    let factor = family_factor(sites.len());
    let site_moved = |site: &SiteId| {
        let own: Vec<&Pair> = pairs.iter().filter(|pair| pair.now.site == *site).collect();
        let change: f64 = own.iter().map(|pair| pair.now.value_cm - pair.then.value_cm).sum();
        change.abs() > factor * own.iter().map(|pair| pair.noise_cm.powi(2)).sum::<f64>().sqrt()
    };
    pairs.iter().map(|pair| pair.change(factor, site_moved(&pair.now.site))).collect()
}

impl Pair<'_> {
    fn change(&self, factor: f64, site_moved: bool) -> Change {
        let change_cm = self.now.value_cm - self.then.value_cm;
        let mdc95_cm = factor * self.noise_cm;
        Change {
            site: self.now.site.clone(),
            side: self.now.side,
            since: self.since,
            before_cm: self.then.value_cm,
            change_cm,
            mdc95_cm,
            real: site_moved && change_cm.abs() > mdc95_cm,
            together: site_moved,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    // scipy.stats.norm.ppf(1 - (1 - 0.95 ** (1 / m)) / 2), scipy 1.16.3.
    #[rstest]
    #[case::one_is_the_plain_factor(1, 1.959_963_984_540_054)]
    #[case::twelve_girths(12, 2.857_842_623_948_936_3)]
    #[case::twenty(20, 3.015_994_533_489_952)]
    fn the_more_is_compared_the_more_a_change_must_be(#[case] comparisons: usize, #[case] expected: f64) {
        assert!((family_factor(comparisons) - expected).abs() < 1e-9);
    }
}
