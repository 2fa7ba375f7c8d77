//! Change since an earlier round: real, or no more than two measurements may differ.

use crate::between::since;
use crate::input::Round;
use crate::measured::{MeasuredSite, Measurements, measure_one_round};
use crate::measurer::MeasurerErrors;
use crate::photographed::PictureGirth;
use atlas::{Atlas, SiteKind};
use jiff::civil::Date;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use statrs::distribution::{ContinuousCDF, Normal};
use units::{Side, SiteId};
use utoipa::ToSchema;

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
    /// Over all rounds that have it, where they are three or more.
    pub slope: Option<Slope>,
    /// Whether both values are from pictures.
    pub from_pictures: bool,
}

/// How a girth went over three rounds or more: all of them speak, not the first and the last alone.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, JsonSchema, ToSchema)]
pub struct Slope {
    /// How many rounds.
    pub rounds: usize,
    /// Change a week, cm.
    pub a_week_cm: f64,
    /// Its standard error by what was measured, cm a week.
    pub se_cm: f64,
    /// Whether it is more than error, so that none of the round's girths is called so by chance (95 %).
    pub real: bool,
}

/// A line by weighted least squares.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Line {
    /// Rise per unit of x.
    pub rise: f64,
    /// Standard error of that, by the errors the weights stand for.
    pub se: f64,
    weight: f64,
    mean_x: f64,
    mean_y: f64,
    spread: f64,
}

impl Line {
    /// The line at `x`.
    pub fn at(&self, x: f64) -> f64 {
        self.mean_y + self.rise * (x - self.mean_x)
    }

    /// How much a value of weight 1 at `x` pulls the line there, 0 to 1.
    pub fn leverage(&self, x: f64) -> f64 {
        self.weight.recip() + (x - self.mean_x).powi(2) / self.spread
    }
}

/// The line through points of known errors, `weights` being one over their variances. `None` from fewer than three, or all at
/// one `x`.
///
/// ```
/// let line = assess::slope(&[0.0, 1.0, 2.0], &[1.0, 1.5, 2.0], &[1.0; 3]);
/// assert!(line.is_some_and(|line| (line.rise - 0.5).abs() < 1e-12));
/// ```
pub fn slope(x: &[f64], y: &[f64], weights: &[f64]) -> Option<Line> {
    let weight: f64 = weights.iter().sum();
    let mean = |of: &[f64]| of.iter().zip(weights).map(|(value, w)| value * w).sum::<f64>() / weight;
    let (mean_x, mean_y) = (mean(x), mean(y));
    let spread: f64 = x.iter().zip(weights).map(|(x, w)| w * (x - mean_x).powi(2)).sum();
    if x.len() < 3 || spread <= 0.0 {
        return None;
    }
    let along: f64 = x.iter().zip(y).zip(weights).map(|((x, y), w)| w * (x - mean_x) * (y - mean_y)).sum();
    Some(Line { rise: along / spread, se: spread.sqrt().recip(), weight, mean_x, mean_y, spread })
}

/// How many SD of noise a change must exceed so that among `comparisons` of them not one does by chance in 95 of 100
/// (Sidak 1967): two-sided, `1 - 0.95^(1/m)`.
///
/// ```
/// assert!((assess::family_factor(1) - 1.960).abs() < 0.001);
/// assert!((assess::family_factor(10) - 2.800).abs() < 0.001);
/// ```
pub fn family_factor(comparisons: usize) -> f64 {
    let tail = (1.0 - CONFIDENCE.powf(1.0 / comparisons.max(1) as f64)) / 2.0;
    Normal::standard().inverse_cdf(1.0 - tail)
}

/// Minimal detectable change among `comparisons` of them with 95 % confidence, in the unit of `noise`, the SD of one change
/// by error alone.
///
/// ```
/// assert!((assess::mdc95(1.5, 1) - 2.940).abs() < 0.001);
/// ```
pub fn mdc95(noise: f64, comparisons: usize) -> f64 {
    family_factor(comparisons) * noise
}

/// SD of the noise between two values of a site, cm: reading and placing of both, and `hand_pct` of another's hand.
pub fn change_noise(then: &MeasuredSite, now: &MeasuredSite, hand_pct: f64) -> f64 {
    let hand_cm = f64::midpoint(then.value_cm, now.value_cm) * hand_pct / 100.0;
    then.se_cm.hypot(now.se_cm).hypot(hand_cm)
}

/// A girth at the newest round and at the latest earlier one that has it.
struct Pair<'a> {
    site: &'a SiteId,
    side: Option<Side>,
    now_cm: f64,
    then_cm: f64,
    since: Date,
    /// SD of the change by error, what both sides share apart, cm.
    noise_cm: f64,
    shared_cm: f64,
    slope: Option<Line>,
    rounds: usize,
    from_pictures: bool,
}

/// Changes of every girth of the newest round against the latest earlier round that has it. Both sides of a site are judged
/// together first: one alone moved really only where their mean did. Sites that no tape compares are compared by pictures.
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
    let taped = measured.sites.iter().filter(girth).filter_map(|now| {
        let (round, then) = before.iter().find_map(|(round, m)| Some((*round, m.find(&now.site, now.side)?)))?;
        let (slope, compared) = line_of(atlas, errors, rounds, &before, now).unzip();
        Some(Pair {
            site: &now.site,
            side: now.side,
            now_cm: now.value_cm,
            then_cm: then.value_cm,
            since: round.date,
            noise_cm: change_noise(then, now, errors.hand_pct(atlas, round, newest)),
            shared_cm: 0.0,
            slope,
            rounds: compared.unwrap_or_default(),
            from_pictures: false,
        })
    });
    let mut pairs: Vec<Pair> = taped.collect();
    let pictured: Vec<Pair> = newest.picture_girths.iter().filter_map(|now| seen_pair(atlas, rounds, now)).collect();
    let untaped = |pair: &Pair| pairs.iter().all(|taped| taped.site != pair.site);
    let pictured: Vec<Pair> = pictured.into_iter().filter(untaped).collect();
    pairs.extend(pictured);
    let mut sites: Vec<&SiteId> = pairs.iter().map(|pair| pair.site).collect();
    sites.sort_unstable();
    sites.dedup();
    let factor = family_factor(sites.len());
    let site_moved = |site: &SiteId| {
        let own: Vec<&Pair> = pairs.iter().filter(|pair| pair.site == site).collect();
        let change: f64 = own.iter().map(|pair| pair.now_cm - pair.then_cm).sum();
        let shared: f64 = own.iter().map(|pair| pair.shared_cm).sum();
        change.abs() > factor * own.iter().map(|pair| pair.noise_cm.powi(2)).sum::<f64>().sqrt().hypot(shared)
    };
    pairs.iter().map(|pair| pair.change(factor, site_moved(pair.site))).collect()
}

/// A girth from pictures against that of the latest earlier round that rests on the same: the constants of both are equal and
/// cancel, the scale of each day is common to both sides.
fn seen_pair<'a>(atlas: &Atlas, rounds: &'a [Round], now: &'a PictureGirth) -> Option<Pair<'a>> {
    let settings = &atlas.evidence().pictures_pct;
    let same = |girth: &&PictureGirth| girth.site == now.site && girth.side == now.side && girth.from == now.from;
    let seen = rounds.iter().filter_map(|round| Some((round.date, round.picture_girths.iter().find(same)?.value.cm())));
    let seen: Vec<(Date, f64)> = seen.collect();
    let [.., (since_day, then_cm), (newest, now_cm)] = seen[..] else { return None };
    let of = |pct: f64| f64::midpoint(then_cm, now_cm) * pct / 100.0 * std::f64::consts::SQRT_2;
    let weeks: Vec<f64> = seen.iter().map(|(day, _)| since(newest, *day) / 7.0).collect();
    let values: Vec<f64> = seen.iter().map(|(_, cm)| *cm).collect();
    let repeat = settings.repeat_pct(&now.site);
    let error = settings.scale.hypot(repeat) / 100.0;
    let weights: Vec<f64> = values.iter().map(|cm| (cm * error).powi(-2)).collect();
    Some(Pair {
        site: &now.site,
        side: now.side,
        now_cm,
        then_cm,
        since: since_day,
        noise_cm: of(repeat),
        shared_cm: of(settings.scale),
        slope: slope(&weeks, &values, &weights),
        rounds: seen.len(),
        from_pictures: true,
    })
}

/// A girth over all rounds that have it, with how many; where more than one has measured, each value carries a hand's error too.
fn line_of(
    atlas: &Atlas,
    errors: &MeasurerErrors,
    rounds: &[Round],
    before: &[(&Round, Measurements)],
    now: &MeasuredSite,
) -> Option<(Line, usize)> {
    let newest = rounds.last()?;
    let earlier = before.iter().filter_map(|(round, m)| Some((*round, m.find(&now.site, now.side)?)));
    let all: Vec<(&Round, &MeasuredSite)> = earlier.chain([(newest, now)]).collect();
    let one_hand = all.iter().all(|(round, _)| round.measured_by == newest.measured_by);
    // Between two of them it is the whole; each carries half of its variance.
    let hand_pct = if one_hand { 0.0 } else { errors.hand_learned(atlas).0 / std::f64::consts::SQRT_2 };
    let weeks: Vec<f64> = all.iter().map(|(round, _)| since(newest.date, round.date) / 7.0).collect();
    let values: Vec<f64> = all.iter().map(|(_, site)| site.value_cm).collect();
    let weights = all.iter().map(|(_, site)| site.se_cm.hypot(hand_pct / 100.0 * site.value_cm).powi(-2));
    Some((slope(&weeks, &values, &weights.collect::<Vec<f64>>())?, all.len()))
}

impl Pair<'_> {
    fn change(&self, factor: f64, site_moved: bool) -> Change {
        let change_cm = self.now_cm - self.then_cm;
        let mdc95_cm = factor * self.noise_cm.hypot(self.shared_cm);
        let slope = |line: Line| Slope {
            rounds: self.rounds,
            a_week_cm: line.rise,
            se_cm: line.se,
            real: line.rise.abs() > factor * line.se,
        };
        Change {
            site: self.site.clone(),
            side: self.side,
            since: self.since,
            before_cm: self.then_cm,
            change_cm,
            mdc95_cm,
            real: site_moved && change_cm.abs() > mdc95_cm,
            together: site_moved,
            slope: self.slope.map(slope),
            from_pictures: self.from_pictures,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    // numpy 2.3.4: np.polyfit(x, y, 1, w=1/se, cov="unscaled"), the rise and the root of its variance.
    #[rstest]
    #[case::errors_alike(&[0.0, 4.0, 12.0], &[36.0, 36.3, 36.5], &[0.3, 0.3, 0.3], (0.039_285_714_285_714_535, 0.034_718_253_741_470_67))]
    #[case::one_badly_measured(&[0.0, 4.0, 8.0, 12.0], &[36.0, 37.5, 36.4, 36.5], &[0.2, 0.9, 0.3, 0.3], (0.042_710_196_779_964_04, 0.028_105_426_999_667_373))]
    fn a_slope_is_that_of_weighted_least_squares(
        #[case] x: &[f64],
        #[case] y: &[f64],
        #[case] se: &[f64],
        #[case] expected: (f64, f64),
    ) {
        let weights: Vec<f64> = se.iter().map(|se| se.powi(-2)).collect();
        let line = slope(x, y, &weights).unwrap();
        assert!((line.rise - expected.0).abs() < 1e-9 && (line.se - expected.1).abs() < 1e-9, "{line:?}");
    }

    // scipy.stats.norm.ppf(1 - (1 - 0.95 ** (1 / m)) / 2), scipy 1.16.3.
    #[rstest]
    #[case::one_is_the_plain_factor(1, 1.959_963_984_540_054)]
    #[case::twelve_girths(12, 2.857_842_623_948_936_3)]
    #[case::twenty(20, 3.015_994_533_489_952)]
    fn the_more_is_compared_the_more_a_change_must_be(#[case] comparisons: usize, #[case] expected: f64) {
        assert!((family_factor(comparisons) - expected).abs() < 1e-9);
    }
}
