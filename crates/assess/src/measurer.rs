//! Each measurer's own technical error per site, learned from their replicate readings and shrunk to the default.

use crate::between::{Between, Value};
use crate::input::{Round, TapeMeasure};
use crate::measured::reading_error;
use crate::replicate::replicate;
use atlas::{Atlas, ErrorSettings, SiteKind};
use std::collections::{BTreeMap, BTreeSet};
use units::SiteId;

/// Sum of squares and degrees of freedom of replicate readings, in percent of their mean.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(crate) struct Spread {
    pub(crate) squares: f64,
    pub(crate) freedom: f64,
}

/// Technical errors of measurement by measurer and site.
#[derive(Clone, Debug, Default)]
pub struct MeasurerErrors {
    tape: Spreads,
    folds: Spreads,
    /// At all sites of the tape together, in units of each site's default.
    overall: BTreeMap<String, Spread>,
    /// From round to round.
    between: Between,
}

/// By measurer, then by site.
#[derive(Clone, Debug, Default)]
struct Spreads(BTreeMap<String, BTreeMap<SiteId, Spread>>);

impl Spreads {
    fn add(&mut self, measurer: &str, site: &SiteId, readings: impl Iterator<Item = f64> + Clone) {
        if !self.0.contains_key(measurer) {
            self.0.insert(measurer.to_owned(), BTreeMap::new());
        }
        let Some(sites) = self.0.get_mut(measurer) else { return };
        match sites.get_mut(site) {
            Some(spread) => spread.add(readings, 1.0),
            None => sites.entry(site.clone()).or_default().add(readings, 1.0),
        }
    }

    fn of(&self, measurer: &str, site: &SiteId) -> Spread {
        self.0.get(measurer).and_then(|sites| sites.get(site)).copied().unwrap_or_default()
    }
}

impl MeasurerErrors {
    /// Learns from one client's rounds, oldest first: replicate readings, and how values scatter from round to round.
    pub fn learn(atlas: &Atlas, rounds: &[Round]) -> Self {
        let mut errors = Self::default();
        for round in rounds {
            errors.add_readings(atlas, round);
        }
        errors.add_client(atlas, rounds);
        errors
    }

    /// Learns from how one client's values scatter over their rounds, oldest first; the rounds' readings come first.
    pub fn add_client(&mut self, atlas: &Atlas, rounds: &[Round]) {
        let mut between = std::mem::take(&mut self.between);
        between.add(atlas, rounds, |round, measure| self.value(atlas, round, measure));
        self.between = between;
    }

    fn value(&self, atlas: &Atlas, round: &Round, measure: &TapeMeasure) -> Option<Value> {
        let readings: Vec<f64> = measure.readings.iter().map(|r| r.cm()).collect();
        let combined = replicate(&readings, f64::INFINITY)?;
        let reading = reading_error(self.tem_pct(atlas, &round.measured_by, &measure.site), combined.readings);
        Some(Value { on: round.date, percent: 100.0 * combined.value.ln(), reading: reading.powi(2) })
    }

    /// Learns from the readings of one more round.
    pub fn add_readings(&mut self, atlas: &Atlas, round: &Round) {
        let overall = self.overall.entry(round.measured_by.clone()).or_default();
        for measure in &round.tape {
            let readings = measure.readings.iter().map(|r| r.cm());
            if measure.readings.len() > 1 {
                overall.add(readings.clone(), default_pct(atlas, &atlas.evidence().error, &measure.site));
            }
            self.tape.add(&round.measured_by, &measure.site, readings);
        }
        for fold in &round.skinfolds {
            self.folds.add(&round.measured_by, &fold.site, fold.readings.iter().map(|r| r.mm()));
        }
    }

    /// %TEM of `measurer` at `site`, percent of the value.
    ///
    /// `TEM^2 = (n0 usual^2 + sum d^2/2) / (n0 + n)` over the measurer's pairs of readings at the site (Perini et al. 2005 for
    /// TEM; the pooling is common practice), `usual` being the default as this measurer's hand is at all sites together: who
    /// reads unsteadily at one site does so at others. Three readings count with their sum of squares and two degrees of
    /// freedom, which for a pair is the same `d^2/2` and one.
    pub fn tem_pct(&self, atlas: &Atlas, measurer: &str, site: &SiteId) -> f64 {
        let settings = &atlas.evidence().error;
        let usual_pct = default_pct(atlas, settings, site) * self.unsteadiness(atlas, measurer);
        let spread = self.tape.of(measurer, site);
        pooled_tem_pct(usual_pct, settings.prior_pairs, spread.squares, spread.freedom)
    }

    /// A measurer's error at all sites together, as a multiple of the default.
    fn unsteadiness(&self, atlas: &Atlas, measurer: &str) -> f64 {
        let Spread { squares, freedom } = self.overall.get(measurer).copied().unwrap_or_default();
        pooled_tem_pct(1.0, atlas.evidence().error.prior_pairs, squares, freedom)
    }

    /// Error of finding a site's place anew on another day, percent of the value:
    /// `s^2 = (n0 default^2 + squares) / (n0 + n)` over the values of one measurer beyond a straight line per client and site.
    pub fn placing_pct(&self, atlas: &Atlas, measurer: &str, site: &SiteId) -> f64 {
        self.between.placing(atlas, measurer, kind(atlas, site)).0
    }

    /// The same at a girth, with the values it was learned from.
    pub fn placing_learned(&self, atlas: &Atlas, measurer: &str) -> (f64, f64) {
        self.between.placing(atlas, measurer, SiteKind::Girth)
    }

    /// How far two measurers' girths of one body differ, all alike, % of the value, with the pairs of rounds it was learned
    /// from; pooled as placing is.
    pub fn hand_learned(&self, atlas: &Atlas) -> (f64, f64) {
        self.between.hand(atlas)
    }

    /// What two rounds' girths may differ by for want of one hand, % of the value.
    pub fn hand_pct(&self, atlas: &Atlas, then: &Round, now: &Round) -> f64 {
        if then.measured_by == now.measured_by { 0.0 } else { self.between.hand(atlas).0 }
    }

    /// %TEM of `measurer` at a skinfold, percent of the value; pooled as [`Self::tem_pct`] is.
    pub fn fold_tem_pct(&self, atlas: &Atlas, measurer: &str, site: &SiteId) -> f64 {
        let settings = &atlas.evidence().error;
        let spread = self.folds.of(measurer, site);
        pooled_tem_pct(settings.skinfold_pct, settings.prior_pairs, spread.squares, spread.freedom)
    }
}

/// What was learned of one measurer at one site.
#[derive(Clone, Debug, PartialEq)]
pub struct LearnedError {
    /// The site.
    pub site: SiteId,
    /// Whether it is a skinfold.
    pub fold: bool,
    /// Pooled with the default, % of the value.
    pub tem_pct: f64,
    /// The default, %.
    pub default_pct: f64,
    /// Pairs of readings it was learned from.
    pub pairs: f64,
}

impl MeasurerErrors {
    /// Everyone who measured, by name.
    pub fn measurers(&self) -> BTreeSet<&str> {
        self.tape.0.keys().chain(self.folds.0.keys()).map(String::as_str).collect()
    }

    /// What was learned of a measurer, sites with at least one pair of readings, the most read first.
    pub fn learned(&self, atlas: &Atlas, measurer: &str) -> Vec<LearnedError> {
        let settings = &atlas.evidence().error;
        let of = |spreads: &Spreads, fold: bool| -> Vec<LearnedError> {
            let sites = spreads.0.get(measurer).into_iter().flatten();
            let learned = sites.filter(|(_, spread)| spread.freedom > 0.0).map(|(site, spread)| {
                let (default_pct, tem_pct) = if fold {
                    (settings.skinfold_pct, self.fold_tem_pct(atlas, measurer, site))
                } else {
                    (default_pct(atlas, settings, site), self.tem_pct(atlas, measurer, site))
                };
                LearnedError { site: site.clone(), fold, tem_pct, default_pct, pairs: spread.freedom }
            });
            learned.collect()
        };
        let mut all = of(&self.tape, false);
        all.extend(of(&self.folds, true));
        all.sort_by(|a, b| b.pairs.total_cmp(&a.pairs));
        all
    }

    /// A measurer's error over all sites together, as it is at a girth, % of the value; and the pairs behind it.
    pub fn overall(&self, atlas: &Atlas, measurer: &str) -> (f64, f64) {
        let pairs = self.overall.get(measurer).map_or(0.0, |spread| spread.freedom);
        (atlas.evidence().error.girth_pct * self.unsteadiness(atlas, measurer), pairs)
    }
}

impl Spread {
    pub(crate) fn add_squares(&mut self, squares: f64, freedom: f64) {
        self.squares += squares;
        self.freedom += freedom;
    }

    /// Readings in units of `unit_pct` percent of their mean.
    fn add(&mut self, readings: impl Iterator<Item = f64> + Clone, unit_pct: f64) {
        let count = readings.clone().count() as f64;
        if count < 2.0 {
            return;
        }
        let mean = readings.clone().sum::<f64>() / count;
        self.squares += readings.map(|r| (100.0 * (r - mean) / mean / unit_pct).powi(2)).sum::<f64>();
        self.freedom += count - 1.0;
    }
}

fn default_pct(atlas: &Atlas, settings: &ErrorSettings, site: &SiteId) -> f64 {
    match kind(atlas, site) {
        SiteKind::Breadth => settings.breadth_pct,
        SiteKind::Girth => settings.girth_pct,
    }
}

/// What kind of site it is; one the atlas does not know is taken as the commonest.
pub(crate) fn kind(atlas: &Atlas, site: &SiteId) -> SiteKind {
    atlas.site(site).map_or(SiteKind::Girth, |site| site.kind)
}

fn pooled_tem_pct(default_pct: f64, prior_pairs: f64, squares: f64, freedom: f64) -> f64 {
    ((prior_pairs * default_pct.powi(2) + squares) / (prior_pairs + freedom)).sqrt()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    // By hand: ten pairs' worth of 1 %, then n pairs each differing by d %.
    #[rstest]
    #[case::nothing_measured_leaves_the_default(0.0, 0.0, 1.0)]
    #[case::ten_pairs_without_any_difference_halve_the_variance(0.0, 10.0, 0.5_f64.sqrt())]
    #[case::ten_pairs_two_percent_apart(10.0 * 4.0 / 2.0, 10.0, 1.5_f64.sqrt())]
    fn a_measurers_error_is_shrunk_to_the_default(#[case] squares: f64, #[case] pairs: f64, #[case] expected: f64) {
        assert!((pooled_tem_pct(1.0, 10.0, squares, pairs) - expected).abs() < 1e-12);
    }
}
